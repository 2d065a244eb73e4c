import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { create, type Font } from 'fontkit';
import { expect, test } from 'vitest';
import { plainFont } from './woff.ts';

const folder = dirname(createRequire(import.meta.url).resolve('@fontsource/literata/package.json'));

test('an unwrapped font has the letters and widths of the wrapped one', () => {
  const woff = readFileSync(join(folder, 'files', 'literata-latin-400-normal.woff'));
  const plain = plainFont(woff);
  expect(plain.subarray(0, 4)).toEqual(woff.subarray(4, 8));
  const [one, other] = [create(woff) as Font, create(plain) as Font];
  expect(other.numGlyphs).toBe(one.numGlyphs);
  for (const text of ['Salt & brine', 'Größe, 22 %'])
    expect(other.layout(text).advanceWidth).toBe(one.layout(text).advanceWidth);
});
