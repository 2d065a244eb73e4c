import { execFileSync } from 'node:child_process';
import { chmodSync, mkdirSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import { createServer as createSecure } from 'node:https';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { BlogWay, TestLine } from '@grivo/contract';
import { MISTAKES } from '@grivo/core';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { testBlog } from '../src/nouns/blogs/connect.ts';
import { createBlog } from '../src/nouns/blogs/create.ts';
import { discoverBlog } from '../src/nouns/blogs/discover.ts';
import { getBlog } from '../src/nouns/blogs/repository.ts';
import { DAILY, type World, world } from './ground/world.ts';

let w: World;
let folder: string;
const closers: (() => Promise<unknown>)[] = [];
const origins: string[] = [];
/** Servers are made before the product is, which is told that they may be called. */
const made: Record<string, string> = {};

type Handler = (request: IncomingMessage, response: ServerResponse, body: string) => void;

async function serve(handle: Handler, secure?: { key: string; cert: string }): Promise<string> {
  const taken: Handler = (request, response) => {
    const parts: Buffer[] = [];
    request.on('data', (part: Buffer) => parts.push(part));
    request.on('end', () => handle(request, response, Buffer.concat(parts).toString('utf8')));
  };
  const listener = taken as (request: IncomingMessage, response: ServerResponse) => void;
  const server = secure ? createSecure(secure, listener) : createServer(listener);
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  closers.push(() => {
    server.closeAllConnections();
    return new Promise((resolve) => server.close(resolve));
  });
  const origin = `${secure ? 'https' : 'http'}://127.0.0.1:${(server.address() as AddressInfo).port}`;
  origins.push(origin);
  return origin;
}

const json = (response: ServerResponse, status: number, body: object, headers: Record<string, string> = {}) => {
  response.writeHead(status, { 'content-type': 'application/json', ...headers });
  response.end(JSON.stringify(body));
};
const page = (response: ServerResponse, status: number, body: string) => {
  response.writeHead(status, { 'content-type': 'text/html' });
  response.end(`<!doctype html><html lang="en"><head><title>Bows</title></head><body>${body}</body></html>`);
};

const slugs: string[] = [];

/** A Micropub blog in memory that does one thing wrong. */
const almost =
  (wrong: Handler): Handler =>
  (request, response, body) => {
    const at = new URL(request.url ?? '/', 'http://b');
    const done = () => response.writableEnded;
    wrong(request, response, body);
    if (done() || response.writableNeedDrain || (response as { hangs?: boolean }).hangs) return;
    if (at.searchParams.get('q') === 'config') return json(response, 200, { 'media-endpoint': '/media' });
    if (at.searchParams.get('q') === 'category') return json(response, 200, { categories: [] });
    if (at.searchParams.has('url'))
      return json(response, 200, { properties: { 'post-status': ['draft'], name: ['A'] } });
    const origin = `http://${request.headers.host}`;
    if (at.searchParams.get('q') === 'source')
      return json(response, 200, {
        items: slugs.map((slug) => ({ properties: { url: [`${origin}/posts/${slug}`] } })),
        paging: {},
      });
    const slug = /"mp-slug":\["([^"]+)"/.exec(body)?.[1];
    if (slug) slugs.push(slug);
    response.writeHead(201, { location: `${origin}/posts/${slug ?? 'x'}` });
    response.end();
  };

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'sites-'));
  const keys = join(folder, 'keys');
  mkdirSync(keys);
  execFileSync(
    'openssl',
    [
      'req',
      '-x509',
      '-newkey',
      'rsa:2048',
      '-nodes',
      '-days',
      '1',
      '-subj',
      '/CN=bows.example',
      '-keyout',
      join(keys, 'key'),
      '-out',
      join(keys, 'cert'),
    ],
    { stdio: 'ignore' },
  );
  const secure = { key: readFileSync(join(keys, 'key'), 'utf8'), cert: readFileSync(join(keys, 'cert'), 'utf8') };
  const standing: Record<string, Handler> = {
    'wrong folder': almost((_, response) => page(response, 404, 'Not found')),
    'empty answer': almost((_, response) => {
      response.writeHead(200, { 'content-type': 'application/json' });
      response.end();
    }),
    'may only read': almost((request, response) => {
      if (request.method === 'POST') json(response, 403, { error: 'insufficient_scope' });
    }),
    'secret expired': almost((_, response) =>
      json(response, 401, { error: 'invalid_token', error_description: 'The token expired' }),
    ),
    'secret unknown': almost((_, response) => json(response, 401, { error: 'unauthorized' })),
    'a page instead of an answer': almost((_, response) => page(response, 200, 'Welcome to Bows')),
    'addresses not rewritten': almost((request, response) => {
      if (!(request.url ?? '').startsWith('/bows?') && request.url !== '/bows')
        page(response, 404, 'The requested URL was not found on this server.');
    }),
    firewall: almost((_, response) => page(response, 403, 'Your request was blocked by our web application firewall.')),
    'too old': almost((_, response) => {
      response.writeHead(405, { allow: 'GET' });
      response.end();
    }),
    'pictures refused': almost((request, response) => {
      if (request.url === '/media') json(response, 413, {});
    }),
    clock: almost((_, response) =>
      json(
        response,
        401,
        { error: 'unauthorized', error_description: 'the call is too old' },
        { date: 'Sun, 06 Nov 1994 08:49:37 GMT' },
      ),
    ),
    'no answer in time': almost((_, response) => {
      (response as { hangs?: boolean }).hangs = true;
    }),
  };
  for (const [name, handle] of Object.entries(standing)) made[name] = await serve(handle);
  made['certificate'] = await serve(
    almost(() => undefined),
    secure,
  );
  made['rpc'] = await serve((_, response) => {
    response.writeHead(200, { 'content-type': 'text/xml' });
    response.end(
      '<?xml version="1.0"?><methodResponse><fault><value><struct><member><name>faultCode</name><value><int>403</int></value></member><member><name>faultString</name><value><string>Incorrect username or password.</string></value></member></struct></value></fault></methodResponse>',
    );
  });
  made['safe'] = await serve(
    almost((request, response) => {
      if ((request.url ?? '').startsWith('/old')) {
        response.writeHead(308, {
          location: `http://${request.headers.host}${(request.url ?? '').replace('/old', '/new')}`,
        });
        response.end();
      }
    }),
  );
  w = await world('one', { folders: [folder], allowedOrigins: [] });
  for (const origin of [...origins, w.standIns.address, 'http://127.0.0.1:9', 'http://no-such-host.invalid'])
    w.product.allowed.add(origin);
});
afterAll(async () => {
  await w.close();
  for (const close of closers) await close();
  chmodSync(folder, 0o755);
  rmSync(folder, { recursive: true, force: true });
});

async function tried(way: BlogWay, address: string, endpoint: string, more: object = {}): Promise<TestLine[]> {
  const blog = await createBlog(w.product.tools, {
    name: 'Bows',
    address,
    way,
    endpoint,
    secret: 'rosin',
    language: 'en',
    cadence: DAILY,
    timeLimitMs: 1_000,
    ...more,
  });
  if (blog.kind !== 'made') throw new Error(blog.problem);
  return (await testBlog(w.product, blog.id))!;
}

describe('each usual mistake has a sentence and a mend of its own', () => {
  const asked: [keyof typeof MISTAKES, () => Promise<TestLine[]>][] = [
    ...(
      [
        'wrong folder',
        'empty answer',
        'may only read',
        'secret expired',
        'secret unknown',
        'a page instead of an answer',
        'firewall',
        'too old',
        'pictures refused',
        'clock',
        'no answer in time',
        'certificate',
      ] as const
    ).map((name): [keyof typeof MISTAKES, () => Promise<TestLine[]>] => [
      name,
      () => tried('micropub', 'https://bows.example', made[name]!),
    ]),
    [
      'addresses not rewritten',
      () =>
        tried('micropub', `${made['addresses not rewritten']}/bows`, `${made['addresses not rewritten']}/bows/posting`),
    ],
    ['unknown host', () => tried('micropub', 'https://bows.example', 'http://no-such-host.invalid/micropub')],
    ['no connection', () => tried('micropub', 'https://bows.example', 'http://127.0.0.1:9/micropub')],
    [
      'wrong user',
      () => tried('xml-rpc', 'https://bows.example', made['rpc']!, { settings: { user: 'ines', blogId: '1' } }),
    ],
  ];
  const seen = new Set<string>();
  test.each(asked)('%s', async (mistake, act) => {
    const wrong = (await act()).find(({ well }) => !well);
    expect(wrong?.came).toContain(MISTAKES[mistake].sentence);
    expect(wrong?.change).toBe(MISTAKES[mistake].mend);
    seen.add(wrong!.came.slice(0, 30) + wrong!.change);
  });
  test('no two are alike', () => expect(seen.size).toBe(asked.length));

  test('a folder that is gone, or may not be written to, or lies elsewhere', async () => {
    const gone = await createBlog(w.product.tools, {
      name: 'Notes',
      address: 'https://n.example',
      way: 'folder',
      endpoint: 'notes',
      secret: '',
      language: 'en',
      cadence: DAILY,
      timeLimitMs: 1_000,
    });
    if (gone.kind !== 'made') throw new Error(gone.problem);
    expect((await testBlog(w.product, gone.id))!.every(({ well }) => well)).toBe(true);
    rmSync(join(folder, 'notes'), { recursive: true });
    const lines = (await testBlog(w.product, gone.id))!;
    expect(lines.find(({ well }) => !well)).toMatchObject({ change: MISTAKES['no folder'].mend });
    for (const endpoint of ['/etc', '../outside', `${folder}/../x`])
      expect(
        await createBlog(w.product.tools, {
          name: 'N',
          address: 'https://n.example',
          way: 'folder',
          endpoint,
          secret: '',
          language: 'en',
          cadence: DAILY,
          timeLimitMs: 1_000,
        }),
      ).toMatchObject({ kind: 'unfit', place: 'endpoint' });
  });

  test('an address that has moved on the same host is followed, and kept', async () => {
    const blog = await createBlog(w.product.tools, {
      name: 'Moved',
      address: 'https://m.example',
      endpoint: `${made['safe']}/old`,
      secret: 'rosin',
      language: 'en',
      cadence: DAILY,
      timeLimitMs: 1_000,
    });
    if (blog.kind !== 'made') throw new Error(blog.problem);
    const [first] = (await testBlog(w.product, blog.id))!;
    expect(first).toMatchObject({ well: true, came: expect.stringContaining('/new') });
    expect((await getBlog(w.product.ground.db, blog.id))!.endpoint).toContain('/new');
  });
});

describe('a blog is found from a sloppy address', () => {
  const at = (path = '') => `${w.standIns.blog('journal').address}${path}`;
  const found = async (typed: string) => {
    const blog = await discoverBlog(w.product.tools, typed);
    if ('failed' in blog) throw new Error(blog.failed);
    return blog;
  };
  test('its front page names every way', async () => {
    const { ways, name, language } = await found(at());
    expect(ways.map(({ way }) => way)).toEqual(['micropub', 'atom', 'xml-rpc']);
    expect(ways[2]!.settings).toEqual({ blogId: 'journal' });
    expect([name, language]).toEqual(['Crockhaven Journal', 'en']);
  });
  test('a stroke at the end, a page of it and its administration lead there, and it is said', async () => {
    for (const path of ['/', '/no-such-post', '/admin/login']) {
      const { ways, address } = await found(at(path));
      expect(ways).toHaveLength(3);
      expect(address.replace(/\/$/, '')).toBe(at());
    }
    expect((await found(at('/admin/login'))).notes[0]).toMatch(/That is a page of the blog/);
  });
  test('the place posts go to is told from the blog, for each way', async () => {
    const { endpoint, atom, rpc } = w.standIns.blog('journal');
    for (const [typed, way] of [
      [endpoint, 'micropub'],
      [atom, 'atom'],
      [rpc, 'xml-rpc'],
    ] as const) {
      const { ways, notes, name } = await found(typed);
      expect(ways[0]).toMatchObject({ way, endpoint: typed });
      expect(notes[0]).toMatch(/not the blog itself/);
      expect(name).toBe('Crockhaven Journal');
    }
  });
  test('what cannot be reached says why, and what mends it', async () => {
    expect(await discoverBlog(w.product.tools, 'http://no-such-host.invalid/')).toMatchObject({
      failed: MISTAKES['unknown host'].sentence,
    });
    expect(await discoverBlog(w.product.tools, 'http://127.0.0.1:9/')).toMatchObject({
      failed: MISTAKES['no connection'].sentence,
    });
    expect(await discoverBlog(w.product.tools, made['firewall']!)).toMatchObject({
      failed: MISTAKES.firewall.sentence,
    });
  });
});
