import type { ArticleDocument } from './block.ts';
import { kindOf } from './blocks/all.ts';
import type { FlowPart } from './blocks/kind.ts';
import type { Resolve } from './inline.ts';

/**
 * An article as a flow of few plain parts, for forms that are printed or opened in a word processor. What only a web page
 * can show is told in words: a video by its link, a chart by its table. The owner's own markup is left out.
 */
export function articleFlow({ body }: Pick<ArticleDocument, 'body'>, resolve: Resolve): FlowPart[] {
  const anchors = new Map(body.map((block, n) => [block, `part${n + 1}`]));
  const here = { resolve, body, making: false, anchor: (block: (typeof body)[number]) => anchors.get(block) ?? '' };
  return body.flatMap((block) => kindOf(block).flow(block, here));
}
