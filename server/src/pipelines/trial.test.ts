import { type ProcedureDocument, type Step, stepKinds } from '@grivo/core';
import { expect, test } from 'vitest';
import { firstChange, upTo } from './trial.ts';

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

test('what only takes items, and steps that are new or gone, open nothing', () => {
  const taken = STEPS.map((step) => (step.kind === 'take' ? { ...step, most: 9 } : step));
  expect(firstChange(STEPS, taken)).toBeNull();
  expect(firstChange(STEPS, [...STEPS, stepKinds.title.fresh('s5')])).toBeNull();
  expect(firstChange(STEPS, STEPS.slice(0, 3))).toBeNull();
});

test('a trial runs to a line, and to the end when no line or one that is gone is named', () => {
  expect(upTo(DOCUMENT, 's3').steps.map(({ id }) => id)).toEqual(['s1', 's2', 's3']);
  expect(upTo(DOCUMENT, null)).toBe(DOCUMENT);
  expect(upTo(DOCUMENT, 's9')).toBe(DOCUMENT);
});
