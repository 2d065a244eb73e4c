import { expect, test } from 'vitest';
import { tagsOf } from './tags.ts';

const article = (
  keyPhrase: string,
  keywords: string[],
  text = 'A dynamo hub gives three watts. Hub gears cut about half.',
) => ({
  title: 'Dynamo hubs for tandems',
  keyPhrase,
  keywords,
  language: 'en',
  body: [{ type: 'paragraph' as const, id: 'p1', content: [{ text }] }],
});

test('tags are the key phrase and terms that stand in the text; words that mean nothing by themselves are none', () => {
  expect(
    tagsOf(
      article('dynamo hubs', ['dynamo hub', 'Hub gears', 'cut about', 'about', 'half', 'chain wax', 'Dynamo Hubs']),
    ),
  ).toEqual(['dynamo hubs', 'dynamo hub', 'Hub gears', 'half']);
  expect(tagsOf(article('', []))).toEqual([]);
  expect(tagsOf(article('', ['a dynamo hub gives three watts']))).toEqual([]);
});
