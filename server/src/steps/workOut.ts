import { type StepOf, workOut } from '@grivo/core';
import type { Performer } from '../engine/performer.ts';
import { findPattern } from '../ground/expression/find.ts';

export const performWorkOut: Performer<StepOf<'work out'>> = async (step, { fields }) => {
  const done = workOut(step.expression, fields, findPattern);
  return done.ok
    ? { kind: 'done', fields: { [step.as]: done.value } }
    : { kind: 'failed', failure: { code: 'cannot-work-out', problem: done.problem } };
};
