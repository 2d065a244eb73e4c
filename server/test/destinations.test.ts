import type { ArticleWhole, Destinations, PipelineWhole } from '@grivo/contract';
import { stepKinds as k } from '@grivo/core';
import { beforeAll, describe, expect, test } from 'vitest';
import type { z } from 'zod';
import { Mail } from '../src/ports/telling/mail.ts';
import { atTheDesk, type Desk } from './ground/desk.ts';
import type { Ask } from './ground/http.ts';

let w: Desk['w'];
let editor: Ask;
let owner: Ask;
let http: Desk['http'];
atTheDesk((desk) => ({ w, ask: editor, http } = desk));
beforeAll(async () => {
  owner = await http.as('owner');
  w.product.tools.mail = new Mail(w.standIns.mail, 'ines@crockhaven.example');
});

type List = z.infer<typeof Destinations>;
const KINDS = {
  mail: 'workshop@strings.example',
  message: () => `${w.standIns.address}/inbox/message/workshop`,
  hook: () => `${w.standIns.address}/inbox/hook/shop`,
} as const;
const addressOf = (kind: keyof typeof KINDS) => {
  const at = KINDS[kind];
  return typeof at === 'string' ? at : at();
};
const inbox = () => w.standIns.received().inbox;
const make = async (kind: keyof typeof KINDS, name: string) =>
  (await owner<{ id: string }>('POST', '/destinations', { kind, name, address: addressOf(kind) })).body.id;
const find = async (id: string) =>
  (await editor<List>('GET', '/destinations')).body.destinations.find((one) => one.id === id)!;

/** An article that is made from the text it is given, and what tells of it. */
async function made(
  subject: string,
  ...then: Parameters<Desk['w']['pipeline']>[1] extends infer F
    ? F extends (s: infer S) => unknown
      ? S
      : never
    : never
) {
  const pipeline = await w.pipeline([subject], ([take]) => [
    take!,
    { ...k['lay out'].fresh('s2'), body: 'Wipe the strings.', title: 'Caring for strings', reads: 'Markdown' as const },
    ...then,
  ]);
  const [brief] = await w.take(pipeline);
  await w.settled([brief!], ['out', 'stopped']);
  const [row] = await w.product.ground.db.rows<{ id: string }>('SELECT id FROM article WHERE brief = ?', [brief]);
  return { pipeline, article: row!.id };
}

describe.each(['mail', 'message', 'hook'] as const)('a destination told by %s', (kind) => {
  let id: string;
  beforeAll(async () => {
    id = await make(kind, `The workshop, by ${kind}`);
  });

  test('is tested with a sample that says what it is, and what came of it is kept', async () => {
    const before = inbox().length;
    const { lines } = (await owner<{ lines: { well: boolean }[] }>('POST', `/destinations/${id}/test`)).body;
    expect(lines.map(({ well }) => well)).toEqual([true]);
    const [got] = inbox().slice(before);
    expect(got).toMatchObject({ by: kind });
    expect(got!.text).toContain('This is a test by Grivo');
    expect((await find(id)).test?.lines).toEqual(lines);
    if (kind === 'hook') expect(got!.headers['webhook-signature']).toMatch(/^v1,/);
  });

  test('is told by a step that names it, and goes by what it is now', async () => {
    const step = { ...k.tell.fresh('t1'), destination: id, subject: 'New: {{ title }}', text: '{{ title }} is done' };
    const before = inbox().length;
    const { pipeline } = await made(`strings by ${kind}`, step);
    const [got] = inbox().slice(before);
    expect(got).toMatchObject({ by: kind });
    expect(got!.text).toContain(kind === 'hook' ? '"title":"Caring for strings"' : 'Caring for strings is done');
    const { sentences } = (await editor<PipelineWhole>('GET', `/pipelines/${pipeline}`)).body;
    expect(sentences.join(' ')).toContain(`Tell The workshop, by ${kind}`);
    const hangs = (await owner<{ unless: string[] }>('GET', `/destinations/${id}/hangs`)).body;
    expect(hangs.unless.join(' ')).toContain('‘A pipeline’ tells it');
    expect((await owner('DELETE', `/destinations/${id}`)).status).toBe(409);
  });

  test('is told of an article from its page, out or not', async () => {
    const { article } = await made(`more strings by ${kind}`);
    const before = inbox().length;
    const told = await editor<{ line: { well: boolean; tried: string } }>('POST', `/articles/${article}/tell`, {
      destination: id,
    });
    expect(told.body.line).toMatchObject({ well: true, tried: expect.stringContaining('Caring for strings') });
    expect(inbox().slice(before)[0]!.text).toContain('Caring for strings');
  });
});

test('an address that does not fit its kind is refused, a name is had by one alone', async () => {
  const ask = (kind: string, address: string, name = 'Another') =>
    owner('POST', '/destinations', { kind, name, address });
  for (const [kind, address] of [
    ['mail', 'nobody'],
    ['message', 'workshop@strings.example'],
    ['hook', 'ftp://x.example'],
    ['pigeon', 'https://x.example'],
  ] as const)
    expect((await ask(kind, address)).status, kind).toBe(422);
  expect((await ask('mail', 'a@b.example', 'the workshop, BY mail')).status).toBe(409);
  expect((await editor('POST', '/destinations', { kind: 'mail', name: 'X', address: 'a@b.example' })).status).toBe(403);
});

test('wrong first, then right: the test says what is wrong, a new address is tested anew', async () => {
  const { id } = (
    await owner<{ id: string }>('POST', '/destinations', {
      kind: 'message',
      name: 'A room',
      address: 'http://127.0.0.1:9/room',
    })
  ).body;
  const test = () =>
    owner<{ lines: { well: boolean; came: string; change: string | null }[] }>('POST', `/destinations/${id}/test`);
  const [wrong] = (await test()).body.lines;
  expect(wrong).toMatchObject({ well: false, change: expect.any(String) });
  const { rev } = await find(id);
  const put = (address: string, tag: number) =>
    owner('PUT', `/destinations/${id}`, { kind: 'message', address }, { 'if-match': `"${tag}"` });
  expect((await put(addressOf('message'), rev)).status).toBe(200);
  expect((await put('https://late.example', rev)).status).toBe(412);
  expect((await find(id)).test).toBeNull();
  expect((await test()).body.lines[0]).toMatchObject({ well: true });
});

test('without a mail server that is said, and nothing is told', async () => {
  const id = await make('mail', 'Nobody’s mail');
  const { mail } = w.product.tools;
  w.product.tools.mail = null;
  const before = inbox().length;
  const { lines } = (await owner<{ lines: { well: boolean; came: string }[] }>('POST', `/destinations/${id}/test`))
    .body;
  w.product.tools.mail = mail;
  expect(lines[0]).toMatchObject({ well: false });
  expect(inbox()).toHaveLength(before);
  expect((await owner('DELETE', `/destinations/${id}`)).status).toBe(204);
  expect((await owner('POST', `/destinations/${id}/test`)).status).toBe(404);
});

test('a step that tells one that is gone says so before it runs, and stops when it does', async () => {
  const id = await make('mail', 'Short-lived');
  await owner('DELETE', `/destinations/${id}`);
  const pipeline = await w.pipeline(['varnish'], ([take]) => [take!, { ...k.tell.fresh('t1'), destination: id }]);
  const { problems } = (await editor<PipelineWhole>('GET', `/pipelines/${pipeline}`)).body;
  expect(problems.map(({ sentence }) => sentence)).toContain('The destination it tells is not there any more.');
  const [brief] = await w.take(pipeline);
  expect((await w.settled([brief!], ['stopped', 'out'])).get(brief!)).toBe('stopped');
});

describe('an article that is shared', () => {
  let article: string;
  let at: string;
  const share = async (days: number | null = 30) =>
    (await editor<{ share: { address: string } }>('POST', `/articles/${article}/share`, { days })).body.share.address;
  /** As somebody who never signed in. */
  const read = (address: string, headers: Record<string, string> = {}) =>
    fetch(address, { headers, redirect: 'manual' });
  beforeAll(async () => {
    ({ article } = await made('a fiddle'));
    at = await share();
  });

  test('is read at its address without signing in, and nothing of it runs or is found by others', async () => {
    const reply = await read(at);
    expect(reply.status).toBe(200);
    const page = await reply.text();
    expect(page).toContain('<h1>Caring for strings</h1>');
    expect(page).toContain('Wipe the strings.');
    expect(reply.headers.get('content-security-policy')).toMatch(/^sandbox; default-src 'none'/);
    expect(reply.headers.get('x-robots-tag')).toContain('noindex');
    expect(reply.headers.get('set-cookie')).toBeNull();
    const { share } = (await editor<{ share: { seen: number } }>('GET', `/articles/${article}/share`)).body;
    expect(share.seen).toBe(1);
  });

  test('leads to no file but its own, and to nothing else of Grivo', async () => {
    for (const path of [`/${'f'.repeat(64)}`, '/../api/articles', '/..%2f..%2fapi%2fpeople'])
      expect((await read(at + path)).status, path).toBe(404);
    const token = at.split('/').at(-1)!;
    for (const path of ['/api/articles', `/api/articles/${article}`, '/api/session'])
      expect((await read(new URL(path, at).href, { authorization: `Bearer ${token}` })).status, path).toBe(401);
  });

  test('is read by nobody once it is taken back, ended, or shared anew', async () => {
    const next = await share(1);
    expect(next).not.toBe(at);
    expect((await read(at)).status).toBe(404);
    const gone = await read(at, { accept: 'text/html' });
    expect([gone.status, gone.headers.get('content-type')]).toEqual([404, 'text/html; charset=utf-8']);
    expect(await gone.text()).toContain('Nothing is shared at this address, or not any more.');
    expect((await read(next)).status).toBe(200);
    await w.product.ground.desk.set(w.product.ground.desk.now() + 2 * 86_400_000, 0);
    expect((await read(next)).status).toBe(404);
    expect((await editor<{ share: null }>('GET', `/articles/${article}/share`)).body.share).toBeNull();
    const last = await share(null);
    expect((await read(last)).status).toBe(200);
    expect((await editor('DELETE', `/articles/${article}/share`)).status).toBe(204);
    expect((await read(last)).status).toBe(404);
    expect(await share()).not.toBe(last);
  });

  test('may be shared by editors alone', async () => {
    const proofreader = await http.as('proofreader');
    expect((await proofreader('POST', `/articles/${article}/share`, {})).status).toBe(403);
    expect((await proofreader<ArticleWhole>('GET', `/articles/${article}/share`)).status).toBe(200);
  });

  test('is kept from those who guess addresses, who are told to wait', async () => {
    const base = new URL('/read/', at).href;
    const replies = await Promise.all(Array.from({ length: 90 }, (_, i) => read(`${base}guess-${i}`)));
    const statuses = replies.map(({ status }) => status);
    // Those tried before count too.
    const answered = statuses.filter((status) => status === 404).length;
    expect(answered).toBeGreaterThan(40);
    expect(answered).toBeLessThanOrEqual(60);
    expect(statuses.filter((status) => status === 429)).toHaveLength(90 - answered);
    expect((await read(await share())).status).toBe(200);
  });
});
