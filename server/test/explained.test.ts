import { stepKinds } from '@grivo/core';
import type { QueryRunner } from 'typeorm';
import { beforeAll, expect, test } from 'vitest';
import { allRoutes } from '../src/api/app.ts';
import type { Database } from '../src/ground/store/database.ts';
import { atTheDesk, type Desk } from './ground/desk.ts';

const BRIEFS = 6_000;
const ITEMS = 40_000;
/** Rows a statement may look at without an index; a setting, a list of blogs or a page of a list has fewer. */
const MOST_ROWS = 2_500;
/** Rows a statement may look at in all, where it is not one that ends after a page. */
const MOST_LOOKED = 20_000;

let desk: Desk;
atTheDesk((one) => {
  desk = one;
});

/** Every statement that is sent from now on, with the parameters it had first. */
function listen({ source }: Database): Map<string, unknown[]> {
  const heard = new Map<string, unknown[]>();
  const make = source.createQueryRunner.bind(source);
  source.createQueryRunner = (...given: Parameters<typeof make>) => {
    const runner = make(...given);
    const query = runner.query.bind(runner) as (text: string, parameters?: unknown[]) => Promise<unknown>;
    runner.query = ((text: string, parameters?: unknown[]) => {
      const shape = text.replace(/\s+/g, ' ').trim();
      if (/^\(?(?:SELECT|UPDATE|DELETE)\b/i.test(shape) && !heard.has(shape)) heard.set(shape, parameters ?? []);
      return query(text, parameters);
    }) as QueryRunner['query'];
    return runner;
  };
  return heard;
}

interface Plan {
  id: number;
  table: string | null;
  type: string | null;
  key: string | null;
  rows: number | string | null;
  Extra: string | null;
}

/** Tables of a plan that are read from end to end though they are large. */
async function scans(db: Database, text: string, parameters: unknown[]): Promise<string[]> {
  const plan = await db.rows<Plan>(`EXPLAIN ${text}`, parameters);
  // A loop within a loop looks at as many rows as all of them together, however good each index is.
  const selects = new Map<number, number>();
  for (const { id, table, type, rows } of plan)
    if (table !== null && type !== null) selects.set(id, (selects.get(id) ?? 1) * Math.max(1, Number(rows ?? 1)));
  const looked = Math.max(0, ...selects.values());
  const sorts = plan.some(({ Extra }) => /filesort|temporary/.test(Extra ?? ''));
  const loops = looked > MOST_LOOKED && (sorts || !/\bLIMIT\b/.test(text)) ? [`about ${looked} rows`] : [];
  const ends = plan
    .filter(({ type }) => type === 'ALL' || type === 'index')
    .filter(({ table, rows }) => table !== null && !table.startsWith('<') && Number(rows) > MOST_ROWS)
    .map(({ table, type, rows, key }) => `${table} ${type} ${key ?? ''} ${rows}`);
  return [...ends, ...loops];
}

const k = stepKinds;
let heard: Map<string, unknown[]>;
const failed: string[] = [];

beforeAll(async () => {
  const { w, ask } = desk;
  const { db } = w.product.ground;
  const pipeline = await w.pipeline(['how much salt for sauerkraut'], (steps) =>
    steps.map((step) => (step.kind === 'publish' ? { ...step, when: 'next free slot' as const } : step)),
  );
  const [brief] = await w.take(pipeline);
  await w.settled([brief!], ['ready', 'out']);
  await w.product.ground.desk.set(w.product.ground.desk.now() + 3 * 86_400_000, 0);
  await w.settled([brief!], ['out']);
  const { sources } = (await ask<{ sources: { id: string }[] }>('GET', '/sources')).body;
  const source = sources[0]!.id;
  const { fillStore } = (await import('../../scripts/bench/fill.mjs' as string)) as {
    fillStore: (db: Database, of: object) => Promise<void>;
  };
  await fillStore(db, { brief, source, briefs: BRIEFS, items: ITEMS });
  heard = listen(db);

  // Everything that is read, as it is asked for.
  const article = (await ask<{ articles: { id: string }[] }>('GET', '/articles')).body.articles[0]!.id;
  const run = (await ask<{ runs: { id: string }[] }>('GET', `/briefs/${brief}`)).body.runs[0]!.id;
  const item = (await ask<{ items: string[] }>('GET', `/briefs/${brief}`)).body.items[0]!;
  const ids: Record<string, string> = {
    articles: article,
    blogs: w.blog,
    briefs: brief!,
    pipelines: pipeline,
    runs: run,
  };
  Object.assign(ids, { items: item, sources: source, services: w.writer });
  for (const route of allRoutes(w.product).filter(({ method }) => method === 'get')) {
    const [, noun] = route.path.split('/');
    const path = route.path
      .replace('{id}', ids[noun!] ?? 'none')
      .replace('{n}', '1')
      .replace('{step}', 's4')
      .replace('{run}', run)
      .replace('{digest}', 'f'.repeat(64));
    for (const query of ['', ...(FILTERS[route.path] ?? [])])
      await ask('GET', `${path}${query}`).catch(() => undefined);
  }
  await ask('GET', `/pipelines/${pipeline}/offered`);
  // Everything that is done: taken, made, held, passed, set aside, brought back, made again, published, removed.
  const other = await w.pipeline(
    ['kahm yeast or mould', 'salted plums', 'choosing a crock'],
    ([take, look, outline, write, title, , , check, publish]) => [
      take!,
      look!,
      outline!,
      { ...write!, hold: true },
      title!,
      { ...k.keep.fresh('s20') },
      check!,
      publish!,
    ],
  );
  const taken = await w.take(other);
  await w.settled(taken, ['held', 'stopped', 'set aside']);
  const many = (act: string, briefs: string[]) => ask('POST', '/briefs/many', { do: act, briefs });
  const { holds } = (await ask<{ holds: { run: string }[] }>('GET', `/briefs/${taken[0]}/holds`)).body;
  if (holds[0]) await ask('POST', `/briefs/${taken[0]}/holds/${holds[0].run}`, { decide: 'pass' });
  for (const act of [
    'stop',
    'go on',
    'put ahead',
    'set aside',
    'bring back',
    'bring to the newest',
    'begin now',
    'leave aside',
  ])
    await many(act, [taken[2]!]);
  await ask('POST', '/briefs/many', { do: 'set aside', matching: { pipeline, standing: [], find: 'glue 12' } });
  await ask('POST', `/pipelines/${pipeline}/trials`, { item });
  await ask('POST', `/articles/${article}/slot`, { blog: w.blog, at: w.product.ground.desk.now() + 86_400_000 });
  await ask('GET', `/pipelines/${pipeline}/made`);
  await ask('POST', `/sources/${source}/look`, {});
  await w.settled([taken[0]!], ['out', 'held', 'stopped', 'set aside', 'ready', 'in work']);
  await ask('DELETE', `/articles/${article}`);
  // The chores of a worker come round meanwhile.
  await new Promise((resolve) => setTimeout(resolve, 3_000));
});

const FILTERS: Record<string, string[]> = {
  '/articles': [
    ...['held', 'stopped', 'draft', 'out', 'ready', 'set%20aside', 'in%20work', 'withdrawn'].flatMap((standing) => [
      `?standing=${standing}`,
      `?order=slot&standing=${standing}`,
    ]),
    '?order=slot',
    '?order=slot&days=30&language=en',
    '?order=slot&mark=any',
    `?order=slot&before=o.1760000000000.${'0'.repeat(20)}`,
    // A beginning of few words: the copies all say the same ones.
    '?order=fit&q=sauerkr',
    '?order=slot&q=sauerkr',
    '?title=salt',
  ],
  '/articles/count': ['?q=sauerkr', '?mark=Title', '?standing=out&days=30'],
  '/briefs': ['?standing=out', '?standing=waiting'],
  '/pipelines/{id}/sheet': ['?standing=out', '?standing=waiting', '?find=glue'],
  '/slots': ['?days=7'],
};

test('no statement reads a large table from end to end', async () => {
  const { db } = desk.w.product.ground;
  const texts = [...heard];
  // Read before the explaining itself is heard.
  for (const [text, parameters] of texts) {
    if (/information_schema|^SELECT 1$|FROM migrations/.test(text)) continue;
    const found = await scans(db, text, parameters);
    if (found.length > 0) failed.push(`${found.join('; ')}: ${text.slice(0, 300)}`);
  }
  expect(texts.length).toBeGreaterThan(120);
  expect(failed).toEqual([]);
});
