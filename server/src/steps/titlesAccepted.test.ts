import { expect, test } from 'vitest';
import { acceptTitles } from './titlesAccepted.ts';

const accept = acceptTitles({ most: 30, subject: 'rosin in winter' });
const reply = (...titles: string[]) => ({ titles, description: '', keywords: [], hashtags: [] });
const taken = (last: boolean, ...titles: string[]) => {
  const found = accept(reply(...titles), last);
  return found.ok ? found.value.titles : found.problem;
};
const LONG = 'Why rosin grows brittle in the winter months';

test('titles that fit are taken as they are, those that do not are left out and never cut', () => {
  expect(taken(false, 'Brittle rosin.', LONG, '  Warm the  rosin ')).toEqual(['Brittle rosin', 'Warm the rosin']);
});

test('where none fits it is said of each what is wrong', () => {
  expect(taken(false, LONG, '**Rosin**', '“Bow”')).toBe(
    `the title ‘${LONG}’ has 44 characters, more than 30; the title ‘**Rosin**’ has marks of Markdown or stands in quotation marks; the title ‘“Bow”’ has marks of Markdown or stands in quotation marks`,
  );
  expect(taken(true, LONG)).toMatch(/44 characters/);
});

test('the bare subject is a title only where there is no other', () => {
  expect(taken(false, 'Rosin in winter', 'Brittle rosin')).toEqual(['Brittle rosin']);
  expect(taken(false, 'Rosin in winter')).toEqual(['Rosin in winter']);
});

test('what stands there twice is one', () => {
  expect(taken(false, 'Brittle rosin', 'Brittle Rosin!')).toEqual(['Brittle rosin']);
});

test('the last time what is short enough will do', () => {
  expect(taken(true, '**Rosin**', LONG)).toEqual(['**Rosin**']);
});
