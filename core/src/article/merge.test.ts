import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type ArticleDocument, type Block, EMPTY_ARTICLE } from './block.ts';
import { mergeArticles } from './merge.ts';
import { articleText } from './text.ts';

const paragraph = (id: string, text: string, ...passages: string[]): Block => ({
  type: 'paragraph',
  id,
  content: [{ text }],
  ...(passages.length > 0 ? { evidence: passages.map((passage) => ({ passage, digest: 'd' })) } : {}),
});
const article = (body: Block[], change: Partial<ArticleDocument> = {}): ArticleDocument => ({
  ...EMPTY_ARTICLE,
  title: 'Gut or steel',
  ...change,
  body,
});
const BASE = article([
  paragraph('a', 'Gut answers sooner.'),
  paragraph('b', 'Steel lasts for years.'),
  paragraph('c', 'Both are played.'),
]);
const replaced = (id: string, text: string) =>
  article(BASE.body.map((block) => (block.id === id ? paragraph(id, text) : block)));
const texts = ({ body }: ArticleDocument) => body.map((block) => articleText({ body: [block] }));

describe('what two people made of one article', () => {
  it('in different paragraphs stands together', () => {
    const { article: merged, clashes } = mergeArticles(
      BASE,
      replaced('a', 'Gut speaks sooner.'),
      replaced('c', 'Both are loved.'),
    );
    expect(texts(merged)).toEqual(['Gut speaks sooner.', 'Steel lasts for years.', 'Both are loved.']);
    expect(clashes).toEqual([]);
  });

  it('in different words of one paragraph stands together', () => {
    const { article: merged, clashes } = mergeArticles(
      BASE,
      replaced('b', 'Good steel lasts for years.'),
      replaced('b', 'Steel lasts for many years.'),
    );
    expect(texts(merged)[1]).toBe('Good steel lasts for many years.');
    expect(clashes).toEqual([]);
  });

  it('in the same words stands both, theirs first, and it is said where', () => {
    const { article: merged, clashes } = mergeArticles(
      BASE,
      replaced('b', 'Steel lasts a decade.'),
      replaced('b', 'Steel lasts a lifetime.'),
    );
    expect(texts(merged)).toEqual([
      'Gut answers sooner.',
      'Steel lasts a lifetime.',
      'Steel lasts a decade.',
      'Both are played.',
    ]);
    expect(clashes).toEqual([
      { place: { theirs: 'b', mine: 'b-2' }, theirs: 'Steel lasts a lifetime.', mine: 'Steel lasts a decade.' },
    ]);
  });

  it('what one removed and the other changed stays; what neither changed goes', () => {
    const without = (id: string) => article(BASE.body.filter((block) => block.id !== id));
    expect(texts(mergeArticles(BASE, without('b'), replaced('b', 'Steel lasts.')).article)).toContain('Steel lasts.');
    expect(texts(mergeArticles(BASE, replaced('b', 'Steel lasts.'), without('b')).article)).toContain('Steel lasts.');
    expect(texts(mergeArticles(BASE, without('a'), without('c')).article)).toEqual(['Steel lasts for years.']);
  });

  it('new paragraphs of both stand where each put them, and blocks moved by one stay moved', () => {
    const mine = article([BASE.body[0]!, paragraph('x', 'Mine.'), ...BASE.body.slice(1)]);
    const theirs = article([BASE.body[2]!, BASE.body[0]!, BASE.body[1]!, paragraph('y', 'Theirs.')]);
    expect(mergeArticles(BASE, mine, theirs).article.body.map(({ id }) => id)).toEqual(['c', 'a', 'x', 'b', 'y']);
    expect(mergeArticles(BASE, theirs, mine).article.body.map(({ id }) => id)).toEqual(['c', 'a', 'x', 'b', 'y']);
  });

  it('a title both changed is mine, and theirs stays to be chosen', () => {
    const { article: merged, clashes } = mergeArticles(
      BASE,
      { ...BASE, title: 'Mine', description: 'Mine too.' },
      { ...BASE, title: 'Theirs', slug: 'theirs' },
    );
    expect(merged).toMatchObject({ title: 'Mine', titleChoices: ['Theirs'], description: 'Mine too.', slug: 'theirs' });
    expect(clashes).toEqual([{ place: { field: 'title' }, theirs: 'Theirs', mine: 'Mine' }]);
  });

  it('what one added to the evidence of a paragraph and another reworded holds for both', () => {
    const base = article([paragraph('a', 'Gut answers sooner.', 'm1', 'm2')]);
    const mine = article([paragraph('a', 'Gut answers much sooner.', 'm1', 'm2', 'm3')]);
    const theirs = article([paragraph('a', 'Gut answers sooner today.', 'm1')]);
    const [merged] = mergeArticles(base, mine, theirs).article.body;
    expect(articleText({ body: [merged!] })).toBe('Gut answers much sooner today.');
    expect(merged!.evidence!.map(({ passage }) => passage)).toEqual(['m1', 'm3']);
  });

  it('a heading both changed, or turned into something else, stands twice', () => {
    const base = article([{ type: 'heading', id: 'h', level: 2, text: 'Strings' }]);
    const mine = article([{ type: 'heading', id: 'h', level: 2, text: 'Our strings' }]);
    const theirs = article([paragraph('h', 'Strings')]);
    expect(mergeArticles(base, mine, theirs).article.body).toEqual([theirs.body[0], { ...mine.body[0], id: 'h-2' }]);
  });
});

it('whatever two people do, no word either wrote is lost and no id stands twice', () => {
  type Deed = { do: 'reword' | 'add' | 'remove' | 'move' | 'split'; at: number };
  const deeds = fc.array(
    fc.record<Deed>({ do: fc.constantFrom('reword', 'add', 'remove', 'move', 'split'), at: fc.nat(30) }),
    { maxLength: 8 },
  );
  const done = (who: string, list: readonly Deed[]): ArticleDocument => {
    const body = [...BASE.body];
    for (const [n, { do: deed, at }] of list.entries()) {
      const i = body.length === 0 ? 0 : at % body.length;
      const block = body[i];
      const word = `${who}${n}`;
      if (deed === 'add' || !block) body.splice(i, 0, paragraph(`${who}-new${n}`, `${word}!`));
      else if (deed === 'remove') body.splice(i, 1);
      else if (deed === 'move') body.splice(at % body.length, 0, body.splice(0, 1)[0]!);
      else {
        const words = articleText({ body: [block] }).split(' ');
        words.splice(at % (words.length + 1), deed === 'reword' ? 1 : 0, word);
        body[i] = { ...block, content: [{ text: words.join(' ') }] } as Block;
      }
    }
    return article(body);
  };
  fc.assert(
    fc.property(deeds, deeds, (one, other) => {
      const [mine, theirs] = [done('m', one), done('t', other)];
      const { article: merged } = mergeArticles(BASE, mine, theirs);
      const ids = merged.body.map(({ id }) => id);
      expect(new Set(ids).size).toBe(ids.length);
      const there = articleText(merged);
      for (const [word] of `${articleText(mine)} ${articleText(theirs)}`.matchAll(/\b[mt]\d+\b/g))
        expect(there).toContain(word);
    }),
    { numRuns: 1_000, seed: 4_021 },
  );
});
