import { expect, test } from 'vitest';
import { chooseVariant, countVariants, variantProblem } from './variant.ts';

test('lists inside lists are counted and chosen from, fields are left alone', () => {
  const text = '{Plain|{Fine|Coarse} sea} salt for {{ subject }}';
  expect(countVariants([text])).toBe(3);
  expect(countVariants([text, 'One more'])).toBe(4);
  const seen = new Set(Array.from({ length: 60 }, (_, i) => chooseVariant([text], `seed ${i}`)));
  expect([...seen].sort()).toEqual([
    'Coarse sea salt for {{ subject }}',
    'Fine sea salt for {{ subject }}',
    'Plain salt for {{ subject }}',
  ]);
  expect(chooseVariant([text], 'one')).toBe(chooseVariant([text], 'one'));
  expect(chooseVariant([], 'one')).toBe('');
});

test('empty alternatives count, plain text is itself, open lists are told with their place', () => {
  expect(countVariants(['a{|b}'])).toBe(2);
  expect(chooseVariant(['No braces | here'], 's')).toBe('No braces | here');
  expect(variantProblem('a {b|c')).toBe('The list at character 3 is not closed.');
  expect(variantProblem('{ '.repeat(30))).toMatch(/nested too deep/);
  expect(variantProblem('{% if x %}a{% endif %}')).toBeNull();
  expect(countVariants(['{a|b}'.repeat(80)])).toBe(Number.MAX_SAFE_INTEGER);
});
