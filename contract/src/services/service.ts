import { z } from 'zod';
import { Address, Id, Micros, Name } from '../id.ts';

export const ServiceRole = z.enum(['writer', 'illustrator', 'look-up', 'video host', 'keyword service', 'transcriber']);

export const Price = z.strictObject({
  microsPerThousandIn: Micros,
  microsPerThousandOut: Micros,
  microsPerPicture: Micros,
  /** Of sound that is heard. */
  microsPerMinute: Micros.default(0),
});

export const NewService = z.strictObject({
  role: ServiceRole,
  name: Name,
  address: Address,
  model: z.string().max(120).default(''),
  secret: z.string().max(1_000).nullable().default(null),
  price: Price,
  /** Calls at once, over all workers. */
  permits: z.int().min(1).max(100).default(4),
  timeLimitMs: z.int().min(1_000).max(600_000).default(60_000),
});

export const NewSecret = z.strictObject({ secret: z.string().trim().min(1, 'a secret').max(1_000) });

export const Service = z.object({
  id: Id,
  role: ServiceRole,
  name: z.string(),
  address: z.string(),
  model: z.string(),
  price: Price,
  permits: z.int(),
  hasSecret: z.boolean(),
  rev: z.int(),
});
export type Service = z.infer<typeof Service>;
export const Services = z.object({ services: z.array(Service) });

/** What can be changed of a service; the secret has a request of its own. */
export const ServiceChange = NewService.pick({ name: true, model: true, price: true, permits: true, timeLimitMs: true })
  .partial()
  .strict();

export const HookAddress = z.strictObject({ address: z.url({ protocol: /^https?$/ }) });
export const HookSecret = z.object({ origin: z.string(), secret: z.string() });
