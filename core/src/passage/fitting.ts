import { aspectsOf } from '../keyword/aspects.ts';
import { askedByName, type Folded, foldedText, says } from '../keyword/saying.ts';
import { contentStems, fold } from '../sentence/sentence.ts';
import type { PageText } from './passage.ts';

/** What of a page is held against a subject. */
type HeldPage = Pick<PageText, 'title' | 'language' | 'paragraphs'>;

export interface Fitting {
  /** Of each page, how much of the subject it speaks of, 0 to 1. */
  cover: number[];
  /** Of each page, whether it speaks of the subject. */
  fits: boolean[];
  /** Of each page, whether it speaks of the subject and holds what its way of asking ('how long', 'buy') is answered by. */
  answers: boolean[];
  /** Words of the subject that no page speaks of. */
  lacking: string[];
  /** Ways of asking that no page which speaks of the subject answers. */
  unanswered: string[];
}

/** The least cover of a page that speaks of the subject. */
export const LEAST_COVER = 0.45;
/** The least share of the words it is about that stand beside an answer, and of each side of it. */
const LEAST_ANSWERED = 0.6;
const LEAST_OF_SIDE = 0.5;
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
/** Letters from which on the end of a compound is a word. */
const END = 4;
/** Letters before a word from which on it is the end of a compound. */
const PREFIX = 3;

/**
 * Holds found pages against the subject they were looked up for. Each word of the subject weighs 1, and up to 1 more the
 * rarer it is among the pages found: what all of them hold tells least about what was asked. How a subject asks ('how long',
 * 'buy') counts as one more word of a quarter of the weight. A page speaks of the subject when it holds nearly half of it,
 * and answers it when a paragraph of it holds most of the words and what such a question is answered by.
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
  const weighed = (most: number, has: (part: Part) => boolean) => {
    const by = held.filter((parts) => parts.some(has)).length;
    return { has, weight: most * (2 - by / Math.max(1, pages.length)), spoken: by > 0 };
  };
  const topic = words.map((word) => weighed(1, ({ stems }) => holds(stems, word, language)));
  const ways = asked.map((aspect) => weighed(ASKED, (part) => part.aspects().has(aspect)));
  const parts = [...topic, ...ways];
  const all = sumOf(parts);
  const whole = (part: Part) => (all === 0 ? 1 : sumOf(parts.filter(({ has }) => has(part))) / all);
  // What answers must be about it at all, however rare its words are.
  const share = (of: readonly Weighed[]) => (part: Part) =>
    of.length === 0 ? 1 : of.filter(({ has }) => has(part)).length / of.length;
  const ofTopic = share(topic);
  // 'oil for a board' is about both: neither the oil nor the board alone answers it.
  const sides = sidesOf(rest, language)
    .map((side) => topic.filter((_, at) => side.has(words[at]!)))
    .filter((side) => side.length > 0)
    .map(share);
  // Ways of asking stand from the most telling on; of several the first must be answered.
  const [first] = asked;
  const named = askedByName(subject, language);
  const isSaid = (part: Part) =>
    first === undefined ||
    says(part.folded(), first, language) ||
    // Causes are often told without a word for it.
    (first === 'mending' && words.length > 1 && ofTopic(part) === 1);
  // What a page asks in its title is what it is about: half of the words are enough there ('Cleaning a crock').
  const least = (part: Part) => (first !== undefined && part.asked().has(first) ? LEAST_OF_SIDE : LEAST_ANSWERED);
  const isAnswer = (part: Part) =>
    ofTopic(part) >= least(part) &&
    sides.every((side) => side(part) >= LEAST_OF_SIDE) &&
    named.every((way) => says(part.folded(), way, language)) &&
    isSaid(part);
  const cover = held.map((own) => Math.max(0, ...own.map(whole)));
  const asks = first !== undefined || named.length > 0;
  // A subject that asks nothing is answered by what speaks of it.
  const answers = held.map((own, page) => own.some(isAnswer) || (!asks && cover[page]! >= LEAST_COVER));
  const fits = cover.map((one, page) => one >= LEAST_COVER || answers[page]!);
  return {
    cover,
    fits,
    answers,
    lacking: spoken(
      subject,
      language,
      words.filter((_, at) => !topic[at]!.spoken),
    ),
    unanswered: fits.some(Boolean) && !answers.some(Boolean) ? (named.length > 0 ? named : asked.slice(0, 1)) : [],
  };
}

const BETWEEN: Record<string, RegExp> = {
  en: / (?:for|in|on|of|from|with|at|against|off|to|vs|or) /,
  de: / (?:fur|in|im|auf|von|vom|aus|mit|bei|beim|gegen|am|oder|zum|zur) /,
};

/** What a subject is about as its sides: what stands before the first word between things, and what stands after it. */
function sidesOf(about: string, language: string): Set<string>[] {
  const at = BETWEEN[language]?.exec(about);
  if (!at) return [];
  return [about.slice(0, at.index), about.slice(at.index + at[0].length)].map(
    (side) => new Set(contentStems(side, language)),
  );
}

/** A word or a way of asking, with what it weighs. */
interface Weighed {
  has: (part: Part) => boolean;
  weight: number;
  /** Whether any page has it. */
  spoken: boolean;
}

const sumOf = (of: readonly Weighed[]): number => of.reduce((sum, { weight }) => sum + weight, 0);

/** A paragraph under the title of its page. */
interface Part {
  stems: ReadonlySet<string>;
  /** What is answered in it, by the words people ask with. */
  aspects: () => ReadonlySet<string>;
  /** What the title of its page asks. */
  asked: () => ReadonlySet<string>;
  /** The paragraph, as answers are looked for in it. */
  folded: () => Folded;
}

function partsOf({ title, paragraphs, language }: HeldPage): Part[] {
  const above = contentStems(title, language);
  const asked = once(() => new Set(aspectsOf(title, language).aspects));
  return (paragraphs.length > 0 ? paragraphs : ['']).slice(0, MOST_PARTS).map((paragraph) => {
    const text = paragraph.slice(0, LONGEST_PART);
    return {
      stems: new Set([...above, ...contentStems(text, language)]),
      aspects: once(() => new Set(aspectsOf(`${title}\n${text}`, language).aspects)),
      asked,
      folded: once(() => foldedText(text)),
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

/** A stem without what forms of a word add to it, where three letters are left: more is cut off than a stemmer would. */
function rootOf(stem: string, language: string): string {
  const roots = ROOTS.get(language) ?? new Map<string, string>();
  if (!ROOTS.has(language)) ROOTS.set(language, roots);
  const known = roots.get(stem);
  if (known !== undefined) return known;
  const bare = language === 'de' ? stem.replace(/^ge(?=.{4})/, '') : stem;
  const cut = bare.replace(language === 'de' ? /(?:es|ten?|est|et|st|en|e|n|s|t)$/ : /(?:ing|ed|er|es|s|e|d)$/, '');
  const root = cut.length >= 3 ? cut : bare;
  if (roots.size < MOST_ROOTS) roots.set(stem, root);
  return root;
}

const ROOTS = new Map<string, Map<string, string>>();
const MOST_ROOTS = 20_000;

function holds(stems: ReadonlySet<string>, word: string, language: string): boolean {
  if (stems.has(word)) return true;
  const compounds = COMPOUNDS.has(language);
  const root = rootOf(word, language);
  for (const stem of stems) {
    if (rootOf(stem, language) === root) return true;
    if (compounds && stem.length >= END && word.endsWith(stem)) return true;
    if (word.length < PART) continue;
    // 'sauerkraut' is kraut, 'across' is no cross.
    if (stem.length >= word.length + PREFIX && stem.endsWith(word)) return true;
    if (compounds && stem.length >= PART && (stem.includes(word) || word.startsWith(stem))) return true;
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
