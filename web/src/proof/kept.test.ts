// @vitest-environment jsdom
import { type ArticleDocument, type Block, EMPTY_ARTICLE } from '@grivo/core';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { isKept, keepUnsaved, keptUnsaved, takeLeft, type Unsaved } from './kept.ts';

const A = 'a'.repeat(20);
const typed = (text: string): Unsaved => {
  const block: Block = { type: 'paragraph', id: 'p', content: [{ text }] };
  const mine: ArticleDocument = { ...EMPTY_ARTICLE, title: 'Bows', body: [block] };
  return { revision: 'r'.repeat(20), base: EMPTY_ARTICLE, mine };
};
const taken: Unsaved[] = [];
const take = (left: Unsaved) => taken.push(left) > 0;

/** Stands for the browser's locks: pages that are open hold theirs. */
function openPages(...pages: string[]) {
  vi.stubGlobal('navigator', {
    locks: {
      request: async (name: string, _: object, act: (lock: object | null) => void) =>
        act(pages.some((page) => name === `grivo page ${page}`) ? null : {}),
    },
  });
}

beforeEach(() => {
  localStorage.clear();
  taken.length = 0;
});
afterEach(() => vi.unstubAllGlobals());

it('two pages on one article keep what was typed apart', () => {
  keepUnsaved(A, typed('mine'));
  keepUnsaved(A, typed('the other'), 'other');
  keepUnsaved(A, null);
  expect([keptUnsaved(A), keptUnsaved(A, 'other')]).toEqual([null, typed('the other')]);
  expect([isKept(A), isKept('b'.repeat(20))]).toEqual([true, false]);
});

it('what a page that is gone kept is taken over once, and an open one keeps its own', async () => {
  openPages('open');
  keepUnsaved(A, typed('left behind'), 'gone');
  keepUnsaved(A, typed('typed there now'), 'open');
  await takeLeft(A, take);
  await takeLeft(A, take);
  expect(taken).toEqual([typed('left behind')]);
  expect([keptUnsaved(A, 'gone'), keptUnsaved(A, 'open')]).toEqual([null, typed('typed there now')]);
});

it('what cannot be taken over any more stays for the next', async () => {
  openPages();
  keepUnsaved(A, typed('left behind'), 'gone');
  await takeLeft(A, () => false);
  expect(keptUnsaved(A, 'gone')).toEqual(typed('left behind'));
  await takeLeft(A, take);
  expect(taken).toEqual([typed('left behind')]);
});

it('where a browser cannot tell which pages are open, nothing is left lying', async () => {
  vi.stubGlobal('navigator', {});
  keepUnsaved(A, typed('one'), 'one');
  keepUnsaved(A, typed('two'), 'two');
  keepUnsaved(A, typed('own'));
  await takeLeft(A, take);
  expect(taken.map(({ mine }) => mine)).toEqual([typed('one').mine, typed('two').mine]);
  expect(keptUnsaved(A)).toEqual(typed('own'));
});

it('what is kept and cannot be read any more is let go of', async () => {
  openPages();
  localStorage.setItem(`grivo proof ${A} gone`, '{"revision":1');
  await takeLeft(A, take);
  expect([taken, isKept(A)]).toEqual([[], false]);
});
