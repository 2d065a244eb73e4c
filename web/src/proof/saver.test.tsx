// @vitest-environment jsdom
import { type ArticleDocument, articleText, type Block, EMPTY_ARTICLE } from '@grivo/core';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { Refused, Unreached } from '../api/call.ts';
import { keptUnsaved } from './kept.ts';
import { flushUnsaved, Saver, type Saving } from './saver.ts';

const paragraph = (id: string, text: string): Block => ({ type: 'paragraph', id, content: [{ text }] });
const BASE: ArticleDocument = {
  ...EMPTY_ARTICLE,
  title: 'Strings',
  body: ['a', 'b', 'c', 'd'].map((id) => paragraph(id, `Gut and steel in ${id}.`)),
};
const A = 'a'.repeat(20);
const refused = (status: number) =>
  new Refused({ type: 'about:blank', status, title: 'No', detail: 'Not this.', mend: 'Do that.' });

/** A server with one article, which takes only what was made from its newest revision. */
class OneArticle {
  document = BASE;
  n = 1;
  /** Says what goes wrong with the next savings. */
  troubles: (Error | null)[] = [];
  get revision(): string {
    return `r${this.n}`;
  }
  now = () => Promise.resolve({ revision: this.revision, document: this.document });
  put = async (_: string, { base, document }: { base: string; document: ArticleDocument }) => {
    await Promise.resolve();
    const trouble = this.troubles.shift();
    if (trouble) throw trouble;
    if (base !== this.revision) throw refused(412);
    this.n++;
    this.document = document;
    return { revision: this.revision, document };
  };
}

/** Somebody who types. */
class Hand {
  document: ArticleDocument;
  said: Saving[] = [];
  clashes = 0;
  readonly saver: Saver;
  constructor(server: OneArticle, article = A) {
    this.document = server.document;
    this.saver = new Saver(
      article,
      { revision: server.revision, document: server.document },
      'sitting',
      {
        read: () => this.document,
        show: (merged, clashes) => {
          this.document = merged;
          this.clashes += clashes.length;
        },
        tell: (saving) => this.said.push(saving),
        fetch: server.now,
        saved: () => undefined,
      },
      server.put,
    );
  }
  type(at: number, word: string): void {
    const body = [...this.document.body];
    const block = body[at % body.length]!;
    const text = articleText({ body: [block] });
    const words = text.split(' ');
    words.splice((at * 7) % (words.length + 1), 0, word);
    body[at % body.length] = paragraph(block.id, words.join(' '));
    this.document = { ...this.document, body };
    this.saver.changed();
  }
}

beforeEach(() => {
  localStorage.clear();
  vi.useFakeTimers();
});
afterEach(() => vi.useRealTimers());

describe('what is typed', () => {
  it('reaches the server a moment after the last key, and is kept in the browser until then', async () => {
    const server = new OneArticle();
    const hand = new Hand(server);
    hand.type(0, 'one');
    hand.type(0, 'two');
    await vi.advanceTimersByTimeAsync(300);
    expect(keptUnsaved(A)?.mine).toEqual(hand.document);
    await vi.advanceTimersByTimeAsync(2_000);
    expect(server.document).toEqual(hand.document);
    expect([server.n, hand.said.at(-1), keptUnsaved(A)]).toEqual([2, { kind: 'kept' }, null]);
  });

  it('is tried again while nobody answers, and said to be in this browser only', async () => {
    const server = new OneArticle();
    const hand = new Hand(server);
    server.troubles = [new Unreached('x'), new Unreached('x'), refused(503), null];
    hand.type(1, 'one');
    await vi.advanceTimersByTimeAsync(1_000);
    expect(hand.said.at(-1)?.kind).toBe('later');
    expect(keptUnsaved(A)?.mine).toEqual(hand.document);
    await vi.advanceTimersByTimeAsync(12_000);
    expect(server.document).toEqual(hand.document);
    expect(keptUnsaved(A)).toBeNull();
  });

  it('that is not taken is said, kept, and tried once something else is typed', async () => {
    const server = new OneArticle();
    const hand = new Hand(server);
    server.troubles = [refused(422)];
    hand.type(1, 'one');
    await vi.advanceTimersByTimeAsync(10_000);
    expect(hand.said.at(-1)).toEqual({ kind: 'refused', says: 'Not this. Do that.' });
    expect([server.n, keptUnsaved(A)?.mine]).toEqual([1, hand.document]);
    hand.type(1, 'two');
    await vi.advanceTimersByTimeAsync(2_000);
    expect(server.document).toEqual(hand.document);
  });

  it('goes on from what the browser kept, together with what others changed meanwhile', async () => {
    const server = new OneArticle();
    const before = new Hand(server);
    before.type(0, 'kept');
    before.saver.close();
    const kept = keptUnsaved(A)!;
    await server.put('', { base: 'r1', document: { ...BASE, title: 'Theirs' } });
    const after = new Hand(server);
    after.saver.takeIn(kept);
    await vi.advanceTimersByTimeAsync(2_000);
    expect(server.document.title).toBe('Theirs');
    expect(articleText(server.document)).toContain('kept');
  });

  it('is brought to the server before something is decided over it', async () => {
    const server = new OneArticle();
    const hand = new Hand(server);
    hand.type(0, 'one');
    expect(await flushUnsaved(A)).toBe(true);
    expect(server.document).toEqual(hand.document);
    server.troubles = [new Unreached('x')];
    hand.type(0, 'two');
    expect(await flushUnsaved(A)).toBe(false);
    hand.saver.close();
    expect(await flushUnsaved(A)).toBe(false);
  });

  it('by somebody else is shown where nothing is typed here', async () => {
    const server = new OneArticle();
    const hand = new Hand(server);
    await server.put('', { base: 'r1', document: { ...BASE, title: 'Theirs' } });
    await hand.saver.heard(server.revision);
    expect(hand.document.title).toBe('Theirs');
  });
});

it('two who type at once in forty rounds lose no word of either', async () => {
  let lostWords = 0;
  for (let round = 0; round < 40; round++) {
    let seed = round + 1;
    const chance = (n: number) => {
      seed = (seed * 48_271) % 2_147_483_647;
      return seed % n;
    };
    const server = new OneArticle();
    const hands = [new Hand(server, 'x'.repeat(20)), new Hand(server, 'y'.repeat(20))];
    const typed: string[] = [];
    for (let key = 0; key < 60; key++) {
      const who = chance(2);
      if (chance(8) === 0) server.troubles.push(new Unreached('x'));
      const word = `w${round}x${key}`;
      hands[who]!.type(chance(4), word);
      typed.push(word);
      await vi.advanceTimersByTimeAsync(chance(1_500));
      // Each hears of the other at some moment.
      if (chance(3) === 0) await hands[1 - who]!.saver.heard(server.revision);
    }
    await vi.advanceTimersByTimeAsync(60_000);
    const text = articleText(server.document);
    lostWords += typed.filter((word) => !text.includes(word)).length;
    const ids = server.document.body.map(({ id }) => id);
    expect(new Set(ids).size).toBe(ids.length);
    for (const hand of hands) hand.saver.close();
  }
  console.log(JSON.stringify({ lostWords }));
  expect(lostWords).toBe(0);
});
