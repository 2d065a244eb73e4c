import { expect, test } from 'vitest';
import { expressionProblem, workOut } from './evaluate.ts';

const noFind = () => ({ ok: true as const, matches: [] });
const long = 'a'.repeat(1_000_000);
const fields = { long, list: Array.from({ length: 10_000 }, () => long), deep: deep(20_000) };

/** Lists in lists. */
function deep(levels: number): unknown {
  let value: unknown = 'x';
  for (let n = 0; n < levels; n++) value = [value];
  return value;
}

test.each([
  "replace(long, 'a', long)",
  'join(list, long)',
  'join(list)',
  'upper(list)',
  'list & list',
  'length(deep)',
  'deep & deep',
  'split(list, long)',
  'words(list)',
  'find(long, list)',
])('%s ends in a value or a problem, never in an error', (text) => {
  const done = workOut(text, fields, noFind);
  if (!done.ok) expect(done.problem).toMatch(/grows beyond a million characters/);
});

test('an expression that lies too deep in itself is told before it is run', () => {
  for (const text of [
    `${'('.repeat(20_000)}1${')'.repeat(20_000)}`,
    `${'not '.repeat(20_000)}true`,
    `${'-'.repeat(20_000)}1`,
    `${'['.repeat(20_000)}`,
    `1${' + 1'.repeat(20_000)}`,
    `${'upper('.repeat(20_000)}`,
  ]) {
    expect(() => expressionProblem(text), text.slice(0, 20)).not.toThrow();
    expect(() => workOut(text, {}, noFind), text.slice(0, 20)).not.toThrow();
  }
});
