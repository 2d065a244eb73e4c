import { expect, test } from 'vitest';
import { figuresAmiss } from './figures.ts';

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
const amiss = (...body: ReturnType<typeof paragraph>[]) => figuresAmiss({ body, language: 'en' }, passages);

test('a figure is held against the passages of its own paragraph: another passage does not make it right', () => {
  expect(amiss(paragraph('1', 'It lasts 6000 kilometres.', 'a'))).toEqual([]);
  expect(amiss(paragraph('1', 'It lasts 6000 kilometres.', 'b'))).toEqual(['6000']);
  expect(amiss(paragraph('1', '3 summers at 4.5 bar, then 6,000.', 'a', 'b'))).toEqual([]);
  expect(amiss(paragraph('1', 'It lasts 600 kilometres.', 'a'), paragraph('2', 'And 600 more.', 'a'))).toEqual(['600']);
});

test('where a paragraph rests on nothing that is there, all passages count', () => {
  expect(amiss(paragraph('1', 'At 4.5 bar for 6000 kilometres.'))).toEqual([]);
  expect(amiss(paragraph('1', 'At 4.5 bar.', 'gone'))).toEqual([]);
  expect(amiss(paragraph('1', 'At 5 bar.'))).toEqual(['5']);
});
