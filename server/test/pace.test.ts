import { type Failure, type Step, stepKinds, wordsOf } from '@grivo/core';
import { afterEach, beforeEach, expect, test } from 'vitest';
import { Procedures } from '../src/engine/briefState.ts';
import { releaseBrief } from '../src/engine/incidents.ts';
import { stopOverdue } from '../src/engine/stop.ts';
import { changeBlogWords } from '../src/nouns/blogs/change.ts';
import { decide } from '../src/nouns/briefs/holds.ts';
import { waitForTurn } from '../src/ports/services/turns.ts';
import { type World, world } from './ground/world.ts';

let w: World;
beforeEach(async () => {
  w = await world();
});
afterEach(() => w.close());

const SUBJECT = ['how much salt for sauerkraut'];
const never = new AbortController().signal;

test('calls of a service begin no closer than its pace, whoever makes them, and a wait for a turn can be given up', async () => {
  const { ground } = w.product;
  const service = { id: w.writer, calls_a_minute: 600 };
  const from = performance.now();
  await Promise.all(Array.from({ length: 8 }, () => waitForTurn(ground, service, never)));
  // The first goes at once, each other a tenth of a second after the one before.
  expect(performance.now() - from).toBeGreaterThanOrEqual(700);
  const slow = { id: w.writer, calls_a_minute: 1 };
  const giveUp = new AbortController();
  await waitForTurn(ground, slow, never);
  const waiting = waitForTurn(ground, slow, giveUp.signal);
  giveUp.abort();
  expect(await waiting).toBe(false);
  expect(await waitForTurn(ground, { id: w.writer, calls_a_minute: null }, never)).toBe(true);
});

test('services without a price keep their pace too', async () => {
  const { ground, tools } = w.product;
  await ground.db.run(
    "UPDATE service SET calls_a_minute = 300 WHERE role IN ('look-up', 'video host', 'keyword service')",
  );
  await tools.services.refresh();
  const service = (role: 'look-up' | 'video host' | 'keyword service') => tools.services.standard(role)!;
  const calls = [
    () =>
      tools.lookUp.find(
        service('look-up'),
        { subject: 'salt', pages: 1, language: 'en', country: null, since: null },
        never,
      ),
    () => tools.videoHost.find(service('video host'), 'salt', never),
    () => tools.keywordFigures.measure(service('keyword service'), ['salt'], { language: 'en', country: null }, never),
  ];
  for (const call of calls) {
    const from = performance.now();
    expect((await Promise.all([call(), call(), call()])).every(({ ok }) => ok)).toBe(true);
    expect(performance.now() - from).toBeGreaterThanOrEqual(400);
  }
});

test('a brief is written at the pace of its writer', async () => {
  const { db } = w.product.ground;
  await db.run('UPDATE service SET calls_a_minute = 200 WHERE id = ?', [w.writer]);
  await w.product.ringAll();
  await w.product.work('both');
  const from = performance.now();
  await w.settled(await w.take(await w.pipeline(SUBJECT)), ['out']);
  const calls = w.standIns.received().calls.filter(({ what }) => what === 'text').length;
  expect(calls).toBeGreaterThan(4);
  expect(performance.now() - from).toBeGreaterThanOrEqual((calls - 1) * 300);
}, 60_000);

const timed = (steps: Step[]): Step[] =>
  steps.map((step) => (step.kind === 'take' ? { ...step, mostMinutes: 5 } : step));

/** As if the brief had begun its stretch of work an hour ago. */
async function anHourAgo(brief: string): Promise<void> {
  await w.product.ground.db.run(
    'UPDATE brief SET in_work_since = DATE_SUB(in_work_since, INTERVAL 1 HOUR) WHERE id = ?',
    [brief],
  );
}

test('a brief that is in work for too long is stopped, says so, and gets as long again when it is let go on', async () => {
  const { ground } = w.product;
  await w.product.work('both');
  w.standIns.trouble('writer', { how: 'busy', retryAfterSeconds: 600 }, 50);
  const briefs = await w.take(await w.pipeline(SUBJECT, timed));
  await expect
    .poll(() => ground.db.rows("SELECT id FROM step_run WHERE state = 'waiting' AND failure IS NOT NULL"), {
      timeout: 20_000,
    })
    .toHaveLength(1);
  expect(await stopOverdue(ground)).toBe(0);
  await anHourAgo(briefs[0]!);
  // The worker looks for such briefs by itself.
  await w.settled(briefs, ['stopped'], 20_000);
  const [run] = await ground.db.rows<{ failure: Failure }>("SELECT failure FROM step_run WHERE state = 'stopped'");
  expect(run!.failure).toEqual({ code: 'took-too-long', minutes: 5 });
  expect(wordsOf(run!.failure).sentence).toContain('longer than the 5 minutes');
  w.standIns.calm();
  expect(await releaseBrief(ground, briefs[0]!)).toBe(1);
  await w.product.ringAll();
  await w.settled(briefs, ['out']);
}, 60_000);

test('what is held or waits for its slot is not in work, and begins a stretch of its own afterwards', async () => {
  const { ground } = w.product;
  await w.product.work('both');
  const held = (steps: Step[]): Step[] => [
    ...timed(steps.slice(0, 1)),
    { ...stepKinds.hold.fresh('h1') },
    ...steps.slice(1),
  ];
  const [brief] = await w.take(await w.pipeline(SUBJECT, held));
  await w.settled([brief!], ['held']);
  await anHourAgo(brief!);
  expect(await stopOverdue(ground)).toBe(0);
  const since = async () =>
    (
      await ground.db.rows<{ old: number }>(
        'SELECT in_work_since < DATE_SUB(UTC_TIMESTAMP(3), INTERVAL 5 MINUTE) AS old FROM brief WHERE id = ?',
        [brief],
      )
    )[0]!.old;
  expect(await since()).toBe(1);
  const [run] = await ground.db.rows<{ id: string }>("SELECT id FROM step_run WHERE state = 'held'");
  expect(run).toBeDefined();
  const passed = await decide(
    w.product.tools,
    new Procedures(),
    { brief: brief!, run: run!.id, person: 'p'.repeat(20), decision: { decide: 'pass', change: {} } },
    () => null,
  );
  expect(passed.kind).toBe('decided');
  await w.product.ringAll();
  await w.settled([brief!], ['out', 'ready', 'in work']);
  expect(await since()).toBe(0);
  await w.settled([brief!], ['out']);
}, 60_000);

test('a blog gets no more calls at the same time than it takes, however many posts are due', async () => {
  const { ground } = w.product;
  await changeBlogWords(ground, w.blog, { callsAtOnce: 2 });
  await w.product.work('both');
  let [now, most] = [0, 0];
  w.standIns.watch(async (point) => {
    if (point === 'blog.acted') now--;
    if (point !== 'blog.received') return;
    most = Math.max(most, ++now);
    await new Promise((then) => setTimeout(then, 40));
  });
  const laidOut = (steps: Step[]): Step[] => [
    ...steps.slice(0, 1),
    { ...stepKinds['lay out'].fresh('l1'), body: 'Of {{ subject }}. Combed wet, it dries for a day.' },
    { ...stepKinds.publish.fresh('p1'), blog: w.blog, when: 'at once' },
  ];
  const subjects = ['bow', 'peg', 'nut', 'frog', 'tip', 'hair', 'reed', 'pad', 'key', 'bell'];
  const briefs = await w.take(await w.pipeline(subjects, laidOut));
  await w.settled(briefs, ['out']);
  expect(briefs).toHaveLength(10);
  expect(most).toBe(2);
}, 60_000);
