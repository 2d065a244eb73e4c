import fc from 'fast-check';
import { expect, test } from 'vitest';
import { linesOf } from './lines.ts';

/** Every letter is one wide. */
const measure = ({ text }: { text: string }) => text.length;
const shown = (text: string, room: number, fromRight = false) =>
  linesOf([{ text, ink: 0 }], room, fromRight, measure).map((line) => line.map((piece) => piece.text).join('|'));

test('lines are broken at spaces, and a word that is too wide between letters', () => {
  expect(shown('wax the bag in warm', 8)).toEqual(['wax the', 'bag in', 'warm']);
  expect(shown('waterproofing it', 5)).toEqual(['water', 'proof', 'ing', 'it']);
  expect(shown('', 5)).toEqual(['']);
});

test('lines of a script without spaces end between its letters, never before what closes or after what opens', () => {
  expect(shown('塩は、はかりで量る。', 4)).toEqual(['塩は、は', 'かりで量', 'る。']);
  expect(shown('塩は、はか', 2)).toEqual(['塩', 'は、', 'はか']);
  expect(shown('塩瓶（一つ）', 3)).toEqual(['塩瓶', '（一', 'つ）']);
  expect(shown('a half-litre jar', 7)).toEqual(['a half-', 'litre', 'jar']);
});

test('each line is put in order by itself, once it is broken', () => {
  expect(shown('שעווה 25 גרם לתיק', 12, true)).toEqual([' גרם|25|שעווה ', 'לתיק']);
  expect(shown('the תיק bag', 40)).toEqual(['the |תיק| bag']);
});

test('pieces keep their look on whatever line and in whatever order they come to stand', () => {
  const lines = linesOf(
    [
      { text: 'שמן ', ink: 'plain' },
      { text: 'ושעווה', ink: 'bold' },
      { text: ' wax', ink: 'plain' },
    ],
    30,
    true,
    measure,
  );
  expect(lines).toEqual([
    [
      { text: 'wax', ink: 'plain', fromRight: false },
      { text: ' ', ink: 'plain', fromRight: true },
      { text: 'ושעווה', ink: 'bold', fromRight: true },
      { text: 'שמן ', ink: 'plain', fromRight: true },
    ],
  ]);
});

test('no letter is lost, and no line is wider than the room', () => {
  const word = fc.stringMatching(/^[a-zשעוהתיק0-9(),.]{1,9}$/u);
  fc.assert(
    fc.property(
      fc.array(word, { maxLength: 30 }),
      fc.integer({ min: 3, max: 30 }),
      fc.boolean(),
      (words, room, right) => {
        const lines = linesOf([{ text: words.join(' '), ink: 0 }], room, right, measure);
        const letters = (text: string) => [...text.replace(/[\s()]/g, '')].sort().join('');
        const all = lines
          .flat()
          .map(({ text }) => text)
          .join('');
        expect(letters(all)).toBe(letters(words.join('')));
        for (const line of lines)
          expect(line.reduce((sum, piece) => sum + piece.text.length, 0)).toBeLessThanOrEqual(room);
      },
    ),
  );
});
