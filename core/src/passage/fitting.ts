import { aspectsOf } from '../keyword/aspects.ts';
import { askedByName } from '../keyword/saying.ts';
import { contentStems, fold } from '../sentence/sentence.ts';
import { answererOf } from './answering.ts';
import { type HeldPage, holds, type Part, partsOf } from './heldPage.ts';

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
/** What one way of asking weighs beside a word. */
const ASKED = 0.25;

/** Words that say what sort of text is wanted, not what about. */
const OF_TEXTS = new Set(
  'idea tip guide complete ultimate easy simple basic thing top list way everything know about need people person someone lover ratgeber tipp anleitung ideen alles wissen'
    .split(' ')
    .flatMap((word) => [word, ...contentStems(word), ...contentStems(word, 'de')]),
);

/**
 * Holds found pages against the subject they were looked up for. Each word of the subject weighs 1, and up to 1 more the
 * rarer it is among the pages found: what all of them hold tells least about what was asked. How a subject asks ('how long',
 * 'buy') counts as one more word of a quarter of the weight. A page speaks of the subject when it holds nearly half of it,
 * and answers it when a paragraph of it holds most of the words and what such a question is answered by.
 * Linear in the length of the pages.
 */
export function fittingOf(subject: string, pages: readonly HeldPage[]): Fitting {
  const language = (pages[0]?.language ?? 'en').split('-')[0]!;
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
  const answer = answererOf({ subject, language, about: rest, words, ways: asked });
  const cover = held.map((own) => Math.max(0, ...own.map(whole)));
  // A subject that asks nothing is answered by what speaks of it.
  const answers = held.map((own, page) => (answer === null ? cover[page]! >= LEAST_COVER : answer(own)));
  const fits = cover.map((one, page) => one >= LEAST_COVER || answers[page]!);
  const named = answer === null ? [] : askedByName(subject, language);
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

/** A word or a way of asking, with what it weighs. */
interface Weighed {
  has: (part: Part) => boolean;
  weight: number;
  /** Whether any page has it. */
  spoken: boolean;
}

const sumOf = (of: readonly Weighed[]): number => of.reduce((sum, { weight }) => sum + weight, 0);

/** Stems as the words the subject has them in. */
function spoken(subject: string, language: string, stems: readonly string[]): string[] {
  const words = fold(subject).split(/[^\p{L}\p{N}'’-]+/u);
  return stems.map((stem) => words.find((word) => contentStems(word, language).includes(stem)) ?? stem);
}

function unique(words: readonly string[]): string[] {
  return [...new Set(words)];
}
