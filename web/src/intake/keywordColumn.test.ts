import { expect, test } from 'vitest';
import { bare } from './filePhrase.ts';
import { phrasesOfFile } from './keywordColumn.ts';

const bytes = (text: string) => new TextEncoder().encode(text);
const read = (text: string) => phrasesOfFile('list.csv', bytes(text));

test('the column a known head names, quotes, marks and semicolons read as they are meant', () => {
  const text = '\ufeffRank;Keyword;Volume\r\n1;"how much salt; in grams";880\r\n2;"the ""right"" crock";40\r\n\r\n';
  expect(read(text)).toEqual({
    phrases: [
      { phrase: 'how much salt; in grams', volume: 880, difficulty: null },
      { phrase: 'the "right" crock', volume: 40, difficulty: null },
    ],
    column: 'columns “Keyword”, “Volume”',
  });
});

test('without a head the column that holds words, tabs too', () => {
  expect(read('1\tsalt for kraut\t9\n2\tbrine for beans\t8\n3\tkahm yeast\t7\n4\tjar or crock\t1\n')).toEqual({
    phrases: ['salt for kraut', 'brine for beans', 'kahm yeast', 'jar or crock'].map(bare),
    column: 'column 2',
  });
});

test('one a line, and one line parted by commas', () => {
  expect(read('salt\n"rock salt"\n')).toEqual({ phrases: ['salt', 'rock salt'].map(bare), column: 'one a line' });
  expect(read('salt, rock salt,sea salt\n')).toEqual({
    phrases: ['salt', 'rock salt', 'sea salt'].map(bare),
    column: 'every cell',
  });
});

test('other encodings, and files that are no text', () => {
  const latin = Uint8Array.from([0x47, 0xe4, 0x72, 0x65, 0x6e, 0x0a]);
  expect(phrasesOfFile('a.csv', latin)).toMatchObject({ phrases: [bare('Gären')] });
  const wide = new Uint8Array([
    0xff,
    0xfe,
    ...[...'Gären'].flatMap((c) => [c.charCodeAt(0) & 255, c.charCodeAt(0) >> 8]),
  ]);
  expect(phrasesOfFile('a.csv', wide)).toMatchObject({ phrases: [bare('Gären')] });
  expect(phrasesOfFile('a.png', Uint8Array.from([0x89, 0x50, 0, 0, 1]))).toMatchObject({
    failed: expect.stringContaining('no text file'),
  });
});

test('five thousand rows with quotes are read whole', () => {
  const rows = Array.from({ length: 5_000 }, (_, i) => `"phrase ${i}, with a comma";${i}`).join('\n');
  const found = read(`Keyword;Volume\n${rows}`);
  expect('phrases' in found && found.phrases.length).toBe(5_000);
});

test('searches a month and difficulty, however they are written; what is no number is not known', () => {
  const text = [
    'Query\tMonthly searches\tKeyword difficulty (%)\tPage',
    'how much salt for sauerkraut\t1,900\t34%\t/salt',
    'kahm yeast\t10 to 100\t-\t/kahm',
    'best crock\t0\t101\t/crock',
  ].join('\n');
  expect(read(text)).toEqual({
    phrases: [
      { phrase: 'how much salt for sauerkraut', volume: 1_900, difficulty: 34 },
      { phrase: 'kahm yeast', volume: null, difficulty: null },
      { phrase: 'best crock', volume: 0, difficulty: null },
    ],
    column: 'columns “Query”, “Monthly searches”, “Keyword difficulty (%)”',
  });
});

test('difficulty as a share of one comes to hundreds; a one among whole numbers is one', () => {
  const of = (rows: string) => {
    const found = read(`phrase,competition\n${rows}`);
    return 'phrases' in found && found.phrases.map(({ difficulty }) => difficulty);
  };
  expect(of('a salt,0.4\nb salt,1\nc salt,0')).toEqual([40, 100, 0]);
  expect(of('a salt,1\nb salt,60\nc salt,0')).toEqual([1, 60, 0]);
});
