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
  says: 'exactly' | 'about' | 'over' | 'under';
  /** A number without a unit, of whatever stands behind it. */
  bare: boolean;
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

/** Whether what is said of one figure may be the other. */
export function quantityFits(said: Quantity, held: Quantity): boolean {
  return said.means.some((mine) => held.means.some((its) => valueFits(mine, its, said, held)));
}

function valueFits(mine: Meaning, its: Meaning, said: Quantity, held: Quantity): boolean {
  const [one, other] = [mine.dimension, its.dimension];
  if (one === other) return near(mine.value, its.value, said, held, mine.size === its.size ? EXACT : CONVERTED);
  const parts = (of: Dimension) => of === 'share' || of === 'times';
  // 'Half as heavy' and 'twice as heavy', 'a third more' and 'one and a third times'.
  // What has doubled has not halved.
  if (parts(one) && parts(other))
    return [...(said.grows ? [] : [its.value, 1 / its.value]), 1 + its.value].some((value) =>
      near(mine.value, value, said, held, CONVERTED),
    );
  // 'Nine times a minute' and '9 turns a minute'.
  return (one === 'times' && other === 'count') || (one === 'count' && other === 'times')
    ? near(mine.value, its.value, said, held, EXACT)
    : false;
}

/** What is written in the same unit must be the same. */
const EXACT = 1e-9;

function near(mine: number, its: number, said: Quantity, held: Quantity, rounding: number): boolean {
  const apart = Math.abs(mine - its) / Math.max(Math.abs(its), 1e-9);
  if (apart <= (held.says === 'about' ? Math.max(rounding, NEAR / 2) : rounding)) return true;
  if (said.says === 'over') return mine <= its && apart <= BOUND;
  if (said.says === 'under') return mine >= its && apart <= BOUND;
  return said.says === 'about' && apart <= NEAR;
}
