import { askedByName, says } from '../keyword/saying.ts';
import { contentStems, fold } from '../sentence/sentence.ts';
import { holds, type Part } from './heldPage.ts';

/** A subject as it is asked: what it is about, and how it asks. */
export interface Asked {
  subject: string;
  language: string;
  /** The subject without its ways of asking. */
  about: string;
  /** Stems it is about. */
  words: readonly string[];
  /** Ways of asking, from the most telling on. */
  ways: readonly string[];
}

/** The least share of the words it is about that stand beside an answer, and of each side of it. */
const LEAST_ANSWERED = 0.6;
const LEAST_OF_SIDE = 0.5;

/**
 * Whether a page answers what a subject asks: a paragraph of it is about most of its words and holds what such a question is
 * answered by. Of several ways of asking the first must be answered.
 * @returns null for a subject that asks nothing, or in a language whose ways of asking are not known
 */
export function answererOf({
  subject,
  language,
  about,
  words: all,
  ways,
}: Asked): ((page: readonly Part[]) => boolean) | null {
  // Of other languages it is not known how they ask and answer; a headline asks nothing.
  if ((language !== 'en' && language !== 'de') || !isAsked(subject, language)) return null;
  const needed = all.filter((word) => !CIRCUMSTANCES.has(word));
  const words = needed.length > 0 ? needed : all;
  const [first] = ways;
  const named = askedByName(subject, language);
  const share = (of: readonly string[]) => (part: Part) =>
    of.length === 0 ? 1 : of.filter((word) => holds(part.stems, word, language)).length / of.length;
  const ofTopic = share(words);
  // 'Oil for a board' is about both: neither the oil nor the board alone answers it.
  const sides = sidesOf(about, language)
    .map((side) => words.filter((word) => side.has(word)))
    .filter((side) => side.length > 0)
    .map(share);
  const verb = verbOf(subject, words, language);
  const isSaid = (part: Part) =>
    first === undefined ||
    says(part.folded(), first, language) ||
    // Causes are often told without a word for it, and how something is done by its own verb.
    (first === 'mending' && words.length > 1 && ofTopic(part) === 1) ||
    (first === 'making' && verb !== null && holds(part.stems, verb, language));
  // What a page asks in its title is what it is about: half of the words are enough there ('Cleaning a crock').
  const least = (part: Part) => (first !== undefined && part.asked().has(first) ? LEAST_OF_SIDE : LEAST_ANSWERED);
  const isAbout = (part: Part) => ofTopic(part) >= least(part) && sides.every((side) => side(part) >= LEAST_OF_SIDE);
  const isAnswer = (part: Part) =>
    isAbout(part) && named.every((way) => says(part.folded(), way, language)) && isSaid(part);
  // Of two that are to be chosen between a page tells one after the other.
  const isChoice = (page: readonly Part[]) =>
    first === 'choosing' && isAbout(wholeOf(page)) && page.some((part) => ofTopic(part) > 0 && isSaid(part));
  return first === undefined && named.length === 0 ? null : (page) => page.some(isAnswer) || isChoice(page);
}

/** Words more than which are a sentence, and ask only where they begin as a question. */
const MOST_OF_PHRASE = 5;
const QUESTION: Record<string, RegExp> = {
  en: /^(?:how|why|what|when|where|which|who|can|could|is|are|do|does|did|should|will|may|must|best)\b/,
  de: /^(?:wie|warum|wieso|weshalb|was|wann|wo|woher|womit|welche[nrs]?|wer|kann|konnen|ist|sind|darf|soll|muss|hilft|lohnt)\b/,
};
const BETWEEN_TWO: Record<string, RegExp> = { en: / (?:or|vs|versus) /, de: / oder / };

/** Whether a subject is a phrase people look for, or a question; what is longer is a headline. */
function isAsked(subject: string, language: string): boolean {
  const asked = fold(subject);
  return (
    asked.split(' ').length <= MOST_OF_PHRASE || QUESTION[language]!.test(asked) || BETWEEN_TWO[language]!.test(asked)
  );
}

/** When and for whom, not what: 'for the winter', 'for beginners'. */
const CIRCUMSTANCES = new Set(
  'winter summer spring autumn beginner beginners home kids children family week weekend anfanger sommer herbst fruhjahr kinder familie hause wochenende'
    .split(' ')
    .flatMap((word) => [word, ...contentStems(word), ...contentStems(word, 'de')]),
);

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

/** All parts of a page as one. */
const wholeOf = (parts: readonly Part[]): Part => ({
  ...parts[0]!,
  stems: new Set(parts.flatMap(({ stems }) => [...stems])),
});

const HOW_TO: Record<string, RegExp> = {
  en: /^how (?:to|do (?:i|you)) (\p{L}+)/u,
  de: /^wie (?:\p{L}+ )?(?:ich|man|wir) /u,
};

/** What is to be done in a question after how, where it is one of the words the subject is about. */
function verbOf(subject: string, words: readonly string[], language: string): string | null {
  const asked = HOW_TO[language]?.exec(fold(subject))?.[1];
  const [stem] = asked === undefined ? [] : contentStems(asked, language);
  return stem !== undefined && words.includes(stem) ? stem : null;
}
