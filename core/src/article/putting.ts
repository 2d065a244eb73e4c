import { textDigest } from '../chance/chance.ts';
import { figuresOf } from '../passage/figures.ts';
import { likeness } from '../passage/likeness.ts';
import { fold } from '../sentence/sentence.ts';
import type { ArticleDocument, Block } from './block.ts';
import { EMPTY_ARTICLE } from './block.ts';
import { blockText } from './text.ts';
import { type Unit, unitProblem, unitsOf } from './translate.ts';

/** Blocks whose words may be put otherwise: what others said, what is drawn, and what the house says stays. */
const PROSE: ReadonlySet<Block['type']> = new Set([
  'paragraph',
  'list',
  'key points',
  'closing',
  'question and answer',
]);
const isProse = ({ type }: Block): boolean => PROSE.has(type);

/** What of an article is put in other words. */
export interface Putting {
  units: Unit[];
  /** The article with the texts that are given in place of those that were; what rests on passages goes on doing so. */
  put: (texts: ReadonlyMap<number, string>) => Block[];
}

/**
 * The texts of an article that may be put in other words, numbered.
 * @param only ids of the blocks that are meant; all of its prose without
 */
export function puttingOf(article: Pick<ArticleDocument, 'body' | 'language'>, only?: ReadonlySet<string>): Putting {
  const prose = article.body.filter((block) => isProse(block) && (only === undefined || only.has(block.id)));
  const { units, put } = unitsOf({ ...EMPTY_ARTICLE, language: article.language, body: prose });
  return {
    units,
    put: (texts) => {
      const changed = new Map(put(texts).body.map((block) => [block.id, block]));
      return article.body.map((block) => {
        const next = changed.get(block.id);
        return next ? restingStill(block, next) : block;
      });
    },
  };
}

/** A block that says the same in other words rests on what it rested on. */
function restingStill(before: Block, after: Block): Block {
  if (!before.evidence) return after;
  const [was, is] = [textDigest(blockText(before)), textDigest(blockText(after))];
  return {
    ...after,
    evidence: before.evidence.map((one) => (one.digest === was ? { ...one, digest: is } : one)),
  };
}

/** What is wrong with a text put in other words; null when nothing is. Figures are those there were, and no other. */
export function putProblem(before: string, after: string, keep: readonly string[]): string | null {
  const problem = unitProblem(before, after, '\u0000');
  if (problem !== null) return problem;
  const bare = (text: string) => text.replace(/<\/?\d+>/g, '');
  const had = new Set(figuresOf(bare(before)));
  const strange = figuresOf(bare(after)).find((figure) => !had.has(figure));
  if (strange !== undefined) return `the figure ${strange} was not in ‘${before.slice(0, 60)}’`;
  const [was, is] = [` ${wordsOnly(bare(before))} `, ` ${wordsOnly(bare(after))} `];
  const lost = keep.find((word) => {
    const said = ` ${wordsOnly(word)} `;
    return said.trim() !== '' && times(is, said) < times(was, said);
  });
  return lost === undefined ? null : `‘${lost}’ must stay as it is in ‘${before.slice(0, 60)}’`;
}

const wordsOnly = (text: string): string =>
  fold(text)
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();

/** How often a word stands in a text, both with a space before and after; two side by side share one. */
function times(text: string, part: string): number {
  let n = 0;
  for (let at = text.indexOf(part); at >= 0; at = text.indexOf(part, at + 1)) n++;
  return n;
}

/** How like an article's prose is to other texts, in whole per cent, and the blocks that are more alike than that. */
export function alikeBlocks(
  article: Pick<ArticleDocument, 'body' | 'language'>,
  others: readonly string[],
  most: number,
): { likeness: number; blocks: Set<string> } {
  const prose = article.body.filter(isProse);
  const share = (text: string) => Math.round(likeness(text, others, article.language) * 100);
  return {
    likeness: share(prose.map(blockText).join('\n')),
    blocks: new Set(prose.filter((block) => share(blockText(block)) >= most).map(({ id }) => id)),
  };
}
