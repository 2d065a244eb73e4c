import type { CadenceRule } from './rule.ts';
import { type Moment, slotsFrom } from './slots.ts';

/** One article at a moment on a blog. Pinned ones were put there by a person and never move by themselves. */
export interface Placement {
  article: string;
  at: Moment;
  pinned: boolean;
}

/**
 * The first slot from `now` on that no placement holds and that keeps the gap to every placement, pinned ones off the
 * slots included. Null when the rule makes none within two years.
 */
export function nextFreeSlot(rule: CadenceRule, taken: readonly Pick<Placement, 'at'>[], now: Moment): Moment | null {
  const held = taken.map((placement) => placement.at).sort((a, b) => a - b);
  const gap = rule.gapMinutes * 60_000;
  let i = 0;
  for (const slot of slotsFrom(rule, now)) {
    while (i < held.length && held[i]! < slot - gap && held[i]! !== slot) i++;
    const near = held.slice(i, i + 2).some((at) => at === slot || Math.abs(at - slot) < gap);
    if (!near) return slot;
  }
  return null;
}

/**
 * Places articles anew after a rule changed: pinned ones and those already due stay, the others take the first free
 * slots in their former order. Articles for which no slot is left keep null.
 */
export function reflow(
  rule: CadenceRule,
  placements: readonly Placement[],
  now: Moment,
): { article: string; at: Moment | null }[] {
  const fixed = placements.filter((p) => p.pinned || p.at <= now);
  const loose = placements.filter((p) => !p.pinned && p.at > now).sort((a, b) => a.at - b.at);
  const taken: { at: Moment }[] = [...fixed];
  return loose.map(({ article }) => {
    const at = nextFreeSlot(rule, taken, now);
    if (at !== null) taken.push({ at });
    return { article, at };
  });
}

/** What a placement at this moment would break, in words; empty when it keeps every rule. */
export function placementFaults(
  rule: CadenceRule,
  others: readonly Pick<Placement, 'at'>[],
  at: Moment,
  slots: readonly Moment[],
): string[] {
  const faults: string[] = [];
  const gap = rule.gapMinutes * 60_000;
  const nearest = others.map((other) => Math.abs(other.at - at)).sort((a, b) => a - b)[0];
  if (nearest !== undefined && nearest < gap)
    faults.push(`${Math.round(nearest / 60_000)} min from the next post, ${rule.gapMinutes} min are asked`);
  if (!slots.includes(at)) faults.push('not one of the slots the cadence makes');
  return faults;
}
