import type { ArticleWhole, Blog } from '@grivo/contract';
import { type ArticleDocument, EMPTY_ARTICLE, type Step, stepKinds } from '@grivo/core';
import { expect, test } from 'vitest';
import { noteGlances } from '../src/nouns/articles/glance.ts';
import { testBlog } from '../src/nouns/blogs/connect.ts';
import { bringChanges, isSmall } from '../src/nouns/publishing/behind.ts';
import { atTheDesk, type Desk } from './ground/desk.ts';
import type { Ask } from './ground/http.ts';

let w: Desk['w'];
let ask: Desk['ask'];
let http: Desk['http'];
let owner: Ask | undefined;
atTheDesk((desk) => ({ w, ask, http } = desk));

const k = stepKinds;
const BODY = 'Clay is wedged first.\n\nThen it is thrown.\n\nThen it dries.\n\nThen it is fired.\n\nThen it is glazed.';

async function live(title: string): Promise<ArticleWhole> {
  const pipeline = await w.pipeline([title], (all) => [
    all[0]!,
    { ...k['lay out'].fresh('s2'), body: BODY, title, reads: 'plain text' } as Step,
    { ...k.publish.fresh('s9'), when: 'at once', blog: w.blog } as Step,
  ]);
  const [brief] = await w.take(pipeline);
  await w.settled([brief!], ['out']);
  const [row] = await w.product.ground.db.rows<{ id: string }>('SELECT id FROM article WHERE brief = ?', [brief]);
  return read(row!.id);
}
const read = async (id: string) => (await ask<ArticleWhole>('GET', `/articles/${id}`)).body;
async function edited(article: ArticleWhole, change: (document: ArticleDocument) => ArticleDocument): Promise<void> {
  const { id, revision, document } = article;
  const body = { base: revision, document: change(document), sitting: 'one' };
  expect((await ask('PUT', `/articles/${id}/document`, body)).status).toBeLessThan(300);
  // It comes to rest.
  await w.product.ground.db.run(
    "UPDATE article_revision SET created_at = '2020-01-01', sealed_at = '2020-01-01' WHERE article = ?",
    [id],
  );
  await noteGlances(w.product.ground);
  while ((await bringChanges(w.product.tools)) > 0);
}
const withLast = (text: string) => (document: ArticleDocument) => ({
  ...document,
  body: document.body.map((block, i) =>
    i === document.body.length - 1 && block.type === 'paragraph' ? { ...block, content: [{ text }] } : block,
  ),
});
const updates = async (said: 'asked' | 'small' | 'all') => {
  owner ??= await http.as('owner');
  const { body } = await owner<{ blogs: Blog[] }>('PATCH', `/blogs/${w.blog}`, { updates: said });
  expect(body.blogs.find(({ id }) => id === w.blog)!.settings.updates).toBe(said);
};
const behind = async () =>
  (await ask<{ posts: { title: string }[] }>('GET', `/blogs/${w.blog}/behind`)).body.posts.map(({ title }) => title);
const there = (title: string) =>
  w.standIns
    .received()
    .posts('journal')
    .find(({ name }) => name === title)!.html;

test('a change waits for a person at first, is listed, and goes when somebody says so', async () => {
  const article = await live('Throwing a bowl');
  await edited(article, withLast('Then it is sold.'));
  expect(await behind()).toEqual(['Throwing a bowl']);
  expect(there('Throwing a bowl')).not.toContain('sold');
  await ask('POST', '/articles/many', { articles: [article.id], do: 'update' });
  expect(there('Throwing a bowl')).toContain('sold');
  expect(await behind()).toEqual([]);
});

test('small ones go by themselves where the blog says so, others wait; with all of them, all go', async () => {
  await updates('small');
  const small = await live('Throwing a plate');
  await edited(small, withLast('Then it is eaten from.'));
  expect(there('Throwing a plate')).toContain('eaten from');
  expect(await behind()).toEqual([]);
  const titled = await live('Throwing a jug');
  await edited(titled, (document) => ({ ...document, title: 'Throwing a jug well' }));
  expect(await behind()).toEqual(['Throwing a jug well']);
  expect(there('Throwing a jug')).toBeDefined();
  await updates('all');
  await edited(await read(titled.id), (document) => ({ ...document, title: 'Throwing a jug at once' }));
  expect(there('Throwing a jug at once')).toBeDefined();
  expect(await behind()).toEqual([]);
  // A test of the blog leaves what people set.
  await testBlog({ ground: w.product.ground, tools: w.product.tools }, w.blog);
  owner ??= await http.as('owner');
  const { blogs } = (await owner<{ blogs: Blog[] }>('GET', '/blogs')).body;
  expect(blogs.find(({ id }) => id === w.blog)!.settings.updates).toBe('all');
});

test('what somebody changed on the blog meanwhile is not written over: it is left for a person', async () => {
  const article = await live('Throwing a lid');
  const change = { html: '<p>Rewritten there.</p>' };
  await fetch(`${w.standIns.address}/control/blogs`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ act: 'update', blog: 'journal', address: article.publications[0]!.address, change }),
  });
  await edited(article, withLast('Then it fits.'));
  expect(there('Throwing a lid')).toBe(change.html);
  expect(await behind()).toEqual(['Throwing a lid']);
  expect((await read(article.id)).publications[0]!.outside).toMatchObject({ kind: 'changed' });
});

test('small is up to three paragraphs, with the title, the address and the lead picture as they were', () => {
  const paragraph = (n: number, text = `Line ${n}`) => ({
    type: 'paragraph' as const,
    id: `p${n}`,
    content: [{ text }],
  });
  const whole = { ...EMPTY_ARTICLE, title: 'A bowl', slug: 'a-bowl', body: [1, 2, 3, 4, 5].map((n) => paragraph(n)) };
  const with_ = (n: number) => ({
    ...whole,
    body: whole.body.map((block, i) => (i < n ? paragraph(i + 1, 'Other') : block)),
  });
  expect([0, 1, 3, 4].map((n) => isSmall(whole, with_(n)))).toEqual([true, true, true, false]);
  expect(isSmall(whole, { ...whole, body: whole.body.slice(0, 2) })).toBe(true);
  expect(isSmall(whole, { ...whole, body: whole.body.slice(0, 1) })).toBe(false);
  expect(isSmall(whole, { ...whole, title: 'A cup' })).toBe(false);
  expect(isSmall(whole, { ...whole, slug: 'a-cup' })).toBe(false);
});
