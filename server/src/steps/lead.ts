import type { BlockOf } from '@grivo/core';
import type { StepResult } from '../engine/performer.ts';

/** A lead picture of an article and where it is from, none, or why the step ends. */
export type Found =
  | { kind: 'picture'; lead: BlockOf<'figure'>; from: 'drawn' | 'still' | 'own' | 'card' | 'library' }
  | { kind: 'none'; why?: string }
  | { kind: 'ended'; result: StepResult };

export const leadOf = (
  { file, width, height }: { file: string; width: number; height: number },
  alternative: string,
  credit: string,
  /** Where the credit leads; nowhere without one. */
  address: string | null = null,
): BlockOf<'figure'> => ({
  type: 'figure',
  id: 'lead',
  file,
  width,
  height,
  alternative,
  ...(credit === ''
    ? {}
    : { credit: [{ text: credit, ...(address ? { link: { to: 'address' as const, address } } : {}) }] }),
  lead: true,
});
