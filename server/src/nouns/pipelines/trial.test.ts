import { type ProcedureDocument, type Step, stepKinds } from '@grivo/core';
import { expect, test } from 'vitest';
import { firstChange } from '../briefs/newer.ts';
import { upTo } from './trial.ts';

const STEPS: Step[] = [
  stepKinds.take.fresh('s1'),
  stepKinds['look up'].fresh('s2'),
  stepKinds.outline.fresh('s3'),
  stepKinds.write.fresh('s4'),
];
const DOCUMENT: ProcedureDocument = { grivo: 1, language: 'en', steps: STEPS };

test('the first step that reads differently is where a trial begins anew', () => {
  const changed = STEPS.map((step) =>
    step.kind === 'outline'
      ? { ...step, sections: { from: 2, to: 3 } }
      : step.kind === 'write'
        ? { ...step, words: 300 }
        : step,
  );
  expect(firstChange(STEPS, changed)).toBe('s3');
  expect(firstChange(STEPS, STEPS)).toBeNull();
});

test('what only takes items, and steps that come after all that was run or are gone from there, open nothing', () => {
  const taken = STEPS.map((step) => (step.kind === 'take' ? { ...step, most: 9 } : step));
  expect(firstChange(STEPS, taken)).toBeNull();
  expect(firstChange(STEPS, [...STEPS, stepKinds.title.fresh('s5')])).toBeNull();
  expect(firstChange(STEPS, STEPS.slice(0, 3))).toBeNull();
});

test('a step put in between, moved, taken out or switched off is where it begins anew', () => {
  const [take, lookUp, outline, write] = STEPS as [Step, Step, Step, Step];
  const notes = stepKinds.notes.fresh('s9');
  expect(firstChange(STEPS, [take, lookUp, outline, notes, write])).toBe('s9');
  expect(firstChange(STEPS, [take, outline, lookUp, write])).toBe('s3');
  expect(firstChange(STEPS, [take, lookUp, write])).toBe('s4');
  expect(firstChange(STEPS, [take, lookUp, { ...outline, off: true }, write])).toBe('s4');
  expect(firstChange([take, lookUp, { ...outline, off: true }, write], STEPS)).toBe('s3');
});

test('a trial runs to a line, and to the end when no line or one that is gone is named', () => {
  expect(upTo(DOCUMENT, 's3').steps.map(({ id }) => id)).toEqual(['s1', 's2', 's3']);
  expect(upTo(DOCUMENT, null)).toBe(DOCUMENT);
  expect(upTo(DOCUMENT, 's9')).toBe(DOCUMENT);
});
