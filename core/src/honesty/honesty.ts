import { onceEach } from '../sentence/remembered.ts';
import { otherSideOfTime } from './aroundTimes.ts';
import { comparing } from './bounds.ts';
import { type Clause, type Statements, statementsOf, wordsOf } from './clause.ts';
import { partOf } from './compared.ts';
import { turnedRound } from './denial.ts';
import { deniesAlone, deniesFigure } from './deniedPlainly.ts';
import { isDenying } from './denying.ts';
import { otherDirection } from './directions.ts';
import type { Doubt } from './doubt.ts';
import { otherEnd } from './ends.ts';
import { hasWhatLacks, withForWithout } from './lacking.ts';
import { setOf } from './lexicon.ts';
import { type Moment, momentFits } from './moments.ts';
import { knownWords, strangeNames } from './names.ts';
import { againstFigures } from './ordered.ts';
import { otherBound } from './otherBound.ts';
import { periodsOf } from './periods.ts';
import { type Quantity, quantityFits } from './quantity.ts';
import { quoteHeld, quotesOf } from './quotes.ts';
import { rankOf } from './rank.ts';
import { isReckoned } from './reckoned.ts';
import { isReckonedMoment } from './reckonedTimes.ts';
import { MOST_CLAUSES, Reckoning, singles } from './reckoning.ts';
import { otherSeason } from './seasons.ts';
import { isInSpan } from './spans.ts';
import { otherSpeaker, otherSurname } from './speakers.ts';
import { otherKin, saidOfAnother } from './subject.ts';
import { otherState } from './switched.ts';
import type { Token } from './token.ts';
import { otherUnitBeside } from './unitBeside.ts';

/** Passages that were read, to hold texts against. */
export type Sources = readonly Statements[];

/** Languages in which texts are held against their sources; others are read as English. */
export const languageOf = (language: string) => (language.startsWith('de') ? 'de' : 'en');

export const readSources = (passages: readonly string[], language = 'en'): Sources =>
  passages.map((passage) => statementsOf(passage, languageOf(language)));

/**
 * Holds a text against the passages it rests on: figures with their units and what they count, dates and times, names,
 * what is quoted, whether something is denied, and of what all this is said. What a source says in other numbers, units
 * or words is the same ('0.9 kilos', 'nine hundred grams', 'just under a kilo'). Linear in the length of the text, and of
 * the passages.
 * @param language of both
 * @returns nothing where nothing speaks against it
 */
export function doubtsOf(text: string, sources: Sources, language = 'en'): Doubt[] {
  const of = languageOf(language);
  const held = heldOf(sources);
  const quotes = quotesOf(text, of);
  const doubts: Doubt[] = quotes
    .filter((quote) => !quoteHeld(quote.text, held.passages, of))
    .map(({ text: words }) => ({ kind: 'quotation', words }));
  // What is quoted is held against the sources word for word, and not looked at again.
  const rest = quotes.reduceRight((left, { start, end }) => `${left.slice(0, start)} — ${left.slice(end)}`, text);
  const own = statementsOf(rest, of);
  const known = sources.map(({ tokens }) => knownWords(tokens, of));
  for (const words of wholeNames(strangeNames(own.tokens, known, of), own.tokens)) doubts.push({ kind: 'name', words });
  for (const { said, isCopied, found } of held.clausesOf(own, of)) {
    if (isCopied) continue;
    doubts.push(...found);
    if (found.length === 0 && otherKin(said, held.clauses)) doubts.push({ kind: 'subject', words: whole(said) });
  }
  return doubts;
}

/** What a clause says otherwise by itself, whatever else its text says. */
interface Weighed {
  isCopied: boolean;
  found: readonly Doubt[];
}

/** Sentences that are remembered beside the passages they were held against. */
const MOST_WEIGHED = 1_000;

/** Passages with what is made of them once, for all that is held against them. */
class Held {
  readonly passages: readonly string[];
  readonly clauses: readonly Clause[];
  private readonly reckoning: Reckoning;
  private readonly weighed = new Map<string, readonly Weighed[]>();

  constructor(private readonly sources: Sources) {
    this.passages = sources.map(({ text }) => text);
    this.clauses = sources.flatMap(({ clauses }) => clauses);
    this.reckoning = new Reckoning(
      this.clauses.flatMap(({ facts }) => [...facts.quantities, ...facts.within]),
      this.clauses.flatMap(({ facts }) => facts.moments),
      this.clauses.slice(0, MOST_CLAUSES),
    );
  }

  /** Clauses of a text with what they say otherwise; a sentence that was held against these passages before is not again. */
  clausesOf({ clauses }: Statements, language: string): (Weighed & { said: Clause })[] {
    return clauses.map((said) => {
      const { sentence } = said;
      const key = `${language} ${sentence.text}`;
      let weighed = this.weighed.get(key);
      if (!weighed) {
        weighed = sentence.clauses.map((one) => this.weigh(one));
        if (this.weighed.size >= MOST_WEIGHED) this.weighed.clear();
        this.weighed.set(key, weighed);
      }
      return { said, ...weighed[sentence.clauses.indexOf(said)]! };
    });
  }

  private weigh(said: Clause): Weighed {
    if (isCopied(said, this.sources)) return { isCopied: true, found: [] };
    const found = [
      ...strangeFigures(said, this.reckoning),
      ...strangeUnits(said, this.reckoning),
      ...strangeDates(said, this.reckoning),
    ];
    found.push(...strangeRank(said, this.clauses));
    if (otherSpeaker(said, this.clauses) || otherSurname(said, this.clauses))
      found.push({ kind: 'name', words: whole(said) });
    if (otherSeason(said, this.clauses)) found.push({ kind: 'date', words: whole(said) });
    if (OPPOSITES.some((wrong) => wrong(said, this.clauses))) found.push({ kind: 'opposite', words: whole(said) });
    if (found.length === 0 && saidOfAnother(said, this.clauses)) found.push({ kind: 'subject', words: whole(said) });
    return { isCopied: false, found };
  }
}

const OPPOSITES = [
  turnedRound,
  hasWhatLacks,
  withForWithout,
  otherSideOfTime,
  otherDirection,
  otherBound,
  againstFigures,
  otherState,
  deniesFigure,
  deniesAlone,
  otherEnd,
  otherUnitBeside,
];

const heldOf = onceEach((sources: Sources) => new Held(sources));

/** Names that stand beside each other are one. */
function wholeNames(strange: readonly Token[], all: readonly Token[]): string[] {
  const out: { words: string; last: Token }[] = [];
  for (const token of strange) {
    const before = out.at(-1);
    if (before && all[all.indexOf(token) - 1] === before.last) {
      before.words = `${before.words} ${token.text}`;
      before.last = token;
    } else out.push({ words: token.text, last: token });
  }
  return out.map(({ words }) => words);
}

/** Words in a row from which on what stands in a source so is what the source says. */
const COPIED = 4;
/** Words before and behind them in which a word that denies would turn them round. */
const AROUND = 3;

/** Whether a source has the clause word for word, with nothing beside it in its sentence that denies it. */
function isCopied({ tokens, language, denies }: Clause, sources: Sources): boolean {
  const said = wordsOf(tokens);
  if (said.split(' ').length < COPIED) return false;
  return sources.some(({ words }) => {
    const at = words.indexOf(` ${said} `);
    // What denies itself lost nothing by being cut out.
    if (at === -1 || denies) return at !== -1;
    const before = words.slice(0, at).split(' . ').at(-1)!.split(' ').slice(-AROUND);
    const behind = words
      .slice(at + said.length + 2)
      .split(' . ')[0]!
      .split(' ')
      .slice(0, AROUND);
    return ![...before, ...behind].some((word) => isDenying(word, language));
  });
}

/** Words of a clause as they stand in it. */
const words = ({ tokens, sentence }: Clause, from: number, to: number) =>
  sentence.text.slice(tokens[from]!.start, tokens[to - 1]!.end);

const whole = (said: Clause) => words(said, 0, said.tokens.length);

function strangeFigures(said: Clause, held: Reckoning): Doubt[] {
  const { quantities, moments, clauses: sources } = held;
  return said.figures.flatMap((figure) => {
    if (perOther(figure, said, sources))
      return [{ kind: 'figure', words: words(said, figure.from, said.tokens.length) }];
    // 'Twice as fast' is no number of things.
    const compares = COMPARED.has(said.tokens[figure.to]?.lower ?? '') && partOf(figure)?.dimension === 'times';
    // 'An hour and ten minutes' is one time, told as seventy minutes elsewhere.
    const joined = said.facts.within.find(({ from, to }) => from <= figure.from && figure.to <= to);
    const found =
      quantities.some((own) => (!compares || partOf(own) !== undefined) && quantityFits(figure, own)) ||
      (joined !== undefined && quantities.some((own) => quantityFits(joined, own))) ||
      countsUp(figure, said, sources) ||
      standsAlone(figure, said, quantities) ||
      isHour(figure, said, moments) ||
      isReckoned(figure, said, held);
    return found ? [] : [{ kind: 'figure', words: words(said, figure.from, figure.to) }];
  });
}

const COMPARED = setOf('as so');

const MEASURED = setOf('length mass volume');

/** 'Batches of a kilogram', 'a one-litre jar': the unit stands there without a number. */
const namesUnit = ({ tokens }: Clause, { stem }: Token): boolean =>
  tokens.some((token, at) => token.unit && token.stem === stem && tokens[at - 1]?.kind !== 'number');

/** 'One metre above the ground' of what lies ten centimetres above it, where nothing says 'so much a metre'. */
function strangeUnits(said: Clause, held: Reckoning): Doubt[] {
  if (said.figures.length > 0 || periodsOf(said).size > 0) return [];
  return singles(said).flatMap((one) => {
    if (!MEASURED.has(one.dimension)) return [];
    const says = comparing(
      said.tokens.map(({ lower }) => lower),
      one.at,
      said.tokens,
    );
    const figure: Quantity = {
      means: [one],
      says: says === 'exactly' ? 'about' : says,
      bare: false,
      from: one.at,
      to: one.at + 2,
    };
    const speaking = held.clauses.filter(({ sentence }) => said.about.some((stem) => sentence.stems.has(stem)));
    const measured = speaking.filter(({ figures }) =>
      figures.some(({ means }) => means.some(({ dimension }) => dimension === one.dimension)),
    );
    const isSo =
      held.quantities.some((own) => quantityFits(figure, own)) ||
      held.clauses.some(
        (clause) =>
          singles(clause).some((own) => own.dimension === one.dimension) || namesUnit(clause, said.tokens[one.at + 1]!),
      ) ||
      isReckoned(figure, said, held);
    return measured.length === 0 || isSo ? [] : [{ kind: 'figure', words: words(said, one.at, one.at + 2) }];
  });
}

function strangeDates(said: Clause, held: Reckoning): Doubt[] {
  const { quantities, moments } = held;
  return said.facts.moments.flatMap((moment) => {
    if (
      moments.some((own) => momentFits(moment, own)) ||
      isReckonedMoment(moment, said, held) ||
      isInSpan(moment, said, held)
    )
      return [];
    // What looks like a year may be a number of things.
    const isCount =
      moment.year !== undefined &&
      !moment.months &&
      quantities.some(({ means }) => means.some(({ value }) => value === moment.year));
    return isCount ? [] : [{ kind: 'date', words: words(said, moment.from, moment.to) }];
  });
}

/** Second, where the sources tell of another place alone. */
function strangeRank(said: Clause, sources: readonly Clause[]): Doubt[] {
  const mine = rankOf(said);
  if (mine === null) return [];
  const others = sources.flatMap((held) => rankOf(held)?.place ?? []);
  return others.length === 0 || others.includes(mine.place)
    ? []
    : [{ kind: 'figure', words: words(said, mine.at, mine.at + 1) }];
}

/** So much a week for so much a month: all that say the figure say another time. */
function perOther(figure: Quantity, said: Clause, sources: readonly Clause[]): boolean {
  const own = periodsOf(said);
  if (own.size === 0) return false;
  const holding = sources.filter(({ facts }) => facts.quantities.some((one) => quantityFits(figure, one)));
  return (
    holding.length > 0 &&
    holding.every((held) => {
      const its = periodsOf(held);
      return its.size > 0 ? ![...own].some((period) => its.has(period)) : isPerTime(held, figure);
    })
  );
}

/** Times that are no unit of time, as prices are told by. */
const TIMES = setOf('term semester season shift night visit stay session trimester saison schicht nacht besuch');

/** 'So much a term', told as so much a month. */
const isPerTime = ({ facts, tokens }: Clause, figure: Quantity): boolean =>
  facts.quantities.some(
    (one) =>
      quantityFits(figure, one) &&
      /^(?:an?|per|each|every|pro|je)$/.test(tokens[one.to]?.lower ?? '') &&
      TIMES.has(tokens[one.to + 1]?.lower ?? ''),
  );

/** 'At ten' of what opens at 10 am. */
function isHour({ means, bare, from }: Quantity, { tokens }: Clause, moments: readonly Moment[]): boolean {
  const before = tokens[from - 1]?.lower ?? '';
  if (
    !bare ||
    !/^(?:at|from|until|till|by|between|and|before|after|um|ab|bis|zwischen|und|vor|nach|gegen)$/.test(before)
  )
    return false;
  return means.some(({ value }) =>
    moments.some(({ clock }) => clock !== undefined && clock % 720 === (value * 60) % 720),
  );
}

const COUNTED_UP = setOf(
  'things ways causes reasons points steps kinds sorts rules questions answers signs ingredients dinge gründe ursachen wege arten schritte regeln fragen',
);
/** More than these are not told one by one. */
const MOST_TOLD = 8;

/** 'Three things decide' of what is told one by one: nobody else counts them. */
function countsUp({ means: [meant], bare, from, to }: Quantity, said: Clause, sources: readonly Clause[]): boolean {
  if (!bare || meant === undefined || meant.value > MOST_TOLD) return false;
  const { lower = '' } = said.tokens[to] ?? {};
  const before = said.tokens[from - 1]?.lower ?? '';
  // 'All three can help'; 'all three trains' are counted, and by somebody.
  // 'The lighter of the two' of what was named.
  const named = before === 'the' && /^(?:of|between)$/.test(said.tokens[from - 2]?.lower ?? '');
  const all = (before === 'all' || before === 'alle' || named) && said.tokens[to]?.content !== true;
  if (!COUNTED_UP.has(lower) && !all) return false;
  const counted = (clause: Clause) =>
    clause.figures.some((own) => own.bare && COUNTED_UP.has(clause.tokens[own.to]?.lower ?? ''));
  return !sources.some(counted);
}

/** A number behind which nothing stands may be one of anything: 'in per cent it is three'. */
function standsAlone({ means: [meant], bare, to }: Quantity, said: Clause, held: readonly Quantity[]): boolean {
  const behind = said.tokens[to];
  if (!bare || meant === undefined || (behind !== undefined && behind.kind !== 'sign')) return false;
  return held.some(({ means: [own] }) => own !== undefined && Math.abs(own.value / own.size - meant.value) < 1e-9);
}
