import { describe, expect, it } from 'vitest';
import { type ArticleDocument, type Block, EMPTY_ARTICLE } from './block.ts';
import { changedFrom, withChanges } from './changed.ts';

const paragraph = (id: string, text: string): Block => ({ type: 'paragraph', id, content: [{ text }] });
const [a, b, c] = [paragraph('a', 'Barrels.'), paragraph('b', 'Brine.'), paragraph('c', 'Salt.')] as const;
const article = (...body: Block[]): ArticleDocument => ({ ...EMPTY_ARTICLE, title: 'Of brine', body });

describe('an article that changed', () => {
  it('is sent as the blocks that are new, and the places of the others', () => {
    const other = paragraph('b', 'Strong brine.');
    expect(changedFrom([a, b, c], article(c, other, a)).body).toEqual([2, other, 0]);
  });

  it('is the same article to its reader, and what stayed is the very same block', () => {
    const now = { ...article(c, paragraph('d', 'New.'), a, a), title: 'Of salt' };
    // As it comes to a worker.
    const read = withChanges([a, b, c], structuredClone(changedFrom([a, b, c], now)));
    expect(read).toEqual(now);
    expect([read.body[0], read.body[2], read.body[3]].map((one) => [c, a].indexOf(one as never))).toEqual([0, 1, 1]);
  });

  it('is sent whole to whoever has none', () => {
    const now = article(a, b);
    expect(changedFrom([], now).body).toEqual([a, b]);
    expect(withChanges([], changedFrom([], now))).toEqual(now);
  });

  it('says so where its reader has another one before', () => {
    expect(() => withChanges([a], changedFrom([a, b], article(b)))).toThrow('has no block 1');
  });
});
