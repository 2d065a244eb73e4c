import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { draw } from './draw.ts';

const of = (prompt: string, seed = 's', palette = 0) => draw(prompt, seed, 320, 200, palette);

describe('a picture', () => {
  it('is the same for the same prompt and seed, and another for another', async () => {
    const [a, b, c] = await Promise.all([of('salt in a jar'), of('salt in a jar'), of('salt in a jar', 't')]);
    expect(a!.png.equals(b!.png)).toBe(true);
    expect(a!.png.equals(c!.png)).toBe(false);
    expect(a!.shows).toBe(b!.shows);
  });

  it('has the size that was asked for', async () => {
    const { png } = await of('a barrel for rain');
    expect(await sharp(png).metadata()).toMatchObject({ format: 'png', width: 320, height: 200 });
  });

  it('says what it shows: the things its words called for, on what, in which colours, the sun where it stands', async () => {
    const { shows } = await of('weigh the salt for a jar of cabbage');
    expect(shows).toMatch(
      /^A .* on a shelf, in [a-z ]+ and [a-z]+, with the sun (?:on the left|on the right|in the middle)\.$/,
    );
    expect(shows).toMatch(/kitchen scale|heap of salt|jar with a lid|cabbage leaf/i);
  });

  it('says it in German where the prompt asks for that', async () => {
    const { shows } = await of('Salz und salt. What is shown is said in German.');
    expect(shows).toMatch(/ auf einem Bord, in \p{L}+ und \p{L}+, die Sonne steht (?:links|rechts|in der Mitte)\.$/u);
    expect(shows).toMatch(/^(?:Ein|Eine) /);
  });

  it('of what it has no shape for it draws one thing three times, and says so', async () => {
    const { shows } = await of('quarks and gluons');
    expect(shows).toContain('three times side by side');
    expect((await of('Quarks. What is shown is said in German.')).shows).toContain('dreimal nebeneinander');
  });

  it('where the sun is said to stand it stands', async () => {
    for (const seed of ['a', 'b', 'c', 'd', 'e']) {
      const { png, shows } = await of('a clock', seed);
      const { data, info } = await sharp(png).removeAlpha().raw().toBuffer({ resolveWithObject: true });
      // Above all shapes, where only the sun is.
      const row = Math.round(info.height * 0.145) * info.width * 3;
      const background = data.subarray(row, row + 3);
      const lit = Array.from({ length: info.width }, (_, x) => x).filter((x) =>
        [0, 1, 2].some((c) => Math.abs(data[row + x * 3 + c]! - background[c]!) > 3),
      );
      const middle = lit[Math.floor(lit.length / 2)]! / info.width;
      if (shows.endsWith('on the left.')) expect(middle).toBeLessThan(0.5);
      if (shows.endsWith('on the right.')) expect(middle).toBeGreaterThan(0.5);
    }
  });
});
