import { expect, test } from 'vitest';
import { cleanKeywords } from './clean.ts';

test('a mixed paste is parted, evened and freed of repeats, each with its reason and line', () => {
  const { kept, dropped, evened } = cleanKeywords(
    '  how much  salt for sauerkraut, "fermenting garlic in honey"\nHow much salt for Sauerkraut;kimchi crock\tkimchi crocks\n,;\n---',
  );
  expect(kept.map((k) => k.phrase)).toEqual([
    'how much salt for sauerkraut',
    'fermenting garlic in honey',
    'kimchi crock',
  ]);
  expect(evened).toBe(2);
  expect(dropped).toEqual([
    { raw: 'How much salt for Sauerkraut', line: 2, reason: 'repeat', of: 'how much salt for sauerkraut' },
    { raw: 'kimchi crocks', line: 2, reason: 'near repeat', of: 'kimchi crock' },
    { raw: '---', line: 4, reason: 'no letters' },
  ]);
});

test('what the list holds already is a repeat', () => {
  expect(cleanKeywords('Brine', ['brine']).kept).toEqual([]);
});

test('strange characters neither survive nor throw', () => {
  const { kept, dropped } = cleanKeywords(
    'salt\u0000 \u202eevil\n🥬🥒\nمخلل الملفوف\n\ud800broken\n' + 'x'.repeat(500),
  );
  expect(kept.map((k) => k.phrase)).toEqual(['salt evil', 'مخلل الملفوف', 'broken']);
  expect(dropped.map((d) => d.reason)).toEqual(['no letters', 'too long']);
});

test('a paste of a megabyte is read whole', () => {
  const { kept } = cleanKeywords(Array.from({ length: 60_000 }, (_, i) => `phrase number ${i}`).join('\n'));
  expect(kept.length).toBe(60_000);
});

test('spelt the other way a phrase is a near repeat; a spelling chosen is kept to', () => {
  const paste = 'kahm yeast or mould\nkahm yeast or mold\nliter jars';
  expect(cleanKeywords(paste).dropped).toEqual([
    { raw: 'kahm yeast or mold', line: 2, reason: 'near repeat', of: 'kahm yeast or mould' },
  ]);
  expect(cleanKeywords(paste, [], { spelling: 'British' }).kept.map((k) => k.phrase)).toEqual([
    'kahm yeast or mould',
    'litre jars',
  ]);
  expect(cleanKeywords('mould', ['mold'], { spelling: 'American' }).dropped[0]).toMatchObject({
    reason: 'repeat',
    of: 'mold',
  });
});
