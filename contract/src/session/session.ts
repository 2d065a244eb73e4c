import { z } from 'zod';
import { Id, Name } from '../id.ts';

export const Role = z.enum(['owner', 'editor', 'proofreader']);
export type Role = z.infer<typeof Role>;

export const SignIn = z.strictObject({ email: z.string().max(190), password: z.string().max(500) });

export const Person = z.object({ id: Id, email: z.string(), name: z.string(), role: Role });
export type Person = z.infer<typeof Person>;
export const People = z.object({ people: z.array(Person) });

const Password = z.string().min(10, 'at least 10 characters').max(500);

export const NewPerson = z.strictObject({
  email: z.email('an address as ines@crockhaven.example').max(190),
  name: Name,
  role: Role,
  password: Password,
});

/** Another name or role of a person. */
export const PersonChange = z.strictObject({ name: Name, role: Role }).partial();

/** One's own password: the one before shows that it is really the person. */
export const OwnPassword = z.strictObject({ now: z.string().max(500), next: Password });
/** A password an owner sets for somebody who lost theirs. */
export const NewPassword = z.strictObject({ next: Password });

/** Where a person is signed in. */
export const Session = z.object({
  id: Id,
  since: z.string(),
  seen: z.string(),
  from: z.string(),
  /** What the browser calls itself. */
  agent: z.string(),
  here: z.boolean(),
});
export type Session = z.infer<typeof Session>;
export const Sessions = z.object({ sessions: z.array(Session) });

/** What people did to people, sessions, keys and secrets. */
export const ACTS = [
  'person added',
  'person changed',
  'person removed',
  'password changed',
  'password set',
  'signed in',
  'session ended',
  'sessions ended',
  'key made',
  'key revoked',
  'hook renewed',
  'service connected',
  'service key changed',
  'blog approved',
  'blog secret changed',
  'blog removed',
  'service removed',
  'destination connected',
  'destination removed',
  'link rule made',
  'links counted',
  'links plain again',
  'link rules read',
  'link rules removed',
  'links mended',
] as const;
export const Act = z.object({
  id: Id,
  at: z.string(),
  by: z.string(),
  what: z.enum(ACTS),
  /** Whom or what it was done to. */
  about: z.string(),
  /** The address it was done from. */
  from: z.string(),
});
export type Act = z.infer<typeof Act>;
export const Acts = z.object({ acts: z.array(Act) });
