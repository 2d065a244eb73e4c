import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { contrastOf } from './contrast.ts';
import { isFromRight } from './direction.ts';
import { fitText } from './fit.ts';
import { type Face, px, xmlText } from './type.ts';

/** Every letter half as wide as the size, a space a quarter; what is no Latin letter is not there. */
const face: Face = {
  reach: () => ({ above: 800, below: 200 }),
  set: (text) => {
    const missing = [...text].find((letter) => letter.codePointAt(0)! > 0x2fff && !/[ぁ-ん一-龠]/u.test(letter));
    if (missing) return { missing };
    const advance = [...text].reduce((sum, letter) => sum + (letter === ' ' || letter === '\u00a0' ? 250 : 500), 0);
    return { advance, ink: { left: 0, right: advance, top: -800, bottom: 200 }, outline: '' };
  },
};
const rule = { from: 10, to: 40, most: 4, leading: 1.2 };
const at = { across: 'start' as const, down: 'top' as const, rightToLeft: false };
const fit = (text: string, box = { width: 200, height: 200 }, more: Partial<typeof rule> = {}, stands: object = {}) =>
  fitText(text, face, box, { ...rule, ...more }, { ...at, ...stands });
const linesOf = (fitted: ReturnType<typeof fit>) => (fitted.ok ? fitted.lines.map(({ text }) => text) : null);

describe('a text in a box', () => {
  test('is set at the largest size at which all of it stands there', () => {
    expect(fit('wax')).toMatchObject({ ok: true, size: 40 });
    // Twelve letters at 33 px are 198 wide.
    expect(fit('abcdefghijkl')).toMatchObject({ ok: true, size: 33 });
    expect(fit('wax', { width: 200, height: 24 })).toMatchObject({ ok: true, size: 24 });
  });

  test('is broken at spaces, its lines as even as can be', () => {
    expect(linesOf(fit('aaaa bbbb cccc dd', { width: 200, height: 96 }))).toEqual(['aaaa bbbb', 'cccc dd']);
  });

  test('is broken after hyphens and within words only where a word is wider than the box at that size', () => {
    expect(linesOf(fit('well-kept', { width: 200, height: 200 }))).toEqual(['well-kept']);
    expect(linesOf(fit('well-kept bees', { width: 100, height: 200 }, { from: 36 }))).toEqual([
      'well-',
      'kept',
      'bees',
    ]);
    expect(linesOf(fit('一二三四五六', { width: 60, height: 200 }, { from: 40, to: 40 }))).toEqual([
      '一二三',
      '四五六',
    ]);
  });

  test('keeps a sign with the figure before it', () => {
    expect(linesOf(fit('at 2 % more', { width: 70, height: 200 }, { from: 30, to: 30 }))).toEqual([
      'at',
      '2\u00a0%',
      'more',
    ]);
  });

  test('that does not fit is told, and so is a letter that is not there', () => {
    expect(fit('abcdefghijkl', { width: 40, height: 200 })).toEqual({ ok: false, why: 'too long' });
    expect(fit('a b c d e', { width: 9, height: 200 }, { from: 16, to: 16 })).toEqual({ ok: false, why: 'too long' });
    expect(fit('wax 🜍')).toMatchObject({ ok: false, why: 'no such letter' });
    expect(fit('   ')).toMatchObject({ ok: true, lines: [] });
  });

  test('stands at the side and height it is told', () => {
    const first = (stands: object) => {
      const fitted = fit('wax', { width: 200, height: 100 }, {}, stands);
      return fitted.ok ? [fitted.lines[0]!.x, Math.round(fitted.lines[0]!.y)] : null;
    };
    expect(first({})).toEqual([0, 32]);
    expect(first({ across: 'middle', down: 'middle' })).toEqual([70, 62]);
    expect(first({ across: 'end', down: 'foot' })).toEqual([140, 92]);
    // One begins at the right in Arabic, and ends at the left.
    expect(first({ rightToLeft: true })).toEqual([140, 32]);
    expect(first({ rightToLeft: true, across: 'end' })).toEqual([0, 32]);
  });

  test('never stands out of it, and says all of its words in order, whatever they are', () => {
    fc.assert(
      fc.property(
        fc.array(fc.stringMatching(/^[a-z-]{1,14}$/), { minLength: 1, maxLength: 20 }),
        fc.integer({ min: 20, max: 400 }),
        fc.integer({ min: 10, max: 400 }),
        (words, width, height) => {
          const fitted = fit(words.join(' '), { width, height });
          if (!fitted.ok) return;
          expect(fitted.lines.length).toBeLessThanOrEqual(rule.most);
          expect(
            fitted.lines
              .map(({ text }) => text)
              .join('')
              .replaceAll(' ', ''),
          ).toBe(words.join(''));
          for (const { x, y, set } of fitted.lines) {
            expect(x).toBeGreaterThanOrEqual(0);
            expect(x + (set.advance * fitted.size) / 1_000).toBeLessThanOrEqual(width + 0.01);
            expect(y - 0.8 * fitted.size).toBeGreaterThanOrEqual(-0.01);
            expect(y + 0.2 * fitted.size).toBeLessThanOrEqual(height + 0.01);
          }
        },
      ),
    );
  });
});

test('contrast is that of the standard', () => {
  expect(contrastOf('#000000', '#ffffff')).toBeCloseTo(21, 6);
  expect(contrastOf('#ffffff', '#ffffff')).toBeCloseTo(1, 6);
  // A grey that just passes for text on white.
  expect(contrastOf('#767676', '#ffffff')).toBeGreaterThan(4.5);
  expect(contrastOf('#777777', '#ffffff')).toBeLessThan(4.5);
  expect(contrastOf('#ffffff', '#767676')).toBe(contrastOf('#767676', '#ffffff'));
});

test('a text runs from the right where its first letter does', () => {
  expect(['النحل', '2.5 % النحل', 'מלח', 'salt מלח', '2.5 %', ''].map(isFromRight)).toEqual([
    true,
    true,
    true,
    false,
    false,
    false,
  ]);
});

test('texts and figures as they stand in a drawing', () => {
  expect(xmlText('<a href="x">&</a>')).toBe('&lt;a href=&quot;x&quot;&gt;&amp;&lt;/a&gt;');
  expect([px(1 / 3), px(2), px(-0.004)]).toEqual(['0.33', '2', '0']);
});
