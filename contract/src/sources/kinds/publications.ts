import { z } from 'zod';
import { Id } from '../../id.ts';
import { everyLook } from './look.ts';

export const PublicationSettings = z.strictObject({
  kind: z.literal('publications'),
  ...everyLook,
  /** Blogs whose publications come in; none means every blog. */
  blogs: z.array(Id).max(100).default([]),
  /** What Grivo published there, or every post that is new on the blog, by its feed. */
  of: z.enum(['what we published', 'every new post']).default('what we published'),
});
export type PublicationSettings = z.infer<typeof PublicationSettings>;
