import type { z } from 'zod';

/** Checked one after the other without a break; about ten milliseconds. */
const SLICE = 1_000;

/** Checks a long list by its schema in slices, between which and after which the page goes on. */
export async function checkedInSlices<T>(schema: z.ZodType<T>, values: readonly unknown[]): Promise<T[]> {
  const out: T[] = [];
  for (let at = 0; at < values.length; at += SLICE) {
    for (const value of values.slice(at, at + SLICE)) out.push(schema.parse(value));
    // What is done with a long list takes its time too.
    if (values.length > SLICE) await new Promise((resolve) => setTimeout(resolve));
  }
  return out;
}

/** Whether two values of JSON are the same. */
export function isSame(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false;
  if (Array.isArray(a) !== Array.isArray(b)) return false;
  let keys = 0;
  for (const key in a) {
    keys++;
    if (!isSame(a[key as keyof typeof a], b[key as keyof typeof b])) return false;
  }
  for (const _ in b) keys--;
  return keys === 0;
}
