import { diffComm } from 'node-diff3';
import type { ArticleDocument, Block } from './block.ts';
import { blockText } from './text.ts';

/** Some words of a text: in both, only before, or only after. */
export interface WordsCompared {
  stands: 'both' | 'before' | 'after';
  text: string;
}

/** A block of two versions side by side; null on the side where it does not stand. */
export interface BlockCompared {
  before: Block | null;
  after: Block | null;
  /** Whether it says or looks otherwise. */
  changed: boolean;
  /** Its words, where it stands in both. */
  words: WordsCompared[];
}

export interface Comparison {
  title: WordsCompared[];
  description: WordsCompared[];
  body: BlockCompared[];
  /** Blocks that were changed, added or removed, the title and the description counted as one each. */
  changes: number;
}

/** Two versions of an article, block beside block by their ids, and word by word within them. */
export function compareArticles(before: ArticleDocument, after: ArticleDocument): Comparison {
  const title = compareWords(before.title, after.title);
  const description = compareWords(before.description, after.description);
  const body = aligned(before.body, after.body).map(([was, is]): BlockCompared => {
    const changed = was === null || is === null || JSON.stringify(shown(was)) !== JSON.stringify(shown(is));
    return { before: was, after: is, changed, words: was && is ? compareWords(blockText(was), blockText(is)) : [] };
  });
  const differs = (words: readonly WordsCompared[]) => words.some(({ stands }) => stands !== 'both');
  const changes = body.filter(({ changed }) => changed).length + Number(differs(title)) + Number(differs(description));
  return { title, description, body, changes };
}

/** What a block says and looks like, whatever it rests on. */
function shown({ evidence: _, vouched: __, ...rest }: Block): object {
  return rest;
}

/** Blocks in the order of the later version, those that are gone where they stood. */
function aligned(before: readonly Block[], after: readonly Block[]): [Block | null, Block | null][] {
  const was = new Map(before.map((block) => [block.id, block]));
  const stays = new Set(after.map(({ id }) => id));
  const rows: [Block | null, Block | null][] = after.map((block) => [was.get(block.id) ?? null, block]);
  let at = 0;
  for (const block of before) {
    const here = rows.findIndex(([, is]) => is?.id === block.id);
    if (stays.has(block.id)) at = here + 1;
    else rows.splice(at++, 0, [block, null]);
  }
  return rows;
}

/** Pairs of words that are compared; a paragraph of a thousand words against another has four millions. */
const MOST_PAIRS = 20_000_000;

/** Two texts word by word (longest common subsequence), neighbours that stand alike as one. */
export function compareWords(before: string, after: string): WordsCompared[] {
  const out: WordsCompared[] = [];
  const push = (stands: WordsCompared['stands'], words: readonly string[]) => {
    if (words.length === 0) return;
    const last = out.at(-1);
    if (last?.stands === stands) last.text += words.join('');
    else out.push({ stands, text: words.join('') });
  };
  const [was, is] = [wordsOf(before), wordsOf(after)];
  // Of texts far longer than paragraphs are, what they have in common tells nobody anything, and takes long to find.
  if (was.length * is.length > MOST_PAIRS) {
    push('before', was);
    push('after', is);
    return out;
  }
  for (const part of diffComm(was, is)) {
    if (part.common) push('both', part.common);
    else {
      push('before', part.buffer1);
      push('after', part.buffer2);
    }
  }
  return out;
}

function wordsOf(text: string): string[] {
  return text.match(/[\p{L}\p{N}]+|\s+|[^\p{L}\p{N}\s]/gu) ?? [];
}
