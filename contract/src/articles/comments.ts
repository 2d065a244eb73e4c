import { z } from 'zod';
import { Id } from '../id.ts';

/** The id of a block, as a comment names it. */
const BlockId = z.string().regex(/^[\w-]{1,60}$/, 'the id of a block');

/** What somebody said of an article, at one of its blocks. */
export const Comment = z.object({
  id: Id,
  block: BlockId,
  person: z.string(),
  words: z.string(),
  done: z.boolean(),
  at: z.union([z.string(), z.date()]),
  /** Whether whoever asks may take it back: it is theirs, or of a guest, who cannot. */
  mine: z.boolean(),
});
export type Comment = z.infer<typeof Comment>;
export const Comments = z.object({ comments: z.array(Comment) });

export const NewComment = z.strictObject({
  block: BlockId,
  words: z.string().trim().min(1, 'some words').max(2_000),
});
export const CommentDone = z.strictObject({ done: z.boolean() });
