import { fillTemplate, type StepOf } from '@grivo/core';
import type { Performer } from '../engine/performer.ts';

/** Stops for a person. What they see is what the steps before made. */
export const performHold: Performer<StepOf<'hold'>> = async (step, { fields, brief }) => {
  const note = fillTemplate(step.note, fields);
  const asked = { for: step.for, note: note.ok ? note.text : step.note };
  return brief.trial ? { kind: 'done', fields: { asked } } : { kind: 'held', fields: { asked } };
};
