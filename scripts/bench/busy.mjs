// What goes on beside large things: one call of a hook beside a hundred thousand items that were taken, against one beside
// a thousand; and how long a small question waits while a page is read, a list is grouped and a megabyte is pasted.
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { stepKinds } from '@grivo/core';
import { sha } from '../../server/src/ground/sha.ts';
import { Database } from '../../server/src/ground/store/database.ts';
import { fingerprintOf } from '../../server/src/nouns/sources/fingerprint.ts';
import { client } from '../client.mjs';
import { startAll } from '../processes.mjs';
import { median, phrases } from './ground.mjs';
import { waitsOf } from './waiting.mjs';

const [FEW, MANY] = [1_000, 100_000];
const CALLS = 60;
/** How long each kind of work is done. */
const BUSY_MS = 12_000;

export async function busy(tell) {
  const folder = mkdtempSync(join(tmpdir(), 'grivo-bench-busy-'));
  const all = await startAll(folder, { durable: true });
  try {
    const call = await client(all.address, all.owner);
    const hooks = await hookCalls(all, call, tell);
    const waits = await whileBusy(all, call, tell);
    return { 'api.hookCallAt100k': hooks, 'api.latencyWhileBusyMs': waits };
  } finally {
    await all.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}

function pipelineFrom(call, source, steps = [], most = null) {
  const take = { ...stepKinds.take.fresh('s0'), sources: [source], most };
  return call('POST', '/pipelines', {
    name: 'Bench',
    document: { grivo: 1, language: 'en', steps: [take, ...steps] },
    openLimit: 1,
  });
}

async function hookCalls(all, call, tell) {
  const db = await Database.open(all.mariadb.url, 2);
  const doors = [];
  for (const many of [FEW, MANY]) {
    const { id: source } = await call('POST', '/sources', {
      name: `Hook ${many}`,
      settings: { kind: 'hook', signed: false },
    });
    const { id: pipeline } = await pipelineFrom(call, source, [stepKinds.hold.fresh('s1')]);
    await fill(db, source, pipeline, many);
    doors.push({ many, ...(await call('GET', `/sources/${source}/hook`)) });
  }
  await db.close();
  const times = new Map(doors.map(({ many }) => [many, []]));
  for (let i = 0; i < CALLS; i++)
    for (const { many, address } of doors) {
      const from = performance.now();
      const answer = await fetch(address, { method: 'POST', body: JSON.stringify({ subject: `Jar ${many} ${i}` }) });
      const said = await answer.text();
      if (answer.status !== 202) throw new Error(`a call answered ${answer.status}: ${said}`);
      times.get(many).push(performance.now() - from);
    }
  const [few, lots] = [FEW, MANY].map((many) => median(times.get(many)));
  tell(`one call of a hook: ${few.toFixed(1)} ms beside ${FEW} taken items, ${lots.toFixed(1)} ms beside ${MANY}`);
  return lots / few;
}

/** Items that were all taken, straight into the tables. */
async function fill(db, source, pipeline, many) {
  const id = (kind, i) => `0${kind}${String(i).padStart(6, '0')}${source.slice(-12)}`;
  for (let at = 0; at < many; at += 1_000) {
    const rows = Array.from({ length: 1_000 }, (_, i) => at + i).map((i) => ({ i, known: sha(`row ${source} ${i}`) }));
    await db.run('INSERT INTO item (id, source, identity, content_digest, fingerprint, subject, fields) VALUES ?', [
      rows.map(({ i, known }) => [id('i', i), source, known, known, fingerprintOf(source, known), `Row ${i}`, '{}']),
    ]);
    await db.run('INSERT INTO taken (pipeline, fingerprint, item, brief, source) VALUES ?', [
      rows.map(({ i, known }) => [pipeline, fingerprintOf(source, known), id('i', i), id('b', i), source]),
    ]);
    await db.run('INSERT INTO brief (id, pipeline, standing, seed, subject, fields, made_desk, ended_desk) VALUES ?', [
      rows.map(({ i }) => [id('b', i), pipeline, 'out', 's', `Row ${i}`, '{}', i, i]),
    ]);
    await db.run('INSERT INTO brief_item (brief, item) VALUES ?', [rows.map(({ i }) => [id('b', i), id('i', i)])]);
  }
}

/** A page of some length, as one might be read. */
const PAGE = `<!doctype html><html><head><title>Brine</title></head><body><article>${Array.from({ length: 4_000 }, (_, i) => `<p>Weigh <b>${i}</b> grams of salt for <a href="/jars/${i}">jar ${i}</a>, and keep it between 18 and 21 degrees until the brine has cleared.</p>`).join('')}</article></body></html>`;

async function whileBusy(all, call, tell) {
  const upload = await fetch(`${all.address}/api/uploads?mime=text/html`, {
    method: 'POST',
    headers: { 'content-type': 'application/octet-stream', cookie: await cookieOf(all) },
    body: PAGE,
  });
  const { file } = await upload.json();
  const settings = { kind: 'documents', files: [{ file, fileName: 'brine.html' }] };
  const { id: pages } = await call('POST', '/sources', { name: 'Pages', settings });
  await call('POST', `/sources/${pages}/look`);
  const [{ id: page }] = (await call('GET', `/sources/${pages}/items`)).items;
  const { id: list } = await call('POST', '/sources', {
    name: 'Grouped',
    settings: { kind: 'keywords', group: 'closely' },
  });
  await call('POST', `/sources/${list}/keywords`, { paste: phrases(6_000).join('\n') });
  const { id: grouping } = await pipelineFrom(call, list, [stepKinds.hold.fresh('s1')], 1);
  const megabyte = phrases(8_000).join('\n').repeat(10).slice(0, 1_000_000);
  const work = {
    'a page is read': () => call('GET', `/items/${page}/text`),
    'a list is grouped': () => call('POST', `/pipelines/${grouping}/take`, {}),
    'a megabyte is pasted': async () => {
      const { id } = await call('POST', '/sources', { name: 'Pasted', settings: { kind: 'keywords' } });
      await call('POST', `/sources/${id}/keywords`, { paste: megabyte });
    },
  };
  let worst = 0;
  for (const [name, once] of Object.entries(work)) {
    await once();
    const waiting = await waitsOf(`${all.address}/api/health`);
    let times = 0;
    const until = performance.now() + BUSY_MS;
    while (performance.now() < until) {
      await once();
      times++;
    }
    const waits = await waiting.end();
    const p99 = waits[Math.floor(waits.length / 100)];
    tell(
      `while ${name} (${times} times): of ${waits.length} small questions one in a hundred waited ${p99.toFixed(1)} ms`,
    );
    worst = Math.max(worst, p99);
  }
  return worst;
}

async function cookieOf({ address, owner: { email, password } }) {
  const signed = await fetch(`${address}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ email, password }),
  });
  return signed.headers.get('set-cookie').split(';')[0];
}
