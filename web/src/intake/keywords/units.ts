import type { Item } from '@grivo/contract';
import type { Promising, Want } from '@grivo/core';
import type { Grouped } from './group.worker.ts';

/** What one article is made of: a phrase, or a group of them under the one it is called by. */
export interface Unit {
  /** Of the phrase it is called by. */
  id: string;
  head: Item;
  /** The others, the most searched for first. */
  rest: readonly Item[];
  /** What its reader wants, where it is a group. */
  want: Want | null;
  /** Searches a month of all its phrases; null where none is known. */
  volume: number | null;
  /** Of its phrases, each weighed by how often it is searched for. */
  difficulty: number | null;
  opportunity: number | null;
}

/**
 * Units of a list in the order of their groups.
 * @param groups null makes each phrase one by itself
 */
export function unitsOf(items: readonly Item[], groups: readonly Grouped[] | null, promises: Promising): Unit[] {
  const grouped = groups ?? items.map((_, i) => ({ members: [i], want: null }));
  return grouped.map(({ members, want }) => {
    const group = members.map((i) => items[i]!);
    const [head, ...rest] = group;
    const measures = { volume: volumeOf(group), difficulty: difficultyOf(group) };
    return {
      id: head!.id,
      head: head!,
      rest: rest.sort((a, b) => (b.volume ?? -1) - (a.volume ?? -1)),
      want,
      ...measures,
      opportunity: promises(head!.subject, measures),
    };
  });
}

function volumeOf(group: readonly Item[]): number | null {
  const known = group.flatMap(({ volume }) => volume ?? []);
  return known.length === 0 ? null : known.reduce((sum, volume) => sum + volume, 0);
}

function difficultyOf(group: readonly Item[]): number | null {
  const known = group.flatMap(({ volume, difficulty }) =>
    difficulty === null ? [] : [{ difficulty, weight: Math.max(1, volume ?? 0) }],
  );
  if (known.length === 0) return null;
  const whole = known.reduce((sum, { weight }) => sum + weight, 0);
  return Math.round(known.reduce((sum, { difficulty, weight }) => sum + difficulty * weight, 0) / whole);
}

export const itemsOf = ({ head, rest }: Unit): Item[] => [head, ...rest];

/** The article that answers a unit: the one for the phrase it is called by, else one when half of its phrases are answered. */
export function answerOf({ head, rest }: Unit): Item['answeredBy'] {
  if (head.answeredBy) return head.answeredBy;
  const answers = rest.flatMap(({ answeredBy }) => answeredBy ?? []);
  return answers.length * 2 > rest.length ? answers[0]! : null;
}

/** What was made of a unit last, of any of its phrases. */
export const lastTaken = (unit: Unit): Item['taken'][number] | undefined =>
  itemsOf(unit)
    .flatMap(({ taken }) => taken)
    .toSorted((a, b) => (a.brief < b.brief ? -1 : 1))
    .at(-1);

/** What units may be ordered by, the most promising first. */
export const ORDERS = {
  volume: { says: 'volume', does: 'searches a month; most first' },
  difficulty: { says: 'difficulty', does: 'how hard it is to be found, 0 to 100; easiest first' },
  opportunity: { says: 'opportunity', does: 'by the formula below; most first' },
} as const;
export type Order = keyof typeof ORDERS;

/** Units in an order; those nothing is known of keep theirs at the end. */
export function ordered(units: readonly Unit[], order: Order | null): readonly Unit[] {
  if (order === null) return units;
  const way = order === 'difficulty' ? 1 : -1;
  return units.toSorted((a, b) => {
    const [one, other] = [a[order], b[order]];
    if (one === null || other === null) return (one === null ? 1 : 0) - (other === null ? 1 : 0);
    return way * (one - other);
  });
}
