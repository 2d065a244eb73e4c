import { readdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { ArticleWhole, Pings } from '@grivo/contract';
import { type Step, stepKinds } from '@grivo/core';
import { beforeAll, expect, test } from 'vitest';
import { sendPings } from '../src/nouns/pings/send.ts';
import { atTheSites, connectedBy, type Sites } from './ground/sites.ts';

let w: Sites['w'];
let http: Sites['http'];
let editor: Sites['ask'];
let owner: Sites['ask'];
let sites: string;
atTheSites((open) => ({ w, http, ask: editor, sites } = open));
beforeAll(async () => {
  owner = await http.as('owner');
});

const k = stepKinds;
const search = () => `${w.standIns.address}/told/search`;
const hub = () => `${w.standIns.address}/told/hub`;
const pings = async (blog: string) => (await owner<Pings>('GET', `/blogs/${blog}/pings`)).body;
const told = (by: 'search' | 'hub') => w.standIns.received().inbox.filter((one) => one.by === by);
const standing = async (blog: string, kind: 'search' | 'hub') =>
  (await pings(blog)).standings.find((one) => one.kind === kind);
const dueNow = async () => {
  await w.product.ground.db.run("UPDATE ping SET due_at = UTC_TIMESTAMP(3) - INTERVAL 1 MINUTE WHERE state = 'due'");
  await sendPings(w.product.tools);
};

async function published(
  title: string,
  blog: string,
  as: 'live' | 'draft' | 'private' = 'live',
): Promise<ArticleWhole> {
  const layOut = { ...k['lay out'].fresh('s2'), body: 'A kiln is packed from the back.', title };
  const pipeline = await w.pipeline([title], (all) => [
    all[0]!,
    layOut as Step,
    { ...k.publish.fresh('s9'), when: 'at once', blog, as } as Step,
  ]);
  const [brief] = await w.take(pipeline);
  await w.settled([brief!], ['out']);
  const [row] = await w.product.ground.db.rows<{ id: string }>('SELECT id FROM article WHERE brief = ?', [brief]);
  return (await editor<ArticleWhole>('GET', `/articles/${row!.id}`)).body;
}

test('nobody is told unless it is switched on, and only owners switch it', async () => {
  await published('A kiln before', w.blog);
  await dueNow();
  expect(told('search')).toEqual([]);
  expect((await pings(w.blog)).search).toBe('');
  expect((await editor('PATCH', `/blogs/${w.blog}/pings`, { search: search() })).status).toBe(403);
  expect((await owner('PATCH', `/blogs/${w.blog}/pings`, { search: 'no address' })).status).toBe(422);
});

test('a search engine that does not find our text is told in vain, and again once it is there; what is out stays out', async () => {
  const on = (await owner<Pings>('PATCH', `/blogs/${w.blog}/pings`, { search: search() })).body;
  expect(on).toMatchObject({ search: search(), codeFound: false, code: expect.stringMatching(/^[0-9a-f]{32}$/) });
  const article = await published('A kiln in vain', w.blog);
  await dueNow();
  expect(await standing(w.blog, 'search')).toMatchObject({
    refused: 1,
    told: 0,
    said: `it did not find its text at ${on.codeAt}`,
  });
  expect(article.publications[0]).toMatchObject({ state: 'live' });
  // The owner of the blog puts it there.
  await fetch(`${w.standIns.address}/control/blogs`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ act: 'text', blog: 'journal', name: `${on.code}.txt`, text: on.code }),
  });
  expect((await pings(w.blog)).codeFound).toBe(true);
  await owner('POST', `/blogs/${w.blog}/pings/again`, {});
  await dueNow();
  expect(await standing(w.blog, 'search')).toMatchObject({ refused: 0, waiting: 0, told: 1, said: '' });
  expect(told('search').map(({ text }) => text)).toEqual([article.publications[0]!.address]);
});

test('it is told of what is new, changed and gone, and of nothing readers do not find', async () => {
  const before = told('search').length;
  await published('A kiln as a draft', w.blog, 'draft');
  await published('A kiln in private', w.blog, 'private');
  await dueNow();
  expect(told('search')).toHaveLength(before);
  const article = await published('A kiln to be changed', w.blog);
  await dueNow();
  const { id } = article.publications[0]!;
  const edited = await editor<{ revision: string }>('PUT', `/articles/${article.id}/document`, {
    base: article.revision,
    document: { ...article.document, title: 'A kiln, changed' },
    sitting: 'one',
  });
  const act = (what: string, revision: string) =>
    editor('POST', `/articles/${article.id}/publications/${id}`, { act: what, revision });
  await act('update', edited.body.revision);
  await dueNow();
  await act('withdraw', edited.body.revision);
  await dueNow();
  expect(
    told('search')
      .slice(before)
      .map(({ text }) => text),
  ).toEqual(Array.from({ length: 3 }, () => article.publications[0]!.address));
});

test('one that is down is told later and never by twice as many posts; after some tries it is for a person', async () => {
  const before = told('search').length;
  w.standIns.trouble('inbox', { how: 'broken' }, 9);
  const article = await published('A kiln in the rain', w.blog);
  for (let i = 0; i < 3; i++) await dueNow();
  expect(await standing(w.blog, 'search')).toMatchObject({ waiting: 1, said: expect.stringMatching(/answered 50/) });
  for (let i = 0; i < 5; i++) await dueNow();
  expect(await standing(w.blog, 'search')).toMatchObject({ waiting: 0, refused: 1 });
  w.standIns.calm();
  await owner('POST', `/blogs/${w.blog}/pings/again`, {});
  await dueNow();
  expect(told('search')).toHaveLength(before + 1);
  const posts = w.standIns.received().posts('journal');
  expect(posts.filter(({ name }) => name === 'A kiln in the rain')).toHaveLength(1);
  expect(article.publications[0]).toMatchObject({ state: 'live' });
});

test('a hub is told of the feed the front page names, once for several posts; switched off, it is not', async () => {
  const on = (await owner<Pings>('PATCH', `/blogs/${w.blog}/pings`, { search: '', hub: hub() })).body;
  expect(on.feed).toBe(`${w.standIns.blog('journal').address}/feed.atom`);
  await published('A kiln with a hub', w.blog);
  await published('A kiln with a hub too', w.blog);
  await dueNow();
  expect(told('hub').at(-1)).toMatchObject({ to: on.feed });
  expect(await standing(w.blog, 'hub')).toMatchObject({ told: 2, waiting: 0 });
  await owner('PATCH', `/blogs/${w.blog}/pings`, { hub: '' });
  const before = told('hub').length;
  await published('A kiln alone', w.blog);
  await dueNow();
  expect(told('hub')).toHaveLength(before);
  expect((await pings(w.blog)).standings).toEqual([]);
});

test('a hub named while the blog is away is told of its feed once that is found', async () => {
  w.standIns.trouble('web', { how: 'broken' }, 50);
  const away = (await owner<Pings>('PATCH', `/blogs/${w.blog}/pings`, { hub: hub() })).body;
  expect([away.hub, away.feed]).toEqual([hub(), '']);
  w.standIns.calm();
  expect((await pings(w.blog)).feed).toBe(`${w.standIns.blog('journal').address}/feed.atom`);
  await owner('PATCH', `/blogs/${w.blog}/pings`, { hub: '' });
});

test('what changes again while it is told is told again', async () => {
  await owner('PATCH', `/blogs/${w.blog}/pings`, { search: search() });
  const article = await published('A kiln, twice', w.blog);
  await dueNow();
  const before = told('search').length;
  const { id } = article.publications[0]!;
  const { db } = w.product.ground;
  const again = "UPDATE ping SET state = 'due', due_at = UTC_TIMESTAMP(3) - INTERVAL 1 SECOND WHERE publication = ?";
  await db.run(again, [id]);
  let renewed = false;
  w.standIns.watch(async (point) => {
    if (point !== 'inbox.received' || renewed) return;
    renewed = true;
    await db.run(again, [id]);
  });
  await sendPings(w.product.tools);
  w.standIns.watch(() => undefined);
  await expect
    .poll(async () => {
      await sendPings(w.product.tools);
      return told('search').length;
    })
    .toBeGreaterThanOrEqual(before + 2);
  await owner('PATCH', `/blogs/${w.blog}/pings`, { search: '' });
});

test('a folder gets the text beside its posts by itself, and its own feed', async () => {
  const id = await connectedBy(w, 'folder', { name: 'notes', folder: { pages: true } });
  const on = (await owner<Pings>('PATCH', `/blogs/${id}/pings`, { search: search(), hub: hub() })).body;
  expect(on.feed).toBe('https://notes.example/feed.atom');
  expect(await readdir(join(sites, 'notes'))).toContain(`${on.code}.txt`);
  expect(await readFile(join(sites, 'notes', `${on.code}.txt`), 'utf8')).toBe(on.code);
});

test('other sites read the list of our articles as JSON Feed and as HTML, without a sign-in, until it is switched off', async () => {
  expect((await pings(w.blog)).list).toBeNull();
  const { list } = (await owner<Pings>('PUT', `/blogs/${w.blog}/list`, { on: true })).body;
  const json = await fetch(list!.json, { headers: { origin: 'https://shop.example' } });
  expect(json.headers.get('access-control-allow-origin')).toBe('*');
  expect(json.headers.get('content-type')).toMatch(/^application\/feed\+json/);
  const feed = (await json.json()) as { version: string; title: string; items: { url: string; title: string }[] };
  expect(feed).toMatchObject({ version: 'https://jsonfeed.org/version/1.1', title: 'Crockhaven Journal' });
  const titles = feed.items.map(({ title }) => title);
  expect(titles).toContain('A kiln alone');
  expect(titles).not.toContain('A kiln in private');
  expect(titles).not.toContain('A kiln as a draft');
  expect(titles).not.toContain('A kiln, changed');
  const html = await (await fetch(list!.html)).text();
  expect(html).toMatch(/^<ul class="articles" lang="en">\n<li><a href="http/);
  expect(html).toContain('>A kiln alone</a> <time');
  const again = (await owner<Pings>('PUT', `/blogs/${w.blog}/list`, { on: true })).body.list;
  expect(again).toEqual(list);
  await owner('PUT', `/blogs/${w.blog}/list`, { on: false });
  expect((await fetch(list!.json)).status).toBe(404);
  const other = (await owner<Pings>('PUT', `/blogs/${w.blog}/list`, { on: true })).body.list!;
  expect(other.json).not.toBe(list!.json);
});
