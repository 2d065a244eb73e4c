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

test('tags are the key phrase and terms the text speaks of; words that mean nothing by themselves are none', () => {
  const text =
    'A dynamo hub gives three watts. Hub gears cut about half. A dynamo hub costs more than hub gears, and half a watt less.';
  expect(
    tagsOf(
      article(
        'dynamo hubs',
        ['dynamo hub', 'Hub gears', 'cut about', 'about', 'half', 'three watts', 'chain wax', 'Dynamo Hubs'],
        text,
      ),
    ),
  ).toEqual(['dynamo hubs', 'dynamo hub', 'Hub gears', 'half']);
  expect(tagsOf(article('', []))).toEqual([]);
  expect(tagsOf(article('', ['a dynamo hub gives three watts'], `${text} ${text}`))).toEqual([]);
});

test('words parted by a comma or a stop are no term, nor is a part of a measure', () => {
  const text = 'A clear, shiny glaze in 5 per cent vinegar. All is clear. Shiny glaze again, and 3 per cent vinegar.';
  const given = ['clear shiny', 'cent vinegar', 'shiny glaze', 'vinegar'];
  expect(tagsOf(article('glaze', given, text))).toEqual(['glaze', 'shiny glaze', 'vinegar']);
});

test('what key points repeat word for word counts once', () => {
  const text = 'A rubber ring sits askew. A rubber ring sits askew. New rings cost little.';
  expect(tagsOf(article('', ['rubber ring', 'rings'], text))).toEqual([]);
});

test('a headline that came as the key phrase is no tag', () => {
  expect(tagsOf(article('Why brine goes cloudy, and when to worry', []))).toEqual([]);
  expect(tagsOf(article('how long do hub gears last', []))).toEqual(['how long do hub gears last']);
});
