import { expect, test } from 'vitest';
import { figuresOf } from './figures.ts';
import { carries, passagesOf } from './passage.ts';

const page = (paragraphs: string[]) => ({ address: 'https://a.example/x', title: 'X', language: 'en', paragraphs });

test('a page becomes one passage a paragraph, long ones parted at sentence ends, nothing lost', () => {
  const long = Array.from({ length: 40 }, (_, i) => `Sentence number ${i} has seven words here.`).join(' ');
  const passages = passagesOf(page(['Short one.', '', long]), 'd1');
  expect(passages[0]).toMatchObject({ id: 'd1:1', text: 'Short one.', locator: { paragraph: 1 } });
  expect(passages.length).toBeGreaterThan(2);
  expect(
    passages
      .slice(1)
      .map((p) => p.text)
      .join(' '),
  ).toBe(long);
  expect(passages.every((p) => p.text.endsWith('.'))).toBe(true);
  expect(carries(passages)).toBeGreaterThan(150);
});

test('figures are found whatever their writing', () => {
  expect(figuresOf('2,5 % of 1,400 g and 18–22 °C')).toEqual(['2.5', '1400', '18', '22']);
});
