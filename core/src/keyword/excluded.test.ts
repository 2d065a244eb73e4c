import { expect, test } from 'vitest';
import { excludedBy } from './excluded.ts';

test('words are found whole, in any case, several in a row, and nothing else', () => {
  expect(excludedBy('Violin bow, used', ['Used'])).toBe('Used');
  expect(excludedBy('A rosin cake', ['rosin cake', 'a'])).toBe('rosin cake');
  expect(excludedBy('Unused strings', ['used'])).toBeNull();
  expect(excludedBy('Größe 4/4', ['grosse 4'])).toBeNull();
  expect(excludedBy('Anything', [])).toBeNull();
});
