import { bareWords, type Clause, type Sentence } from './clause.ts';
import { partOf } from './compared.ts';
import { directionOf } from './directions.ts';
import { setOf, sidesOf } from './lexicon.ts';
import { momentFits } from './moments.ts';
import { type Meaning, near, type Quantity } from './quantity.ts';
import {
  BACK,
  EXACT,
  EXACTLY,
  fits,
  MOST_HELD,
  OF_THEM,
  REST,
  type Reckoning,
  ROUNDED,
  singles,
  type Way,
  whole,
} from './reckoning.ts';

/**
 * A part or a multiple that two figures come to: with the same unit wherever they stand, numbers of things where one
 * sentence tells both; and what is left of one, or was added to it: 'a third less'.
 */
const isRatio: Way = (figure, said, { clauses, sentences }) => {
  const part = partOf(figure);
  if (!part) return false;
  const follows = (all: readonly Meaning[], near: ReadonlySet<Meaning> | null = null) =>
    all.some((a) =>
      all.some(
        (b) =>
          a !== b &&
          a.dimension === b.dimension &&
          b.value > 0 &&
          (near === null || (near.has(a) && near.has(b))) &&
          ratioFits(figure, part, a, b, said),
      ),
    );
  const [counts, measured] = [true, false].map(
    (counting) => (of: readonly Quantity[]) =>
      of.flatMap((one) =>
        whole([one])
          .filter(({ dimension }) => (dimension === 'count') === counting)
          .slice(0, 1),
      ),
  ) as [(of: readonly Quantity[]) => Meaning[], (of: readonly Quantity[]) => Meaning[]];
  if (sentences.some(({ figures }) => follows(counts(figures)))) return true;
  // Of the many that are measured somewhere one at least is measured of what is spoken of; 'a kilo' is one.
  const by = clauses.map((held) => ({ held, all: [...measured(held.facts.quantities), ...singles(held)] }));
  const near = by.filter(({ held }) => said.subject === null || isOnTheSame(said, held));
  return follows(by.flatMap(({ all }) => all).slice(0, MOST_HELD), new Set(near.flatMap(({ all }) => all)));
};

/** Letters of a word that stands within another: 'schälen', 'geschält'. */
const LEAST_WITHIN = 4;

/** Whether a sentence has a word of what is said, or one that holds it. */
const isOnTheSame = ({ about }: Clause, { sentence }: Clause): boolean =>
  about.some(
    (stem) =>
      sentence.stems.has(stem) ||
      (stem.length >= LEAST_WITHIN && [...sentence.stems].some((own) => own.includes(stem) || stem.includes(own))),
  );

function ratioFits(figure: Quantity, part: Meaning, a: Meaning, b: Meaning, said: Clause): boolean {
  const ratio = a.value / b.value;
  // 'A third less', 'loses a third', 'half as much again'.
  const lost = part.value < 1 && ratio < 1 && said.has(LOSING) ? [1 - ratio] : [];
  const gained = part.value < 1 && ratio > 1 && said.has(GAINING) ? [ratio - 1] : [];
  return [ratio, ...lost, ...gained].some((value) => near(part.value, value, figure, EXACTLY, ROUNDED));
}

const LOSING = setOf(
  'less fewer lose loses lost losing shrink shrinks shrank shrunk fall falls fell fallen drop drops dropped lower shorter lighter smaller cheaper down reduced reduces saves weniger verliert verlor verloren schrumpft sinkt sank gesunken fiel fällt gefallen niedriger kürzer leichter kleiner billiger spart',
);
const GAINING = setOf(
  'more again grow grows grew grown rise rises rose risen gain gains gained higher longer heavier larger bigger dearer up mehr wuchs wächst gewachsen steigt stieg gestiegen höher länger schwerer größer teurer',
);

const SINCE = setOf('before earlier previously once then formerly until vorher zuvor davor früher einst bis');

/** What something was before it doubled, and a part or a multiple of what the same sentence tells: 'half price for children'. */
const partOfIt: Way = (figure, said, { sentences }) => {
  if (partOf(figure)) return false;
  return sentences.some(({ figures: own, of: sentence }, i) =>
    own.some((by) => {
      const part = partOf(by)?.value;
      if (part === undefined || (by.grows && !said.has(SINCE))) return false;
      // 'A tenth less than the year before': the year before it was more.
      const direction = part < 1 ? directionsIn(sentence, by) : null;
      const times = direction === null ? part : direction === 'less' ? 1 / (1 - part) : 1 / (1 + part);
      const says = figure.says === 'exactly' ? by.says : figure.says;
      // 'Twice as many as in 2012', told of 2012.
      const back = times > 1 && isOfThen(said, sentence);
      // 'They planted 5,600. A third of them died.'
      const before =
        times < 1 && OF_THEM.test(sentence.text)
          ? sentences
              .slice(Math.max(0, i - BACK), i)
              .flatMap(({ of, figures }) => (of.of === sentence.of ? figures.filter(({ bare }) => bare) : []))
          : [];
      const all = [...own, ...before];
      return whole(all).some(
        (one) =>
          fits({ ...figure, says }, by.grows ? one.value / times : one.value * times, one) ||
          (back && fits({ ...figure, says }, one.value / times, one)),
      );
    }),
  );
};

const directionsIn = ({ clauses }: Sentence, by: Quantity): 'more' | 'less' | null => {
  const held = clauses.find(({ facts }) => facts.quantities.includes(by));
  return held ? directionOf(held, by) : null;
};

/** Told of the time a sentence compares with: the last one it names. */
function isOfThen(said: Clause, { clauses }: Sentence): boolean {
  const then = clauses.flatMap(({ facts }) => facts.moments).at(-1);
  return then !== undefined && said.facts.moments.some((moment) => momentFits(moment, then));
}

/** Risen by half, of half as much again. */
const grownBy: Way = (figure, said, { quantities }) => {
  const part = partOf(figure);
  if (!part || part.value >= 1) return false;
  const sign = said.has(GAINING) ? 1 : said.has(LOSING) ? -1 : 0;
  return (
    sign !== 0 &&
    quantities.some((one) => {
      const its = partOf(one);
      return its !== undefined && near(part.value, sign * (its.value - 1), figure, EXACTLY, ROUNDED);
    })
  );
};

/** 'Holds 30 per cent, a cooperative the rest': told of the cooperative. */
const hasTheRest = (said: Clause, { sentence }: Clause): boolean =>
  sentence.clauses.some((other) => other.has(REST) && other.about.some((stem) => said.stemSet.has(stem)));

/** The rest of a whole, told of the other side: two thirds are women, 'one third are men'. */
const isRest: Way = (figure, said, { clauses, sentences }) => {
  const part = partOf(figure);
  if (figure.bare && !part && isOtherSide(said, sentences)) {
    const counts = sentences.flatMap(({ figures }) => [figures.filter(({ bare }) => bare)]);
    if (counts.some((all) => whole(all).some((a) => whole(all).some((b) => fits(figure, a.value - b.value, a, EXACT)))))
      return true;
  }
  if (part?.dimension !== 'share') return false;
  if (isRestOfAll(figure, part, said, sentences)) return true;
  const mine = bareWords(said);
  const isOther = (held: Clause) => {
    const its = bareWords(held);
    const told = (a: string, b: string) => mine.has(a) && its.has(b) && !mine.has(b);
    return sidesOf(said.language).some(([a, b]) => told(a, b) || told(b, a));
  };
  return clauses.some(
    (held) =>
      held.facts.quantities.some((one) => {
        const its = partOf(one);
        return its?.dimension === 'share' && near(part.value, 1 - its.value, figure, EXACTLY, ROUNDED);
      }) &&
      (said.has(REST) || isOther(held) || hasTheRest(said, held) || isDenied(said, held)),
  );
};

/** The parts among figures, as shares of one. */
const sharesOf = (figures: readonly Quantity[]): number[] =>
  figures.flatMap((one) => {
    const part = partOf(one);
    return part?.dimension === 'share' ? [part.value] : [];
  });

/** What two shares or more of one whole leave: '68 per cent wanted it, 21 did not, the rest had no opinion'. */
const isRestOfAll = (figure: Quantity, part: Meaning, said: Clause, sentences: Reckoning['sentences']): boolean =>
  sentences.some(({ figures, of }) => {
    const shares = sharesOf(figures);
    const left = 1 - shares.reduce((sum, one) => sum + one, 0);
    return (
      shares.length > 1 &&
      left > 0 &&
      (said.has(REST) || of.clauses.some((held) => held.has(REST))) &&
      near(part.value, left, figure, EXACTLY, ROUNDED)
    );
  });

/** A tenth are lorries, 'nine in ten are not'. */
const isDenied = (said: Clause, held: Clause): boolean =>
  said.denies !== held.denies && said.about.some((stem) => held.stemSet.has(stem));

/** Told of the men where a sentence counts the women. */
function isOtherSide(said: Clause, sentences: readonly { of: Sentence }[]): boolean {
  const mine = bareWords(said);
  return sidesOf(said.language).some(([a, b]) => {
    const other = mine.has(a) ? b : mine.has(b) ? a : null;
    return other !== null && sentences.some(({ of }) => of.clauses.some((held) => bareWords(held).has(other)));
  });
}

/** What the rest of a number of things comes to: 12,600 cards, 'two thirds show the town, the rest the country'. */
const restOfCounted: Way = (figure, _, { sentences }) =>
  figure.bare &&
  sentences.some(({ figures, of }, i) => {
    if (!of.clauses.some((held) => held.has(REST))) return false;
    const shares = sharesOf(figures);
    const left = 1 - shares.reduce((sum, one) => sum + one, 0);
    const counted = sentences
      .slice(Math.max(0, i - BACK), i + 1)
      .flatMap((one) => (one.of.of === of.of ? one.figures.filter(({ bare }) => bare) : []));
    return (
      shares.length > 0 &&
      left > 0 &&
      whole(counted).some((all) => [left, ...shares].some((part) => fits(figure, all.value * part, all, EXACT)))
    );
  });

/** How many times one share is of another that the same sentence tells. */
const ratioOfShares: Way = (figure, _, { sentences }) => {
  const part = partOf(figure);
  return (
    part?.dimension === 'times' &&
    sentences.some(({ figures }) => {
      const shares = sharesOf(figures);
      return shares.some((a) =>
        shares.some((b) => a > b && b > 0 && near(part.value, a / b, figure, EXACTLY, ROUNDED)),
      );
    })
  );
};

/** Ways by parts of a whole, and by what two figures come to. */
export const BY_SHARES: readonly Way[] = [isRatio, partOfIt, grownBy, isRest, restOfCounted, ratioOfShares];
