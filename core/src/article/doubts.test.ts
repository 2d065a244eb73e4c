import { expect, test } from 'vitest';
import { DOUBTS } from '../honesty/doubt.ts';
import { keptPairs } from '../honesty/pairs/pairs.ts';
import type { Block } from './block.ts';
import { articleDoubts, doubtReader, doubtWords } from './doubts.ts';

const passages = [
  { id: 'a', text: 'A chain lasts 6,000 kilometres.' },
  { id: 'b', text: 'A tyre holds 4.5 bar, and lasts for three summers.' },
];
const paragraph = (id: string, text: string, ...evidence: string[]) => ({
  type: 'paragraph' as const,
  id,
  content: [{ text }],
  evidence: evidence.map((passage) => ({ passage, digest: '' })),
});
const doubts = (...body: ReturnType<typeof paragraph>[]) =>
  articleDoubts({ body, language: 'en' }, passages).map(({ block, words }) => `${block}: ${words}`);

test('a figure is held against the passages of its own paragraph: another passage does not make it right', () => {
  expect(doubts(paragraph('1', 'It lasts 6000 kilometres.', 'a'))).toEqual([]);
  expect(doubts(paragraph('1', 'It lasts 6000 kilometres.', 'b'))).toEqual(['1: 6000 kilometres']);
  expect(doubts(paragraph('1', '3 summers at 4.5 bar, then 6,000 kilometres.', 'a', 'b'))).toEqual([]);
  expect(doubts(paragraph('1', 'It lasts 600 kilometres.', 'a'), paragraph('2', 'And 600 km more.', 'a'))).toEqual([
    '1: 600 kilometres',
    '2: 600 km',
  ]);
});

test('what was held against passages before is doubted as it is by whoever reads them first', () => {
  const pairs = keptPairs().fitted.filter(([language]) => language === 'en');
  const all = pairs.slice(0, 240).map(([, , , text], i) => ({ id: `p${i}`, text }));
  const remembers = doubtReader(all, 'en');
  // Sentences come again: beside others, behind others, and of a paragraph that rests on something else.
  const at = (n: number) => n % all.length;
  for (let i = 0; i < 240; i += 2) {
    const said = [0, 1, 0, 2].map((k) => pairs[at(i + k)]![4]);
    const body = [
      paragraph('1', said.join(' '), `p${at(i)}`, `p${at(i + 1)}`),
      paragraph('2', said.toReversed().join(' '), `p${at(i)}`, `p${at(i + 1)}`),
      paragraph('3', said.join(' '), `p${at(i + 7)}`),
      paragraph('4', said.join(' '), `p${at(i)}`, `p${at(i + 1)}`),
    ];
    expect(remembers(body)).toEqual(body.flatMap((block) => doubtReader(all, 'en')([block])));
  }
});

test('the same words twice are one doubt', () => {
  expect(doubts(paragraph('1', 'It lasts 600 km. Again: 600 km.', 'a'))).toEqual(['1: 600 km']);
});

test('where a paragraph rests on nothing that is there, all passages count', () => {
  expect(doubts(paragraph('1', 'At 4.5 bar for 6000 kilometres.'))).toEqual([]);
  expect(doubts(paragraph('1', 'At 4.5 bar.', 'gone'))).toEqual([]);
  expect(doubts(paragraph('1', 'At 5 bar.'))).toEqual(['1: 5 bar']);
});

test('a passage of another language is read in its own', () => {
  const german = [{ id: 'a', text: 'Sie hält dreieinhalb Jahre und 1.200 Kilometer.', language: 'de' }];
  const of = (text: string) => articleDoubts({ body: [paragraph('1', text, 'a')], language: 'en' }, german);
  expect(of('It lasts 3.5 years and 1,200 kilometres.')).toEqual([]);
  expect(of('It lasts 2.5 years.')).toMatchObject([{ kind: 'figure', words: '2.5 years' }]);
});

test('every kind of doubt is a sentence with its words', () => {
  for (const kind of DOUBTS) expect(doubtWords({ kind, words: 'forty' })).toMatch(/source.*forty|forty.*source/);
});

test('cells are held one by one for their figures, and a question claims nothing', () => {
  const passages = [{ id: 'm:1', text: 'A level tablespoon of fine salt weighs about 18 grams.', language: 'en' }];
  const evidence = [{ passage: 'm:1', digest: 'd' }];
  const cell = (text: string) => [{ text }];
  const table: Block = {
    type: 'table',
    id: 't',
    caption: cell('Figures on Salt'),
    head: [cell('What it is of'), cell('The figure')],
    rows: [
      [cell('Why spoons mislead'), cell('18 grams')],
      [cell('Which Scale'), cell('19 grams')],
    ],
    evidence,
  };
  const asked: Block = {
    type: 'question and answer',
    id: 'q',
    question: 'What about “why spoons mislead you”, Ingrid?',
    answer: cell('A tablespoon weighs about 18 grams.'),
    evidence,
  };
  expect(articleDoubts({ body: [table, asked], language: 'en' }, passages)).toEqual([
    { block: 't', kind: 'figure', words: '19 grams' },
  ]);
});
