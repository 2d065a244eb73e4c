import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { blogTarget } from '../src/nouns/blogs/repository.ts';
import type { BlogPort, BlogTarget, Post } from '../src/ports/blogs/blog.ts';
import { PretendBlog } from './ground/pretendBlog.ts';
import { type World, world } from './ground/world.ts';

let w: World;
beforeAll(async () => {
  w = await world();
});
afterAll(() => w.close());

/** Every way to a blog there is, the one of the tests too: what is tried with it is as the others are. */
const WAYS: [string, () => Promise<{ port: BlogPort; blog: BlogTarget }>][] = [
  [
    'micropub',
    async () => {
      const blog = (await blogTarget(w.product.ground.db, w.blog))!;
      return { port: w.product.tools.blogs(blog), blog };
    },
  ],
  [
    'pretended',
    async () => ({
      port: new PretendBlog('pretended', ['drafts', 'find', 'update', 'withdraw', 'media', 'categories']),
      blog: { id: 'p', way: 'p', endpoint: '', mediaEndpoint: null, secret: null, timeLimitMs: 1_000 },
    }),
  ],
];

const post = (slug: string, more: Partial<Post> = {}): Post => ({
  name: 'Rehairing a bow',
  html: '<p>Comb the hair <em>wet</em>.</p>',
  summary: 'How it is done.',
  slug,
  categories: ['bows'],
  photo: null,
  ...more,
});
const signal = new AbortController().signal;

describe.each(WAYS)('a blog by the way called %s', (_, open) => {
  let port: BlogPort;
  let blog: BlogTarget;
  let address: string;
  const value = <T>(effect: { kind: string; value?: T }) => {
    expect(effect).toMatchObject({ kind: 'done' });
    return effect.value!;
  };
  const there = async () => {
    const read = await port.read(blog, address, signal);
    return read.ok ? read.value : read;
  };
  beforeAll(async () => {
    ({ port, blog } = await open());
    address = value(await port.create(blog, post('rehairing-k3y'), 'draft', signal));
  });

  test('says what it can', () => {
    for (const one of ['drafts', 'find', 'update', 'withdraw'] as const) expect(port.can(blog)).toContain(one);
  });

  test('keeps a draft as a draft, found by the key in its address and by nothing less', async () => {
    expect(await there()).toMatchObject({ status: 'draft', name: 'Rehairing a bow' });
    expect(await port.find(blog, 'k3y', 0, signal)).toEqual({ ok: true, value: address });
    expect(await port.find(blog, 'k3', 0, signal)).toEqual({ ok: true, value: null });
  });

  test('turns it live, twice with no harm', async () => {
    for (let i = 0; i < 2; i++) address = value(await port.turnLive(blog, address, '2026-11-28T10:00:00.000Z', signal));
    expect(await there()).toMatchObject({ status: 'published' });
  });

  test('shows what a change says, and gives it back as it was sent', async () => {
    const changed = post('rehairing-k3y', { name: 'Rehairing a cello bow', html: '<p>It takes more.</p>' });
    for (let i = 0; i < 2; i++) address = value(await port.update(blog, address, changed, signal));
    expect(await there()).toMatchObject({ status: 'published', name: changed.name, html: changed.html });
  });

  test('has nothing there once it is withdrawn, and cannot change it then', async () => {
    value(await port.withdraw(blog, address, signal));
    expect(await there()).toBeNull();
    expect(await port.find(blog, 'k3y', 0, signal)).toEqual({ ok: true, value: null });
    expect((await port.update(blog, address, post('x'), signal)).kind).toBe('not done');
  });
});

test('a change by Micropub takes away what the post no longer has', async () => {
  const { port, blog } = await WAYS[0]![1]();
  const photo = { address: `${w.standIns.address}/p.webp`, alternative: 'A bow' };
  const made = await port.create(blog, post('pictured', { photo }), 'published', signal);
  if (made.kind !== 'done') throw new Error(made.kind);
  const site = w.standIns.blog('journal');
  const kept = async () => {
    const reply = await fetch(`${site.endpoint}?q=source&url=${encodeURIComponent(made.value)}`, {
      headers: { authorization: `Bearer ${site.token}`, accept: 'application/json' },
    });
    return ((await reply.json()) as { properties: Record<string, unknown[]> }).properties;
  };
  expect(await kept()).toMatchObject({ category: ['bows'], photo: [expect.anything()] });
  await port.update(blog, made.value, post('pictured', { categories: [] }), signal);
  const { category = [], photo: picture = [] } = await kept();
  expect([category, picture]).toEqual([[], []]);
});
