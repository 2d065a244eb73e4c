import type { Article, Articles, ArticleWhole, DoneToArticles, Labels, RevisionLine } from '@grivo/contract';
import { articleText, type Step, stepKinds } from '@grivo/core';
import { beforeAll, expect, test, vi } from 'vitest';
import type { z } from 'zod';
import { noteGlances } from '../src/nouns/articles/glance.ts';
import { articleTitled } from './ground/articles.ts';
import { atTheDesk, type Desk } from './ground/desk.ts';

const k = stepKinds;
const DAY = 86_400_000;
let w: Desk['w'];
let ask: Desk['ask'];
atTheDesk((desk) => ({ w, ask } = desk));

const TITLES = ['Glazing a sash', 'Puttying a pane', 'Weights and cords'];
let ids: string[] = [];
const list = async (query: string) =>
  (await ask<z.infer<typeof Articles>>('GET', `/articles?order=slot&${query}`)).body.articles;
const titles = async (query: string) => (await list(query)).map(({ title }) => title);
const many = (body: object) => ask<DoneToArticles>('POST', '/articles/many', body);
const due = async () => (await Promise.all(ids.map(at))).map((article) => article.dueDesk!);
const at = async (id: string): Promise<Article> => (await ask<Article>('GET', `/articles/${id}`)).body;

/** Articles that wait for their slots, one a brief. */
beforeAll(async () => {
  const pipeline = await w.pipeline(TITLES, (all) => [
    all[0]!,
    {
      ...k['lay out'].fresh('s2'),
      body: 'A level tablespoon of fine table salt weighs about 18 grams, while the same spoon of coarse flakes can hold as little as 9 grams.',
      title: '{{ subject }}',
      reads: 'plain text',
    } as Step,
    { ...k.publish.fresh('s9'), when: 'next free slot', blog: w.blog } as Step,
  ]);
  await w.take(pipeline);
  await vi.waitFor(async () => expect(await list('standing=ready')).toHaveLength(3), {
    timeout: 20_000,
    interval: 150,
  });
  ids = await Promise.all(TITLES.map(async (title) => (await articleTitled(ask, title)).id));
});

test('those that wait are moved to free slots from a day on, in the order they are named, and pinned there', async () => {
  const before = await due();
  const from = Math.max(...before) + 3 * DAY;
  const moved = await many({ articles: ids, do: 'move', from });
  expect([moved.status, moved.body]).toEqual([200, { done: 3, left: [] }]);
  const after = await due();
  expect(after.every((slot) => slot >= from)).toBe(true);
  expect([...after].sort((a, b) => a - b)).toEqual(after);
  expect(new Set(after).size).toBe(3);
  // Moved again from the same moment each finds its own slot free.
  await many({ articles: ids, do: 'move', from });
  expect(await due()).toEqual(after);
  // What was theirs is free again.
  await many({ articles: [ids[2]!], do: 'move', from: 0 });
  const [, , third] = await due();
  expect(third).toBeLessThan(from);
});

test('what has no slot is left, and says so', async () => {
  const { body } = await ask<{ id: string }>('POST', '/articles', { blog: w.blog, title: 'By hand', text: 'A pane.' });
  await w.settled([body.id], ['held']);
  const own = (await articleTitled(ask, 'By hand')).id;
  expect((await many({ articles: [own], do: 'move', from: 0 })).body).toEqual({
    done: 0,
    left: [{ id: own, title: 'By hand', why: 'It has no slot yet.' }],
  });
});

test('they are put in other words at a price that is said before; what they were stays, figures and links with it', async () => {
  const price = await ask<{ micros: number }>('POST', '/articles/many/price', { articles: ids, degree: 'freely' });
  expect(price.status).toBe(200);
  expect(price.body.micros).toBeGreaterThan(0);
  const before = (await ask<ArticleWhole>('GET', `/articles/${ids[0]}`)).body;
  // Whoever was moved just now is looked at once more by the step that waits for the slot.
  await vi.waitFor(
    async () => {
      const put = await many({ articles: [ids[0]!], do: 'put', degree: 'freely' });
      expect([put.status, put.body]).toEqual([200, { done: 1, left: [] }]);
    },
    { timeout: 20_000, interval: 150 },
  );
  const after = (await ask<ArticleWhole>('GET', `/articles/${ids[0]}`)).body;
  expect(articleText(after.document)).not.toBe(articleText(before.document));
  expect(after.document.body.map(({ id, evidence }) => [id, evidence])).toEqual(
    before.document.body.map(({ id, evidence }) => [id, evidence]),
  );
  const { revisions } = (
    await ask<{ revisions: z.infer<typeof RevisionLine>[] }>('GET', `/articles/${ids[0]}/revisions`)
  ).body;
  expect(revisions[0]).toMatchObject({ current: true, person: 'editor' });
  w.standIns.trouble('writer', { how: 'key refused' }, 1);
  const refused = await many({ articles: [ids[1]!], do: 'put', degree: 'afresh' });
  expect(refused.body).toMatchObject({
    done: 0,
    left: [{ id: ids[1], why: expect.stringContaining('refused the key') }],
  });
});

test('a label is put on them and taken off, and narrows the list to them and to what its pipeline made', async () => {
  const label = (await ask<{ id: string }>('POST', '/labels', { name: 'Sashes' })).body.id;
  expect((await many({ articles: ids.slice(0, 2), do: 'label', label, on: true })).body.done).toBe(2);
  expect((await titles(`label=${label}`)).sort()).toEqual(TITLES.slice(0, 2));
  expect((await ask<{ labels: string[] }>('GET', `/articles/${ids[0]}`)).body.labels).toEqual([label]);
  const { labels } = (await ask<z.infer<typeof Labels>>('GET', '/labels')).body;
  expect(labels[0]!.on).toMatchObject({ article: 2, pipeline: 0 });
  await many({ articles: ids, do: 'label', label, on: false });
  expect(await titles(`label=${label}`)).toEqual([]);
  expect((await many({ articles: ids, do: 'label', label: 'z'.repeat(20), on: true })).status).toBe(404);
});

test('the list is narrowed by the source an article was made of, and by what it cost', async () => {
  const { db } = w.product.ground;
  const [{ source }] = (await db.rows<{ source: string }>(
    'SELECT i.source FROM brief_item bi JOIN item i ON i.id = bi.item JOIN article a ON a.brief = bi.brief WHERE a.id = ?',
    [ids[0]],
  )) as [{ source: string }];
  expect((await titles(`source=${source}`)).sort()).toEqual([...TITLES].sort());
  expect(await titles(`source=${'z'.repeat(20)}`)).toEqual([]);
  await db.run('UPDATE ledger l JOIN article a ON a.brief = l.brief SET l.micros = 0 WHERE a.id IN (?)', [ids]);
  await db.run(
    "INSERT INTO ledger (id, brief, pipeline, service, what, at_desk, micros) SELECT ?, a.brief, b.pipeline, ?, 'text', 0, 250000 FROM article a JOIN brief b ON b.id = a.brief WHERE a.id = ?",
    [w.product.ground.ids(), 'y'.repeat(20), ids[1]],
  );
  await db.run('UPDATE article SET glanced = NULL WHERE id IN (?)', [ids]);
  await noteGlances(w.product.ground);
  expect(await titles('cost=250000')).toEqual([TITLES[1]]);
  expect(await titles('cost=250001')).toEqual([]);
  expect((await ask('GET', '/articles?cost=-1')).status).toBe(422);
});
