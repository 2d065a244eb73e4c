import { type ArticleDocument, EMPTY_ARTICLE } from '@grivo/core';
import { expect, test } from 'vitest';
import { measuresOf } from './measures.ts';

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
  expect(measuresOf(DOCUMENT, passages(sources)).figuresNotFound).toEqual([expect.stringContaining('41')]);
  expect(of('Figures', sources)).toMatchObject({ value: 1, most: 0 });
  expect(of('Figures', [...sources, 'Ready after 41 days.'])).toMatchObject({
    value: 0,
    says: 'every figure stands in a passage',
  });
});

test('sentences are measured by their mean, the title by its characters, and an empty article divides by nothing', () => {
  expect(of('Sentences', []).value).toBeCloseTo((9 + 5 + 6) / 3, 0);
  expect(of('Title', []).value).toBe(36);
  expect(
    measuresOf({ ...EMPTY_ARTICLE, language: 'en' }, []).measures.every(({ value }) => Number.isFinite(value)),
  ).toBe(true);
});
