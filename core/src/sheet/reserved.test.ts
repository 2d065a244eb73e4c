import { expect, test } from 'vitest';
import { stepKinds } from '../procedure/registry.ts';
import { OF_STEPS, RESERVED_FIELDS } from './reserved.ts';

test('every field a step gives is kept for it, and no other', () => {
  const given = new Set(Object.values(stepKinds).flatMap(({ gives }): readonly string[] => gives));
  given.delete('title');
  expect([...given].filter((name) => !RESERVED_FIELDS.has(name))).toEqual([]);
  expect(OF_STEPS.filter((name) => !given.has(name))).toEqual([]);
});
