import { expect, test } from 'vitest';
import { lines, textsIn } from '../testing/corpus.ts';
import { figuresOf } from './figures.ts';
import { fittingOf } from './fitting.ts';
import { alikeSentences, likeness } from './likeness.ts';
import { carries, passagesOf } from './passage.ts';
import { addressOfPlace, placeOf } from './place.ts';
import { sketchLikeness, sketchOf } from './sketch.ts';
import { visibleText } from './visible.ts';

const ENGLISH = textsIn('en', 40);
const mixed = ENGLISH.slice(0, 8).map((text, n) => `${text.slice(0, 160)} ${ENGLISH[(n + 3) % 40]!.slice(40, 240)}`);

test('sketches, and how alike they say two texts are', async () => {
  const texts = [...ENGLISH.slice(0, 8), ...mixed, 'Salt for sauerkraut', 'Salt for kimchi in 5 litres', 'one two', ''];
  const sketches = texts.map((text) => sketchOf(text));
  const all = sketches.map((sketch, n) =>
    sketch === null
      ? `${n}: says too little`
      : `${n}: ${[...sketch.hashes].slice(0, 4).join(' ')} … ${sketch.hashes.at(-1)} bands ${sketch.bands.slice(0, 2).join(' ')} of ${sketch.bands.length}; ${sketches.map((other) => (other === null ? '-' : sketchLikeness(sketch.hashes, other.hashes))).join(' ')}`,
  );
  await expect(lines(all)).toMatchFileSnapshot('listed/sketches.txt');
});

test('likeness by runs of words, and the sentences it lies in', async () => {
  const all = mixed.flatMap((text, n) => [
    `${n}: ${likeness(text, [ENGLISH[n]!])} ${likeness(text, ENGLISH.slice(0, 12))} ${likeness(text, [])}`,
    ...alikeSentences(text, ENGLISH.slice(0, 12), 'en', 3).map((one) => `  ${JSON.stringify(one)}`),
  ]);
  await expect(lines(all)).toMatchFileSnapshot('listed/likeness.txt');
});

test('passages of a page, their places and figures, and what is seen of a text', async () => {
  const long = Array.from({ length: 4 }, (_, n) => ENGLISH.slice(n * 3, n * 3 + 3).join(' '));
  const page = {
    address: 'https://a.example/p#x',
    title: 'A',
    language: 'en',
    paragraphs: [...long, '', ENGLISH[20]!, 'Short.'],
  };
  const [plain, placed] = [passagesOf(page, 'd'), passagesOf({ ...page, places: ['page 1', 'page 1', 'page 2'] }, 'e')];
  const all = [
    `${carries(plain)} ${carries([])}`,
    ...[...plain, ...placed].map(
      (one) =>
        `${one.id} ${placeOf(one.locator)} ${addressOfPlace(one)} ${figuresOf(one.text).join(' ')}: ${one.text.slice(0, 60)}`,
    ),
    ...[
      'a\u200bb',
      'a\u202eb',
      '\ufeffx',
      'soft\u00adhyphen',
      'e\u0301',
      'tab\tand\nline',
      '\u0000',
      'ﬁ',
      'a\u{e0041}b',
      '👩‍🌾',
    ].map((text) => JSON.stringify([text, visibleText(text)])),
  ];
  await expect(lines(all)).toMatchFileSnapshot('listed/passages.txt');
});

test('pages held against subjects', async () => {
  const pages = ENGLISH.slice(0, 9).map((text, n) => ({
    title: text.split(' ').slice(0, 4).join(' '),
    paragraphs: text.split(/(?<=\.) /),
    language: 'en',
    address: `https://a.example/${n}`,
  }));
  const subjects = [
    'harbour museum',
    'how long is sourdough kept',
    'what does a jar of honey cost',
    'beekeeper on the heath',
    'choir rehearsal',
    'knives',
    'salt',
    'how to',
    'why does clay shrink',
    'tidal mill without a wheel',
  ];
  const all = subjects.map((subject) => `${subject}: ${JSON.stringify(fittingOf(subject, pages))}`);
  await expect(lines([...all, JSON.stringify(fittingOf('x', []))])).toMatchFileSnapshot('listed/fitting.txt');
});
