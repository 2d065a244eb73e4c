import { randomBytes } from 'node:crypto';
import { stepKinds as k, type ProcedureDocument, type Step } from '@grivo/core';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { z } from 'zod';
import { assemble, type Product } from '../src/api/product.ts';
import { Procedures } from '../src/engine/briefState.ts';
import { createPipeline, switchPipeline } from '../src/nouns/pipelines/repository.ts';
import { Firing } from '../src/nouns/schedules/fire.ts';
import { addKeywords } from '../src/nouns/sources/keywords.ts';
import { createSource } from '../src/nouns/sources/repository.ts';
import { setLimit } from '../src/ports/money/limits.ts';
import { type World, world } from './ground/world.ts';

const KEY = randomBytes(32);
const DAY = 86_400_000;
const ANSWER = z.object({ answer: z.string() });
let w: World;
let others: Product[] = [];

beforeEach(async () => {
  w = await world('one', { secretKey: KEY });
});
afterEach(async () => {
  for (const other of others) await other.close();
  others = [];
  await w.close();
});

/** One more process on the same database, as far as the database can tell. */
async function another(): Promise<Product> {
  const product = await assemble({
    databaseUrl: (w.product.ground.db.source.options as { url: string }).url,
    secretKey: KEY,
    allowedOrigins: [w.standIns.address],
    migrates: false,
  });
  others.push(product);
  return product;
}

const words = (n: number) =>
  Array.from(
    { length: n },
    (_, i) => `${'bcdfghjklmnp'[i % 12]}a${'rstvwxz'[i % 7]}o${'bdfgklm'[Math.floor(i / 12) % 7]} crock number ${i}`,
  );

async function pipelineOf(
  keywords: readonly string[],
  steps: Step[],
  openLimit = 100,
  everyMinutes: number | null = null,
) {
  const { ground } = w.product;
  const source = await createSource(ground, { kind: 'keywords' }, 'A list');
  if (keywords.length > 0) await addKeywords(w.product.tools, source, { paste: keywords.join('\n') });
  const document: ProcedureDocument = {
    grivo: 1,
    language: 'en',
    steps: [{ ...k.take.fresh('s1'), sources: [source], most: null, everyMinutes }, ...steps],
  };
  return createPipeline(ground, { name: 'A pipeline', document, person: null, openLimit });
}

test('two workers under one limit: it is never passed by the count of the service, and what waited goes on the next day', async () => {
  const picture = 40_000;
  await w.product.ground.desk.set(Date.parse('2026-03-03T09:00:00Z'), 0);
  await setLimit(w.product.ground, 1_000_000, 'day');
  await w.product.work('both');
  await (await another()).work('worker');
  // Some calls act and then say nothing: nobody knows whether they were paid.
  for (let i = 0; i < 4; i++) w.standIns.trouble('illustrator', { how: 'cut after' }, 1);
  const briefs = await w.take(
    await pipelineOf(words(50), [
      { ...k['lay out'].fresh('s2'), body: 'A text on {{ subject }}, long enough to be one.' },
      k.illustrate.fresh('s3'),
    ]),
  );
  expect(briefs).toHaveLength(50);
  const drawn = () => w.standIns.received().calls.filter((call) => call.what === 'picture').length;
  const standings = async () => {
    const rows = await w.product.ground.db.rows<{ standing: string; n: number }>(
      'SELECT standing, COUNT(*) AS n FROM brief GROUP BY standing',
    );
    return Object.fromEntries(rows.map(({ standing, n }) => [standing, Number(n)]));
  };
  const days = [];
  for (let day = 0; day < 4; day++) {
    const before = drawn();
    await expect
      .poll(
        async () => {
          const now = await standings();
          return (now['out'] ?? 0) + (now['stopped'] ?? 0);
        },
        { timeout: 50_000, interval: 100 },
      )
      .toBe(50);
    days.push((drawn() - before) * picture);
    if ((await standings())['out'] === 50) break;
    await w.product.ground.desk.set(Date.parse('2026-03-03T09:00:00Z') + (day + 1) * DAY, 0);
    w.product.bell.ring({ kind: 'settings' });
    await expect
      .poll(async () => (await standings())['stopped'] ?? 0, { timeout: 10_000, interval: 20 })
      .toBeLessThan(50 - (await standings())['out']! || 1);
  }
  expect((await standings())['out']).toBe(50);
  for (const spent of days) expect(spent).toBeLessThanOrEqual(1_000_000);
  expect(days.length).toBeGreaterThanOrEqual(3);
  expect(drawn()).toBe(54);
  const [ledger] = await w.product.ground.db.rows<{ micros: number }>('SELECT SUM(micros) AS micros FROM ledger');
  expect(Number(ledger!.micros)).toBe(54 * picture);
}, 240_000);

test('the limit of one article stops that one alone, and what was spent before a limit counts', async () => {
  await w.product.work('both');
  const long = { ...k['lay out'].fresh('s2'), body: 'A text on {{ subject }}, long enough to be one.' };
  const two: Step[] = [long, k.illustrate.fresh('s3'), { ...k.illustrate.fresh('s4'), manner: 'another one' }];
  await setLimit(w.product.ground, 50_000, 'article');
  const dear = await w.take(await pipelineOf(['one crock'], two));
  const cheap = await w.take(await pipelineOf(['two crocks'], [long, k.illustrate.fresh('s3')]));
  await w.settled(cheap, ['out']);
  await w.settled(dear, ['stopped']);
  expect(await w.product.ground.db.rows('SELECT 1 FROM incident')).toEqual([]);
  await setLimit(w.product.ground, null, 'article');
  // 80,000 are spent today; a limit of 100,000 leaves no room for another picture.
  await setLimit(w.product.ground, 100_000, 'day');
  const late = await w.take(await pipelineOf(['three crocks'], [long, k.illustrate.fresh('s3')]));
  await w.settled(late, ['stopped']);
});

describe('schedules', () => {
  test('four workers fire each of many due rows once; after downtime an overdue look fires once', async () => {
    await w.product.ground.desk.set(Date.parse('2026-03-29T00:00:00Z'), 0);
    const pipelines = await Promise.all(
      Array.from({ length: 250 }, () => pipelineOf([], [k.wait.fresh('s2')], 10, 60)),
    );
    for (const id of pipelines) await switchPipeline(w.product.ground, id, true);
    const products = [w.product, await another(), await another(), await another()];
    const fireAll = async () => {
      for (let fired = 1; fired > 0; ) {
        fired = 0;
        const one = () => {
          fired++;
        };
        await Promise.all(
          products.map(({ ground }) => new Firing(ground, new Procedures(), async () => true, one).due()),
        );
      }
    };
    const firings = async () =>
      Number((await w.product.ground.db.rows<{ n: number }>('SELECT COUNT(*) AS n FROM firing'))[0]!.n);
    const looks = async () =>
      Number((await w.product.ground.db.rows<{ n: number }>('SELECT COUNT(*) AS n FROM look'))[0]!.n);
    const at = async (when: string) => {
      await w.product.ground.desk.set(Date.parse(when), 0);
      for (const product of products) await product.ground.desk.refresh();
      await fireAll();
      return [await firings(), await looks()];
    };
    expect(await at('2026-03-29T00:00:00Z')).toEqual([250, 250]);
    // Every hour over the night the clocks go forward, and the one they go back.
    expect(await at('2026-03-29T01:00:00Z')).toEqual([500, 500]);
    expect(await at('2026-03-29T02:00:00Z')).toEqual([750, 750]);
    expect(await at('2026-03-29T02:30:00Z')).toEqual([750, 750]);
    expect(await at('2026-03-29T03:00:00Z')).toEqual([1_000, 1_000]);
    // Two hours of downtime: one look, not two.
    expect(await at('2026-03-29T05:10:00Z')).toEqual([1_250, 1_250]);
    expect(await at('2026-03-29T05:59:00Z')).toEqual([1_250, 1_250]);
    expect(await at('2026-03-29T06:00:00Z')).toEqual([1_500, 1_500]);
    expect(await at('2026-10-25T00:30:00Z')).toEqual([1_750, 1_750]);
    expect(await at('2026-10-25T01:00:00Z')).toEqual([2_000, 2_000]);
    expect(await at('2026-10-25T02:00:00Z')).toEqual([2_250, 2_250]);
  }, 120_000);
});

test('five briefs of one pipeline are not kept waiting by five thousand of another', async () => {
  const steps: Step[] = [
    { ...k['work out'].fresh('s2'), as: 'a', expression: 'upper(subject)' },
    { ...k['work out'].fresh('s3'), as: 'b', expression: 'length(a)' },
    { ...k['work out'].fresh('s4'), as: 'c', expression: 'b + 1' },
  ];
  await w.product.work('both');
  const wide = await pipelineOf(words(5_000), steps, 50);
  const many: string[] = [];
  for (let look = 0; look < 5; look++) many.push(...(await w.take(wide)));
  expect(many).toHaveLength(5_000);
  await expect
    .poll(async () => (await w.product.ground.db.rows("SELECT 1 FROM brief WHERE standing = 'out' LIMIT 100")).length, {
      timeout: 20_000,
      interval: 10,
    })
    .toBe(100);
  const five = await w.take(await pipelineOf(words(5), steps));
  await w.settled(five, ['out']);
  const out = await w.product.ground.db.rows<{ n: number }>("SELECT COUNT(*) AS n FROM brief WHERE standing = 'out'");
  // They ended while most of the others still waited: no more than a few portions went before them.
  expect(Number(out[0]!.n)).toBeLessThan(3_000);
}, 120_000);

test('what a process without steps asks of a writer stays its own while workers look for the dead', async () => {
  const api = w.product;
  await api.hear();
  const worker = await another();
  await worker.work('worker', { scanMs: 50 });
  w.standIns.trouble('writer', { how: 'delay', ms: 1_500 }, 1);
  const written = await api.tools.writer.write(
    api.tools.services.standard('writer')!,
    { instructions: 'Answer.', material: 'How much salt?', name: 'answer', shape: ANSWER, maxTokensOut: 60 },
    { holder: api.tools.holder(), stepRun: api.ground.ids(), draw: 0, signal: AbortSignal.timeout(20_000) },
  );
  if (!written.ok) throw new Error(written.failure.code);
  expect(written.value.micros).toBeGreaterThan(0);
  const booked = await api.ground.db.rows<{ micros: number; known: number }>('SELECT micros, known FROM ledger');
  expect(booked).toEqual([{ micros: written.value.micros, known: 1 }]);
});
