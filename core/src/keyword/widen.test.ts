import { expect, test } from 'vitest';
import { asksQuestion, widened } from './widen.ts';

test('a seed becomes phrases and questions; how it asks itself is left before', () => {
  const all = widened('how to make kimchi');
  const phrases = all.map(({ phrase }) => phrase);
  expect(phrases).toContain('kimchi for beginners');
  expect(phrases).toContain('how long does kimchi take');
  expect(phrases).not.toContain('how to make kimchi');
  expect(new Set(phrases).size).toBe(phrases.length);
  for (const { phrase, question } of all) expect(asksQuestion(phrase)).toBe(question);
});

test('German seeds get German phrases; nothing gives nothing; signs of patterns are plain letters', () => {
  expect(widened('Sauerkraut Rezept', 'de').map(({ phrase }) => phrase)).toContain('Sauerkraut selber machen');
  expect(widened('  ')).toEqual([]);
  expect(widened('how to')).not.toContainEqual(expect.objectContaining({ phrase: expect.stringContaining('X ') }));
  expect(widened('$& kraut').map(({ phrase }) => phrase)).toContain('$& kraut tips');
});

test.each([
  ['how much salt', true],
  ['kimchi too sour?', true],
  ['candy', false],
  ['kahm yeast', false],
])('‘%s’ asks: %s', (phrase, asks) => {
  expect(asksQuestion(phrase)).toBe(asks);
});
