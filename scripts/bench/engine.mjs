// How many durable steps a second the engine does, against single-row commits of the same MariaDB in the same round.
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { stepKinds } from '@grivo/core';
import { Procedures } from '../../server/src/engine/briefState.ts';
import { createPipeline } from '../../server/src/nouns/pipelines/repository.ts';
import { addKeywords } from '../../server/src/nouns/sources/keywords.ts';
import { lookAndTake } from '../../server/src/nouns/sources/look.ts';
import { createSource } from '../../server/src/nouns/sources/repository.ts';
import { bundle } from '../build.mjs';
import { ROOT } from '../install.mjs';
import { ground, median, pause, phrases } from './ground.mjs';

/** The worker as an installation runs it, in one file. */
const WORKER = join(ROOT, 'server', 'dist', 'idleWorker.mjs');

const STEPS = 6;
/** Enough for some seconds, so that what is measured is neither the first second of a program nor one pause of the disk. */
const BRIEFS = 8_000;
const ROUNDS = 5;
/** Briefs of the pipeline in work at once: fewer than a worker takes in hand, as in any sensible installation. */
const OPEN = 500;
/** What is measured, with how many workers, on steps of which kind. */
const WAYS = [
  ['stepsVsCommits.w1', 1, 'check'],
  ['stepsVsCommits.w2', 2, 'check'],
  ['stepsAloneVsCommits.w1', 1, 'fetch'],
];

/** Committed single-row updates a second from one connection. */
async function singleCommits(product) {
  const { db } = product.ground;
  await db.run("INSERT IGNORE INTO setting (name, value) VALUES ('bench', '0')");
  const runner = db.source.createQueryRunner();
  await runner.connect();
  const from = performance.now();
  let n = 0;
  for (; performance.now() - from < 1_500; n++)
    await runner.query("UPDATE setting SET value = ? WHERE name = 'bench'", [String(n)]);
  const perSecond = n / ((performance.now() - from) / 1_000);
  await runner.release();
  return perSecond;
}

async function pipelineOf(product, phrases, openLimit, kind = 'check') {
  const { ground } = product;
  const source = await createSource(ground, { kind: 'keywords' }, 'Bench');
  await addKeywords(product.tools, source, { paste: phrases.join('\n') });
  const steps = [{ ...stepKinds.take.fresh('s0'), sources: [source], most: null }];
  for (let i = 1; i <= STEPS; i++) steps.push(stepKinds[kind].fresh(`s${i}`));
  return createPipeline(ground, {
    name: 'Bench',
    document: { grivo: 1, language: 'en', steps },
    person: null,
    openLimit,
  });
}

/** Everything the pipeline's list holds, a thousand items a look. */
async function take(product, pipeline) {
  const briefs = [];
  for (;;) {
    const taken = await product.ground.db.transaction((sql) =>
      lookAndTake(sql, product.ground, new Procedures(), pipeline),
    );
    if (taken.briefs.length === 0) return briefs;
    briefs.push(...taken.briefs);
  }
}

async function withWorkers(url, many, work) {
  const children = [];
  try {
    for (let i = 0; i < many; i++) {
      const child = spawn(process.execPath, [WORKER, url], {
        cwd: ROOT,
        stdio: ['ignore', 'pipe', 'inherit'],
        env: { ...process.env, TZ: 'UTC' },
      });
      children.push(child);
      await new Promise((resolve, reject) => {
        child.stdout.once('data', resolve);
        child.once('exit', () => reject(new Error('a worker ended at once')));
      });
    }
    return await work();
  } finally {
    for (const child of children) {
      const ended = new Promise((resolve) => child.once('exit', resolve));
      child.kill('SIGTERM');
      await ended;
    }
  }
}

/** @param kind 'check' is carried on over what comes before, 'fetch' is committed by itself before the next begins */
async function stepsPerSecond(product, url, workers, kind) {
  const pipeline = await pipelineOf(product, phrases(BRIEFS), OPEN, kind);
  return withWorkers(url, workers, async () => {
    const briefs = await take(product, pipeline);
    product.bell.ring({ kind: 'admit' });
    const { db } = product.ground;
    // Asked seldom and by the index, so that the asking is not what is measured.
    for (;;) {
      await pause(250);
      const open = await db.rows(
        "SELECT 1 FROM brief WHERE pipeline = ? AND trial = 0 AND standing IN ('waiting', 'in work') LIMIT 1",
        [pipeline],
      );
      if (open.length === 0) break;
    }
    const [{ ms }] = await db.rows(
      'SELECT TIMESTAMPDIFF(MICROSECOND, MIN(made_at), MAX(ended_at)) / 1000 AS ms FROM step_run',
    );
    return (briefs.length * STEPS) / (Number(ms) / 1_000);
  });
}

/**
 * Milliseconds from a brief waiting, with everybody told so, to its first step having ended: letting in, handing over,
 * beginning and a step that does nothing. One brief at a time in an idle installation.
 */
async function readyToStarted(product, url) {
  return withWorkers(url, 1, async () => {
    const times = [];
    for (let i = 0; i < 31; i++) {
      const pipeline = await pipelineOf(product, [`single subject ${i}`], 10);
      const briefs = await take(product, pipeline);
      await pause(100);
      const [{ at }] = await product.ground.db.rows('SELECT UTC_TIMESTAMP(6) AS at');
      product.bell.ring({ kind: 'admit' });
      await pause(400);
      const [{ ms }] = await product.ground.db.rows(
        'SELECT TIMESTAMPDIFF(MICROSECOND, ?, ended_at) / 1000 AS ms FROM step_run WHERE brief = ? ORDER BY id LIMIT 1',
        [at, briefs[0]],
      );
      times.push(Number(ms));
    }
    return median(times);
  });
}

export async function engine(tell) {
  await bundle('scripts/bench/idleWorker.mjs', 'server/dist/idleWorker.mjs');
  const bench = await ground();
  try {
    const rounds = [];
    for (let i = 0; i < ROUNDS; i++) {
      const round = {};
      for (const [key, workers, kind] of i % 2 === 0 ? WAYS : [...WAYS].reverse()) {
        const { product, url } = await bench.product();
        // Before and after, since the disk of a shared machine has better and worse minutes.
        const before = await singleCommits(product);
        const steps = await stepsPerSecond(product, url, workers, kind);
        const commits = (before + (await singleCommits(product))) / 2;
        round[key] = steps / commits;
        tell(
          `round ${i + 1}, ${key}: ${Math.round(steps)} steps/s, ${Math.round(commits)} commits/s, ${(steps / commits).toFixed(2)} steps a commit`,
        );
        await product.close();
      }
      rounds.push(round);
    }
    const { product, url } = await bench.product();
    const ready = await readyToStarted(product, url);
    await product.close();
    const steps = WAYS.map(([key]) => [`engine.${key}`, median(rounds.map((round) => round[key]))]);
    return {
      ...Object.fromEntries(steps),
      'engine.readyToStartedMs': ready,
    };
  } finally {
    await bench.end();
  }
}
