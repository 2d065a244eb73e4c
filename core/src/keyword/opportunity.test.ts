import { expect, test } from 'vitest';
import { opportunityBy, opportunityProblem } from './opportunity.ts';

test('volume less the share its difficulty takes; null where either is not known', () => {
  const of = (volume: number | null, difficulty: number | null) =>
    opportunityBy()('kahm yeast', { volume, difficulty });
  expect(of(880, 25)).toBe(660);
  expect(of(880, 100)).toBe(0);
  expect(of(0, 0)).toBe(0);
  expect(of(null, 3)).toBeNull();
  expect(of(5, null)).toBeNull();
});

test('another formula counts, and asks only for what it names', () => {
  const measures = { volume: 900, difficulty: null };
  expect(opportunityBy('volume / 3')('kahm yeast', measures)).toBe(300);
  expect(opportunityBy('volume * words')('what is kahm yeast', measures)).toBe(3_600);
  expect(opportunityBy('volume - difficulty')('kahm yeast', measures)).toBeNull();
  expect(opportunityBy('volume / 0')('kahm yeast', measures)).toBeNull();
});

test.each([
  ['volume * (100 - difficulty) / 100', null],
  ['volume *', /at character/],
  ['volume * traffic', /no ‘traffic’; there are volume, difficulty, words/],
  ["join([volume], '-') & ' searches'", /no figure|character/],
  ['volume / 0', /./],
])('‘%s’ is looked at before it is kept', (formula, problem) => {
  if (problem === null) expect(opportunityProblem(formula)).toBeNull();
  else expect(opportunityProblem(formula)).toMatch(problem);
});
