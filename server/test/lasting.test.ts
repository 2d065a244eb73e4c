import { stepKinds as k, type ProcedureDocument, type Step } from '@grivo/core';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { Procedures } from '../src/engine/briefState.ts';
import { releaseBrief } from '../src/engine/incidents.ts';
import type { ServiceFor } from '../src/engine/lane.ts';
import { reap } from '../src/engine/reaper.ts';
import { Database } from '../src/ground/store/database.ts';
import { bringBack, goOn, setAside } from '../src/nouns/briefs/rounds.ts';
import { finishCalls } from '../src/nouns/hooks/receive.ts';
import { openHook } from '../src/nouns/hooks/repository.ts';
import { createPipeline, switchPipeline } from '../src/nouns/pipelines/repository.ts';
import { Firing, scheduleLooks } from '../src/nouns/schedules/fire.ts';
import { addKeywords } from '../src/nouns/sources/keywords.ts';
import { refreshSource } from '../src/nouns/sources/refresh.ts';
import { createSource } from '../src/nouns/sources/repository.ts';
import { byHand } from './ground/guards.ts';
import { serve } from './ground/http.ts';
import { type World, world } from './ground/world.ts';

let w: World;
beforeEach(async () => {
  w = await world();
});
afterEach(() => w.close());
const db = () => w.product.ground.db;
const serviceFor: ServiceFor = (...of) => w.product.serviceFor(...of);

/** Phrases into a list and a pipeline of these steps, taken. */
async function taken(phrases: readonly string[], ...then: Step[]): Promise<string[]> {
  const { ground } = w.product;
  const source = await createSource(ground, { kind: 'keywords' }, 'A list');
  await addKeywords(w.product.tools, source, { paste: phrases.join('\n') });
  const document: ProcedureDocument = {
    grivo: 1,
    language: 'en',
    steps: [{ ...k.take.fresh('s1'), sources: [source], most: null }, ...then],
  };
  return w.take(await createPipeline(ground, { name: 'A pipeline', document, person: null }));
}
const written: Step[] = [
  { ...k['lay out'].fresh('s2'), body: 'A text on **{{ subject }}**, long enough to be one.', title: '{{ subject }}' },
];
const publish = (): Step => ({ ...k.publish.fresh('s9'), blog: w.blog, when: 'at once' });
const subjectsBy = async (briefs: string[]) =>
  new Map(
    (await db().rows<{ id: string; subject: string }>('SELECT id, subject FROM brief WHERE id IN (?)', [briefs])).map(
      ({ id, subject }) => [subject, id],
    ),
  );

describe('what the database refuses', () => {
  test('ends as a defect a person sees; the others of its batch go on, and so does it once it is mended', async () => {
    await db().run(
      "CREATE TRIGGER refuses BEFORE INSERT ON output FOR EACH ROW IF NEW.proposed LIKE '%no such glaze%' THEN SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'it does not fit'; END IF",
    );
    await w.product.work('both');
    const phrases = ['ash glaze', 'no such glaze', 'salt firing', 'wheel throwing', 'raku in winter'];
    const briefs = await taken(phrases, {
      ...k['work out'].fresh('s2'),
      expression: '"on " & subject',
      as: 'said',
    });
    const ended = await w.settled(briefs, ['out', 'stopped'], 20_000);
    const refused = (await subjectsBy(briefs)).get('no such glaze')!;
    expect([...ended].filter(([, standing]) => standing === 'stopped')).toEqual([[refused, 'stopped']]);
    const [run] = await db().rows<{ failure: { code: string; message: string }; holder: string | null }>(
      "SELECT failure, holder FROM step_run WHERE brief = ? AND state = 'stopped'",
      [refused],
    );
    expect(run).toMatchObject({ holder: null, failure: { code: 'defect' } });
    expect(run!.failure.message).toContain('it does not fit');
    await db().run('DROP TRIGGER refuses');
    await releaseBrief(w.product.ground, refused);
    await w.product.ringAll();
    await w.settled([refused], ['out'], 20_000);
  });

  test('a title of any length is kept: what an index cannot hold is cut at its edge', async () => {
    await w.product.work('both');
    const title = '{% for i in (1..120) %}Glaze {% endfor %}and the end';
    const [brief] = await taken(['ash glaze'], { ...k['lay out'].fresh('s2'), body: 'A text.', title }, publish());
    await w.settled([brief!], ['out'], 20_000);
    const [page] = await db().rows<{ title: string }>('SELECT title FROM link_page WHERE article IS NOT NULL');
    expect(page!.title).toHaveLength(500);
  });
});

describe('a step that kills or outlives its worker', () => {
  /** Steps in the hands of a worker that is dead by now. */
  async function dead(runs: readonly string[]): Promise<void> {
    const worker = w.product.ground.ids();
    await db().run(
      "INSERT INTO worker (id, role, address, lease_until) VALUES (?, 'worker', '-', DATE_SUB(UTC_TIMESTAMP(3), INTERVAL 1 SECOND))",
      [worker],
    );
    await byHand(
      db(),
      "UPDATE step_run SET state = 'running', lane = NULL, due_at = NULL, holder = ?, attempts = attempts + 1 WHERE id IN (?)",
      [worker, runs],
    );
    await reap(w.product.ground);
  }
  async function inWork(phrases: readonly string[]): Promise<string[]> {
    const briefs = await taken(phrases, { ...k['work out'].fresh('s2'), expression: 'subject', as: 'said' });
    await byHand(db(), "UPDATE brief SET standing = 'in work' WHERE id IN (?)", [briefs]);
    const ids = briefs.map(() => w.product.ground.ids());
    await db().run('INSERT INTO step_run (id, brief, path, round, opens, kind, state, lane, home_lane) VALUES ?', [
      ids.map((id, i) => [id, briefs[i], 's2', 0, 0, 'work out', 'ready', '-:5', '-:5']),
    ]);
    return ids;
  }
  const states = async (ids: string[]) =>
    (
      await db().rows<{ state: string; lost: number; standing: string }>(
        'SELECT r.state, r.lost, b.standing FROM step_run r JOIN brief b ON b.id = r.brief WHERE r.id IN (?) ORDER BY r.id',
        [ids],
      )
    ).map(({ state, lost, standing }) => [state, Number(lost), standing]);

  test('is tried once more, and stopped as a defect at the second death; let go on, it begins afresh', async () => {
    const ids = await inWork(['ash glaze']);
    await dead(ids);
    expect(await states(ids)).toEqual([['ready', 1, 'in work']]);
    await dead(ids);
    expect(await states(ids)).toEqual([['stopped', 2, 'stopped']]);
    const [run] = await db().rows<{ brief: string; failure: { code: string; message: string } }>(
      'SELECT brief, failure FROM step_run WHERE id = ?',
      [ids[0]],
    );
    expect(run!.failure).toMatchObject({ code: 'defect', message: 'its worker died at it 2 times' });
    await releaseBrief(w.product.ground, run!.brief);
    expect(await states(ids)).toEqual([['ready', 0, 'in work']]);
  });

  test('of several that were in hand each is tried apart, so that the next death tells which it was', async () => {
    const ids = await inWork(['ash glaze', 'salt firing', 'raku in winter']);
    await dead(ids);
    await dead(ids);
    expect(await states(ids)).toEqual([
      ['waiting', 2, 'in work'],
      ['waiting', 2, 'in work'],
      ['waiting', 2, 'in work'],
    ]);
    const apart = await db().rows<{ s: number }>(
      'SELECT TIMESTAMPDIFF(SECOND, UTC_TIMESTAMP(3), due_at) AS s FROM step_run WHERE id IN (?) ORDER BY due_at',
      [ids],
    );
    expect(Number(apart[2]!.s) - Number(apart[0]!.s)).toBeGreaterThan(8);
    await dead([ids[1]!]);
    expect(await states([ids[1]!])).toEqual([['stopped', 3, 'stopped']]);
    expect(await states([ids[0]!])).toEqual([['waiting', 2, 'in work']]);
  });
});

describe('what the outside did is always recorded', () => {
  const publications = () =>
    db().rows<{ state: string; address: string | null; standing: string }>(
      'SELECT p.state, p.address, a.standing FROM publication p JOIN article a ON a.id = p.article',
    );
  const posts = async () => {
    const [publication] = await db().rows<{ key_: string }>('SELECT key_ FROM publication');
    return w.standIns
      .received()
      .posts('journal')
      .filter(({ address }) => address.includes(publication!.key_));
  };
  const isTurningLive = async () =>
    (await db().rows("SELECT 1 FROM intent WHERE kind = 'turn live' AND state = 'open'")).length > 0;

  test('set aside while it is being turned live: the post is live, and Grivo says so', async () => {
    await w.product.work('both');
    let brief = '';
    w.standIns.watch(async (point) => {
      if (point === 'blog.received' && (await isTurningLive())) await setAside(w.product.ground, brief);
    });
    [brief] = (await taken(['ash glaze'], ...written, publish())) as [string];
    await w.settled([brief], ['set aside'], 20_000);
    await expect.poll(publications, { timeout: 15_000 }).toMatchObject([{ state: 'live', standing: 'out' }]);
    expect(await posts()).toMatchObject([{ status: 'published', address: (await publications())[0]!.address }]);
  });

  test('set aside while nobody knows what became of the call: it is looked up and recorded afterwards', async () => {
    await w.product.work('both');
    let brief = '';
    const isCreating = async () =>
      (await db().rows("SELECT 1 FROM intent WHERE kind = 'create' AND state = 'open'")).length > 0;
    w.standIns.watch(async (point) => {
      // The call after the draft was created is the one that turns it live.
      if (point === 'blog.acted' && (await isCreating())) w.standIns.trouble('blog', { how: 'cut after' }, 1);
      if (point === 'blog.received' && (await isTurningLive())) await setAside(w.product.ground, brief);
    });
    [brief] = (await taken(['ash glaze'], ...written, publish())) as [string];
    await w.settled([brief], ['set aside'], 20_000);
    await expect.poll(isTurningLive, { timeout: 5_000 }).toBe(true);
    expect(await publications()).toMatchObject([{ state: 'draft', standing: 'set aside' }]);
    await expect.poll(publications, { timeout: 25_000 }).toMatchObject([{ state: 'live', standing: 'out' }]);
    expect(await db().rows("SELECT 1 FROM intent WHERE state = 'open'")).toEqual([]);
  });

  test('run again from ‘write’ after the blog refused it: the new text goes out, not the old', async () => {
    await w.product.work('both');
    w.standIns.trouble('blog', { how: 'key refused' }, 50, '/micropub');
    const steps: Step[] = [
      { ...k['look up'].fresh('s2'), pages: 3 },
      { ...k.outline.fresh('s3'), sections: { from: 1, to: 2 } },
      { ...k.write.fresh('s4'), words: 150 },
      k.title.fresh('s5'),
      publish(),
    ];
    const [brief] = (await taken(['how much salt for sauerkraut'], ...steps)) as [string];
    await w.settled([brief], ['stopped'], 40_000);
    const [before] = await db().rows<{ current: string }>('SELECT current FROM article');
    await w.product.ground.db.transaction((sql) =>
      goOn(sql, w.product.ground, new Procedures(), brief, serviceFor, 's4'),
    );
    await w.product.ringAll();
    await w.settled([brief], ['stopped'], 40_000);
    w.standIns.calm();
    await releaseBrief(w.product.ground, brief);
    await w.product.ringAll();
    await w.settled([brief], ['out'], 40_000);
    const [article] = await db().rows<{ current: string; revision: string }>(
      'SELECT a.current, p.revision FROM article a JOIN publication p ON p.article = a.id',
    );
    expect(article!.revision).not.toBe(before!.current);
    expect(article!.revision).toBe(article!.current);
    expect(await posts()).toHaveLength(1);
  });

  test('stopped at publishing, run again from there, set aside and brought back: it goes out', async () => {
    await w.product.work('both');
    w.standIns.trouble('blog', { how: 'key refused' }, 50, '/micropub');
    const [brief] = (await taken(['ash glaze'], ...written, publish())) as [string];
    await w.settled([brief], ['stopped'], 20_000);
    await w.product.ground.db.transaction((sql) =>
      goOn(sql, w.product.ground, new Procedures(), brief, serviceFor, 's9'),
    );
    await w.product.ringAll();
    await w.settled([brief], ['stopped'], 20_000);
    expect(await setAside(w.product.ground, brief)).toBe(true);
    w.standIns.calm();
    expect(await bringBack(w.product.ground, new Procedures(), brief, serviceFor)).not.toBeNull();
    for (const { id } of await db().rows<{ id: string }>('SELECT id FROM incident WHERE open = 1'))
      await db().run('UPDATE incident SET open = NULL WHERE id = ?', [id]);
    await w.product.ringAll();
    await w.settled([brief], ['out'], 30_000);
    expect(await posts()).toHaveLength(1);
  });
});

describe('small and lasting', () => {
  test('a chore that fails keeps none of those after it from being done', async () => {
    let done = 0;
    const fails = async () => {
      throw new Error('it cannot be done');
    };
    await w.product.work('worker', { upkeep: [fails, async () => done++] });
    await expect.poll(() => done, { timeout: 20_000 }).toBeGreaterThan(0);
  });

  test('the first connection of a pool reads what is committed, like all others', async () => {
    const one = await Database.open((db().source.options as { url: string }).url, 1);
    expect(await one.rows('SELECT @@tx_isolation AS how, @@time_zone AS zone')).toEqual([
      { how: 'READ-COMMITTED', zone: '+00:00' },
    ]);
    await one.close();
  });

  test('an article on two blogs with two slots stands once in the list; held ones are not in work; neighbours by the filter', async () => {
    const briefs = await taken(['ash glaze', 'salt firing', 'raku in winter'], ...written);
    const ids = briefs.map(() => w.product.ground.ids());
    for (const [i, id] of ids.entries())
      await db().run(
        "INSERT INTO article (id, brief, line, blog, family, language, trial, title, words) VALUES (?, ?, '', NULL, ?, 'en', 0, ?, 10)",
        [id, briefs[i], id, `Title ${i}`],
      );
    const other = 'b'.repeat(20);
    for (const blog of [w.blog, other]) {
      await db().run('INSERT INTO placement (article, blog, due_desk) VALUES (?, ?, 5)', [ids[1], blog]);
      await db().run(
        "INSERT INTO publication (id, article, blog, key_, state, as_) VALUES (?, ?, ?, ?, 'planned', 'live')",
        [w.product.ground.ids(), ids[1], blog, blog.slice(0, 8)],
      );
    }
    await byHand(db(), "UPDATE brief SET standing = 'held' WHERE id = ?", [briefs[2]]);
    const http = await serve(w);
    const ask = await http.as('editor');
    const list = async (query: string) =>
      (await ask<{ articles: { id: string }[] }>('GET', `/articles${query}`)).body.articles.map(({ id }) => id);
    expect(await list('')).toEqual([ids[2], ids[1], ids[0]]);
    expect(await list('?standing=in%20work')).toEqual([ids[1], ids[0]]);
    expect(await list('?standing=held')).toEqual([ids[2]]);
    expect(await list(`?blog=${other}`)).toEqual([ids[1]]);
    const beside = async (id: string, query = '') => (await ask('GET', `/articles/${id}/neighbours${query}`)).body;
    expect(await beside(ids[1]!)).toEqual({ newer: ids[2], older: ids[0] });
    expect(await beside(ids[1]!, '?standing=in%20work')).toEqual({ newer: null, older: ids[0] });
    http.close();
  });

  test('what a hook was asked is carried out though its receiver went away in the middle', async () => {
    const { ground, secrets, tools, bell } = w.product;
    const source = await createSource(
      ground,
      { kind: 'hook', signed: false, confirm: false, fields: [] } as never,
      'Till',
    );
    await openHook(ground, secrets, source);
    const list = await createSource(ground, { kind: 'keywords' }, 'A list');
    const pipeline = await createPipeline(ground, {
      name: 'Hooked',
      document: {
        grivo: 1,
        language: 'en',
        steps: [{ ...k.take.fresh('s1'), sources: [source, list], most: null, everyMinutes: null }, ...written],
      },
      person: null,
    });
    await switchPipeline(ground, pipeline, true);
    await addKeywords(tools, list, { paste: 'ash glaze' });
    await db().run('INSERT INTO hook_call (source, key_, body, item, at_desk, run_at) VALUES (?)', [
      [source, 'left', 'd'.repeat(64), null, ground.desk.now(), ground.now() - 60_000],
    ]);
    expect(await finishCalls(tools, bell)).toBe(1);
    expect(await db().rows('SELECT subject FROM brief WHERE pipeline = ?', [pipeline])).toEqual([
      { subject: 'ash glaze' },
    ]);
    const [call] = await db().rows<{ briefs: unknown; run_at: number | null }>('SELECT briefs, run_at FROM hook_call');
    expect(call).toMatchObject({ run_at: null, briefs: [expect.any(String) as string] });
    expect(await finishCalls(tools, bell)).toBe(0);
  });

  test('a look that fails by a fault of ours says so at its source, and is not repeated before its time', async () => {
    const { ground, tools } = w.product;
    const source = await createSource(
      ground,
      { kind: 'sheet', address: `${w.standIns.address}/sheets/stock.csv` } as never,
      'Stock',
    );
    const broken = {
      ...tools,
      ground: {
        ...ground,
        ids: () => {
          throw new Error('a fault of ours');
        },
      },
    };
    let looks = 0;
    const look = async (id: string) => {
      looks++;
      return (await refreshSource(broken, id).catch(() => ({ kind: 'gone' as const }))).kind !== 'busy';
    };
    const pipeline = await createPipeline(ground, {
      name: 'Looks',
      document: {
        grivo: 1,
        language: 'en',
        steps: [{ ...k.take.fresh('s1'), sources: [source], most: null, everyMinutes: 60 }, ...written],
      },
      person: null,
    });
    await scheduleLooks(ground, ground.db, pipeline, 60);
    const firing = new Firing(ground, new Procedures(), look, () => undefined);
    for (let n = 0; n < 4; n++) {
      await firing.due();
      await firing.settled();
    }
    expect(looks).toBe(1);
    const [row] = await db().rows<{ failure: { code: string } }>('SELECT failure FROM source WHERE id = ?', [source]);
    expect(row!.failure.code).toBe('defect');
  });

  test('the same request, still under way after minutes, is told so and not that it ended', async () => {
    const http = await serve(w);
    const ask = await http.as('editor');
    const post = () => ask('POST', '/sources', { name: 'Slow' }, { 'idempotency-key': 'slow-1' });
    expect((await post()).status).toBe(201);
    await db().run(
      'UPDATE idempotency SET status = NULL, body = NULL, at = DATE_SUB(UTC_TIMESTAMP(3), INTERVAL 290 SECOND)',
    );
    expect((await post()).problem.title).toBe('Still being done');
    http.close();
  });

  test('JSON that lies too deep in itself is refused, with a key for repeats or without', async () => {
    const http = await serve(w);
    const ask = await http.as('editor');
    const deep = `{"name":"a","settings":${'['.repeat(200_000)}${']'.repeat(200_000)}}`;
    for (const headers of [{}, { 'idempotency-key': 'deep-1' }])
      expect((await ask('POST', '/sources', deep, headers)).status).toBe(400);
    http.close();
  });

  test('a body too long for a door says the limit of that door', async () => {
    const http = await serve(w);
    const { ground, secrets } = w.product;
    const source = await createSource(
      ground,
      { kind: 'hook', signed: false, confirm: false, fields: [] } as never,
      'Till',
    );
    const { token } = await openHook(ground, secrets, source);
    const answer = await fetch(`${http.address}/hooks/${token}`, { method: 'POST', body: 'x'.repeat(300_000) });
    expect([answer.status, ((await answer.json()) as { detail: string }).detail]).toEqual([
      413,
      'The request is longer than 256 KB.',
    ]);
    http.close();
  });
});
