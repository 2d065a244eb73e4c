import { figuresNotIn } from '../passage/figures.ts';
import type { ArticleDocument } from './block.ts';
import { blockText } from './text.ts';

/**
 * Figures of an article that its sources do not hold: those of a block are held against the passages it rests on, and
 * against all of them where it rests on none that is there. A figure that another passage says of something else does not
 * make it right.
 */
export function figuresAmiss(
  { body, language }: Pick<ArticleDocument, 'body' | 'language'>,
  passages: readonly { id: string; text: string }[],
): string[] {
  const texts = new Map(passages.map(({ id, text }) => [id, text]));
  const all = passages.map(({ text }) => text);
  const amiss = body.flatMap((block) => {
    const own = (block.evidence ?? []).flatMap(({ passage }) => texts.get(passage) ?? []);
    return figuresNotIn(blockText(block), own.length > 0 ? own : all, language);
  });
  return [...new Set(amiss)];
}
