import { describe, expect, it } from 'vitest';
import { alignBlocks } from './align.ts';
import type { Block } from './block.ts';

const block = (id: string, text: string): Block => ({ type: 'paragraph', id, content: [{ text }] });
const former = ['one', 'two', 'one', 'three', 'four'].map((text, n) => block(`f${n}`, text));
/** Blocks that name themselves otherwise, so that only what they say tells where they come from. */
const edited = (...texts: string[]) => texts.map((text, n) => block(`e${n}`, text));
const ids = (...texts: string[]) => alignBlocks(former, edited(...texts)).map(({ id }) => id);

describe('blocks of an edited text', () => {
  it.each([
    ['as they were', ['one', 'two', 'one', 'three', 'four'], ['f0', 'f1', 'f2', 'f3', 'f4']],
    ['the first left out', ['two', 'one', 'three', 'four'], ['f1', 'f2', 'f3', 'f4']],
    ['the last left out', ['one', 'two', 'one', 'three'], ['f0', 'f1', 'f2', 'f3']],
    ['the second of two that are alike left out', ['one', 'two', 'three', 'four'], ['f0', 'f1', 'f3', 'f4']],
    ['one moved to the end', ['two', 'one', 'three', 'four', 'one'], ['f1', 'f2', 'f3', 'f4', 'f0']],
    ['all turned round', ['four', 'three', 'one', 'two', 'one'], ['f4', 'f3', 'f0', 'f1', 'f2']],
    ['the last put first', ['four', 'one', 'two', 'one', 'three'], ['f4', 'f0', 'f1', 'f2', 'f3']],
    ['only the alike ones', ['one', 'one'], ['f0', 'f2']],
  ])('%s', (_how, texts, from) => expect(ids(...texts)).toEqual(from));

  it('that are new are given new names, wherever they stand', () => {
    const found = ids('brand new words here', 'one', 'two', 'other new words there', 'three', 'four');
    expect(found.slice(1, 3).concat(found.slice(4))).toEqual(['f0', 'f1', 'f3', 'f4']);
    expect(former.map(({ id }) => id)).not.toContain(found[0]);
    expect(new Set(found).size).toBe(found.length);
  });
});
