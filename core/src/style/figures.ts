import { type GradeCounts, gradeCountsOf, gradeOf } from '../article/readingGrade.ts';
import { sentencesOf, wordsOfText } from '../sentence/sentence.ts';
import { type Opening, openingOf, PERSON_WORDS } from './grammar.ts';

/** What is measured of a text to tell how it sounds. */
export const FIGURE_NAMES = [
  'sentence',
  'long',
  'contractions',
  'grade',
  'commas',
  'semicolons',
  'exclamations',
  'questions',
  'figures',
] as const;
export type FigureName = (typeof FIGURE_NAMES)[number];

interface FigureKind {
  says: string;
  unit: string;
  /** The end of the scale it is drawn on, where no text goes beyond. */
  scale: number;
  digits: number;
  /** What is to be done when it is above, and when it is below. */
  above: string;
  below: string;
}

export const FIGURES: Readonly<Record<FigureName, FigureKind>> = {
  sentence: {
    says: 'Words in a sentence',
    unit: '',
    scale: 30,
    digits: 1,
    above: 'Part the longer sentences.',
    below: 'Join some of the shortest sentences.',
  },
  long: {
    says: 'Sentences over 25 words',
    unit: '%',
    scale: 40,
    digits: 0,
    above: 'Part the longest sentences.',
    below: 'Let some sentences run longer.',
  },
  contractions: {
    says: 'Contractions in 100 words',
    unit: '',
    scale: 5,
    digits: 1,
    above: 'Write some of them in full.',
    below: 'Contract as people speak: it’s, don’t.',
  },
  grade: {
    says: 'Reading grade',
    unit: '',
    scale: 16,
    digits: 1,
    above: 'Use shorter words and sentences.',
    below: 'It may ask a little more of its readers.',
  },
  commas: {
    says: 'Commas in a sentence',
    unit: '',
    scale: 4,
    digits: 1,
    above: 'Take insertions out of the sentences.',
    below: 'Join what belongs together.',
  },
  semicolons: {
    says: 'Semicolons in 1,000 words',
    unit: '',
    scale: 20,
    digits: 1,
    above: 'End the sentence instead.',
    below: 'Join two sentences here and there.',
  },
  exclamations: {
    says: 'Exclamation marks in 1,000 words',
    unit: '',
    scale: 20,
    digits: 1,
    above: 'Use full stops.',
    below: 'It may be livelier.',
  },
  questions: {
    says: 'Questions in 100 sentences',
    unit: '',
    scale: 30,
    digits: 0,
    above: 'Say it instead of asking.',
    below: 'Ask what readers ask.',
  },
  figures: {
    says: 'Figures in 100 words',
    unit: '',
    scale: 10,
    digits: 1,
    above: 'Leave out what nobody will use.',
    below: 'Say how much, how long, how warm.',
  },
};

/** How a text sounds, in figures. */
export interface TextFigures {
  words: number;
  sentences: number;
  figures: Record<FigureName, number>;
  /** Shares of the words that name a person, 0 to 1; all 0 where none does. */
  persons: Record<'I' | 'we' | 'you', number>;
  /** Shares of the sentences by how they begin. */
  openings: Record<Opening, number>;
}

const LONG_SENTENCE = 25;
/** Words with an apostrophe that are two in one; "the hive's" is one word. */
const CONTRACTED: Readonly<Record<string, RegExp>> = {
  en: /n['’]t$|^(?:i|you|we|they|he|she|it|that|there|who|what|here|where|let)['’](?:m|re|ve|ll|d|s)$/i,
  de: /['’](?:s|n|ne|nen|m|r)$/i,
};
const FIGURE = /\d+(?:[.,:]\d+)*/g;

const share = (some: number, all: number): number => (all === 0 ? 0 : some / all);
const times = (text: string, mark: RegExp): number => text.match(mark)?.length ?? 0;

/**
 * The figures of one text. Sentences are parted as everywhere in Grivo; the reading grade is 0 in languages it has no
 * formula for.
 */
export function figuresOfText(text: string, language: string): TextFigures {
  const tongue = language.slice(0, 2);
  // A heading or a line of a list is no part of the sentence after it.
  const sentences = text.split(/\n+/).flatMap((line) => sentencesOf(line, language));
  const parted = sentences.map((one) => wordsOfText(one, language));
  const words = parted.reduce((sum, { length }) => sum + length, 0);
  const counts: GradeCounts[] = parted.map((one) => gradeCountsOf(one, language));
  const contracted = CONTRACTED[tongue];
  const all = parted.flat();
  const per = (n: number, of: number, all: number) => share(n * of, all);
  const openings: TextFigures['openings'] = { 'an order': 0, 'a figure': 0, 'a question': 0, other: 0 };
  for (const [at, one] of sentences.entries()) openings[openingOf(one, parted[at]!, tongue)] += 1;
  for (const kind of Object.keys(openings) as Opening[]) openings[kind] = share(openings[kind], sentences.length);
  return {
    words,
    sentences: sentences.length,
    figures: {
      sentence: share(words, sentences.length),
      long: per(parted.filter(({ length }) => length > LONG_SENTENCE).length, 100, sentences.length),
      contractions: contracted
        ? per(all.filter((word) => /['’]/.test(word) && contracted.test(word)).length, 100, words)
        : 0,
      grade: Math.max(0, gradeOf(counts, language).value),
      commas: share(times(text, /[,،、]/g), sentences.length),
      semicolons: per(times(text, /;/g), 1_000, words),
      exclamations: per(times(text, /[!！]/g), 1_000, words),
      questions: per(times(text, /[?？؟]/g), 100, sentences.length),
      figures: per(times(text, FIGURE), 100, words),
    },
    persons: personsOf(all, tongue),
    openings,
  };
}

/** Letters of the longest word for a person, with what it may be drawn together with. */
const LONGEST_PERSON = 12;

function personsOf(words: readonly string[], tongue: string): TextFigures['persons'] {
  const of = PERSON_WORDS[tongue];
  if (!of) return { I: 0, we: 0, you: 0 };
  const times = { I: 0, we: 0, you: 0 };
  for (const word of words) {
    // No word for a person is longer; most words are.
    if (word.length > LONGEST_PERSON) continue;
    // 'we've' is said as 'we'.
    const end = word.search(/['’]/);
    const said = (end < 0 ? word : word.slice(0, end)).toLowerCase();
    for (const person of ['I', 'we', 'you'] as const) if (of[person].has(said)) times[person]++;
  }
  const all = times.I + times.we + times.you;
  return { I: share(times.I, all), we: share(times.we, all), you: share(times.you, all) };
}

/** One figure over several texts: what it is in the whole of them, and between what it lies. */
export interface FigureOver {
  name: FigureName;
  /** By the length of the texts. */
  mean: number;
  /** In each text, in their order. */
  each: number[];
  /** Where a text of the same hand is to be expected: the mean and one and a half deviations to either side. */
  range: { from: number; to: number };
}

const DEVIATIONS = 1.5;
/** Of the scale: a range so narrow would be broken by every text. */
const NARROWEST = 0.1;

/** The figures over several texts. */
export function figuresOver(texts: readonly TextFigures[]): FigureOver[] {
  const words = texts.reduce((sum, one) => sum + one.words, 0);
  return FIGURE_NAMES.map((name) => {
    const each = texts.map(({ figures }) => figures[name]);
    const mean = words === 0 ? 0 : texts.reduce((sum, one) => sum + one.figures[name] * one.words, 0) / words;
    const deviation =
      each.length < 2 ? 0 : Math.sqrt(each.reduce((sum, one) => sum + (one - mean) ** 2, 0) / (each.length - 1));
    const half = Math.max(DEVIATIONS * deviation, FIGURES[name].scale * (NARROWEST / 2));
    const { digits } = FIGURES[name];
    return {
      name,
      mean,
      each,
      range: { from: rounded(Math.max(0, mean - half), digits), to: rounded(mean + half, digits) },
    };
  });
}

export function rounded(n: number, digits: number): number {
  return Math.round(n * 10 ** digits) / 10 ** digits;
}

/** Shares over several texts, by their length. */
export function sharesOver<K extends string>(
  texts: readonly TextFigures[],
  of: (one: TextFigures) => Record<K, number>,
): Record<K, number> {
  const words = texts.reduce((sum, one) => sum + one.words, 0);
  const out = {} as Record<K, number>;
  for (const one of texts)
    for (const [name, value] of Object.entries(of(one)) as [K, number][])
      out[name] = (out[name] ?? 0) + value * share(one.words, words);
  return out;
}
