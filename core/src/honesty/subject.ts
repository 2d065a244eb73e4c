import { bareWords, type Clause } from './clause.ts';
import { comparedAlone, comparedRound, crossed, isInverse, partOf } from './compared.ts';
import { elsewhere, namesExchanged, ofWhoStandsBefore } from './exchanged.ts';
import { kinOf, MEASURING, setOf, sidesOf } from './lexicon.ts';
import { type Moment, momentFits, ordinalOf } from './moments.ts';
import { paidOrFree } from './paid.ts';
import { isPerson } from './person.ts';
import { type Quantity, quantityFits } from './quantity.ts';
import { doneByAnother, oneThingOther } from './replaced.ts';
import {
  countedBeside,
  doneByNamesake,
  exchangedInstead,
  otherPartOfDay,
  otherPeriod,
  rolesExchanged,
  toldOfTheRest,
} from './roles.ts';

/** Where a figure or a date stands. */
type Place = { figure: Quantity } | { moment: Moment };

/**
 * Whether a clause says of one thing what the sources say of another: a figure, a date, what is done, or what is compared
 * with what. Told by its sentence alone.
 */
export function saidOfAnother(said: Clause, sources: readonly Clause[]): boolean {
  return (
    said.figures.some((figure) => !isWithin(said, figure) && figureOfAnother(said, figure, sources)) ||
    said.facts.moments.some((moment) => dateOfAnother(said, moment, sources)) ||
    [
      crossed,
      comparedRound,
      comparedAlone,
      doneByAnother,
      oneThingOther,
      paidOrFree,
      namesExchanged,
      elsewhere,
      ofWhoStandsBefore,
      rolesExchanged,
      otherPeriod,
      doneByNamesake,
      exchangedInstead,
      countedBeside,
      toldOfTheRest,
      otherPartOfDay,
    ].some((wrong) => wrong(said, sources))
  );
}

/** Part of one figure: the hours of '8 hours 28 minutes'. */
const isWithin = (said: Clause, { from, to }: Quantity) =>
  said.facts.within.some((whole) => whole.from <= from && to <= whole.to && whole.to - whole.from > to - from);

/** Her grandmother, where all sources speak of her grandfather alone, and the text never of him. */
export function otherKin(said: Clause, sources: readonly Clause[]): boolean {
  const speak = (word: string) => sources.some(({ words }) => words.has(word));
  return kinOf(said.language).some(
    ([a, b]) =>
      (said.words.has(a) && !speak(a) && speak(b) && !said.sentence.of.words.includes(` ${b} `)) ||
      (said.words.has(b) && !speak(b) && speak(a) && !said.sentence.of.words.includes(` ${a} `)),
  );
}

function figureOfAnother(said: Clause, figure: Quantity, sources: readonly Clause[]): boolean {
  // 'A quarter as long' of one is four times as long of the other.
  const fitting = (held: Clause) => [...held.figures, ...held.facts.within].filter((own) => quantityFits(figure, own));
  const isFromOther = (held: Clause) =>
    said.about.some((stem) => held.own.has(stem)) && fitting(held).some((own) => isInverse(figure, own));
  if (partOf(figure) && sources.some(isFromOther)) return false;
  const has = (held: Clause) => fitting(held).length > 0;
  const rivals = (held: Clause) =>
    held.figures.some((own) => sameSort(own, figure) && !said.facts.quantities.some((one) => quantityFits(one, own)));
  return isOfAnother(said, { figure }, has, rivals, sources);
}

function dateOfAnother(said: Clause, moment: Moment, sources: readonly Clause[]): boolean {
  const has = (held: Clause) => held.facts.moments.some((own) => momentFits(moment, own));
  const rivals = (held: Clause) =>
    held.facts.moments.some(
      (own) => sortOf(own) === sortOf(moment) && !said.facts.moments.some((one) => momentFits(one, own)),
    );
  return isOfAnother(said, { moment }, has, rivals, sources);
}

/** Whether it is said of something else wherever a source has it. */
function isOfAnother(
  said: Clause,
  place: Place,
  has: (held: Clause) => boolean,
  isRival: (held: Clause) => boolean,
  sources: readonly Clause[],
): boolean {
  const holding = sources.filter(has);
  if (holding.length === 0) return false;
  let rivals: Clause[] | null = null;
  return holding.every((held) => {
    rivals ??= sources.filter((other) => !holding.includes(other) && isRival(other));
    return isAnother(said, place, held, rivals, sources);
  });
}

const sameSort = (a: Quantity, b: Quantity) =>
  a.means.some(({ dimension }) => b.means.some((other) => other.dimension === dimension));

const sortOf = ({ clock, weekday, months, year }: Moment) =>
  clock !== undefined
    ? 'clock'
    : weekday !== undefined
      ? 'weekday'
      : months
        ? 'month'
        : year === undefined
          ? 'span'
          : 'year';

function isAnother(
  said: Clause,
  place: Place,
  held: Clause,
  rivals: readonly Clause[],
  sources: readonly Clause[],
): boolean {
  const figure = 'figure' in place ? place.figure : null;
  // What stands there with the very date that is told, or figures that are, is no rival's.
  const isDated = figure === null ? hasFigures(said, held) : said.facts.moments.length > 0 && hasDates(said, held);
  if (onOtherSide(said, held) || rivals.some((rival) => isRivals(said, held, rival, isDated))) return true;
  const isPart = figure !== null && partOf(figure) !== undefined;
  if (!isPart && isCompared(said, held)) return true;
  if (figure === null) return isPerson(said, held, sources);
  return (
    countsOther(said, figure, held, sources) ||
    (!isPart && fromBehind(said, figure, held)) ||
    otherSubject(said, isPart, held, sources)
  );
}

/** '… longer than the first': whatever that is of. */
const ranksAlone = ({ tokens, language }: Clause, at: number): boolean =>
  ordinalOf(tokens[at]!.lower, language) !== null && tokens[at + 1]?.content !== true;

/** Things a clause speaks of, without those it only counts: these are left out often. */
function thingsOf(said: Clause): ReadonlySet<string> {
  return said.once('things spoken of', () => {
    // '49 euros is what a seat costs' counts no seat.
    const counted = new Set(
      said.figures.map(({ to }) => said.tokens.findIndex(({ content }, at) => at >= to && at <= to + 1 && content)),
    );
    return new Set(
      said.tokens.flatMap(({ content, unit, lower, stem }, at) =>
        content &&
        !unit &&
        !ranksAlone(said, at) &&
        !counted.has(at) &&
        !said.taken[at] &&
        !MEASURING.has(lower) &&
        said.isThing(at)
          ? [stem]
          : [],
      ),
    );
  });
}

const THE_ONE_BEFORE = setOf('before earlier previous previously davor zuvor vorher vorigen');

/** It has words of the clause with another figure, and lacks those by which its own is told from it. */
function isRivals(said: Clause, held: Clause, rival: Clause, isDated: boolean): boolean {
  if (atOtherTime(said, held, rival)) return true;
  if (isDated) return false;
  // '31 per cent, against 18 the year before', told as 31 the year before.
  if (said.has(THE_ONE_BEFORE) && rival.has(THE_ONE_BEFORE) && !held.has(THE_ONE_BEFORE)) return true;
  const strange = [...thingsOf(said), ...doingsOf(said, held)].filter(
    (stem) =>
      rival.own.has(stem) &&
      !held.own.has(stem) &&
      !isTopic(stem, held) &&
      ![...held.own].some((own) => isKindOf(own, stem)),
  );
  if (strange.length === 0) return false;
  if (strange.every((stem) => isOfPointed(held, stem))) return true;
  const measures = measuredAs(said);
  return [...held.own].some(
    (stem) => !rival.about.includes(stem) && (measures.has(stem) || !said.sentence.stems.has(stem)),
  );
}

/** Stems of what is done, in a passive: 'was automated'; not those its own sentence says. */
const doingsOf = (said: Clause, held: Clause): readonly string[] =>
  said
    .once('passives', () =>
      said.tokens.flatMap(({ lower, stem, content }, at) =>
        content && /ed$/.test(lower) && BEING.has(said.tokens[at - 1]?.lower ?? '') ? [stem] : [],
      ),
    )
    .filter((stem) => !held.sentence.stems.has(stem));
const BEING = setOf('was were been is are');

/** 'It costs 45 euros': what it is stands in the sentence before, which does not speak of a thing. */
function isOfPointed(held: Clause, stem: string): boolean {
  const { n, of } = held.sentence;
  if (held.before !== null || !POINTING.has(held.tokens[0]?.lower ?? '')) return false;
  const before = of.clauses.filter(({ sentence }) => sentence.n === n - 1);
  return before.length > 0 && before.every(({ stemSet }) => !stemSet.has(stem));
}

const SIZES = setOf('deep high long wide tall thick old tief hoch lang breit dick alt');

/** 'Deep' in '3.8 metres deep' tells what is measured, and not of what. */
const measuredAs = (said: Clause): ReadonlySet<string> =>
  said.once(
    'measured as',
    () =>
      new Set(
        said.tokens.flatMap(({ lower, stem }, at) => (SIZES.has(lower) && said.tokens[at - 1]?.unit ? [stem] : [])),
      ),
  );

/** It is told of the time of the rival, and the source says it of its own. */
function atOtherTime(said: Clause, held: Clause, rival: Clause): boolean {
  const has = (of: readonly Clause[], moment: Moment) =>
    of.some(({ facts }) => facts.moments.some((own) => momentFits(moment, own)));
  return said.facts.moments.some(
    (moment) =>
      // What a sentence tells of its own time, and the source of no time in its.
      (sortOf(moment) !== 'clock' &&
        has(rival.sentence === held.sentence ? [rival] : rival.sentence.clauses, moment) &&
        !has(rival.sentence === held.sentence ? [held] : held.sentence.clauses, moment)) ||
      (rival.facts.moments.some((own) => momentFits(moment, own)) &&
        held.facts.moments.some((own) => sortOf(own) === sortOf(moment)) &&
        !held.facts.moments.some((own) => momentFits(moment, own))),
  );
}

/** What the whole text is about may be said of every figure in it. */
function isTopic(stem: string, { sentence }: Clause): boolean {
  return sentence.n > 0 && sentence.of.clauses[0]!.about.includes(stem);
}

/** It is told of what the sentence only compares with. */
function isCompared(said: Clause, held: Clause): boolean {
  if (/\b(?:than|as|als|wie)\b/.test(said.sentence.text)) return false;
  const mine = thingsOf(said);
  const others = held.sentence.clauses.map(({ compared }) => compared);
  // What follows it with a multiple is set beside all of it: 'heather honey brings £14, twice the price of clover honey'.
  const multiple = held.sentence.clauses.find((one) => one.before === held && one.facts.quantities[0]?.from === 0);
  const its = held.thingsBefore.filter((stem) => !multiple?.compared.has(stem));
  return (
    its.length > 0 &&
    others.some((compared) => [...compared].some((stem) => mine.has(stem) && !held.own.has(stem))) &&
    !its.some((stem) => said.sentence.stems.has(stem))
  );
}

/** The figure is that of the old one, and it is told of the new. */
function onOtherSide(said: Clause, held: Clause): boolean {
  const [mine, its] = [bareWords(said), bareWords(held)];
  const says = (a: string, b: string) => mine.has(a) && !mine.has(b) && its.has(b) && !its.has(a);
  return sidesOf(said.language).some(([a, b]) => says(a, b) || says(b, a));
}

/** Whether a sentence has a word, whatever its ending, or what that is a kind of: 'the bridge' for a footbridge. */
const isSpokenOf = (stem: string, said: Clause) =>
  said.sentence.stems.has(stem) ||
  (said.language === 'de' && bareWords(said).has(stem.replace(/(?:e[nmrs]?|s)$/, ''))) ||
  (said.subject !== null && isKindOf(stem, said.subject));

/** Letters of a word that may be what another is a kind of. */
const LEAST_OF_KIND = 4;
const isKindOf = (stem: string, of: string): boolean =>
  of.length >= LEAST_OF_KIND && stem.length > of.length + 2 && stem.endsWith(of);

const OF_STUFF = setOf('mass volume share');

/** So much of one thing in the source, of another here: '18 grams of salt', '18 grams of sugar'. */
function countsOther(said: Clause, figure: Quantity, held: Clause, sources: readonly Clause[]): boolean {
  const own = held.facts.quantities.find((one) => quantityFits(figure, one));
  const mine = said.countedBy(figure);
  const its = own ? held.countedBy(own) : null;
  if (mine === null || its === null || mine === its) return false;
  // What a number counts is told from a verb behind it ('3 crack') by its plural.
  const isNoun = held.language === 'de' || held.tokens[own!.to]?.lower.endsWith('s') === true;
  if (figure.bare && own!.bare && isNoun && isCountedOtherwise(said, figure, mine, sources)) return true;
  if (said.sentence.stems.has(its) || held.sentence.stems.has(mine) || isTopic(mine, held)) return false;
  return !figure.bare && !own!.bare
    ? figure.means.some(({ dimension }) => OF_STUFF.has(dimension))
    : sources.some(({ stemSet }) => stemSet.has(mine));
}

/** So much of the same, told of what the source names behind it only: 'a wheel takes 310 litres of milk from 20 cows'. */
function fromBehind(said: Clause, figure: Quantity, held: Clause): boolean {
  const own = held.facts.quantities.find((one) => quantityFits(figure, one));
  const { subject } = said;
  // 'In a survey of 840 hives the trust found': what it is about stands behind.
  if (!own || subject === null || LEADING.has(held.tokens[0]?.lower ?? '')) return false;
  // 'The prison was lent twelve boards', by whoever stands before.
  if (said.has(PASSIVE) || LEADING.has(said.tokens[0]?.lower ?? '')) return false;
  const counted = held.countedBy(own);
  if (counted === null || counted === subject || said.countedBy(figure) !== counted) return false;
  const places = held.tokens.flatMap(({ content, stem }, at) => (content && stem === subject ? [at] : []));
  // '15 litres a hive' is what a hive is given.
  if (places.some((at) => EACH.has(held.tokens[at - 1]?.lower ?? ''))) return false;
  const its = held.thingsBefore;
  return (
    places.length > 0 &&
    places.every((at) => at >= own.to) &&
    its.length > 0 &&
    !its.some((stem) => said.sentence.stems.has(stem))
  );
}

const EACH = setOf('a an per each every je pro jede jeder jedes jeden jedem');

/** A sentence counts both, and this one to another number: '40 ukuleles and three harps', told as 40 harps. */
function isCountedOtherwise(said: Clause, figure: Quantity, thing: string, sources: readonly Clause[]): boolean {
  // 'Of 12,000 pictures 400 showed …': those are pictures too.
  if (
    sources.some((held) =>
      held.figures.some(
        (one, i) =>
          i === 0 &&
          OUT_OF.has(held.tokens[one.from - 1]?.lower ?? '') &&
          held.countedBy(one) === thing &&
          held.figures.slice(1).some((own) => quantityFits(figure, own)),
      ),
    )
  )
    return false;
  const counting = sources.flatMap((held) => held.figures.filter((one) => one.bare && held.countedBy(one) === thing));
  return (
    counting.length > 0 &&
    !counting.some((one) => quantityFits(figure, one) || said.figures.some((other) => quantityFits(other, one)))
  );
}

const OUT_OF = setOf('of von');
const LEADING = setOf('in of at on for from with by after among during in im bei nach von vom mit aus auf für unter');

const PASSIVE = setOf('was were been being wurde wurden worden');

const POINTING = setOf('it its them their he she his her er sie es ihn ihr ihre sein seine ihnen');

/** Whether a source has all figures of what is said, where there are any. */
const hasFigures = (said: Clause, held: Clause): boolean =>
  said.figures.length > 0 &&
  said.figures.every((figure) => held.facts.quantities.some((own) => quantityFits(figure, own)));

/** Whether a source has all dates and times of what is said. */
const hasDates = (said: Clause, held: Clause): boolean =>
  said.facts.moments.every((one) => held.facts.moments.some((own) => momentFits(one, own)));

/** What may stand for whoever did something: 'the study covered 1,250 households' of researchers who followed them. */
const STUDIES = setOf(
  'study survey trial test project report research researchers team experiment paper studie untersuchung versuch umfrage projekt bericht forscher team',
);

/** What the sentence is about stands in the sources, but not where this is said of something that is named there. */
function otherSubject(said: Clause, isPart: boolean, held: Clause, sources: readonly Clause[]): boolean {
  const { subject } = said;
  if (subject === null || held.own.has(subject) || STUDIES.has(said.tokens.find(({ stem }) => stem === subject)!.lower))
    return false;
  const its = held.thingsBefore;
  if (its.length === 0 || its.some((stem) => isSpokenOf(stem, said))) return false;
  // The same figure of the same date: 'in 1954 two metres of rain fell' of 'the wettest year was 1954 with 2,110 millimetres'.
  if (said.facts.moments.length > 0 && hasDates(said, held)) return false;
  // Who is compared with whom is looked at by itself.
  if (held.compared.has(subject)) return !isPart;
  // 'Fährt' is no journey.
  if (
    !sources.some(({ about, things, language }) => (language === 'de' ? things.has(subject) : about.includes(subject)))
  )
    return false;
  const points = held.leans || held.tokens.some(({ lower }) => POINTING.has(lower));
  const { n, of } = held.sentence;
  const before = of.clauses.slice(0, of.clauses.indexOf(held));
  const near = before.filter(({ sentence }) => (points ? sentence.n === 0 || sentence.n >= n - 1 : sentence.n === n));
  return (
    !near.some(({ about, compared }) => about.includes(subject) && !compared.has(subject)) ||
    isPerson(said, held, sources)
  );
}
