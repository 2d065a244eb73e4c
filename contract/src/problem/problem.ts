import { z } from 'zod';

/** What the API answers when something is wrong: problem details (RFC 9457) with what would mend it. */
export const Problem = z.object({
  type: z.string(),
  title: z.string(),
  status: z.int(),
  detail: z.string(),
  mend: z.string(),
  /** For bodies that do not fit: each place, and what was allowed there. */
  /** After a change by somebody else: what stands now. */
  current: z.unknown().optional(),
  places: z.array(z.object({ place: z.string(), problem: z.string() })).optional(),
});
export type Problem = z.infer<typeof Problem>;
