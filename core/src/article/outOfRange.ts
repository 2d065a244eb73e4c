import type { ArticleMeasure } from './measure.ts';

/** Measures of an article that a list can be narrowed by, in the order people look at them. */
export const LISTED_MEASURES = [
  'Length',
  'Reading grade',
  'Sentences',
  'Repeated beginnings',
  'Key phrase',
  'Title',
  'Description',
  'Sections',
  'Evidence',
  'Against the sources',
  'Pictures described',
  'Passive',
  'Filler',
  'Related terms',
  'Likeness to the sources',
  'Likeness to our articles',
  'Support',
] as const;
export type ListedMeasure = (typeof LISTED_MEASURES)[number];

/** A measure that lies outside its range. */
export interface OutOfRange {
  name: ListedMeasure;
  value: number;
  unit: string;
  side: 'under' | 'over';
}

const isListed = (name: string): name is ListedMeasure => (LISTED_MEASURES as readonly string[]).includes(name);

/** Those measures that lie outside their range, as a list shows them. */
export function outOfRange(measures: readonly ArticleMeasure[]): OutOfRange[] {
  return measures.flatMap(({ name, value, unit, least, most }) => {
    if (!isListed(name)) return [];
    const side = least !== null && value < least ? 'under' : most !== null && value > most ? 'over' : null;
    return side === null ? [] : [{ name, value, unit, side } as const];
  });
}

/** Measures as a set of bits, by which a store finds them. */
export function measureBits(names: readonly ListedMeasure[]): number {
  return names.reduce((bits, name) => bits | (1 << LISTED_MEASURES.indexOf(name)), 0);
}
