import { TELL_BY } from '@grivo/core';
import { z } from 'zod';
import { Desk, Id, Name, Note, TestLine } from '../id.ts';

/** How a destination is reached: by mail, by a message to a chat, by a signed call of another program. */
export const DestinationKind = z.enum(TELL_BY);
export type DestinationKind = z.infer<typeof DestinationKind>;

const address = z.string().trim().min(1, 'an address').max(1_000);

/** Somewhere things are told, kept once under a name. */
export const Destination = z.object({
  id: Id,
  kind: DestinationKind,
  name: z.string(),
  /** A mail address, or where messages and calls are posted to. */
  address: z.string(),
  note: z.string(),
  rev: z.int(),
  /** What its last test tried; null before the first. */
  test: z.object({ atDesk: Desk, lines: z.array(TestLine) }).nullable(),
});
export type Destination = z.infer<typeof Destination>;
export const Destinations = z.object({ destinations: z.array(Destination) });

/** What is wrong with the address of a destination, null when nothing is. */
export function addressProblem(kind: DestinationKind, given: string): string | null {
  const text = given.trim();
  if (kind === 'mail')
    return /^[^@\s]+@[^@\s.]+(?:\.[^@\s.]+)+$/.test(text) ? null : 'is not an email address as name@example.com';
  return /^https?:\/\/[^\s/]\S*$/.test(text) ? null : 'is not an address that begins with https://';
}

const fits = ({ kind, address: given }: { kind: DestinationKind; address: string }, context: z.RefinementCtx): void => {
  const problem = addressProblem(kind, given);
  if (problem !== null) context.addIssue({ code: 'custom', path: ['address'], message: problem });
};
export const NewDestination = z
  .strictObject({ kind: DestinationKind, name: Name, address, note: Note.default('') })
  .superRefine(fits);
/** Another address for the same destination; what it was tested with is tested anew. */
export const DestinationChange = z.strictObject({ kind: DestinationKind, address }).superRefine(fits);

/** Tells a destination of an article. */
export const TellDestination = z.strictObject({ destination: Id });
export const Told = z.object({ line: TestLine });
