import { onceEach, remembered } from '../sentence/remembered.ts';
import { sentencesOf } from '../sentence/sentence.ts';
import { readSentence, type Statements } from './clause.ts';
import { languageOf, type Sources } from './honesty.ts';
import { momentFits } from './moments.ts';
import { quantityFits } from './quantity.ts';

/** Words of content from which on a sentence can be told to be of something else. */
const LEAST_WORDS = 3;
/** Less than this share of its words may stand in a source all the same: some stand everywhere. */
const MET_BY_CHANCE = 0.2;
/** Letters by which words that begin alike are taken for kin, and of a word with which another begins. */
const KIN = 5;
const PART = 4;

/**
 * Sentences that say nothing like their sources: hardly a word of content of theirs stands there, not even another form of
 * it, and none of their figures, dates and times. What is asked claims nothing, and what is quoted is held word for word.
 * Judged on the pairs of `pairs`: of what is true less than 1 in 100 is marked, of sentences on another matter about half are
 * seen; the others have one or two words of content, too few to tell.
 */
export function unsupportedSentences(text: string, sources: Sources, language = 'en'): string[] {
  if (sources.length === 0) return [];
  const of = languageOf(language);
  const known = judgedOf(sources);
  return sentencesOf(text, of).filter((sentence) => known(sentence, of));
}

/** Sentences that are remembered beside the passages they were held against. */
const MOST_JUDGED = 1_000;

/** Whether sentences are unsupported by passages; one that was held against them before is not again. */
const judgedOf = onceEach((sources: Sources) =>
  remembered((sentence, language) => isUnsupported(sentence, sources, language), MOST_JUDGED),
);

function isUnsupported(text: string, sources: Sources, language: string): boolean {
  if (CLAIMS_NOTHING.test(text)) return false;
  const { parts } = readSentence(text, language);
  const words: string[] = [];
  for (const { part } of parts) for (const { content, unit, stem } of part) if (content && !unit) words.push(stem);
  if (words.length < LEAST_WORDS) return false;
  const known = sources.map(knownOf);
  // Most sentences have so many words of their sources that the first of them tell.
  const isFew = (isMet: (stem: string) => boolean) => {
    let met = 0;
    return !words.some((stem) => isMet(stem) && ++met >= words.length * MET_BY_CHANCE);
  };
  return (
    isFew((stem) => known.some(({ stems }) => stems.has(stem))) &&
    isFew((stem) => known.some((held) => hasKin(held, stem))) &&
    !parts.some(({ facts }) => holdsFigure(facts, sources))
  );
}

/** A question, and what somebody is quoted with. */
const CLAIMS_NOTHING = /[?“”„«»"]/;

/** Whether a source has one of its figures, dates or times, in whatever units. */
function holdsFigure({ quantities, moments }: Statements['clauses'][number]['facts'], sources: Sources): boolean {
  return sources.some((source) =>
    source.clauses.some(
      ({ facts }) =>
        quantities.some((one) => [...facts.quantities, ...facts.within].some((held) => quantityFits(one, held))) ||
        moments.some((one) => facts.moments.some((held) => momentFits(one, held))),
    ),
  );
}

/** The words of a source, and what longer words begin and end with: looked up, so that long sources take no longer. */
class Known {
  readonly stems: ReadonlySet<string>;
  private parts: { beginnings: ReadonlySet<string>; endings: ReadonlySet<string> } | null = null;

  constructor({ tokens }: Statements) {
    this.stems = new Set(tokens.flatMap(({ stem }) => (stem === '' ? [] : [stem])));
  }

  /** Made once they are asked for: most sentences say what their source says, and need none of them. */
  get ofWords(): { beginnings: ReadonlySet<string>; endings: ReadonlySet<string> } {
    this.parts ??= {
      beginnings: new Set([...this.stems].flatMap(beginningsOf)),
      endings: new Set([...this.stems].flatMap(endingsOf)),
    };
    return this.parts;
  }
}

/** Letters of a word that are looked at. */
const LONGEST = 40;

const knownOf = onceEach((source: Statements) => new Known(source));

const lengths = (least: number, word: string) =>
  Array.from({ length: Math.max(0, Math.min(word.length, LONGEST) - least + 1) }, (_, i) => least + i);
const beginningsOf = (word: string) => lengths(PART, word).map((n) => word.slice(0, n));
const endingsOf = (word: string) => lengths(KIN, word).map((n) => word.slice(-n));

/** Whether any word of a source is another form of one, or a part of it: 'acid' and 'acidity', 'Gewicht' and 'Glasgewicht'. */
function hasKin({ stems, ofWords: { beginnings, endings } }: Known, own: string): boolean {
  return (
    beginnings.has(own) ||
    endings.has(own) ||
    (own.length >= KIN && beginnings.has(own.slice(0, KIN))) ||
    beginningsOf(own).some((part) => stems.has(part)) ||
    endingsOf(own).some((part) => stems.has(part))
  );
}
