import { type ArticleDocument, EMPTY_ARTICLE, measuresOf } from '@grivo/core';
import { expect, test } from 'vitest';
import { measuresOfRevision } from './measures.ts';

const DOCUMENT: ArticleDocument = {
  ...EMPTY_ARTICLE,
  title: 'How much salt for a crock of cabbage',
  body: [{ type: 'paragraph', id: 'p2', content: [{ text: 'After 41 days it is ready.' }] }],
};
const passages = (sources: string[]) => sources.map((text, i) => ({ id: `m:${i + 1}`, text }));

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
