import { type ArticleDocument, EMPTY_ARTICLE } from '@grivo/core';
import { expect, test } from 'vitest';
import { measuresOf, measuresOfRevision } from './measures.ts';

const paragraph = (id: string, text: string, passage?: string): ArticleDocument['body'][number] => ({
  type: 'paragraph',
  id,
  content: [{ text }],
  evidence: passage ? [{ passage, digest: 'd' }] : [],
});

const DOCUMENT: ArticleDocument = {
  ...EMPTY_ARTICLE,
  language: 'en',
  title: 'How much salt for a crock of cabbage',
  body: [
    { type: 'heading', id: 'h1', level: 2, text: 'Weighing' },
    paragraph('p1', 'Take 25 grams of salt for a kilogram of cabbage. Weigh it on a scale.', 'm:1'),
    paragraph('p2', 'After 41 days it is ready.'),
  ],
};
const passages = (sources: string[]) => sources.map((text, i) => ({ id: `m:${i + 1}`, text }));
const of = (name: string, sources: string[]) =>
  measuresOf(DOCUMENT, passages(sources)).measures.find((one) => one.name === name)!;

test('evidence counts paragraphs, and figures that stand in no source are named', () => {
  const sources = ['For one kilogram of cabbage 25 grams of salt are enough.'];
  expect(of('Evidence', sources)).toMatchObject({ value: 50, least: 100, says: '1 of 2 paragraphs rest on a passage' });
  expect(measuresOf(DOCUMENT, passages(sources)).doubts).toEqual([{ block: 'p2', kind: 'figure', words: '41 days' }]);
  expect(of('Against the sources', sources)).toMatchObject({ value: 1, most: 0 });
  expect(of('Against the sources', [...sources, 'Ready after 41 days.'])).toMatchObject({
    value: 0,
    says: 'figures, dates, names and quotations are as there',
  });
});

test('sentences are measured by their mean, the title by its characters, and an empty article divides by nothing', () => {
  expect(of('Sentences', []).value).toBeCloseTo((9 + 5 + 6) / 3, 0);
  expect(of('Title', []).value).toBe(36);
  expect(
    measuresOf({ ...EMPTY_ARTICLE, language: 'en' }, []).measures.every(({ value }) => Number.isFinite(value)),
  ).toBe(true);
});

test('the measures of a revision are reckoned once for the same sources, and anew for others', () => {
  const sources = passages(['For one kilogram of cabbage 25 grams of salt are enough.']);
  const first = measuresOfRevision('r1', DOCUMENT, sources);
  expect(first).toEqual(measuresOf(DOCUMENT, sources));
  expect(measuresOfRevision('r1', DOCUMENT, sources)).toBe(first);
  expect(measuresOfRevision('r2', DOCUMENT, sources)).not.toBe(first);
  expect(measuresOfRevision('r1', DOCUMENT, [...sources, { id: 'm:9', text: 'Ready after 41 days.' }]).doubts).toEqual(
    [],
  );
  for (let i = 0; i < 300; i++) measuresOfRevision(`many ${i}`, DOCUMENT, sources);
  expect(measuresOfRevision('r1', DOCUMENT, sources)).not.toBe(first);
});
