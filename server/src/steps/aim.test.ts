import { stepKinds as k } from '@grivo/core';
import { expect, test } from 'vitest';
import type { StepContext } from '../engine/performer.ts';
import type { Tools } from '../ports/tools.ts';
import { aimOf, performAim, phrasesIn } from './aim.ts';

test('several phrases are told by lines, commas, semicolons and strokes, each once', () => {
  expect(phrasesIn(' salt by weight,weighing  salt;\nkitchen scale | Salt by Weight |')).toEqual([
    'salt by weight',
    'weighing salt',
    'kitchen scale',
  ]);
  expect(phrasesIn(' ;, ')).toEqual([]);
});

const context = (fields: object) =>
  ({
    fields,
    brief: { subject: 'salt', document: { language: 'en', steps: [] }, steps: new Map() },
    run: { path: 's1' },
  }) as unknown as StepContext;
const tools = { ground: { db: { rows: async () => [] } } } as unknown as Tools;

test.each([
  ['a phrase of your own', 'salt by weight, kitchen scale', {}, { phrase: 'salt by weight', terms: ['kitchen scale'] }],
  ['a phrase of your own', ' , ', {}, { phrase: 'salt', terms: [] }],
  [
    'the subject',
    '',
    { phrases: ['how much salt', 'grams of salt'] },
    { phrase: 'salt', terms: ['how much salt', 'grams of salt'] },
  ],
  ['the subject', '', {}, { phrase: 'salt', terms: [] }],
] as const)('aimed at %s, %j, with %j', async (at, phrase, fields, aim) => {
  const given = context(fields);
  const done = await performAim(tools)({ ...k.aim.fresh('s1'), at, phrase }, given);
  expect(done).toMatchObject({ kind: 'done', fields: { aim } });
  expect(aimOf(context({ aim }))).toEqual(aim);
});
