import type { Neighbours } from './vector.ts';

/**
 * Joins things to groups as long as two groups are on average at least so alike; pairs that are not given count as not
 * alike at all. Goes from each group to the one most like it until two are most like each other, and joins these: as the
 * average of a joined group lies between those of its two, this gives the same groups as always joining the two most alike
 * of all (the chain of nearest neighbours, Benzécri 1982), without keeping them in order. Groups are given the largest
 * first, each in the order of the list.
 */
export function joined(pairs: Neighbours, least: number): number[][] {
  const groups: (number[] | null)[] = Array.from({ length: pairs.length }, (_, i) => [i]);
  const sums = Array.from({ length: pairs.length }, () => new Map<number, number>());
  pairs.each((one, other, alike) => {
    sums[one]!.set(other, alike);
    sums[other]!.set(one, alike);
  });
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
    const nearest = mostAlike(at, before);
    if (nearest === null) {
      chain.pop();
      start++;
    } else if (nearest === before) {
      chain.length -= 2;
      join(Math.min(at, before), Math.max(at, before));
      start = Math.min(start, at, before);
    } else chain.push(nearest);
  }
  return groups
    .filter((group) => group !== null)
    .map((group) => group.toSorted((a, b) => a - b))
    .sort((a, b) => b.length - a.length || a[0]! - b[0]!);

  /** Of equals the one it came from, else the one that stands first in the list. */
  function mostAlike(group: number, before: number | undefined): number | null {
    let best: number | null = null;
    let most = least * groups[group]!.length;
    for (const [other, sum] of sums[group]!) {
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

  function join(into: number, from: number): void {
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
