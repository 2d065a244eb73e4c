import { z } from 'zod';
import { Id } from '../id.ts';

/** Clicks of which article are asked for; of all of them where none is named. */
export const ClicksQuery = z.object({ article: Id.optional() });

/** Clicks on links of a blog in the last days. */
export const Clicks = z.object({
  /** Whether links are counted. */
  counts: z.boolean(),
  /** Whether readers can reach this installation, so that links may be counted. */
  can: z.boolean(),
  /** Posts whose links are not yet as is wanted. */
  left: z.int(),
  /** Every day looked back on, the oldest first. */
  days: z.array(z.object({ day: z.string(), times: z.int() })),
  links: z.array(z.object({ address: z.string(), times: z.int(), articles: z.int() })),
  articles: z.array(z.object({ id: Id, title: z.string(), times: z.int() })),
});
export type Clicks = z.infer<typeof Clicks>;

/** Whether links of a blog are counted from now on. */
export const CountClicks = z.strictObject({ counts: z.boolean() });
