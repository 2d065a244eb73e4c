import { expect, test } from 'vitest';
import { compareLines } from './compare.ts';
import type { ProcedureDocument } from './document.ts';
import { stepKinds as k } from './registry.ts';
import { toldProcedure } from './told.ts';

const names = {
  source: () => 'Violin sheet',
  blog: () => 'Bench notes',
  routine: () => 'a routine',
  service: () => 'a service',
};
const long =
  'Say which tool is used, in which order, how long each takes, and what goes wrong for beginners who hurry.';
const before: ProcedureDocument = {
  grivo: 1,
  language: 'en',
  steps: [
    { ...k.take.fresh('s1'), sources: ['x'] },
    { ...k.answer.fresh('s2'), instruction: `${long} Be short.`, examples: ['The gouge, first.'] },
  ],
};
const says = (document: ProcedureDocument) => toldProcedure(document, names as never).map((line) => line.says);
const changes = (after: ProcedureDocument) =>
  compareLines(says(before), says(after))
    .filter((line) => line.in !== 'both')
    .map((line) => `${line.in === 'before' ? '-' : '+'}${line.line}`);

test('words beyond the beginning a sentence shows are told, and so is what it leaves out', () => {
  const [take, answer] = before.steps as [ProcedureDocument['steps'][0], ReturnType<typeof k.answer.fresh>];
  expect(changes({ ...before, steps: [take, { ...answer, instruction: `${long} Be thorough.` }] })).toEqual([
    `-instruction: ${long} Be short.`,
    `+instruction: ${long} Be thorough.`,
  ]);
  expect(changes({ ...before, steps: [take, { ...answer, examples: ['The plane, first.'] }] })).toEqual([
    '-examples: The gouge, first.',
    '+examples: The plane, first.',
  ]);
});

test('a step that is put into a block, or switched off, is told; and what belongs to the whole', () => {
  const [take, answer] = before.steps as [ProcedureDocument['steps'][0], ReturnType<typeof k.answer.fresh>];
  const wrapped = changes({ ...before, steps: [take, { ...k['for each'].fresh('s3'), steps: [answer] }] });
  expect(wrapped.some((line) => line.startsWith('+For each of German'))).toBe(true);
  expect(wrapped.some((line) => line.startsWith('+within step 2: '))).toBe(true);
  expect(changes({ ...before, steps: [take, { ...answer, off: true }] }).some((line) => line.endsWith(' (off)'))).toBe(
    true,
  );
  expect(changes({ ...before, language: 'de' })).toEqual(['-Language: en', '+Language: de']);
});
