// Whether claims stay as fast with a million finished step runs in the table, and whether a few briefs are kept waiting by
// thousands of others.
import { stepKinds } from '@grivo/core';
import { Procedures } from '../../server/src/engine/briefState.ts';
import { claim } from '../../server/src/engine/claims.ts';
import { createPipeline } from '../../server/src/nouns/pipelines/repository.ts';
import { addKeywords } from '../../server/src/nouns/sources/keywords.ts';
import { lookAndTake } from '../../server/src/nouns/sources/look.ts';
import { createSource } from '../../server/src/nouns/sources/repository.ts';
import { ground, median, pause, phrases } from './ground.mjs';

const FINISHED = 1_000_000;
const PORTION = 50;

async function finished(db, ids, many) {
  for (let at = 0; at < many; at += 2_000) {
    const rows = Array.from({ length: 2_000 }, () => [ids(), ids(), 's1', 'check', 'done', '-:5', 1]);
    await db.run('INSERT INTO step_run (id, brief, path, kind, state, home_lane, attempts) VALUES ?', [rows]);
  }
}

/** Median milliseconds of a claim of fifty out of two thousand that are ready. */
async function claims(db, ids) {
  const rows = Array.from({ length: 2_000 }, () => [ids(), ids(), 's1', 'check', 'ready', '-:5', '-:5']);
  await db.run('INSERT INTO step_run (id, brief, path, kind, state, lane, home_lane) VALUES ?', [rows]);
  const times = [];
  let mark = '';
  for (;;) {
    const from = performance.now();
    const held = await claim(db, '-:5', mark, PORTION, 'w'.padEnd(20, 'w'));
    times.push(performance.now() - from);
    if (held.length === 0) break;
    mark = held.at(-1).run;
  }
  await db.run("UPDATE step_run SET state = 'done', holder = NULL WHERE state = 'running'");
  return median(times);
}

async function pipelineOf(product, list, openLimit) {
  const source = await createSource(product.ground, { kind: 'keywords' }, 'Bench');
  await addKeywords(product.tools, source, { paste: list.join('\n') });
  const steps = [{ ...stepKinds.take.fresh('s0'), sources: [source], most: null }];
  for (let i = 1; i <= 4; i++)
    steps.push({ ...stepKinds['work out'].fresh(`s${i}`), as: `v${i}`, expression: 'upper(subject)' });
  return createPipeline(product.ground, {
    name: 'Bench',
    document: { grivo: 1, language: 'en', steps },
    person: null,
    openLimit,
  });
}

async function take(product, pipeline) {
  const out = [];
  for (;;) {
    const { briefs } = await product.ground.db.transaction((sql) =>
      lookAndTake(sql, product.ground, new Procedures(), pipeline),
    );
    if (briefs.length === 0) return out;
    out.push(...briefs);
  }
}

/** A step that takes as long as a fast call does. */
async function call() {
  await pause(60);
  return { kind: 'done', fields: { v: 1 } };
}

/** Milliseconds from five briefs being taken to their end. */
async function five(product, list) {
  const briefs = await take(product, await pipelineOf(product, list, 10));
  const from = performance.now();
  product.bell.ring({ kind: 'admit' });
  for (;;) {
    const open = await product.ground.db.rows("SELECT 1 FROM brief WHERE id IN (?) AND standing <> 'out'", [briefs]);
    if (open.length === 0) return performance.now() - from;
    await pause(3);
  }
}

async function besides(product, tell) {
  const { db } = product.ground;
  const words = phrases(5_200);
  await product.work('both', { performers: { 'work out': call } });
  const alone = [];
  for (let i = 0; i < 7; i++) alone.push(await five(product, words.slice(i * 5, i * 5 + 5)));
  const many = await take(product, await pipelineOf(product, words.slice(100, 5_100), 50));
  product.bell.ring({ kind: 'admit' });
  const beside = [];
  for (let i = 0; i < 7; i++) {
    beside.push(await five(product, words.slice(5_100 + i * 5, 5_105 + i * 5)));
    const [{ n }] = await db.rows("SELECT COUNT(*) AS n FROM brief WHERE id IN (?) AND standing = 'out'", [many]);
    if (Number(n) === many.length) break;
  }
  tell(
    `five briefs alone ${median(alone).toFixed(0)} ms, beside ${many.length} others ${beside.map((ms) => ms.toFixed(0)).join(', ')} ms`,
  );
  return median(beside) / median(alone);
}

export async function waiting(tell) {
  const bench = await ground();
  try {
    const { product } = await bench.product();
    const { db, ids } = product.ground;
    const empty = await claims(db, ids);
    await finished(db, ids, FINISHED);
    const full = await claims(db, ids);
    tell(
      `a claim of ${PORTION}: ${empty.toFixed(2)} ms in an empty table, ${full.toFixed(2)} ms beside ${FINISHED} finished`,
    );
    await product.close();
    const second = await bench.product();
    const fiveBeside = await besides(second.product, tell);
    await second.product.close();
    return { 'engine.claimFullVsEmpty': full / empty, 'engine.fiveBesideVsAlone': fiveBeside };
  } finally {
    await bench.end();
  }
}
