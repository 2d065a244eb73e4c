import { expect, test } from 'vitest';
import { addressesIn, wordsIn } from './pictureNamed.ts';

test('addresses stand in a column, parted by whatever is used, or in a list; each counts once', () => {
  const [a, b] = ['https://pegs.example/a.jpg', 'http://pegs.example/b.png?x=1'];
  expect(addressesIn(a)).toEqual([a]);
  expect(addressesIn(`${a}, ${b}\n${a}`)).toEqual([a, b]);
  expect(addressesIn(`${a}|${b};none`)).toEqual([a, b]);
  expect(addressesIn([a, 7, null, `${b}`])).toEqual([a, b]);
  for (const none of ['', 'pegs.jpg', 'file:///etc/passwd', 'https://', null, undefined, 7, { a }])
    expect(addressesIn(none)).toEqual([]);
});

test.each([
  ['https://pegs.example/shop/glass-weight_2.jpg', 'glass weight'],
  ['https://pegs.example/a%20peg.of+maple.webp?size=2', 'a peg of maple'],
  ['https://pegs.example/1234.png', ''],
  ['https://pegs.example/', ''],
])('%s is called %j', (address, words) => {
  expect(wordsIn(address)).toBe(words);
});
