import { z } from 'zod';

const Gave = z.record(z.string(), z.unknown());

/** The figure of a record a step gave, null when there is none. */
export function figureAt(gave: Readonly<Record<string, unknown>>, name: string, part: string): number | null {
  const value = recordAt(gave, name)?.[part];
  return typeof value === 'number' && Number.isFinite(value) ? value : null;
}

/** The record a step gave under a name, null when it gave none. */
export function recordAt(gave: Readonly<Record<string, unknown>>, name: string): Record<string, unknown> | null {
  return Gave.safeParse(gave[name]).data ?? null;
}

/** Figures in so many columns of a scale, each as wide as the others. */
export function columnsOf(figures: readonly number[], from: number, to: number, columns: number): number[][] {
  const out: number[][] = Array.from({ length: columns }, () => []);
  const width = (to - from) / columns || 1;
  for (const figure of figures) {
    const at = Math.min(columns - 1, Math.max(0, Math.floor((figure - from) / width)));
    out[at]!.push(figure);
  }
  return out;
}
