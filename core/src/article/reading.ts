import { remembered } from '../sentence/remembered.ts';
import {
  fold,
  isCutPlainly,
  isFoldedByWord,
  sentencesOf,
  stemsOfWords,
  withoutAccents,
  wordsOfText,
} from '../sentence/sentence.ts';
import type { Block } from './block.ts';
import { type GradeCounts, gradeCountsOf } from './readingGrade.ts';
import { blockText } from './text.ts';
import { wordingOf } from './wording.ts';

/** A sentence as measures look at it. */
export interface ReadSentence {
  text: string;
  words: readonly string[];
  /** The same in small letters. */
  lower: readonly string[];
  /** Its first two words, in small letters. */
  begins: string;
  isPassive: boolean;
  fillers: readonly string[];
  counts: GradeCounts;
}

/** A text as measures look at it: what is asked of it is worked out once, from what was worked out before. */
export class ReadText {
  private sentencesRead: readonly ReadSentence[] | null = null;
  private lengthRead: number | null = null;
  private wordsRead: readonly string[] | null = null;
  private foldedRead: readonly string[] | null = null;
  private stemsRead: ReadonlySet<string> | null = null;

  constructor(
    readonly text: string,
    readonly language: string,
  ) {}

  get sentences(): readonly ReadSentence[] {
    this.sentencesRead ??= sentencesOf(this.text, this.language).map((one) => readSentence(one, this.language));
    return this.sentencesRead;
  }

  /** Its words as they stand. */
  get words(): readonly string[] {
    this.wordsRead ??= this.fromSentences(({ words }) => words) ?? wordsOfText(this.text, this.language);
    return this.wordsRead;
  }

  /** How many there are. */
  get length(): number {
    this.lengthRead ??=
      this.wordsRead === null && this.arePartsOfSentences()
        ? this.sentences.reduce((sum, { words }) => sum + words.length, 0)
        : this.words.length;
    return this.lengthRead;
  }

  /** Its words, case and accents folded. */
  get folded(): readonly string[] {
    this.foldedRead ??= isFoldedByWord(this.text)
      ? this.lower.map(withoutAccents)
      : wordsOfText(fold(this.text), this.language);
    return this.foldedRead;
  }

  private get lower(): readonly string[] {
    return this.fromSentences(({ lower }) => lower) ?? this.words.map((word) => word.toLowerCase());
  }

  private arePartsOfSentences(): boolean {
    return this.sentencesRead !== null && isCutPlainly(this.text, this.language);
  }

  private fromSentences(of: (sentence: ReadSentence) => readonly string[]): string[] | null {
    if (!this.arePartsOfSentences()) return null;
    const out: string[] = [];
    for (const sentence of this.sentences) for (const word of of(sentence)) out.push(word);
    return out;
  }

  /** What its words of content are known by. */
  get stems(): ReadonlySet<string> {
    this.stemsRead ??= new Set(stemsOfWords(this.folded, this.language));
    return this.stemsRead;
  }
}

function readSentence(text: string, language: string): ReadSentence {
  const words = wordsOfText(text, language);
  const lower = words.map((word) => word.toLowerCase());
  return {
    text,
    words,
    lower,
    begins: lower.slice(0, 2).join(' '),
    ...wordingOf(text, lower, language),
    counts: gradeCountsOf(words, language),
  };
}

/** Texts of blocks that are remembered: while one paragraph changes the others are not read again. */
const MOST_READ = 2_000;

const readText = remembered((text, language) => new ReadText(text, language), MOST_READ);

const blocks = new WeakMap<Block, ReadText>();
const others = new WeakMap<{ text: string }, ReadText>();

/** What an article is held against, read: sources and whole articles, for as long as somebody has them and no longer. */
export function readOther(other: { text: string }, language: string): ReadText {
  const before = others.get(other);
  if (before?.language === language) return before;
  const now = new ReadText(other.text, language);
  others.set(other, now);
  return now;
}

/** The text of a block, read; a block is never changed, only put in the place of another. */
export function readBlock(block: Block, language: string): ReadText {
  const before = blocks.get(block);
  if (before?.language === language) return before;
  const now = readText(blockText(block), language);
  blocks.set(block, now);
  return now;
}
