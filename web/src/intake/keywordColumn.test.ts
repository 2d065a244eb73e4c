import { expect, test } from 'vitest';
import { phrasesOfFile } from './keywordColumn.ts';

const bytes = (text: string) => new TextEncoder().encode(text);
const read = (text: string) => phrasesOfFile('list.csv', bytes(text));

test('the column a known head names, quotes, marks and semicolons read as they are meant', () => {
  const text = '\ufeffRank;Keyword;Volume\r\n1;"how much salt; in grams";880\r\n2;"the ""right"" crock";40\r\n\r\n';
  expect(read(text)).toEqual({ phrases: ['how much salt; in grams', 'the "right" crock'], column: 'column “Keyword”' });
});

test('without a head the column that holds words, tabs too', () => {
  expect(read('1\tsalt for kraut\t9\n2\tbrine for beans\t8\n3\tkahm yeast\t7\n4\tjar or crock\t1\n')).toEqual({
    phrases: ['salt for kraut', 'brine for beans', 'kahm yeast', 'jar or crock'],
    column: 'column 2',
  });
});

test('one a line, and one line parted by commas', () => {
  expect(read('salt\n"rock salt"\n')).toEqual({ phrases: ['salt', 'rock salt'], column: 'one a line' });
  expect(read('salt, rock salt,sea salt\n')).toEqual({
    phrases: ['salt', 'rock salt', 'sea salt'],
    column: 'every cell',
  });
});

test('other encodings, and files that are no text', () => {
  const latin = Uint8Array.from([0x47, 0xe4, 0x72, 0x65, 0x6e, 0x0a]);
  expect(phrasesOfFile('a.csv', latin)).toMatchObject({ phrases: ['Gären'] });
  const wide = new Uint8Array([
    0xff,
    0xfe,
    ...[...'Gären'].flatMap((c) => [c.charCodeAt(0) & 255, c.charCodeAt(0) >> 8]),
  ]);
  expect(phrasesOfFile('a.csv', wide)).toMatchObject({ phrases: ['Gären'] });
  expect(phrasesOfFile('a.png', Uint8Array.from([0x89, 0x50, 0, 0, 1]))).toMatchObject({
    failed: expect.stringContaining('no text file'),
  });
});

test('five thousand rows with quotes are read whole', () => {
  const rows = Array.from({ length: 5_000 }, (_, i) => `"phrase ${i}, with a comma";${i}`).join('\n');
  const found = read(`Keyword;Volume\n${rows}`);
  expect('phrases' in found && found.phrases.length).toBe(5_000);
});
