import { stepKinds } from '@grivo/core';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { createPipeline, switchPipeline } from '../src/nouns/pipelines/repository.ts';
import { signatureOf } from '../src/ports/telling/hook.ts';
import { type Ask, serve } from './ground/http.ts';
import { type World, world } from './ground/world.ts';

let w: World;
let api: Awaited<ReturnType<typeof serve>>;
let owner: Ask;
let editor: Ask;
const k = stepKinds;

const NOTES =
  'A crock of 3 litres takes 2.4 kilograms of shredded cabbage. Salt it at 2 per cent, which is 48 grams. Press it down until the brine stands two centimetres over the leaves. At 18 degrees it is sour after 21 days, at 22 degrees after 12. Skim the white film once a week with a clean spoon and wipe the rim with vinegar. Keep the finished kraut at 6 degrees, where it stays crisp for five months.';

beforeAll(async () => {
  w = await world();
  await w.product.work('both');
  api = await serve(w);
  w.product.tools.publicUrl = api.address;
  w.product.allowed.add(api.address);
  owner = await api.as('owner');
  editor = await api.as('editor');
});
afterAll(async () => {
  api.close();
  await w.close();
});

/** A pipeline that is on and takes what a source is handed at once, making a short article of its notes. */
async function fed(source: string): Promise<string> {
  const { ground } = w.product;
  const id = await createPipeline(ground, {
    name: 'From notes',
    person: null,
    document: {
      grivo: 1,
      language: 'en',
      steps: [
        { ...k.take.fresh('s1'), sources: [source], most: null, everyMinutes: null },
        { ...k.read.fresh('r1'), what: 'the notes' },
        { ...k.outline.fresh('s3'), sections: { from: 1, to: 2 } },
        { ...k.write.fresh('s4'), words: 120 },
        k.title.fresh('s5'),
        k.illustrate.fresh('s6'),
        { ...k.publish.fresh('s9'), blog: w.blog, when: 'at once' },
      ],
    },
  });
  await switchPipeline(ground, id, true);
  return id;
}

async function hook(settings: object = {}): Promise<{ id: string; address: string; secret: Buffer }> {
  const { body } = await editor<{ id: string }>('POST', '/sources', {
    name: 'From the till',
    settings: { kind: 'hook', ...settings },
  });
  const door = await owner<{ address: string; secret: string }>('GET', `/sources/${body.id}/hook`);
  return {
    id: body.id,
    address: door.body.address,
    secret: Buffer.from(door.body.secret.replace('whsec_', ''), 'base64'),
  };
}

interface Called {
  status: number;
  body: { key: string; repeated: boolean; standing: string; ask: string; title: string; detail: string; mend: string };
}

async function call(address: string, body: string, headers: Record<string, string> = {}): Promise<Called> {
  const answer = await fetch(address, {
    method: 'POST',
    headers: { 'content-type': 'application/json', ...headers },
    body,
  });
  return { status: answer.status, body: (await answer.json()) as Called['body'] };
}

const now = () => Math.floor(Date.now() / 1_000);

describe('a hook', () => {
  test('takes a signed item, makes an article of it, and tells its address later', async () => {
    const { id, address, secret } = await hook({ fields: [{ name: 'litres', type: 'number', needed: true }] });
    await fed(id);
    const body = JSON.stringify({ subject: 'A first crock', notes: NOTES, litres: 3 });
    const sent = await call(address, body, signatureOf({ id: 'msg-1', at: now(), body }, secret));
    expect(sent).toMatchObject({ status: 202, body: { key: 'msg-1', repeated: false } });
    // The same once more: nothing is made twice.
    const again = await call(address, body, signatureOf({ id: 'msg-1', at: now(), body }, secret));
    expect(again).toMatchObject({ status: 200, body: { key: 'msg-1', repeated: true } });
    const until = Date.now() + 30_000;
    for (;;) {
      const outcome = (await (await fetch(sent.body.ask)).json()) as {
        standing: string;
        briefs: { article: { title: string; address: string | null } | null }[];
      };
      if (outcome.standing === 'out') {
        expect(outcome.briefs).toHaveLength(1);
        expect((await fetch(outcome.briefs[0]!.article!.address!)).status).toBe(200);
        break;
      }
      if (Date.now() > until) throw new Error(`not out: ${JSON.stringify(outcome)}`);
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
  });

  test('a hundred of one call at once make one item', async () => {
    const { id, address } = await hook({ signed: false });
    const body = JSON.stringify({ subject: 'Once', key: 'k1' });
    const answers = await Promise.all(Array.from({ length: 100 }, () => call(address, body)));
    expect(answers.filter(({ status }) => status === 202)).toHaveLength(1);
    expect(answers.every(({ status }) => status === 202 || status === 200)).toBe(true);
    const items = await editor<{ items: unknown[] }>('GET', `/sources/${id}/items`);
    expect(items.body.items).toHaveLength(1);
  });

  test('what is wrong is said, with what mends it, and nothing is kept', async () => {
    const { id, address, secret } = await hook({ fields: [{ name: 'link2', type: 'address', needed: false }] });
    const body = JSON.stringify({ subject: 'A crock' });
    const signed = signatureOf({ id: 'a', at: now(), body }, secret);
    const cases: [string, string, Record<string, string>, number, RegExp][] = [
      ['not signed', body, {}, 401, /not signed/],
      [
        'by another secret',
        body,
        signatureOf({ id: 'a', at: now(), body }, Buffer.from('x'.repeat(24))),
        401,
        /signature is wrong/,
      ],
      ['changed on the way', body.replace('crock', 'clock'), signed, 401, /signature is wrong/],
      ['played again later', body, signatureOf({ id: 'a', at: now() - 900, body }, secret), 401, /5 minutes off/],
    ];
    for (const [name, text, headers, status, says] of cases) {
      const answer = await call(address, text, headers);
      expect(answer.status, name).toBe(status);
      expect(answer.body.detail, name).toMatch(says);
      expect(answer.body.mend, name).toMatch(/\.$/);
    }
    for (const [text, says] of [
      ['no json', /not JSON/],
      [JSON.stringify({ notes: 'x' }), /subject/],
      [JSON.stringify({ subject: 'A', colour: 'red' }), /colour: there is no such field/],
      [JSON.stringify({ subject: 'A', link2: 'nowhere' }), /link2: is not an address/],
      [JSON.stringify({ subject: 'A', link: 'javascript:alert(1)' }), /link/],
      [JSON.stringify([1, 2]), /call/],
    ] as const) {
      const answer = await call(address, text, signatureOf({ id: 'b', at: now(), body: text }, secret));
      expect(answer.status, text).toBe(422);
      expect(answer.body.detail, text).toMatch(says);
    }
    const long = JSON.stringify({ subject: 'A', notes: 'x'.repeat(300_000) });
    expect((await call(address, long, signatureOf({ id: 'c', at: now(), body: long }, secret))).status).toBe(413);
    expect((await call(`${address}x`, body)).status).toBe(404);
    const items = await editor<{ items: unknown[] }>('GET', `/sources/${id}/items`);
    expect(items.body.items).toHaveLength(0);
  });

  test('one key for two calls is refused; a renewed address makes the old one worthless', async () => {
    const { id, address } = await hook({ signed: false });
    await call(address, JSON.stringify({ subject: 'One', key: 'same' }));
    expect((await call(address, JSON.stringify({ subject: 'Two', key: 'same' }))).status).toBe(409);
    await owner('POST', `/sources/${id}/hook/renew`);
    expect((await call(address, JSON.stringify({ subject: 'Three' }))).status).toBe(404);
  });

  test('a hook that asks first waits for a person, then goes at once', async () => {
    const { id, address } = await hook({ signed: false, confirm: true });
    await fed(id);
    const sent = await call(address, JSON.stringify({ subject: 'To be confirmed', notes: NOTES, key: 'c' }));
    expect(sent.body.standing).toBe('waiting to be confirmed');
    const items = await editor<{ items: { id: string; leftOut: string }[] }>('GET', `/sources/${id}/items`);
    expect(items.body.items[0]!.leftOut).toBe('to confirm');
    await editor('POST', `/sources/${id}/offer`, { items: [items.body.items[0]!.id], offer: true });
    const outcome = (await (await fetch(sent.body.ask)).json()) as { briefs: { id: string }[] };
    expect(outcome.briefs).toHaveLength(1);
    await w.settled([outcome.briefs[0]!.id], ['out']);
  });

  test('‘run’ has the pipelines of the hook look and take', async () => {
    const { id, address } = await hook({ signed: false, confirm: true });
    await fed(id);
    const run = await call(address, JSON.stringify({ run: true, key: 'run-1' }));
    expect(run.status).toBe(202);
    expect((await call(address, JSON.stringify({ run: true, key: 'run-1' }))).body.repeated).toBe(true);
  });
});

test('a request typed in is taken at once by the pipeline that is fed by it', async () => {
  const { body } = await editor<{ id: string }>('POST', '/sources', {
    name: 'Asked for',
    settings: { kind: 'requests' },
  });
  const pipeline = await fed(body.id);
  const put = await editor('POST', `/sources/${body.id}/requests`, { subject: 'What a beginner needs', notes: NOTES });
  expect(put.status).toBe(201);
  const [brief] = await w.product.ground.db.rows<{ id: string }>('SELECT id FROM brief WHERE pipeline = ?', [pipeline]);
  await w.settled([brief!.id], ['out']);
  expect((await editor('POST', `/sources/${body.id}/requests`, { subject: ' ' })).status).toBe(422);
});

test('words that leave subjects out hold for what is handed in, at once and when they are changed', async () => {
  const { id, address } = await hook({ signed: false, exclude: ['cheap'] });
  const pipeline = await fed(id);
  expect((await call(address, JSON.stringify({ subject: 'Cheap crocks', notes: NOTES }))).body.standing).toBe(
    'left out',
  );
  const briefs = await w.product.ground.db.rows('SELECT 1 FROM brief WHERE pipeline = ?', [pipeline]);
  expect(briefs).toHaveLength(0);
  const settings = { kind: 'hook', signed: false, exclude: [] };
  expect((await editor('PUT', `/sources/${id}`, { settings }, { 'if-match': '"1"' })).status).toBe(200);
  const { body } = await editor<{ items: { leftOut: string | null }[] }>('GET', `/sources/${id}/items`);
  expect(body.items.map(({ leftOut }) => leftOut)).toEqual([null]);
});

describe('a feed whose hub pushes', () => {
  test('is subscribed to at the first look; what is pushed comes in without another', async () => {
    const { body } = await editor<{ id: string }>('POST', '/sources', {
      name: 'News',
      settings: { kind: 'feed', feeds: [{ address: `${w.standIns.address}/news/brine-gazette/feed` }] },
    });
    await editor('POST', `/sources/${body.id}/look`);
    const until = Date.now() + 10_000;
    while (w.standIns.news.subscribers().length === 0) {
      if (Date.now() > until) throw new Error('the hub was not asked');
      await new Promise((resolve) => setTimeout(resolve, 30));
    }
    // Looked at again: the lease runs on, and the hub is left alone.
    await editor('POST', `/sources/${body.id}/look`);
    const before = await editor<{ items: unknown[] }>('GET', `/sources/${body.id}/items`);
    const told = await w.standIns.news.publish('brine-gazette', {
      slug: 'pushed-piece',
      title: 'A piece that was pushed',
      day: '2026-11-20',
      author: 'Jo Harnett',
      paragraphs: [NOTES],
    });
    expect(told).toBe(1);
    for (;;) {
      const after = await editor<{ items: { subject: string }[] }>('GET', `/sources/${body.id}/items`);
      if (after.body.items.length === before.body.items.length + 1) {
        expect(after.body.items.map(({ subject }) => subject)).toContain('A piece that was pushed');
        break;
      }
      if (Date.now() > until) throw new Error('what was pushed did not come in');
      await new Promise((resolve) => setTimeout(resolve, 50));
    }
  });

  test('what is not signed by the hub’s secret changes nothing', async () => {
    const { callback } = w.standIns.news.subscribers()[0]!;
    const looks = async () => (await w.product.ground.db.rows<{ n: number }>('SELECT COUNT(*) AS n FROM look'))[0]!.n;
    // The look that was pushed for is written down when it is over.
    await expect
      .poll(() => w.product.ground.db.rows('SELECT id FROM source WHERE looking_until IS NOT NULL'), {
        timeout: 10_000,
      })
      .toEqual([]);
    const before = await looks();
    for (const signature of ['', 'sha256=00', 'md5=00'])
      expect(
        (await fetch(callback, { method: 'POST', headers: { 'x-hub-signature': signature }, body: 'x' })).status,
      ).toBe(202);
    expect(await looks()).toBe(before);
    const verify = `${callback}?hub.mode=subscribe&hub.topic=other&hub.challenge=c`;
    expect((await fetch(verify)).status).toBe(404);
  });
});

describe('keys', () => {
  test('each does what its scope says, and nothing once it is revoked', async () => {
    const make = async (scope: string) =>
      (await owner<{ id: string; key: string }>('POST', '/keys', { name: scope, scope })).body;
    const [look, handIn, edit] = await Promise.all([make('look'), make('hand in'), make('edit')]);
    const asked = (key: string, method: string, path: string, body?: unknown) =>
      api.stranger(method, path, body, { authorization: `Bearer ${key}` });
    const { body: source } = await editor<{ id: string }>('POST', '/sources', {
      name: 'Asked',
      settings: { kind: 'requests' },
    });
    const request = { subject: 'From a program' };
    expect((await asked(look!.key, 'GET', '/sources')).status).toBe(200);
    expect((await asked(look!.key, 'POST', `/sources/${source.id}/requests`, request)).status).toBe(403);
    expect((await asked(handIn!.key, 'POST', `/sources/${source.id}/requests`, request)).status).toBe(201);
    expect((await asked(handIn!.key, 'POST', '/sources', { name: 'x' })).status).toBe(403);
    expect((await asked(edit!.key, 'POST', '/sources', { name: 'x' })).status).toBe(201);
    // No key does what only an owner may.
    expect((await asked(edit!.key, 'GET', '/keys')).status).toBe(403);
    expect((await asked('grivo_none', 'GET', '/sources')).status).toBe(401);
    expect((await owner('DELETE', `/keys/${edit!.id}`)).status).toBe(204);
    expect((await asked(edit!.key, 'GET', '/sources')).status).toBe(401);
    const listed = await owner<{ keys: { name: string; revoked: string | null; used: string | null }[] }>(
      'GET',
      '/keys',
    );
    expect(JSON.stringify(listed.body)).not.toContain(look!.key);
    expect(listed.body.keys.find(({ name }) => name === 'edit')!.revoked).not.toBeNull();
    expect(listed.body.keys.find(({ name }) => name === 'look')!.used).not.toBeNull();
  });
});
