import { readFileSync } from 'node:fs';
import { expect, test } from 'vitest';
import { subjectSign } from './subject.ts';

/** Pairs judged by hand: `same` or `other`, the language, two phrases. The kept ones were told before anything was fitted. */
const judged = (file: string) =>
  readFileSync(new URL(`subject/${file}.txt`, import.meta.url), 'utf8')
    .trim()
    .split('\n')
    .map((line) => {
      const [is, language, a, b] = line.split(' | ') as [string, string, string, string];
      const sign = subjectSign(a, language);
      return { line, same: is === 'same', told: sign !== null && sign === subjectSign(b, language) };
    });

test.each(['pairs', 'kept'])(
  'of %s told right are more than nineteen of twenty, and hardly two subjects are taken for one',
  (file) => {
    const all = judged(file);
    expect(all.filter(({ same, told }) => same === told).length / all.length).toBeGreaterThan(0.95);
    expect(all.filter(({ same, told }) => told && !same).map(({ line }) => line).length).toBeLessThanOrEqual(1);
  },
);

test('a sign is the same whatever the order, the form and the way of asking, and null where nothing is left', () => {
  const sign = subjectSign('How do you freeze plums?');
  for (const phrase of ['freezing plums', 'can plums be frozen', 'Plums: how to freeze them properly'])
    expect(subjectSign(phrase)).toBe(sign);
  expect(subjectSign('freezing plums without sugar')).not.toBe(sign);
  expect(subjectSign('how to')).toBeNull();
  expect(subjectSign('')).toBeNull();
  expect(subjectSign('!?')).toBeNull();
});

test('a language whose ways of asking are not known tells by words alone; long and hostile ones are told in time', () => {
  expect(subjectSign('huile d’olive vierge', 'fr')).toBe(subjectSign('Vierge huile d’olive', 'fr'));
  expect(subjectSign('Pflaumen einfrieren', 'de-AT')).toBe(subjectSign('kann man Pflaumen einfrieren', 'de'));
  expect(subjectSign('how long get plums off '.repeat(20_000))).toContain('plum');
});
