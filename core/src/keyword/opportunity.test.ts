import { expect, test } from 'vitest';
import { opportunity } from './opportunity.ts';

test('what difficulty takes is taken; nothing is guessed', () => {
  expect(opportunity({ volume: 880, difficulty: 25 })).toBe(660);
  expect(opportunity({ volume: 880, difficulty: 100 })).toBe(0);
  expect(opportunity({ volume: 0, difficulty: 0 })).toBe(0);
  expect(opportunity({ volume: null, difficulty: 3 })).toBeNull();
  expect(opportunity({ volume: 5, difficulty: null })).toBeNull();
});
