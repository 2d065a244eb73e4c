// How fast sources are read and taken: a sheet of a million rows against the parser alone, and a hundred thousand rows
// taken as briefs against a bulk insert of the same rows.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { stepKinds } from '@grivo/core';
import { Procedures } from '../../server/src/engine/briefState.ts';
import { sha } from '../../server/src/ground/sha.ts';
import { createPipeline } from '../../server/src/nouns/pipelines/repository.ts';
import { fingerprintOf } from '../../server/src/nouns/sources/fingerprint.ts';
import { takeAllNew } from '../../server/src/nouns/sources/look.ts';
import { createSource } from '../../server/src/nouns/sources/repository.ts';
import { bundle } from '../build.mjs';
import { ROOT } from '../install.mjs';
import { ground, median } from './ground.mjs';

/** The reading as an installation does it, in one file. */
const MILLION = join(ROOT, 'server', 'dist', 'million.mjs');

const ROWS = 100_000;
const ROUNDS = 3;
/** Reading is quick and the machine's minutes differ, so it is done more often. */
const READINGS = 7;

/** Runs the reading of a million rows in a program of its own, so that its memory is its own. */
function readMillion(way) {
  const { stdout, stderr, status } = spawnSync(process.execPath, [MILLION, way], {
    encoding: 'utf8',
    maxBuffer: 1_000_000,
  });
  if (status !== 0) throw new Error(`reading a million rows failed: ${stderr}`);
  return JSON.parse(stdout.trim().split('\n').at(-1));
}

async function items(product, source) {
  const { db, ids } = product.ground;
  for (let at = 0; at < ROWS; at += 2_000)
    await db.run('INSERT INTO item (id, source, identity, content_digest, fingerprint, subject, fields) VALUES ?', [
      Array.from({ length: 2_000 }, (_, i) => {
        const identity = sha(`row ${at + i}`);
        return [ids(), source, identity, identity, fingerprintOf(source, identity), `Row ${at + i}`, '{"n":1}'];
      }),
    ]);
}

async function takeAll(product) {
  const source = await createSource(product.ground, { kind: 'keywords' }, 'Bench');
  await items(product, source);
  const pipeline = await createPipeline(product.ground, {
    name: 'Bench',
    document: {
      grivo: 1,
      language: 'en',
      steps: [{ ...stepKinds.take.fresh('s0'), sources: [source], most: null }, stepKinds.wait.fresh('s1')],
    },
    person: null,
  });
  const from = performance.now();
  const { briefs } = await takeAllNew(product.tools, new Procedures(), pipeline);
  if (briefs.length !== ROWS) throw new Error(`${briefs.length} were taken`);
  return performance.now() - from;
}

/** The rows taking writes, written in bulk without being looked for. */
async function insertAll(product) {
  const { db, ids } = product.ground;
  const [pipeline, procedure] = [ids(), ids()];
  const all = Array.from({ length: ROWS }, (_, i) => ({ item: ids(), brief: ids(), print: sha(`print ${i}`), i }));
  const from = performance.now();
  for (let at = 0; at < ROWS; at += 1_000) {
    const rows = all.slice(at, at + 1_000);
    await db.transaction(async (sql) => {
      await sql.run('INSERT INTO taken (pipeline, fingerprint, item, brief) VALUES ?', [
        rows.map(({ item, brief, print }) => [pipeline, print, item, brief]),
      ]);
      await sql.run(
        'INSERT INTO brief (id, pipeline, standing, seed, subject, fields, priority, made_desk, by_hand) VALUES ?',
        [rows.map(({ brief, i }) => [brief, pipeline, 'waiting', brief, `Row ${i}`, '{"n":1}', 5, 0, 0])],
      );
      await sql.run('INSERT INTO brief_item (brief, item) VALUES ?', [rows.map(({ brief, item }) => [brief, item])]);
      await sql.run('INSERT INTO brief_pin (brief, procedure_id, version, main) VALUES ?', [
        rows.map(({ brief }) => [brief, procedure, 1, 1]),
      ]);
    });
  }
  return performance.now() - from;
}

export async function intake(log) {
  await bundle('scripts/bench/million.mjs', MILLION);
  const csv = [];
  const peaks = [];
  for (let round = 1; round <= READINGS; round++) {
    const alone = readMillion('parser');
    const ours = readMillion('ours');
    log(
      `round ${round}, a million rows: ${Math.round(ours.ms)} ms, the parser alone ${Math.round(alone.ms)} ms; ${Math.round(ours.peakMB)} MB, alone ${Math.round(alone.peakMB)} MB`,
    );
    csv.push(ours.ms / alone.ms);
    peaks.push(ours.peakMB);
  }
  const floor = await ground();
  const ratios = [];
  try {
    for (let round = 1; round <= ROUNDS; round++) {
      const { product } = await floor.product();
      const insert = await insertAll(product);
      const take = await takeAll(product);
      log(
        `round ${round}, a hundred thousand rows: taken in ${Math.round(take)} ms, inserted in ${Math.round(insert)} ms`,
      );
      ratios.push(take / insert);
      await product.close();
    }
  } finally {
    await floor.end();
  }
  return {
    'intake.csvVsParser': median(csv),
    'intake.csvPeakMB': median(peaks),
    'intake.takeVsInsert': median(ratios),
  };
}
