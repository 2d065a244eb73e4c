import { isSetLine } from '@grivo/core';
import { describe, expect, test } from 'vitest';
import { faceFor } from './setting.ts';

const book = faceFor('book', false);
const set = (text: string, fromRight = false, face = book) => {
  const line = face.set(text, fromRight);
  if (!isSetLine(line)) throw new Error(`no ${line.missing}`);
  return line;
};

describe('a line set in a face', () => {
  test('goes on as far as its letters, and further in bold', () => {
    expect(set('').advance).toBe(0);
    expect(set('salt brine').advance).toBeGreaterThan(set('salt').advance);
    expect(set('salt', false, faceFor('book', true)).advance).toBeGreaterThan(set('salt').advance);
    expect(faceFor('book', true)).toBe(faceFor('book', true));
  });

  test('is inked within what it says', () => {
    const { ink, outline } = set('Äpfel, gj');
    expect(ink.top).toBeLessThan(-650);
    expect(ink.bottom).toBeGreaterThan(150);
    expect(ink.right).toBeGreaterThan(ink.left);
    const ys = [...outline.matchAll(/[MLQC]([-\d ]+)/g)].flatMap(([, figures]) =>
      figures!
        .split(' ')
        .map(Number)
        .filter((_, i) => i % 2 === 1),
    );
    expect(Math.min(...ys)).toBeGreaterThanOrEqual(ink.top - 30);
    expect(Math.max(...ys)).toBeLessThanOrEqual(ink.bottom + 30);
    expect(set(' ').outline).toBe('');
  });

  test('takes letters from the face that has them, in one line', () => {
    const mixed = set('Salz, соль, αλάτι, ملح');
    expect(mixed.advance).toBeGreaterThan(set('Salz, соль, αλάτι, ').advance);
    expect(book.reach('ملح').above).not.toBe(book.reach('Salz').above);
    expect(book.reach('Salz ملح').above).toBe(Math.max(book.reach('Salz').above, book.reach('ملح').above));
  });

  test('joins Arabic letters: together they are narrower than one by one', () => {
    const apart = [...'ملح'].reduce((sum, letter) => sum + set(letter, true).advance, 0);
    expect(set('ملح', true).advance).toBeLessThan(apart);
  });

  test('runs from the right where the text does, with figures as they are read', () => {
    const right = set('ملح salt', true).outline;
    const left = set('ملح salt', false).outline;
    expect(right).not.toBe(left);
    // What is read first stands at the right there, at the left here.
    const beginning = set('salt').outline.slice(0, 40);
    expect([right.indexOf(beginning), left.indexOf(beginning)]).toEqual([0, -1]);
  });

  test('leaves out what joins and colours letters, and tells one no face has', () => {
    expect(set('salt\u200b\u00ad 🧂').advance).toBe(set('salt ').advance);
    expect(book.set('가', false)).toEqual({ missing: '가' });
    expect(book.set('가', false)).toEqual({ missing: '가' });
  });
});
