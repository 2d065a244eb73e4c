import { fold, sentencesOf } from '../sentence/sentence.ts';
import type { ArticleDocument, Block } from './block.ts';
import { kindOf } from './blocks/all.ts';
import { inlineText, trimInline } from './inline.ts';
import { blockText, withTexts } from './text.ts';

/** What the cleaning changed, for the record of the step. */
export interface HygieneNote {
  block: string;
  what: 'empty block' | 'title repeated' | 'heading level' | 'sentence repeated' | 'heading without text';
}

/**
 * The rules every article keeps, whoever wrote it: the title is not repeated at the head of the body, no block is empty, headings go
 * down one level at a time, no heading stands over nothing, and no sentence is said twice.
 * @param repeats kept where somebody's own words are laid out: they stay as they are
 */
export function tidy(
  article: ArticleDocument,
  { repeats = 'dropped' }: { repeats?: 'dropped' | 'kept' } = {},
): { article: ArticleDocument; notes: HygieneNote[] } {
  const notes: HygieneNote[] = [];
  const drop = (block: Block, what: HygieneNote['what']) => notes.push({ block: block.id, what });
  let body = article.body.map((block) => trimBlock(block));
  // Below another heading it is the name of a part, whose text would stand under the one before.
  let headed = false;
  body = body.filter((block) => {
    if (block.type !== 'heading') return true;
    const repeats = !headed && article.title !== '' && sameWords(block.text, article.title);
    if (repeats) drop(block, 'title repeated');
    else headed = true;
    return !repeats;
  });
  if (repeats === 'dropped') body = withoutRepeats(body, article.language, (block) => drop(block, 'sentence repeated'));
  body = body.filter((block) => {
    if (!isEmpty(block)) return true;
    drop(block, 'empty block');
    return false;
  });
  body = body.filter((block, at) => {
    const bare = block.type === 'heading' && standsOverNothing(body, at);
    if (bare) drop(block, 'heading without text');
    return !bare;
  });
  body = orderedHeadings(body, (block) => drop(block, 'heading level'));
  return { article: { ...article, title: article.title.trim(), body }, notes };
}

/** What a person typed, without blanks nobody wants and blocks that say nothing; everything else is theirs. */
export function withoutBlanks(article: ArticleDocument): ArticleDocument {
  const body = article.body.map((block) => trimBlock(block)).filter((block) => !isEmpty(block));
  return { ...article, title: article.title.trim(), description: article.description.trim(), body };
}

function sameWords(a: string, b: string): boolean {
  const bare = (text: string) =>
    fold(text)
      .replace(/[^\p{L}\p{N}]+/gu, ' ')
      .trim();
  return bare(a) === bare(b);
}

function standsOverNothing(body: readonly Block[], at: number): boolean {
  const block = body[at];
  const next = body[at + 1];
  if (block?.type !== 'heading') return false;
  return !next || (next.type === 'heading' && next.level <= block.level);
}

/** Without blanks nobody wants and parts that say nothing. */
function trimBlock(block: Block): Block {
  const trimmed = withTexts(block, { rich: trimInline, credit: trimInline, plain: (text) => text.trim() });
  return kindOf(trimmed).bare?.(trimmed) ?? trimmed;
}

function isEmpty(block: Block): boolean {
  const kind = kindOf(block);
  return kind.isEmpty ? kind.isEmpty(block) : blockText(block).trim() === '';
}

function withoutRepeats(body: readonly Block[], language: string, note: (block: Block) => void): Block[] {
  const said = new Set<string>();
  const fresh = (sentence: string): boolean => {
    const key = fold(sentence)
      .replace(/[^\p{L}\p{N}]+/gu, ' ')
      .trim();
    if (key.length < 12) return true;
    if (said.has(key)) return false;
    said.add(key);
    return true;
  };
  return body.map((block) => {
    if (block.type === 'paragraph' || block.type === 'closing') {
      const sentences = sentencesOf(inlineText(block.content), language);
      const kept = sentences.map(fresh);
      if (!kept.includes(false)) return block;
      note(block);
      return { ...block, content: [{ text: sentences.filter((_, i) => kept[i]).join(' ') }] };
    }
    if (block.type === 'list') {
      const items = block.items.filter((item) => fresh(inlineText(item)));
      if (items.length === block.items.length) return block;
      note(block);
      return { ...block, items };
    }
    return block;
  });
}

function orderedHeadings(body: readonly Block[], note: (block: Block) => void): Block[] {
  let depth = 1;
  return body.map((block) => {
    if (block.type !== 'heading') return block;
    const level = Math.min(block.level, depth + 1) as 2 | 3 | 4;
    if (level !== block.level) note(block);
    depth = level;
    return level === block.level ? block : { ...block, level };
  });
}
