import { expect, test } from 'vitest';
import { spelt } from './spelling.ts';

test.each([
  ['kahm yeast or mold', 'kahm yeast or mould'],
  ['moldy sauerkraut, Colors of brine', 'mouldy sauerkraut, Colours of brine'],
  ['sterilized 5 liter jars', 'sterilised 5 litre jars'],
  ['iodized salt', 'iodised salt'],
  // Holds the letters, but is another word.
  ['tired of 3 meters molden centering', 'tired of 3 metres molden centering'],
])('‘%s’ the British way', (from, to) => {
  expect(spelt(from, 'British')).toBe(to);
});

test('back again the American way, and a second time nothing changes', () => {
  const american = spelt('mouldy grey litre jars, sterilising flavours', 'American');
  expect(american).toBe('moldy gray liter jars, sterilizing flavors');
  expect(spelt(american, 'American')).toBe(american);
});
