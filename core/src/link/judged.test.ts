import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from 'vitest';
import { LinkIndex, type LinkPage, termsOfPage } from './linkIndex.ts';

/**
 * Pages of five trades and paragraphs, each judged by hand before anything was tuned: which page is right for it, or none.
 * Every third paragraph was kept for the last run.
 */
const linesOf = (name: string): string[] =>
  readFileSync(join(import.meta.dirname, 'judged', `${name}.txt`), 'utf8')
    .split('\n')
    .filter((line) => line !== '');

const pages = ['fermenting', 'pottery', 'bread', 'bicycles', 'garten'].flatMap((name) =>
  linesOf(`pages-${name}`).map((line): LinkPage => {
    const [address = '', title = '', headings = '', text = ''] = line.split('|');
    const language = name === 'garten' ? 'de' : 'en';
    return { address, title, language, terms: termsOfPage({ title, headings: headings.split('; '), text }, language) };
  }),
);
const paragraphs = ['a', 'b', 'c'].flatMap((part) =>
  linesOf(`paragraphs-${part}`).map((line) => {
    const at = line.indexOf('|');
    return { right: line.slice(0, at), text: line.slice(at + 1) };
  }),
);
const index = { en: new LinkIndex(pages, 'en'), de: new LinkIndex(pages, 'de') };
const tongueOf = (text: string) => (/ (?:der|die|das|den|und|im|ist|am|ein|einen) /.test(text) ? 'de' : 'en');
const judged = paragraphs.map(({ right, text }) => {
  const found = index[right.startsWith('g') ? 'de' : tongueOf(text)].fits(text)[0];
  return { right, text, found: found?.page.address ?? '-', anchor: found?.anchor ?? '', at: found?.at ?? 0 };
});
const share = (of: typeof judged): number => of.filter(({ right, found }) => right === found).length / of.length;

test('the right page comes first, in all of them and in those kept for the last run', () => {
  expect(pages.length).toBe(400);
  const some = judged.filter(({ right }) => right !== '-');
  expect(some.length).toBe(120);
  expect(share(some)).toBeGreaterThanOrEqual(0.85);
  expect(share(judged.filter(({ right }, i) => right !== '-' && i % 3 === 2))).toBeGreaterThanOrEqual(0.85);
});

test('where no page is right none is linked, nearly always', () => {
  const none = judged.filter(({ right }) => right === '-');
  expect(none.length).toBe(40);
  expect(share(none)).toBeGreaterThanOrEqual(28 / 30);
});

test('an anchor is a whole phrase of the paragraph: it neither begins nor ends within one', () => {
  const small = /^(?:a|an|the|of|for|in|on|with|and|or|to|is|are|was|der|die|das|und|im|am|ein|eine)$/i;
  for (const { text, anchor, at } of judged.filter((one) => one.found !== '-')) {
    expect(text.slice(at, at + anchor.length)).toBe(anchor);
    const words = anchor.split(/\s+/);
    expect(words[0], text).not.toMatch(small);
    expect(words.at(-1), text).not.toMatch(small);
    expect(anchor, text).not.toMatch(/[.,;:!?]/);
    // Nothing of a word is left outside.
    expect(text.charAt(at - 1), text).not.toMatch(/[\p{L}\p{N}-]/u);
    expect(text.charAt(at + anchor.length), text).not.toMatch(/[\p{L}\p{N}-]/u);
  }
});

test('what is about the same is found too where no words lead there: offered to a person, the right page is among the first three', () => {
  const offered = paragraphs.map(({ right, text }) => ({
    right,
    first: index[right.startsWith('g') ? 'de' : tongueOf(text)]
      .near(text)
      .slice(0, 3)
      .map(({ page }) => page.address),
  }));
  const some = offered.filter(({ right }) => right !== '-');
  expect(some.filter(({ right, first }) => first.includes(right)).length / some.length).toBeGreaterThanOrEqual(0.8);
  expect(offered.filter(({ right, first }) => right === '-' && first.length > 0).length).toBeLessThanOrEqual(8);
});
