import { type ArticleDocument, type Block, EMPTY_ARTICLE } from '@grivo/core';
import { expect, test } from 'vitest';
import { anewRequest } from './anew.ts';

const paragraph = (id: string, text: string): Block => ({ type: 'paragraph', id, content: [{ text }] });
const document: ArticleDocument = {
  ...EMPTY_ARTICLE,
  title: 'Of wax',
  keyPhrase: 'wax',
  body: [
    paragraph('o', 'Wax melts at 62 degrees, in short.'),
    { type: 'key points', id: 'k', items: [[{ text: 'Wax is dear.' }]] },
    { type: 'heading', id: 'h', level: 2, text: 'The wax' },
    paragraph('a', 'Wax melts at 62 degrees and darkens at 85.'),
    paragraph('b', 'Comb wax is darker than capping wax.'),
  ],
};
const told = (...ids: string[]): string => {
  const made = anewRequest({ document, ids, letters: null, note: '', passages: [], style: null });
  return made.ok ? JSON.stringify(made.request.material) : made.problem;
};

test('a part is not to say again what the rest of the text says, but may what is told of it in short', () => {
  expect(told('a')).toContain('Comb wax is darker');
  expect(told('a')).not.toContain('in short');
  expect(told('a')).not.toContain('Wax is dear');
});

test('an opening is told what the text below it says', () => {
  expect(told('o')).toContain('darkens at 85');
  expect(told('o')).toContain('Comb wax is darker');
});

test('what is no text, or not there, is not written anew', () => {
  expect(told('h')).toBe('nothing of it is a text that can be written anew');
  expect(told('x')).toBe('these blocks are not in the article as it was sent');
});
