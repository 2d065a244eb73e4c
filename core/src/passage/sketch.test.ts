import { expect, test } from 'vitest';
import { chanceFrom } from '../chance/chance.ts';
import { NEAR, sketchLikeness, sketchOf } from './sketch.ts';

const TEXT = `White film on a ferment is mostly kahm yeast. It lies flat, is dull and smells of bread. Mould stands up, is
fuzzy and has a colour of its own. Skim the film, wipe the rim with vinegar and press the cabbage under its brine again. A
cooler place and less air keep it away; what grows fuzzy goes on the compost, with all that lies under it, and the jar is
scalded before it is filled once more.`;

const alike = (a: string, b: string) => {
  const [one, other] = [sketchOf(a), sketchOf(b)];
  return {
    likeness: sketchLikeness(one!.hashes, other!.hashes),
    met: one!.bands.some((band) => other!.bands.includes(band)),
  };
};

test('the same told with small changes is near and is met, another text on the same subject is neither', () => {
  const near = alike(TEXT, `${TEXT.replace('dull', 'matt')} Read on.`);
  expect(near.likeness).toBeGreaterThan(NEAR);
  expect(near.met).toBe(true);
  const other = alike(
    TEXT,
    `Kahm yeast is a film that yeasts make where air reaches the brine of a ferment. Those who keep their cabbage pressed
down and their crocks in a cellar seldom see it, and those who do may take it off with a spoon, since it does no harm to
what lies below; only what has hairs or spots of green is to be thrown away at once.`,
  );
  expect(other.likeness).toBeLessThan(0.2);
  expect(other.met).toBe(false);
});

test('titles are compared by their letters; another figure makes another title', () => {
  expect(alike('Kahm yeast or mould? What to do', 'Kahm yeast or mould: what to do').met).toBe(true);
  expect(alike('A stoneware crock of 5 litres', 'A stoneware crock of 10 litres').met).toBe(false);
  expect(sketchOf('Kahm yeast')).toBeNull();
  expect(sketchOf('')).toBeNull();
});

test('what sketches tell is close to the share of runs in common, over random changes', () => {
  const chance = chanceFrom('sketch');
  const words = Array.from({ length: 400 }, (_, i) => `word${i}`);
  for (const changes of [0, 10, 40, 120]) {
    const changed = [...words];
    for (let i = 0; i < changes; i++) changed[Math.floor(chance() * words.length)] = `other${i}`;
    const runs = (all: string[]) => new Set(all.slice(2).map((_, i) => all.slice(i, i + 3).join(' ')));
    const [a, b] = [runs(words), runs(changed)];
    const common = [...a].filter((run) => b.has(run)).length;
    const truth = common / (a.size + b.size - common);
    expect(Math.abs(alike(words.join(' '), changed.join(' ')).likeness - truth)).toBeLessThan(0.25);
  }
});
