import type { Blog, FoundEndpoint, MadeBlog } from '@grivo/contract';
import { beforeAll, expect, test } from 'vitest';
import { atTheDesk, type Desk } from './ground/desk.ts';
import type { Ask } from './ground/http.ts';
import { DAILY } from './ground/world.ts';

let w: Desk['w'];
let owner: Ask;
let other: Ask;
let http: Desk['http'];
atTheDesk((desk) => ({ w, http, ask: other } = desk));
beforeAll(async () => {
  owner = await http.as('owner');
});

interface Problem {
  detail: string;
  mend: string;
}
const site = (slug: string) => w.standIns.blog(slug);
const begin = (address: string) =>
  owner<{ address: string } & Problem>('POST', '/blogs/approvals', { address, cadence: DAILY });
const beginOn = async (slug: string) => new URL((await begin(site(slug).address)).body.address);
const end = (back: URL, who = owner, more: object = {}) => {
  const said = (name: string) => back.searchParams.get(name);
  return who<MadeBlogAnswer & Problem>('POST', '/blogs/approvals/end', {
    state: said('state') ?? '',
    code: said('code') ?? '',
    error: said('error') ?? '',
    iss: said('iss'),
    ...more,
  });
};
type MadeBlogAnswer = ReturnType<typeof MadeBlog.parse>;

/** What the owner of a blog does on its page. @returns where the browser is sent back to */
async function answer(page: URL, says: 'yes' | 'no', change: Record<string, string> = {}): Promise<URL> {
  const html = await (await fetch(page)).text();
  const form = new URLSearchParams({ answer: says });
  for (const [, name, value] of html.matchAll(/type="hidden" name="(\w+)" value="([^"]*)">/g))
    form.set(name!, value!.replaceAll('&amp;', '&'));
  for (const [name, value] of Object.entries(change)) form.set(name, value);
  const reply = await fetch(page, { method: 'POST', body: form, redirect: 'manual' });
  expect(reply.status).toBe(302);
  return new URL(reply.headers.get('location')!);
}

test('that owners may approve is found with the blog', async () => {
  const found = await owner<FoundEndpoint>('POST', '/blogs/find', { address: site('kitchen').address });
  expect(found.body).toMatchObject({
    approves: true,
    ways: [{ way: 'micropub' }, expect.anything(), expect.anything()],
  });
});

test('a blog is connected by its owner’s approval, and tested; no secret is typed, told or kept in the clear', async () => {
  const page = await beginOn('kitchen');
  expect(Object.fromEntries(page.searchParams)).toMatchObject({
    response_type: 'code',
    code_challenge_method: 'S256',
    scope: 'create update delete media',
    client_id: expect.stringMatching(/\/client\.json$/),
    redirect_uri: expect.stringMatching(/\/blogs\/approved$/),
  });
  const client = (await (await fetch(page.searchParams.get('client_id')!)).json()) as Record<string, unknown>;
  expect(client).toMatchObject({
    client_id: page.searchParams.get('client_id'),
    client_name: 'Grivo',
    redirect_uris: [page.searchParams.get('redirect_uri')],
  });
  const kept = await w.product.ground.db.rows<{ kept: Buffer }>('SELECT kept FROM approval');
  expect(kept.map((one) => one.kept.includes(page.searchParams.get('state')!))).toEqual([false]);
  const done = await end(await answer(page, 'yes'));
  expect(done.status).toBe(200);
  expect(done.body.joined).toBe(false);
  expect(done.body.lines.every(({ well }) => well)).toBe(true);
  expect(JSON.stringify(done.body)).not.toContain(site('kitchen').token);
  const { blogs } = (await owner<{ blogs: Blog[] }>('GET', '/blogs')).body;
  expect(blogs.find(({ id }) => id === done.body.id)).toMatchObject({ way: 'micropub', name: expect.any(String) });
});

test('refused first, approved then; what came back is good once, for whoever began, and from the blog that was asked', async () => {
  const refused = await end(await answer(await beginOn('barrels'), 'no'));
  expect([refused.status, refused.body.detail]).toEqual([422, 'It was refused at the blog.']);
  const back = await answer(await beginOn('barrels'), 'yes');
  const elsewhere = new URL(back);
  expect((await end(elsewhere, other)).status).toBe(403);
  const forged = await answer(await beginOn('barrels'), 'yes');
  forged.searchParams.set('iss', site('kitchen').address);
  expect((await end(forged)).body.detail).toBe('The answer is not from the place that was asked.');
  expect((await end(back, owner, { code: 'guessed' })).body.detail).toMatch(/gave no secret: the code is not good/);
  // A guess uses it up: whoever has the right code now comes too late.
  expect((await end(back)).body.detail).toMatch(/^This approval is over/);
  const done = await end(await answer(await beginOn('barrels'), 'yes'));
  expect(done.body.joined).toBe(false);
  // Again it is the same blog, with a new secret.
  const again = await end(await answer(await beginOn('barrels'), 'yes'));
  expect(again.body).toMatchObject({ id: done.body.id, joined: true });
});

test('a blog whose secret is wrong is approved again; fewer rights than asked for are told', async () => {
  const { blogs } = (await owner<{ blogs: Blog[] }>('GET', '/blogs')).body;
  const journal = blogs.find(({ id }) => id === w.blog)!;
  await owner('PUT', `/blogs/${journal.id}/secret`, { secret: 'wrong' });
  const begun = await owner<{ address: string }>('POST', '/blogs/approvals', { blog: journal.id });
  const done = await end(await answer(new URL(begun.body.address), 'yes', { scope: 'create update' }));
  expect(done.body).toMatchObject({ id: journal.id, joined: true });
  expect(done.body.lines[0]).toMatchObject({ well: false, came: 'It may not delete posts, send pictures' });
  expect(done.body.lines.slice(1).every(({ well }) => well)).toBe(true);
});

test('a page that names no place for it says so', async () => {
  const plain = await begin(`${w.standIns.address}/pages`);
  expect([plain.status, plain.body.mend !== '']).toEqual([422, true]);
});
