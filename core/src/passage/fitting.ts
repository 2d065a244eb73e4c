import { aspectsOf } from '../keyword/aspects.ts';
import { contentStems, fold } from '../sentence/sentence.ts';
import type { PageText } from './passage.ts';

/** What of a page is held against a subject. */
type HeldPage = Pick<PageText, 'title' | 'language' | 'paragraphs'>;

export interface Fitting {
  /** Of each page, how much of the subject it speaks of, 0 to 1. */
  cover: number[];
  /** Of each page, whether it speaks of the subject. */
  fits: boolean[];
  /** Words of the subject that no page speaks of. */
  lacking: string[];
}

/** The least cover of a page that speaks of the subject. */
export const LEAST_COVER = 0.45;
/** What one way of asking weighs beside a word. */
const ASKED = 0.25;

/** Words that say what sort of text is wanted, not what about. */
const OF_TEXTS = new Set(
  'idea tip guide complete ultimate easy simple basic thing top list way everything know about need people person someone lover ratgeber tipp anleitung ideen alles wissen'
    .split(' ')
    .flatMap((word) => [word, ...contentStems(word), ...contentStems(word, 'de')]),
);

/** Languages that write compound words as one: a part of a word counts there. */
const COMPOUNDS: ReadonlySet<string> = new Set(['de', 'nl', 'da', 'sv', 'nb', 'no', 'fi']);
/** Letters from which on a part of a compound is a word of its own. */
const PART = 5;
/** Letters before a word from which on it is the end of a compound. */
const PREFIX = 3;

/**
 * Holds found pages against the subject they were looked up for. Each word of the subject weighs 1, and up to 1 more the
 * rarer it is among the pages found: what all of them hold tells least about what was asked. How a subject asks ('how long',
 * 'buy') counts as one more word of a quarter of the weight. A page speaks of the subject when it holds nearly half of it.
 * Linear in the length of the pages.
 */
export function fittingOf(subject: string, pages: readonly HeldPage[]): Fitting {
  const language = pages[0]?.language ?? 'en';
  const { aspects, rest } = aspectsOf(subject, language);
  const about = unique(contentStems(rest, language)).filter((word) => !OF_TEXTS.has(word));
  // Of a subject that only asks, all its words are what it is about.
  const words = about.length > 0 ? about : unique(contentStems(subject, language));
  const asked = about.length > 0 ? aspects : [];
  const held = pages.map((page) => partsOf(page));
  const ofPage = (has: (part: Part) => boolean) => held.map((parts) => parts.some(has));
  const parts = [
    ...words.map((word) => ({ most: 1, has: (part: Part) => holds(part.stems, word, language) })),
    ...asked.map((aspect) => ({ most: ASKED, has: (part: Part) => part.aspects().has(aspect) })),
  ].map((one) => ({ ...one, pages: ofPage(one.has) }));
  const weights = parts.map(
    ({ pages: by, most }) => most * (2 - by.filter(Boolean).length / Math.max(1, pages.length)),
  );
  const all = weights.reduce((sum, weight) => sum + weight, 0);
  const weightIn = (part: Part) => parts.reduce((sum, { has }, i) => sum + (has(part) ? weights[i]! : 0), 0);
  const cover = held.map((own) => (all === 0 ? 1 : Math.max(0, ...own.map(weightIn)) / all));
  return {
    cover,
    fits: cover.map((one) => one >= LEAST_COVER),
    lacking: spoken(
      subject,
      language,
      words.filter((_, at) => !parts[at]!.pages.some(Boolean)),
    ),
  };
}

/** A paragraph under the title of its page. */
interface Part {
  stems: ReadonlySet<string>;
  /** What is answered in it, by the words people ask with. */
  aspects: () => ReadonlySet<string>;
}

function partsOf({ title, paragraphs, language }: HeldPage): Part[] {
  const above = contentStems(title, language);
  return (paragraphs.length > 0 ? paragraphs : ['']).slice(0, MOST_PARTS).map((paragraph) => {
    const text = paragraph.slice(0, LONGEST_PART);
    return {
      stems: new Set([...above, ...contentStems(text, language)]),
      aspects: once(() => new Set(aspectsOf(`${title}\n${text}`, language).aspects)),
    };
  });
}

const MOST_PARTS = 2_000;
const LONGEST_PART = 5_000;

function once<T>(work: () => T): () => T {
  let done: { value: T } | null = null;
  return () => {
    done ??= { value: work() };
    return done.value;
  };
}

function holds(stems: ReadonlySet<string>, word: string, language: string): boolean {
  if (stems.has(word)) return true;
  if (word.length < PART) return false;
  const compounds = COMPOUNDS.has(language);
  for (const stem of stems) {
    // 'sauerkraut' is kraut, 'across' is no cross.
    if (stem.length >= word.length + PREFIX && stem.endsWith(word)) return true;
    if (compounds && stem.length >= PART && (stem.includes(word) || word.startsWith(stem) || word.endsWith(stem)))
      return true;
  }
  return false;
}

/** Stems as the words the subject has them in. */
function spoken(subject: string, language: string, stems: readonly string[]): string[] {
  const words = fold(subject).split(/[^\p{L}\p{N}'’-]+/u);
  return stems.map((stem) => words.find((word) => contentStems(word, language).includes(stem)) ?? stem);
}

function unique(words: readonly string[]): string[] {
  return [...new Set(words)];
}
