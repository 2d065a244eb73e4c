import { describe, expect, it, test } from 'vitest';
import { chanceFrom } from '../chance/chance.ts';
import { alikeSentences, likeness, runNumbers } from './likeness.ts';

const KILN = `A kiln is packed from the back to the front. Heavy pots stand low, and plates lie on their rims. Nothing may touch
its neighbour, since glaze runs before it sets. The first hundred degrees are taken slowly, so that the water leaves.`;

describe('texts that say the same in the same words', () => {
  it('tells how much, from nothing to all of it', () => {
    expect(likeness(KILN, [KILN])).toBe(1);
    expect(likeness(KILN, ['Bread is baked at two hundred degrees in an oven that was heated for an hour.'])).toBe(0);
    const half = KILN.split('.').slice(0, 2).join('.');
    expect(likeness(KILN, [half])).toBeGreaterThan(0.3);
    expect(likeness(KILN, [half])).toBeLessThan(0.6);
  });

  it('puts each sentence beside the one it is like, the most alike first, and leaves out what is its own', () => {
    const other = [
      'Something else first. Nothing may touch its neighbour, for glaze runs before it sets.',
      'Heavy pots stand low, and plates lie on their rims.',
    ];
    const found = alikeSentences(KILN, other);
    expect(found).toHaveLength(2);
    expect(found[0]).toEqual({
      here: 'Heavy pots stand low, and plates lie on their rims.',
      there: other[1],
      of: 1,
      words: 10,
    });
    expect(found[1]).toMatchObject({
      of: 0,
      words: 10,
      there: 'Nothing may touch its neighbour, for glaze runs before it sets.',
    });
    expect(alikeSentences(KILN, other, 'en', 1)).toHaveLength(1);
    expect(alikeSentences(KILN, ['Bread is baked slowly.'])).toEqual([]);
  });

  it('in a language without spaces too', () => {
    const text = '塩は重さを量って加える。キャベツは水の下に沈めておく。冷たい場所に置く。';
    expect(likeness(text, [text], 'ja')).toBe(1);
    expect(alikeSentences(text, ['キャベツは水の下に沈めておく。'], 'ja')[0]!.here).toBe(
      'キャベツは水の下に沈めておく。',
    );
  });
});

test('numbers of runs are found again in whatever shares a stretch, over random texts, and are few', () => {
  const chance = chanceFrom('runs');
  const words = (n: number) => Array.from({ length: n }, () => `w${Math.floor(chance() * 5_000)}`);
  let [found, all] = [0, 0];
  for (let i = 0; i < 60; i++) {
    const stretch = words(120);
    const [a, b] = [[...words(200), ...stretch].join(' '), [...stretch, ...words(200)].join(' ')];
    const numbers = new Set(runNumbers(a));
    all += numbers.size;
    if (runNumbers(b).filter((one) => numbers.has(one)).length >= 3) found++;
    expect(runNumbers(words(300).join(' ')).filter((one) => numbers.has(one)).length).toBeLessThan(3);
  }
  expect(found).toBe(60);
  // One in eight of 316 runs.
  expect(all / 60).toBeGreaterThan(30);
  expect(all / 60).toBeLessThan(50);
});
