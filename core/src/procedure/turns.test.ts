import { expect, test } from 'vitest';
import { insertStep } from './edit.ts';
import { checkProcedure } from './fieldsAt.ts';
import { stepKinds as k, type Step } from './registry.ts';

const context = {
  names: { blog: (id: string) => id, source: (id: string) => id },
  hasBlog: () => true,
  hasSource: () => true,
};
const turning = (steps: Step[]) => ({
  grivo: 1 as const,
  language: 'en',
  steps: [
    { ...k.take.fresh('s1'), sources: ['k1'] },
    { ...k['lay out'].fresh('s2'), body: 'A violin.', title: 'Violin' },
    { ...k['for each'].fresh('s3'), values: ['German', 'French'], as: 'tongue', steps },
  ] as Step[],
});
const warnings = (steps: Step[]) =>
  checkProcedure(turning(steps), context).filter(({ field }) => field === 'into' || field === 'as');

test('turns that all do the same are told of, at the translation where there is one', () => {
  expect(warnings([k.translate.fresh('s4')])).toMatchObject([
    {
      step: 's4',
      field: 'into',
      grade: 'warning',
      mend: 'Put it into {{ tongue }}, so that each turn has its own language.',
    },
  ]);
  expect(warnings([{ ...k.translate.fresh('s4'), into: '{{ tongue }}' }])).toEqual([]);
  expect(warnings([{ ...k.answer.fresh('s4'), reading: 'the article', instruction: 'Say it shortly.' }])).toMatchObject(
    [{ step: 's3', field: 'as' }],
  );
  expect(warnings([])).toEqual([]);
});

test('a translation put into the turns of a block puts into what each turn is for', () => {
  const inside = (steps: Step[] | undefined) =>
    steps
      ?.flatMap((step) => (step.kind === 'for each' ? step.steps : []))
      .map((step) => (step as { into?: string }).into);
  const document = turning([]);
  const put = (place: { inside: string | null; under: string; at: number }) =>
    insertStep(document, place, k.translate.fresh('s9'))?.steps;
  expect(inside(put({ inside: 's3', under: 'steps', at: 0 }))).toEqual(['{{ tongue }}']);
  expect(put({ inside: null, under: 'steps', at: 2 })?.[2]).toMatchObject({ into: 'German' });
});
