import { z } from 'zod';
import { Address, Id, Micros, Name } from '../id.ts';

export const ServiceRole = z.enum([
  'writer',
  'illustrator',
  'look-up',
  'video host',
  'keyword service',
  'transcriber',
  'picture library',
]);

export const Price = z.strictObject({
  microsPerThousandIn: Micros,
  microsPerThousandOut: Micros,
  microsPerPicture: Micros,
  /** Of sound that is heard. */
  microsPerMinute: Micros.default(0),
});

/** What can be changed of a service; nothing stands in for what a change leaves out. */
const changeable = {
  name: Name,
  model: z.string().max(120),
  price: Price,
  /** Calls at once, over all workers. */
  permits: z.int().min(1).max(100),
  /** Calls begun in a minute, over all workers; null for any number. */
  callsAMinute: z.int().min(1).max(10_000).nullable(),
  timeLimitMs: z.int().min(1_000).max(600_000),
};

export const NewService = z.strictObject({
  ...changeable,
  role: ServiceRole,
  address: Address,
  model: changeable.model.default(''),
  secret: z.string().max(1_000).nullable().default(null),
  permits: changeable.permits.default(4),
  callsAMinute: changeable.callsAMinute.default(null),
  timeLimitMs: changeable.timeLimitMs.default(60_000),
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
  callsAMinute: z.int().nullable(),
  hasSecret: z.boolean(),
  /** Whether it is the one of its role that steps use. */
  used: z.boolean(),
  rev: z.int(),
});
export type Service = z.infer<typeof Service>;
export const Services = z.object({ services: z.array(Service) });

/** A change of a service; the secret has a request of its own. */
export const ServiceChange = z.strictObject(changeable).partial();

export const HookAddress = z.strictObject({ address: z.url({ protocol: /^https?$/ }) });
export const HookSecret = z.object({ origin: z.string(), secret: z.string() });
