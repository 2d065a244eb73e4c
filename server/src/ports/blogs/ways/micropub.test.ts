import { randomBytes } from 'node:crypto';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterEach, expect, test } from 'vitest';
import { Secrets } from '../../../ground/config/secrets.ts';
import { Network } from '../../../ground/network/network.ts';
import type { BlogTarget } from '../blog.ts';
import { Micropub } from './micropub.ts';

const secrets = new Secrets(randomBytes(32));
const open: (() => Promise<unknown>)[] = [];
afterEach(async () => {
  for (const close of open.splice(0)) await close();
});

interface Listed {
  name: string;
  published?: string;
}

/** A blog that lists its posts, in pages or the first hundred of them. */
async function listing(posts: readonly Listed[], paged: boolean) {
  const asked: string[] = [];
  const server = createServer((request, response) => {
    const query = new URL(request.url ?? '', 'http://blog').searchParams;
    asked.push(query.get('after') ?? '');
    const from = Number(query.get('after') ?? 0);
    const shown = posts.slice(from, from + 100);
    const items = shown.map(({ name, published }) => ({
      type: ['h-entry'],
      properties: { url: [`http://blog.example/${name}`], ...(published ? { published: [published] } : {}) },
    }));
    const more = from + 100 < posts.length ? { after: String(from + 100) } : {};
    response.setHeader('content-type', 'application/json');
    response.end(JSON.stringify({ items, ...(paged ? { paging: more } : {}) }));
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const address = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  const network = new Network(() => true);
  open.push(
    () => new Promise((resolve) => server.close(resolve)),
    () => network.close(),
  );
  const blog = {
    id: 'b',
    endpoint: address,
    mediaEndpoint: null,
    secret: secrets.seal('token'),
    timeLimitMs: 2_000,
  } as unknown as BlogTarget;
  const micropub = new Micropub({ network, secrets, now: Date.now, desk: Date.now });
  const find = (key: string, since = 0) => micropub.find(blog, key, since, new AbortController().signal);
  return { find, asked };
}

const many = (n: number, dated = false): Listed[] =>
  Array.from({ length: n }, (_, i) => ({
    name: `post-${i}`,
    ...(dated ? { published: new Date(Date.UTC(2026, 5, 1) - i * 3_600_000).toISOString() } : {}),
  }));

test('a post is found however many newer ones there are, and what is on no page is not there', async () => {
  const { find, asked } = await listing([...many(250), { name: 'crock-k3y' }], true);
  expect(await find('k3y')).toMatchObject({ ok: true, value: { address: 'http://blog.example/crock-k3y' } });
  expect(asked).toEqual(['', '100', '200']);
  expect(await find('nothing')).toEqual({ ok: true, value: null });
});

test('without pages a short list is all there is, and a long one tells as far as it reaches back', async () => {
  expect(await (await listing(many(99), false)).find('k3y')).toEqual({ ok: true, value: null });
  const dated = await listing(many(300, true), false);
  // The hundred shown reach back four days.
  expect(await dated.find('k3y', Date.UTC(2026, 4, 31))).toEqual({ ok: true, value: null });
  const unsure = { ok: false, failure: { code: 'outcome-unfindable', service: 'b', action: 'create' } };
  expect(await dated.find('k3y', Date.UTC(2026, 4, 1))).toEqual(unsure);
  expect(await (await listing(many(300), false)).find('k3y', Date.UTC(2026, 4, 31))).toEqual(unsure);
});
