import type { ArticleDocument, Block } from './block.ts';

/** An article as it is sent to whoever has the one before: blocks that stand there by their place in it, the others whole. */
export interface ChangedArticle {
  whole: Omit<ArticleDocument, 'body'>;
  body: (number | Block)[];
}

/**
 * What became of an article.
 * @param before the body its reader has; a block is never changed, so one that is the same object says the same
 */
export function changedFrom(before: readonly Block[], { body, ...whole }: ArticleDocument): ChangedArticle {
  const places = new Map(before.map((block, at) => [block, at]));
  return { whole, body: body.map((block) => places.get(block) ?? block) };
}

/**
 * The article that was sent, its blocks that stood in the one before the very same objects.
 * @throws {RangeError} where it was sent for another body than this
 */
export function withChanges(before: readonly Block[], { whole, body }: ChangedArticle): ArticleDocument {
  return {
    ...whole,
    body: body.map((one) => {
      const block = typeof one === 'number' ? before[one] : one;
      if (!block) throw new RangeError(`The body before has no block ${one}.`);
      return block;
    }),
  };
}
