import type { ArticleWhole, BlogWay, Clicks, OutsideShown } from '@grivo/contract';
import { plainAddress } from '@grivo/core';
import { request } from 'undici';
import { describe, expect, test, vi } from 'vitest';
import { bringPosts } from '../src/nouns/publishing/anew.ts';
import { atTheSites, connectedBy, liveOn, readThere, type Sites } from './ground/sites.ts';

let w: Sites['w'];
let http: Sites['http'];
let ask: Sites['ask'];
let sites: string;
// What is brought and made in the background the tests do themselves.
atTheSites((open) => ({ w, http, ask, sites } = open), { upkeep: [] });

const BROWSER = 'Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/140.0.0.0 Safari/537.36';
const SADDLER = 'https://saddler.example/girths?size=12&wide=1';

/** An article with a link out of our blogs and one within them, live on a blog. */
async function live(title: string, blog: string): Promise<ArticleWhole> {
  const { address } = (
    await w.product.ground.db.rows<{ address: string }>('SELECT address FROM blog WHERE id = ?', [blog])
  )[0]!;
  const body = `Oil the girth as [the saddler](${SADDLER}) does.\n\nLet it dry as [we say](${address.replace(/\/$/, '')}/drying).`;
  return liveOn({ w, ask }, blog, { title, body });
}
const read = async (id: string) => (await ask<ArticleWhole>('GET', `/articles/${id}`)).body;

/** What readers get of an article where it stands. */
const there = (article: ArticleWhole, way: BlogWay, form: string): string =>
  readThere({ w, sites }, article, way === 'folder' ? form : null);
const linksIn = (text: string): string[] =>
  [...text.matchAll(/(?:href="|\]\(<?)(https?:[^")>]+)/g)].map(([, address]) =>
    address!.replace(/&(?:amp|#x26|#38);/g, '&').replaceAll('\\', ''),
  );
const count = async (blog: string, counts: boolean) => {
  const { status, body } = await ask<Clicks>('PUT', `/blogs/${blog}/clicks`, { counts });
  expect(status).toBe(200);
  return body;
};
const clicks = async (blog: string, article = '') =>
  (await ask<Clicks>('GET', `/blogs/${blog}/clicks${article === '' ? '' : `?article=${article}`}`)).body;
const bringAll = async () => {
  while ((await bringPosts(w.product.tools)) > 0);
};
const follow = (
  address: string,
  headers: Record<string, string> = { 'user-agent': BROWSER },
  method: 'GET' | 'HEAD' = 'GET',
) => request(address, { method, headers });

test('where nobody knows where readers reach it, nothing is counted, and it is said what would mend it', async () => {
  const blog = await connectedBy(w, 'micropub', { name: 'Nowhere' });
  w.product.tools.publicUrl = null;
  const { status, body } = await ask<{ mend: string }>('PUT', `/blogs/${blog}/clicks`, { counts: true });
  expect([status, body.mend]).toEqual([422, 'Whoever runs it sets GRIVO_PUBLIC_URL.']);
  expect(await clicks(blog)).toMatchObject({ counts: false, can: false, left: 0, links: [], articles: [] });
});

describe.each<[BlogWay, string]>([
  ['micropub', ''],
  ['atom', ''],
  ['xml-rpc', ''],
  ['folder', 'Markdown'],
  ['folder', 'HTML'],
  ['hook', ''],
])('on a blog by %s %s', (way, form) => {
  test('links are plain at first, counted when it is said, and plain again', async () => {
    w.product.tools.publicUrl = http.address;
    w.product.allowed.add(http.address);
    const name = way === 'folder' ? form : `Counted ${way}`;
    const blog = await connectedBy(w, way, { name, folder: { form: form === 'HTML' ? 'HTML' : 'Markdown' } });
    const before = await live(`Girths by ${way} ${form}`, blog);
    expect(linksIn(there(before, way, form))).toContain(SADDLER);

    expect(await count(blog, true)).toMatchObject({ counts: true, can: true, left: 1 });
    await bringAll();
    expect((await clicks(blog)).left).toBe(0);
    const after = await live(`Reins by ${way} ${form}`, blog);
    for (const article of [before, after]) {
      const links = linksIn(there(article, way, form));
      const [counted] = links.filter((one) => one.startsWith(`${http.address}/go/`));
      expect(plainAddress(counted!)).toBe(SADDLER);
      // Pages of our own blogs are no way out.
      expect(links.filter((one) => one.includes('/drying') && !one.includes('/go/'))).toHaveLength(1);
      const { body, headers, statusCode } = await follow(counted!);
      await body.dump();
      expect([statusCode, headers['location'], headers['set-cookie']]).toEqual([302, SADDLER, undefined]);
      // Nobody is taken to have changed the post, though it says another address than the article.
      const at = `/articles/${article.id}/publications/${article.publications[0]!.id}`;
      const seen = (await ask<OutsideShown>('GET', `${at}/outside`)).body;
      expect(seen.places?.filter(({ changed }) => changed) ?? []).toEqual([]);
      expect((await read(article.id)).publications[0]!.outside).toBeNull();
    }
    await vi.waitFor(
      async () => expect((await clicks(blog)).links).toEqual([{ address: SADDLER, times: 2, articles: 2 }]),
      5_000,
    );

    await count(blog, false);
    await bringAll();
    for (const article of [before, after]) {
      expect(there(article, way, form)).not.toContain('/go/');
      expect(linksIn(there(article, way, form))).toContain(SADDLER);
    }
    expect(await clicks(blog)).toMatchObject({ counts: false, left: 0 });
  });
});

test('bots, looks ahead and what was not made here are not counted; the rest is told by day, link and article', async () => {
  w.product.tools.publicUrl = http.address;
  const blog = await connectedBy(w, 'micropub', { name: 'Counting', site: 'journal' });
  await count(blog, true);
  const [one, other] = [await live('Bits and girths', blog), await live('Stirrups', blog)];
  const linkIn = (article: ArticleWhole) =>
    linksIn(there(article, 'micropub', '')).find((link) => link.includes('/go/'))!;
  const link = linkIn(one);
  const followed = async (...how: Parameters<typeof follow>) => {
    const { statusCode, headers, body } = await follow(...how);
    return [statusCode, headers['location'] ?? (await body.text()).match(/<h1>([^<]*)/)?.[1]];
  };
  for (let n = 0; n < 3; n++) expect(await followed(link)).toEqual([302, SADDLER]);
  expect(await followed(linkIn(other))).toEqual([302, SADDLER]);
  // Led on all the same.
  expect(await followed(link, { 'user-agent': 'Mozilla/5.0 (compatible; LinkBot/1.0)' })).toEqual([302, SADDLER]);
  expect(await followed(link, {})).toEqual([302, SADDLER]);
  expect(await followed(link, { 'user-agent': BROWSER, 'sec-purpose': 'prefetch' })).toEqual([302, SADDLER]);
  expect(await followed(link, { 'user-agent': BROWSER }, 'HEAD')).toEqual([302, SADDLER]);
  // Nobody leads readers elsewhere in our name.
  for (const forged of [
    link.replace(/to=.*/, 'to=https%3A%2F%2Fevil.example'),
    link.replace(/\/go\/[^/]+/, `/go/${'a'.repeat(20)}`),
    link.replace(/\?to=.*/, ''),
    `${link}&to=https%3A%2F%2Fevil.example`,
    link.replace(/([\w-]{22})\?/, `${'A'.repeat(22)}?`),
    `${http.address}/go/`,
  ])
    expect(await followed(forged), forged).toEqual([404, 'This link leads nowhere']);
  await vi.waitFor(async () => expect((await clicks(blog)).links[0]?.times).toBe(4), 5_000);
  const { days, articles } = await clicks(blog);
  expect(articles.map(({ title, times }) => [title, times])).toEqual([
    ['Bits and girths', 3],
    ['Stirrups', 1],
  ]);
  expect([days.length, days.at(-1)!.times, days[0]!.times]).toEqual([30, 4, 0]);
  expect(await clicks(blog, other.id)).toMatchObject({ links: [{ address: SADDLER, times: 1, articles: 1 }] });
  // Once they are plain again, what still stands elsewhere leads on and is not counted.
  await count(blog, false);
  expect(await followed(link)).toEqual([302, SADDLER]);
  await new Promise((ready) => setTimeout(ready, 1_500));
  expect((await clicks(blog)).links[0]!.times).toBe(4);
});

test('what somebody changed on the blog is not written over; it waits until that is settled', async () => {
  w.product.tools.publicUrl = http.address;
  const blog = await connectedBy(w, 'micropub', { name: 'Changed there' });
  const article = await live('Bridles', blog);
  const html = there(article, 'micropub', '').replace('Let it dry', 'Let it hang');
  await fetch(`${w.standIns.address}/control/blogs`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ act: 'update', blog: 'kitchen', address: article.address, change: { html } }),
  });
  await count(blog, true);
  await bringAll();
  expect(there(article, 'micropub', '')).toBe(html);
  expect(await clicks(blog)).toMatchObject({ left: 1 });
  const at = `/articles/${article.id}/publications/${article.publications[0]!.id}`;
  const seen = (await ask<OutsideShown>('GET', `${at}/outside`)).body;
  expect(await ask('POST', `${at}/outside`, { digest: seen.digest, title: 'ours', choices: ['theirs'] })).toMatchObject(
    {
      status: 200,
      body: { done: true },
    },
  );
  await w.product.ground.db.run('UPDATE publication SET anew_at = UTC_TIMESTAMP(3) WHERE anew_at IS NOT NULL');
  await bringAll();
  expect(there(article, 'micropub', '')).toContain('Let it hang');
  expect(there(article, 'micropub', '')).toContain('/go/');
  expect(await clicks(blog)).toMatchObject({ left: 0 });
});
