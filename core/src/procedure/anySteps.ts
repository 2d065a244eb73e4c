import { z } from 'zod';
import type { Step } from './registry.ts';

/** Steps that may follow one another, at most. */
export const MOST_IN_SEQUENCE = 100;

let one: z.ZodType<Step> | null = null;

/** Told once, by the registry, what any step looks like: blocks hold steps of every kind, themselves among them. */
export function stepsAre(schema: z.ZodType<Step>): void {
  one = schema;
}

/** The steps inside a block. */
export const anySteps: z.ZodType<Step[]> = z
  .array(
    z.lazy(() => {
      if (!one) throw new Error('the kinds are not registered yet');
      return one;
    }),
  )
  .max(MOST_IN_SEQUENCE);
