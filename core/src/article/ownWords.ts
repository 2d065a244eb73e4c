import type { ArticleDocument, Block } from './block.ts';
import { articleText } from './text.ts';

/** What stands the same in many articles on purpose, or is said to be another's words. */
const NOT_OWN: ReadonlySet<Block['type']> = new Set([
  'quote',
  'standing text',
  'disclosure',
  'call to action',
  'related articles',
  'contents',
]);

/** Whether a block is to be in words of the article's own. */
export const isOwnWords = ({ type }: Block): boolean => !NOT_OWN.has(type);

/** The text of an article that is to be in words of its own. */
export const ownWordsOf = ({ body }: Pick<ArticleDocument, 'body'>): string =>
  articleText({ body: body.filter(isOwnWords) });
