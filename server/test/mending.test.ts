import { stepKinds } from '@grivo/core';
import type { Trouble } from '@grivo/standins';
import { afterEach, beforeEach, expect, test } from 'vitest';
import { openIncidents, releaseBrief, releaseIncident } from '../src/engine/incidents.ts';
import { changeBlogSecret } from '../src/nouns/blogs/change.ts';
import { incidentsInWords } from '../src/nouns/incidents/words.ts';
import { setLimit } from '../src/ports/money/limits.ts';
import { byHand } from './ground/guards.ts';
import { type World, world } from './ground/world.ts';

let w: World;
beforeEach(async () => {
  w = await world();
  await w.product.work('both');
});
afterEach(() => w.close());

/** What the model services asked for, by their own count. */
const asked = () => w.standIns.received().micros;
const SUBJECT = ['how much salt for sauerkraut'];

async function wordsOfIncident() {
  const [incident] = await incidentsInWords(w.product.ground.db);
  return incident!;
}

async function mendAndEnd(briefs: string[]): Promise<void> {
  const [incident] = await openIncidents(w.product.ground.db);
  w.standIns.calm();
  expect(await releaseIncident(w.product.ground, incident!.id)).toBeGreaterThan(0);
  await w.product.ringAll();
  await w.settled(briefs, ['out']);
}

test('a writer that is down stops the brief after its tries, says so, and goes on when it is back', async () => {
  w.standIns.trouble('writer', { how: 'broken' }, 50);
  const briefs = await w.take(await w.pipeline(SUBJECT));
  await w.settled(briefs, ['stopped'], 60_000);
  const incident = await wordsOfIncident();
  expect(incident).toMatchObject({ name: 'The writer', problem: 'Service down' });
  expect(incident.sentence).toMatch(/^The writer failed \d times running/);
  expect(incident.mend).toContain('Test the service');
  const before = await steps(briefs[0]!);
  await mendAndEnd(briefs);
  // What was done before it stopped was not done again.
  for (const done of before) expect(await steps(briefs[0]!)).toContainEqual(done);
}, 90_000);

test('replies that cannot be read stop the brief; going on does not pay again for what was answered', async () => {
  const briefs = await w.take(await w.pipeline(SUBJECT));
  // The outline is answered; everything after it comes back cut in the middle.
  await expect
    .poll(async () => (await steps(briefs[0]!)).join(), { timeout: 10_000, interval: 5 })
    .toContain('outline');
  w.standIns.trouble('writer', { how: 'malformed' }, 60);
  await w.settled(briefs, ['stopped'], 60_000);
  const incident = await wordsOfIncident();
  expect(incident).toMatchObject({ name: 'The writer', problem: 'Replies cannot be read' });
  expect(incident.mend).not.toBe('');
  const outlines = () => w.standIns.received().calls.filter((call) => call.name === 'outline').length;
  const paid = outlines();
  expect(paid).toBe(1);
  await mendAndEnd(briefs);
  expect(outlines()).toBe(paid);
}, 90_000);

test('a blog that refuses the token stops at publishing; a new secret lets it out, and nothing is paid twice', async () => {
  w.standIns.trouble('blog', { how: 'key refused' }, 20);
  const briefs = await w.take(await w.pipeline(SUBJECT));
  await w.settled(briefs, ['stopped']);
  const incident = await wordsOfIncident();
  expect(incident).toMatchObject({ name: 'Crockhaven Journal', problem: 'Key refused' });
  const paid = asked();
  expect(paid).toBeGreaterThan(0);
  await changeBlogSecret(w.product.ground, w.product.secrets, w.blog, {
    secret: w.standIns.blog('journal').token,
  });
  await mendAndEnd(briefs);
  expect(asked()).toBe(paid);
  expect(w.standIns.received().acts.filter((act) => act.act === 'create')).toHaveLength(1);
});

test.each<[string, Trouble]>([
  ['asks to wait', { how: 'busy', retryAfterSeconds: 1 }],
  ['hangs', { how: 'hang' }],
  ['cuts the line before it answers', { how: 'cut before' }],
])('a writer that %s now and then stops nothing', async (_name, trouble) => {
  w.standIns.trouble('writer', trouble, 2);
  const briefs = await w.take(await w.pipeline(SUBJECT));
  await w.settled(briefs, ['out']);
  expect(await openIncidents(w.product.ground.db)).toEqual([]);
});

test('a text that breaks off between its pieces is asked for again, and what it may have cost is booked', async () => {
  w.standIns.trouble('writer', { how: 'cut within' }, 2);
  const briefs = await w.take(await w.pipeline(SUBJECT));
  await w.settled(briefs, ['out']);
  const [row] = await w.product.ground.db.rows<{ n: number; micros: number }>(
    'SELECT COUNT(*) AS n, SUM(micros) AS micros FROM ledger WHERE known = 0',
  );
  expect(Number(row!.n)).toBe(2);
  expect(Number(row!.micros)).toBeGreaterThan(0);
  const [whole] = await w.product.ground.db.rows<{ micros: number }>('SELECT SUM(micros) AS micros FROM ledger');
  expect(Number(whole!.micros)).toBeGreaterThanOrEqual(asked());
});

test('the limit of the month stops the work before it is passed, and raising it lets it go on', async () => {
  await setLimit(w.product.ground, 4_000);
  const briefs = await w.take(await w.pipeline(SUBJECT));
  await w.settled(briefs, ['stopped']);
  expect(asked()).toBeLessThanOrEqual(4_000);
  const incident = await wordsOfIncident();
  expect(incident.problem).toMatch(/limit/i);
  await setLimit(w.product.ground, null);
  await mendAndEnd(briefs);
});

test('letting a single brief go on leaves the others as they are', async () => {
  w.standIns.trouble('illustrator', { how: 'credit used up' }, 20);
  const briefs = await w.take(await w.pipeline([...SUBJECT, 'crisp fermented cucumbers']));
  await w.settled(briefs, ['stopped']);
  w.standIns.calm();
  await releaseBrief(w.product.ground, briefs[0]!);
  await w.product.ringAll();
  await w.settled([briefs[0]!], ['out']);
  await w.settled([briefs[1]!], ['stopped']);
});

async function steps(brief: string): Promise<string[]> {
  const rows = await w.product.ground.db.rows<{ id: string; kind: string; at: Date }>(
    "SELECT id, kind, ended_at AS at FROM step_run WHERE brief = ? AND state = 'done' ORDER BY id",
    [brief],
  );
  return rows.map((row) => `${row.id} ${row.kind} ${row.at.toISOString()}`);
}

test('what a worker holds without knowing it, since an answer of the database was lost, comes back by itself', async () => {
  const { db } = w.product.ground;
  const [{ id: worker } = { id: '' }] = await db.rows<{ id: string }>('SELECT id FROM worker');
  await w.product.ground.desk.set(Date.parse('2026-03-02T07:00:00Z'), 0);
  const briefs = await w.take(
    await w.pipeline(SUBJECT, (all) =>
      all.map((step) => (step.kind === 'publish' ? { ...step, when: 'next free slot' as const } : step)),
    ),
  );
  await w.settled(briefs, ['ready']);
  const held = await byHand(
    db,
    "UPDATE step_run SET state = 'running', holder = ?, due_desk = NULL WHERE brief = ? AND kind = 'publish'",
    [worker, briefs[0]],
  );
  // Permits lie idle with the worker for a moment before they are free to be taken from it unseen.
  let permits = 0;
  await expect
    .poll(async () => (permits += await db.run('UPDATE permit SET holder = ? WHERE holder IS NULL', [worker])), {
      timeout: 10_000,
    })
    .toBeGreaterThan(0);
  expect(held).toBe(1);
  const publish = async () =>
    (
      await db.rows<{ state: string }>("SELECT state FROM step_run WHERE brief = ? AND kind = 'publish'", [briefs[0]])
    )[0];
  await expect.poll(publish, { timeout: 15_000 }).toMatchObject({ state: 'waiting' });
  const free = async () =>
    Number((await db.rows<{ n: number }>('SELECT COUNT(*) AS n FROM permit WHERE holder IS NULL'))[0]?.n);
  await expect.poll(free, { timeout: 15_000 }).toBeGreaterThanOrEqual(permits);
});

test('what a worker took while it was given up for dead comes back, though nobody of its name is left', async () => {
  const { db, ids } = w.product.ground;
  const gone = ids();
  const services = await db.rows<{ id: string }>('SELECT id FROM service');
  await db.run('INSERT IGNORE INTO permit (service, n, holder) VALUES ?', [
    services.flatMap(({ id }) => [1, 2, 3, 4].map((n) => [id, n, gone])),
  ]);
  const briefs = await w.take(await w.pipeline(SUBJECT));
  await w.settled(briefs, ['out']);
  expect(await db.rows('SELECT 1 FROM permit WHERE holder = ?', [gone])).toEqual([]);
});

test('while a service refuses the key, briefs that come later join the incident without calling it', async () => {
  const keywords = Array.from({ length: 12 }, (_, i) => `${'bcdfghjklmnp'[i]}a crock number ${i}`);
  w.standIns.trouble('writer', { how: 'key refused' }, 1_000);
  const briefs = await w.take(
    await w.pipeline(keywords, (steps) => [
      steps[0]!,
      { ...stepKinds.answer.fresh('s2'), instruction: 'What of {{ subject }}?', reading: 'nothing besides' },
    ]),
  );
  await w.settled(briefs, ['stopped']);
  // At most the calls that were under way together before the first refusal was known.
  expect(w.standIns.received().troubles).toBeLessThanOrEqual(8);
  expect(await wordsOfIncident()).toMatchObject({ problem: 'Key refused', briefs: 12 });
  await mendAndEnd(briefs);
});
