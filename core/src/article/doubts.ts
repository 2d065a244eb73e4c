import { bareFigures, isOnlyByFigures } from '../honesty/bare.ts';
import type { Doubt, DoubtKind } from '../honesty/doubt.ts';
import { doubtsOf, readSources, type Sources } from '../honesty/honesty.ts';
import { unsupportedSentences } from '../honesty/unsupported.ts';
import { onceEach } from '../sentence/remembered.ts';
import type { ArticleDocument, Block } from './block.ts';
import { inlineText } from './inline.ts';
import { type ReadText, readBlock } from './reading.ts';
import { blockText, isStatement } from './text.ts';

/** Something a block says that what it rests on does not, or says otherwise. */
export interface BlockDoubt extends Doubt {
  block: string;
}

/** What an article is held against: a passage, in its own language where that is known. */
interface HeldPassage {
  id: string;
  text: string;
  language?: string | undefined;
}

/**
 * What an article says that its sources do not: every block is held against the passages it rests on, and against all of
 * them where it rests on none that is there. What another passage says of something else does not make it right.
 */
export function articleDoubts(
  { body, language }: Pick<ArticleDocument, 'body' | 'language'>,
  passages: readonly HeldPassage[],
): BlockDoubt[] {
  return doubtReader(passages, language)(body);
}

/** How many sets of passages a reader of doubts remembers; an article has some hundred blocks. */
const MOST_REMEMBERED = 5_000;

/** What blocks are held against, with what was found of texts that were. */
interface Against {
  sources: Sources;
  languages: readonly string[];
  known: WeakMap<ReadText, readonly BlockDoubt[]>;
}

/**
 * The same for an article that is being changed: the passages are read once, and a block that says what it said is not held
 * against them again.
 */
export function doubtReader(
  passages: readonly HeldPassage[],
  language: string,
): (body: readonly Block[]) => BlockDoubt[] {
  const read = new Map(passages.map(({ id, text, language: own }) => [id, readSources([text], own ?? language)[0]!]));
  const all = [...read.values()];
  const spoken = new Map(passages.map(({ id, language: own }) => [id, own ?? language]));
  /** By the kind of a block and the passages it rests on: what is made of these is made once, and of a text. */
  const held = new Map<string, Against>();
  const heldAgainst = (type: string, rests: readonly string[]): Against => {
    const key = `${type} ${rests.join(' ')}`;
    const before = held.get(key);
    if (before) return before;
    const own = rests.filter((id) => read.has(id));
    const now: Against = {
      sources: own.length > 0 ? own.map((id) => read.get(id)!) : all,
      languages: own.length > 0 ? own.map((id) => spoken.get(id)!) : [...spoken.values()],
      known: new WeakMap(),
    };
    if (held.size >= MOST_REMEMBERED) held.clear();
    held.set(key, now);
    return now;
  };
  const doubts = (block: Block): readonly BlockDoubt[] => {
    const rests = block.evidence?.map(({ passage }) => passage) ?? [];
    const { sources: against, languages, known } = heldAgainst(block.type, rests);
    const own = readBlock(block, language);
    const { text } = own;
    const before = known.get(own);
    if (before) return before[0] === undefined || before[0].block === block.id ? before : inBlock(block, before);
    const isBare = languages.some((one) => isOnlyByFigures(text, language, one));
    const found = textsHeld(block).flatMap((held): Doubt[] =>
      isBare
        ? bareFigures(
            held.text,
            against.map((source) => source.text),
          ).map((words) => ({ kind: 'figure', words }))
        : held.cell
          ? doubtsOf(held.text, against, language).filter(({ kind }) => IN_CELLS.has(kind))
          : doubtsIn(held.text, against, language),
    );
    // The same words twice are one doubt.
    const once = inBlock(block, [...new Map(found.map((doubt) => [doubtWords(doubt), doubt])).values()]);
    known.set(own, once);
    return once;
  };
  // A block is never changed, only put in the place of another: while one is typed in the others are asked no more.
  const doubtsOfBlock = onceEach((block: Block): readonly BlockDoubt[] => {
    if (!isStatement(block)) return [];
    const own = doubts(block);
    const { vouched } = block;
    // What somebody answers for is no doubt any more, as long as it stands there.
    return vouched ? own.filter(({ words }) => !vouched.some((one) => one.words === words)) : own;
  });
  return (body) => body.flatMap(doubtsOfBlock);
}

const inBlock = ({ id }: Block, doubts: readonly Doubt[]): BlockDoubt[] =>
  doubts.map(({ kind, words }) => ({ block: id, kind, words }));

/** What is said otherwise than in the sources, and sentences that say nothing like them; of a sentence one of the two. */
function doubtsIn(text: string, against: Sources, language: string): Doubt[] {
  const otherwise = doubtsOf(text, against, language);
  const nothing = unsupportedSentences(text, against, language).filter(
    (sentence) => !otherwise.some((doubt) => isOfSentence(doubt) && sentence.includes(doubt.words)),
  );
  return [...otherwise, ...nothing.map((words): Doubt => ({ kind: 'nothing', words }))];
}

/** A cell says a figure or a date; of whom or what is said by its row and column. */
const IN_CELLS: ReadonlySet<DoubtKind> = new Set(['figure', 'date']);

/** The texts of a block that claim something: cells each by itself, and of a question its answer alone. */
function textsHeld(block: Block): { text: string; cell: boolean }[] {
  if (block.type === 'table')
    return [block.caption ?? [], ...block.head, ...block.rows.flat()].map((cell) => ({
      text: inlineText(cell),
      cell: true,
    }));
  return [{ text: block.type === 'question and answer' ? inlineText(block.answer) : blockText(block), cell: false }];
}

const SAYS: Record<DoubtKind, (words: string) => string> = {
  figure: (words) => `‘${words}’ stands in no source`,
  date: (words) => `‘${words}’ stands in no source`,
  name: (words) => `the name ‘${words}’ stands in no source`,
  quotation: (words) => `no source has these words: “${words}”`,
  opposite: (words) => `the source says the opposite of ‘${words}’`,
  subject: (words) => `the source says it of something else: ‘${words}’`,
  nothing: (words) => `its sources say nothing like ‘${words}’`,
};

/** Doubts about a whole sentence or clause, not some words in it. */
const OF_SENTENCES: ReadonlySet<DoubtKind> = new Set(['opposite', 'subject', 'nothing']);
export const isOfSentence = ({ kind }: Pick<Doubt, 'kind'>): boolean => OF_SENTENCES.has(kind);

/** A doubt as people read it. */
export const doubtWords = ({ kind, words }: Doubt): string => SAYS[kind](words);

/**
 * Whether a doubt of this kind is sure enough to end an article that nobody looks at: a figure, a date, a name or a
 * quotation is in the sources or it is not; whether a sense was turned round, or is there at all, is judged from the words
 * around it.
 */
export const isSure = (doubt: Doubt): boolean => !isOfSentence(doubt);
