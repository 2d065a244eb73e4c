import { z } from 'zod';
import { Id, Name } from '../id.ts';

export const Role = z.enum(['owner', 'editor', 'proofreader']);
export type Role = z.infer<typeof Role>;

export const SignIn = z.strictObject({ email: z.string().max(190), password: z.string().max(500) });

export const Person = z.object({ id: Id, email: z.string(), name: z.string(), role: Role });
export type Person = z.infer<typeof Person>;
export const People = z.object({ people: z.array(Person) });

export const NewPerson = z.strictObject({
  email: z.email('an address as ines@crockhaven.example').max(190),
  name: Name,
  role: Role,
  password: z.string().min(10, 'at least 10 characters').max(500),
});
