import { partOf } from './compared.ts';
import { setOf } from './lexicon.ts';
import { type Meaning, near, type Quantity } from './quantity.ts';
import { BACK, BY_PERIODS, EXACT, EXACTLY, fits, REST, ROUNDED, singles, type Way, whole } from './reckoning.ts';
import { unitAt } from './units.ts';

/** What is left of a number of things: of 312 that came 47 died, '265 survived'. */
const isLeft: Way = (figure, said, { sentences }) =>
  said.has(REST) &&
  sentences.some(({ figures }) => {
    const all = whole(figures);
    return all.some((a) =>
      all.some((b) => a !== b && a.dimension === b.dimension && fits(figure, a.value - b.value, a, EXACT)),
    );
  });

const NAMED_PART = /\b(?:of (?:them|these|those|which|whom)|davon|von (?:ihnen|diesen|denen)|darunter)\b/i;

/** What is left beside those that are counted of a number of things: nine, 'five of them part-time', are four full-time. */
const besideThose: Way = (figure, said, { sentences, clauses }) => {
  if (!figure.bare || partOf(figure)) return false;
  const thing = said.countedBy(figure);
  // What is counted by itself is no rest of something else.
  const isCounted =
    thing !== null && clauses.some((held) => held.figures.some((one) => one.bare && held.countedBy(one) === thing));
  return sentences.some(({ of, figures }, i) => {
    if (!NAMED_PART.test(of.text)) return false;
    const near = sentences.slice(Math.max(0, i - BACK), i + 1).filter((one) => one.of.of === of.of);
    const all = near.flatMap(({ of: { clauses: its } }) =>
      its.flatMap((held) => held.figures.filter((one) => one.bare && (!isCounted || held.countedBy(one) === thing))),
    );
    return whole(figures.filter(({ bare }) => bare)).some((part) =>
      whole(all).some((one) => one !== part && fits(figure, one.value - part.value, one, EXACT)),
    );
  });
};

/** A part of a number of things that are counted elsewhere: 60 rows, and half of the rows. */
const partOfCounted: Way = (figure, said, { clauses }) => {
  const thing = said.countedBy(figure);
  if (thing === null || !figure.bare) return false;
  const wholes = clauses.flatMap((held) =>
    held.figures.flatMap((one) => (one.bare && held.countedBy(one) === thing ? whole([one]) : [])),
  );
  return (
    wholes.length > 0 &&
    clauses.some((held) =>
      held.facts.quantities.some((by) => {
        const part = partOf(by)?.value;
        const behind = held.tokens.slice(by.to, by.to + 3).find(({ content }) => content)?.stem;
        return (
          part !== undefined && behind === thing && wholes.some((all) => fits(figure, all.value * part, all, EXACT))
        );
      }),
    )
  );
};

/** What each of several takes or costs, so many times: a ticket is 18 dollars, two people pay 36. */
const forEach: Way = (figure, said, { meanings }) => {
  const others = said.figures.filter((one) => one !== figure);
  const times = (count: number, all: Pick<Quantity, 'means' | 'says'>) =>
    meanings.some((one) => one.dimension !== 'count' && fitsAll(all, one.value * count, one));
  // 'Four laps make a kilometre' of one of 250 metres.
  if (figure.bare) {
    const all = [
      ...others.filter(({ bare }) => !bare),
      ...singles(said).map((one) => ({ means: [one], says: 'exactly' as const })),
    ];
    return (
      all.length === 1 && figure.means.some(({ dimension, value }) => dimension === 'count' && times(value, all[0]!))
    );
  }
  const counts = others.flatMap((one) => (one.bare ? (one.means[0]?.value ?? []) : []));
  if (counts.length === 0 && BOTH_WAYS.test(said.sentence.text)) counts.push(2);
  return counts.length === 1 && times(counts[0]!, figure);
};

const fitsAll = ({ means, says }: Pick<Quantity, 'means' | 'says'>, value: number, { dimension }: Meaning): boolean =>
  means.some((mine) => mine.dimension === dimension && near(mine.value, value, { says }, EXACTLY, EXACT));

const BOTH_WAYS = /\b(?:there and back|both ways|return|round trip|hin und zurück|hin und her)\b/i;

const EACH = setOf('per each every apiece je pro jede jeder jedes jedem jeden');

/** What comes to each of several, of what a sentence tells of all: 410 kilograms from 18 hives are 'nearly 23 a hive'. */
const shared: Way = (figure, said, { sentences }) =>
  said.has(EACH) &&
  !partOf(figure) &&
  sentences.some(({ figures }) => {
    const all = whole(figures);
    return all.some((a) =>
      all.some((b) => a !== b && b.dimension === 'count' && b.value > 1 && fits(figure, a.value / b.value, a)),
    );
  });

/** What there is one of, in another unit: 'a kilo', told as 1,000 grams. */
const oneUnit: Way = (figure, _, { clauses }) =>
  !figure.bare && clauses.some((held) => singles(held).some((one) => fits(figure, one.value, one)));

/** A part of one unit: 'two thirds of a year' for eight months. */
const partOfUnit: Way = (figure, said, { meanings }) => {
  const part = partOf(figure);
  if (part?.dimension !== 'share') return false;
  const lowers = said.tokens.slice(figure.to, figure.to + 3).map(({ lower }) => lower);
  const at = lowers.findIndex((lower) => OF_ONE.has(lower));
  const unit = at === -1 ? undefined : unitAt(lowers, at + 1)?.units[0];
  if (!unit) return false;
  return meanings.some(
    ({ dimension, value }) =>
      dimension === unit.dimension && near(part.value * unit.size, value, figure, EXACTLY, BY_PERIODS),
  );
};
const OF_ONE = setOf('a an one eines einer');

/** So many times as often as something that is counted by times as well. */
const oftener: Way = (figure, said, { sentences }) => {
  const part = partOf(figure);
  if (part?.dimension !== 'times') return false;
  return sentences.some(({ figures }) => {
    // Shares of two times: a quarter in 2014, half today.
    const parts = figures.flatMap((one) => {
      const own = partOf(one);
      return own && (own.dimension === 'times' || said.facts.moments.length > 0) ? [own] : [];
    });
    return parts.some((a) =>
      parts.some(
        (b) =>
          a.dimension === b.dimension &&
          a.value > b.value &&
          b.value > 0 &&
          near(part.value, a.value / b.value, figure, EXACTLY, ROUNDED),
      ),
    );
  });
};

/** Ways by parts of what is counted or measured, and by what there is of each. */
export const BY_PARTS: readonly Way[] = [
  isLeft,
  besideThose,
  partOfCounted,
  forEach,
  shared,
  oneUnit,
  partOfUnit,
  oftener,
];
