import { LanguageTag } from '@grivo/core';
import { z } from 'zod';

/** An id as Grivo makes them: 20 characters, later ones greater. */
export const Id = z.string().regex(/^[0-9a-z]{20}$/, 'an id of 20 letters and digits');
/** Milliseconds since 1970 by the desk clock. */
export const Desk = z.int();
/** Money in millionths of the unit the services are priced in. */
export const Micros = z.int().min(0);

export const Made = z.object({ id: Id });

/** Rows are counted up to this; there are more where a number is one more. */
export const MOST_COUNTED = 10_000;

/** A page of a list that is read from the newest back. */
export const Before = z.object({ before: Id.optional(), limit: z.coerce.number().int().min(1).max(500).default(100) });

export const Address = z.url({ protocol: /^https?$/, error: 'an address as https://blog.example' }).max(500);
export const Name = z.string().trim().min(1, 'a name').max(120);
/** A line of one's own about something. */
export const Note = z.string().trim().max(300, 'at most 300 letters');
export const Language = LanguageTag;

/** What a test of a connection tried: what came back, and what to change when it is not well. */
export const TestLine = z.object({
  tried: z.string(),
  came: z.string(),
  well: z.boolean(),
  change: z.string().nullable(),
  ms: z.number(),
});
export type TestLine = z.infer<typeof TestLine>;
export const TestLog = z.object({ lines: z.array(TestLine) });
