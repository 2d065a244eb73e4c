import { type Chance, chanceFrom } from '@grivo/core';

/** What a mutation is made with. */
interface Dice {
  below(n: number): number;
}

function dice(chance: Chance): Dice {
  return { below: (n) => Math.floor(chance() * n) };
}

const BITS = [
  '<',
  '>',
  '&',
  '"',
  "'",
  '<![CDATA[',
  ']]>',
  '<!--',
  '-->',
  '&#0;',
  '&lt;',
  '\u0000',
  '\ufeff',
  '\ud800',
  '{',
  '[',
  '\\',
  ',',
  '\r',
  '\n\n',
  '<html>',
  '<p hidden>',
  '%PDF-1.7',
  'PK\u0003\u0004',
  'xref',
  'endstream',
  'null',
  '1e999',
  '-1',
  '😀',
  '\u202e',
  '<!ENTITY a "b">',
  '<?xml version="1.0" encoding="utf-7"?>',
];

type Mutate = (bytes: Buffer, roll: Dice) => Buffer;

const splice = (bytes: Buffer, at: number, gone: number, put: Buffer): Buffer =>
  Buffer.concat([bytes.subarray(0, at), put, bytes.subarray(Math.min(bytes.length, at + gone))]);

/** Ways files come broken: cut, flipped, doubled, nested, filled, joined with another. */
const MUTATIONS: Mutate[] = [
  (bytes, roll) => bytes.subarray(0, roll.below(bytes.length)),
  (bytes, roll) => bytes.subarray(roll.below(bytes.length)),
  (bytes, roll) => {
    const out = Buffer.from(bytes);
    for (let n = 0; n < 1 + roll.below(40); n++) out[roll.below(out.length)] = roll.below(256);
    return out;
  },
  (bytes, roll) => splice(bytes, roll.below(bytes.length), 0, Buffer.from(BITS[roll.below(BITS.length)]!)),
  (bytes, roll) => splice(bytes, roll.below(bytes.length), roll.below(200), Buffer.alloc(0)),
  (bytes, roll) => {
    const from = roll.below(bytes.length);
    const part = bytes.subarray(from, from + 1 + roll.below(400));
    return splice(
      bytes,
      roll.below(bytes.length),
      0,
      Buffer.concat(Array.from({ length: 1 + roll.below(60) }, () => part)),
    );
  },
  (bytes, roll) => {
    // Deep in itself.
    const [open, close] = [
      ['<div>', '</div>'],
      ['<a>', ''],
      ['[', ']'],
      ['{"a":', '}'],
      ['> ', ''],
      ['<item>', '</item>'],
    ][roll.below(6)]!;
    const times = 10 ** (1 + roll.below(4));
    return splice(bytes, roll.below(bytes.length), 0, Buffer.from(open!.repeat(times) + close!.repeat(times)));
  },
  (bytes, roll) =>
    splice(bytes, roll.below(bytes.length), 0, Buffer.alloc(roll.below(100_000), BITS[roll.below(BITS.length)]!)),
  (bytes, roll) => {
    // Figures changed, lengths and offsets among them.
    const text = bytes
      .toString('latin1')
      .replace(/\d+/g, (figure) => (roll.below(4) === 0 ? String(roll.below(4) === 0 ? -1 : roll.below(1e9)) : figure));
    return Buffer.from(text, 'latin1');
  },
  (bytes, roll) => Buffer.concat([bytes, bytes.subarray(roll.below(bytes.length))]),
];

/** One of endlessly many broken forms of a file, the same for the same seed. */
export function mutated(bytes: Buffer, seed: string): Buffer {
  const roll = dice(chanceFrom(seed));
  let out = bytes;
  for (let n = 0; n < 1 + roll.below(3) && out.length > 0; n++)
    out = MUTATIONS[roll.below(MUTATIONS.length)]!(out, roll);
  return out;
}
