import { expect, test } from 'vitest';
import { type Block, EMPTY_ARTICLE } from './block.ts';
import { compareArticles, compareWords } from './compare.ts';

const paragraph = (id: string, text: string): Block => ({ type: 'paragraph', id, content: [{ text }] });

test('words that are in both, gone and new are told apart in order', () => {
  expect(compareWords('Gut answers sooner.', 'Gut speaks sooner.')).toEqual([
    { stands: 'both', text: 'Gut ' },
    { stands: 'before', text: 'answers' },
    { stands: 'after', text: 'speaks' },
    { stands: 'both', text: ' sooner.' },
  ]);
  expect(compareWords('', 'All new')).toEqual([{ stands: 'after', text: 'All new' }]);
  expect(compareWords('same', 'same')).toEqual([{ stands: 'both', text: 'same' }]);
});

test('blocks stand beside what they were, what is gone where it stood, and changes are counted', () => {
  const before = {
    ...EMPTY_ARTICLE,
    title: 'Gut',
    body: [paragraph('a', 'One.'), paragraph('b', 'Two.'), paragraph('c', 'Three.')],
  };
  const after = {
    ...EMPTY_ARTICLE,
    title: 'Gut strings',
    body: [paragraph('a', 'One.'), paragraph('n', 'New.'), paragraph('c', 'Three now.')],
  };
  const found = compareArticles(before, after);
  expect(found.body.map((row) => [row.before?.id ?? null, row.after?.id ?? null, row.changed])).toEqual([
    ['a', 'a', false],
    ['b', null, true],
    [null, 'n', true],
    ['c', 'c', true],
  ]);
  expect(found.changes).toBe(4);
  expect(compareArticles(before, before).changes).toBe(0);
});

test('what a block rests on is no change of what it says', () => {
  const with_ = (passage: string) => ({
    ...EMPTY_ARTICLE,
    body: [{ ...paragraph('a', 'One.'), evidence: [{ passage, digest: 'd' }] }],
  });
  expect(compareArticles(with_('m1'), with_('m2')).changes).toBe(0);
});
