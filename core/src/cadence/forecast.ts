import type { CadenceRule } from './rule.ts';
import { type Moment, slotsFrom } from './slots.ts';

/** A slot with what it holds: something firm, something foreseen, or nothing. */
export interface ForecastSlot<Firm, Ahead> {
  at: Moment;
  firm: Firm | null;
  foreseen: Ahead | null;
}

/**
 * The slots of `[from, to)` with what is firmly placed, the free ones filled in order with what is still being made. Firm
 * placements off the slots (moved there by a person) are listed at their moment; slots nearer to one than the gap are
 * given up. Nothing is foreseen before `now`.
 * @param ahead what is being made, the first to be finished first
 */
export function forecast<Firm extends { at: Moment }, Ahead>(
  rule: CadenceRule,
  firm: readonly Firm[],
  ahead: readonly Ahead[],
  { now, from, to }: { now: Moment; from: Moment; to: Moment },
): ForecastSlot<Firm, Ahead>[] {
  const gap = rule.gapMinutes * 60_000;
  const held = [...firm].sort((a, b) => a.at - b.at);
  const out: ForecastSlot<Firm, Ahead>[] = held
    .filter(({ at }) => at >= from && at < to)
    .map((placed) => ({ at: placed.at, firm: placed, foreseen: null }));
  const waiting = [...ahead];
  let near = 0;
  for (const at of slotsFrom(rule, Math.max(from, now))) {
    if (at >= to) break;
    while (near < held.length && held[near]!.at <= at - gap && held[near]!.at !== at) near++;
    if (held.slice(near, near + 2).some((placed) => placed.at === at || Math.abs(placed.at - at) < gap)) continue;
    out.push({ at, firm: null, foreseen: waiting.shift() ?? null });
  }
  return out.sort((a, b) => a.at - b.at);
}

/** The first slot that nothing firm or foreseen fills: from there the blog is dry. */
export function dryFrom(slots: readonly ForecastSlot<unknown, unknown>[]): Moment | null {
  return slots.find((slot) => slot.firm === null && slot.foreseen === null)?.at ?? null;
}
