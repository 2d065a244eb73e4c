import { expect, test } from 'vitest';
import { cleanKeywords } from './clean.ts';
import { unmarked } from './junk.ts';

const PASTED = `Keyword\tVolume\tKD
1. bicycle bell for children\t1,200\t14
2) how to true a wheel\t880\t9
- **hub gear oil**
• <b>chain wax</b> &amp; degreaser
[x] [dynamo hub](https://wheels.example/dynamo)
#REF!
n/a
12345
q
https://wheels.example/shop
wheels.example/tandems
info@wheels.example
Total 2,080
TODO ask Ben about prices
saddle height (maybe delete)
tandem lights???
total knee replacement
note taking apps
3 ways to mend a tube
node.js
`;

test('a table pasted with its head, its numbers, notes and broken cells leaves the phrases, each other thing with its reason', () => {
  const { kept, leftOut, dropped } = cleanKeywords(PASTED);
  expect(kept.map(({ phrase }) => phrase)).toEqual([
    'bicycle bell for children',
    'how to true a wheel',
    'hub gear oil',
    'chain wax & degreaser',
    'dynamo hub',
    'total knee replacement',
    'note taking apps',
    '3 ways to mend a tube',
    'node.js',
  ]);
  expect(leftOut).toEqual({
    heading: 3,
    number: 7,
    'error cell': 2,
    'one letter': 1,
    address: 2,
    'mail address': 1,
    total: 1,
    'note to self': 3,
  });
  expect(dropped.every(({ raw }) => raw.trim() !== '')).toBe(true);
});

test('what a person asks for as it is comes in, but no second time', () => {
  const { kept, leftOut } = cleanKeywords(['12345', 'Keywords', 'brines', 'brine'], ['brine'], { asIs: true });
  expect(kept.map(({ phrase }) => phrase)).toEqual(['12345', 'Keywords', 'brines']);
  expect(leftOut).toEqual({ repeat: 1 });
});

test('a near repeat of a phrase that was left out is none; the phrase itself is told', () => {
  const { kept, dropped } = cleanKeywords('crocks for kimchi\nkimchi crock', [], { leftOut: ['kimchi crock'] });
  expect(kept.map(({ phrase }) => phrase)).toEqual(['crocks for kimchi']);
  expect(dropped).toEqual([{ raw: 'kimchi crock', line: 2, reason: 'left out before', of: 'kimchi crock' }]);
});

test('counts hold where not every one is told', () => {
  const { dropped, leftOut } = cleanKeywords('1\n2\n3\n4', [], { told: 2 });
  expect(dropped).toHaveLength(2);
  expect(leftOut).toEqual({ number: 4 });
});

test.each([
  ['- 1. [ ] salt', 'salt'],
  ['## Brine ##', 'Brine ##'],
  ['a <script>x</script> b', 'a  x  b'],
  ['5 < 6 and 7 > 6', '5 < 6 and 7 > 6'],
  ['2-litre jars', '2-litre jars'],
])('%j is %j', (raw, text) => {
  expect(unmarked(raw)).toBe(text);
});
