import type { Dimension } from './units.ts';

export interface Meaning {
  dimension: Dimension;
  /** In the dimension's base unit. */
  value: number;
  /** How many base units the unit has that it is written in. */
  size: number;
}

/** A figure of a text: what it may mean, and how exactly it is said. */
export interface Quantity {
  means: Meaning[];
  says: 'exactly' | 'about' | 'nearly' | 'over' | 'under';
  /** A number without a unit, of whatever stands behind it. */
  bare: boolean;
  /** A part of what is named behind it, which nothing is compared with: 'half of the customers'. */
  ofIt?: boolean;
  /** Says by how much something has become more or less: 'doubled', 'halbiert'. */
  grows?: boolean;
  from: number;
  to: number;
}

/** How far two values may lie apart that are the same in other units, rounded. */
const CONVERTED = 0.02;
/** How far what is said to be about something may lie from it. */
const NEAR = 0.07;
/** How far above or below a bound lies what it is said of. */
const BOUND = 0.2;
/** What is said to be nearly something lies so far below it at most. */
const SHORT_OF = 0.15;
const DAY = 86_400;
const MONTH = 2_629_800;
/** How many days and weeks may be so many months: one has 28 to 31 days, and is taken for four weeks. */
const BY_CALENDAR = { least: 0.93, most: 1.035 };

/** Whether what is said of one figure may be the other. */
export function quantityFits(said: Quantity, held: Quantity): boolean {
  return said.means.some((mine) => held.means.some((its) => valueFits(mine, its, said, held)));
}

function valueFits(mine: Meaning, its: Meaning, said: Quantity, held: Quantity): boolean {
  const [one, other] = [mine.dimension, its.dimension];
  if (one === other)
    return (
      (one === 'heat' && mine.size !== its.size && Math.abs(mine.value - its.value) <= HALF_A_DEGREE) ||
      near(
        mine.value,
        its.value,
        said.says === 'about' && isTooExact(mine, its) ? EXACTLY_SAID : said,
        held,
        rounding(mine, its),
      ) ||
      sameByCalendar(mine, its)
    );
  const parts = (of: Dimension) => of === 'share' || of === 'times';
  // 'Half as heavy' and 'twice as heavy', 'a third more' and 'one and a third times'.
  // What has doubled has not halved.
  if (parts(one) && parts(other))
    return [
      ...(said.grows ? [] : [its.value, ...(held.ofIt ? [] : [1 / its.value])]),
      ...(held.ofIt ? [] : [1 + its.value]),
    ].some((value) => near(mine.value, value, said, held, CONVERTED));
  // 'Nine times a minute' and '9 turns a minute'.
  return (one === 'times' && other === 'count') || (one === 'count' && other === 'times')
    ? near(mine.value, its.value, said, held, EXACT)
    : false;
}

const EXACTLY_SAID = { says: 'exactly' } as const;
/** Figures of a number from which on it is no round one: 'about 221,000'. */
const ROUND = 3;
const ENDLESS = 6;

/** Whether what is said to be about something is said more exactly than that: 'about 221' of 212 is another number. */
function isTooExact({ dimension, value, size }: Meaning, its: Meaning): boolean {
  // Two thirds have no end of figures.
  if (dimension === 'share' || dimension === 'times') return false;
  const said = Math.abs(value / size);
  const [digits = '', power = '0'] = Number(said.toPrecision(12)).toExponential().split('e');
  const figures = digits.replace('.', '');
  // A third of a kilometre has no end of figures.
  if (figures.length < ROUND || figures.length > ENDLESS || size <= 0) return false;
  const place = 10 ** (Number(power) - figures.length + 1);
  const step = figures.endsWith('5') ? 5 * place : place;
  return Math.abs(said - its.value / size) > (step / 2) * (1 + EXACT);
}

/** Degrees are told as whole ones of either scale; its own degrees begin so far from nothing that a share says little. */
const HALF_A_DEGREE = 0.5;

/** What is written in the same unit must be the same. */
const EXACT = 1e-9;

const rounding = (mine: Meaning, its: Meaning): number => (mine.size === its.size ? EXACT : CONVERTED);

/** Whether one is so many days or weeks, and the other what months come to that. */
function sameByCalendar(mine: Meaning, its: Meaning): boolean {
  if (mine.dimension !== 'time' || Math.min(mine.value, its.value) <= 0.9 * MONTH) return false;
  // Parts of a month ('a month and a half') do not say what they are written in.
  const [first, second] = [mine, its].map(({ size }) => size === DAY || size === 7 * DAY) as [boolean, boolean];
  if (first === second || Math.max(mine.size, its.size) > MONTH) return false;
  const ratio = first ? mine.value / its.value : its.value / mine.value;
  return ratio >= BY_CALENDAR.least && ratio <= BY_CALENDAR.most;
}

/** Whether a value said may be one that is held, as exactly as both are said. */
export function near(
  mine: number,
  its: number,
  said: Pick<Quantity, 'says'>,
  held: Pick<Quantity, 'says'>,
  rounding: number,
): boolean {
  const apart = Math.abs(mine - its) / Math.max(Math.abs(its), 1e-9);
  if (apart <= (held.says === 'about' || held.says === 'nearly' ? Math.max(rounding, NEAR / 2) : rounding)) return true;
  if (said.says === 'over') return mine <= its && apart <= BOUND;
  if (said.says === 'under') return mine >= its && apart <= BOUND;
  if (said.says === 'nearly' && mine >= its && apart <= SHORT_OF) return true;
  return (said.says === 'about' || said.says === 'nearly') && apart <= NEAR;
}
