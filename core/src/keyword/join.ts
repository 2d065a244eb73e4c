import type { Neighbours } from './vector.ts';

/**
 * Joins things to groups as long as two groups are on average at least so alike; pairs that are not given count as not
 * alike at all. Goes from each group to the one most like it until two are most like each other, and joins these: as the
 * average of a joined group lies between those of its two, this gives the same groups as always joining the two most alike
 * of all (the chain of nearest neighbours, Benzécri 1982), without keeping them in order. Groups are given the largest
 * first, each in the order of the list.
 */
export function joined(pairs: Neighbours, least: number): number[][] {
  const all = new Groups(pairs, least);
  const { groups } = all;
  const chain: number[] = [];
  for (let start = 0; start < groups.length; ) {
    if (chain.length === 0) {
      if (groups[start] === null) {
        start++;
        continue;
      }
      chain.push(start);
    }
    const at = chain.at(-1)!;
    const before = chain.at(-2);
    const nearest = all.mostAlike(at, before);
    if (nearest === null) {
      chain.pop();
      start++;
    } else if (nearest === before) {
      chain.length -= 2;
      all.join(Math.min(at, before), Math.max(at, before));
      start = Math.min(start, at, before);
    } else chain.push(nearest);
  }
  return groups
    .filter((group) => group !== null)
    .map((group) => group.toSorted((a, b) => a - b))
    .sort((a, b) => b.length - a.length || a[0]! - b[0]!);
}

/** Groups that are joined step by step, with the sums of how alike each is to each other. */
class Groups {
  /** Null where a group became part of another. */
  readonly groups: (number[] | null)[];
  private readonly sums: Map<number, number>[];

  constructor(
    pairs: Neighbours,
    private readonly least: number,
  ) {
    this.groups = Array.from({ length: pairs.length }, (_, i) => [i]);
    this.sums = Array.from({ length: pairs.length }, () => new Map<number, number>());
    pairs.each((one, other, alike) => {
      this.sums[one]!.set(other, alike);
      this.sums[other]!.set(one, alike);
    });
  }

  /** Of equals the one it came from, else the one that stands first in the list. */
  mostAlike(group: number, before: number | undefined): number | null {
    const { groups } = this;
    let best: number | null = null;
    let most = this.least * groups[group]!.length;
    for (const [other, sum] of this.sums[group]!) {
      const average = sum / groups[other]!.length;
      if (
        average < most ||
        (average === most && best !== null && other !== before && (best === before || best < other))
      )
        continue;
      most = average;
      best = other;
    }
    return best;
  }

  join(into: number, from: number): void {
    const { groups, sums } = this;
    groups[into]!.push(...groups[from]!);
    groups[from] = null;
    sums[into]!.delete(from);
    for (const [third, sum] of sums[from]!) {
      if (third === into) continue;
      const whole = sum + (sums[into]!.get(third) ?? 0);
      sums[into]!.set(third, whole);
      sums[third]!.delete(from);
      sums[third]!.set(into, whole);
    }
    sums[from]!.clear();
  }
}
