import type { BriefWhole, RunWhole, Sheet, SheetRow } from '@grivo/contract';
import { type Step, stepKinds } from '@grivo/core';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { type Ask, serve } from './ground/http.ts';
import { LENIENT, type World, world } from './ground/world.ts';

let w: World;
let http: Awaited<ReturnType<typeof serve>>;
let editor: Ask;
let reader: Ask;

beforeAll(async () => {
  w = await world();
  http = await serve(w);
  [editor, reader] = await Promise.all([http.as('editor'), http.as('proofreader')]);
  await w.product.work('both');
});
afterAll(async () => {
  http.close();
  await w.close();
});

const BODY = '{{ subject }} wants salt.\n\n## Salt\n\nWeigh it, and use twenty grams a kilo.';

/** Lays out a text, branches, and ends in a way of its own. */
function steps(end: Step[]): (before: Step[]) => Step[] {
  return ([take]) => [
    take!,
    { ...stepKinds['lay out'].fresh('s2'), body: BODY, title: '{{ subject }}', reads: 'Markdown' as const },
    {
      ...stepKinds.meanwhile.fresh('s3'),
      steps: [
        {
          ...stepKinds.vary.fresh('s4'),
          variants: ['{In short|At a glance}: {{ subject }}'],
          for: 'the title' as const,
        },
      ],
    },
    ...end,
  ];
}
const off: Step = { ...stepKinds.wait.fresh('s8'), off: true };
const set = (id: string): Step => ({
  ...stepKinds.check.fresh(id),
  words: { from: 5_000, to: 6_000 },
  otherwise: 'set it aside',
  again: 0,
});

const sheet = async (pipeline: string, query = '') =>
  (await reader<Sheet>('GET', `/pipelines/${pipeline}/sheet${query}`)).body;

describe('the sheet of a pipeline', () => {
  test('has a column a step and a row a brief, branches below it, newest first, page by page', async () => {
    const pipeline = await w.pipeline(
      ['apple kraut', 'beet kvass', 'carrot sticks'],
      steps([off, stepKinds.hold.fresh('s9')]),
    );
    const briefs = await w.take(pipeline);
    await w.settled(briefs, ['held']);
    const all = await sheet(pipeline);
    expect(all.columns.map(({ n, step, depth }) => `${n} ${step} ${depth}`)).toEqual([
      '2 s2 0',
      '3 s3 0',
      '4 s4 1',
      '6 s9 0',
    ]);
    expect(all.rows.map(({ subject }) => subject)).toEqual(['carrot sticks', 'beet kvass', 'apple kraut']);
    const [row] = all.rows as [SheetRow];
    expect(row).toMatchObject({ standing: 'held', cells: 'dddh', says: 'held at hold', title: 'carrot sticks' });
    expect(row.words).toBeGreaterThan(5);
    expect(row.siblings).toHaveLength(1);
    expect(row.siblings[0]).toMatchObject({ cells: '..d.', language: 'en' });
    expect(row.siblings[0]!.title).toMatch(/^(In short|At a glance): carrot sticks$/);
    const first = await sheet(pipeline, '?limit=2');
    expect(first.rows).toEqual(all.rows.slice(0, 2));
    expect(first.more).toBe(first.rows[1]!.id);
    const second = await sheet(pipeline, `?limit=2&before=${first.more}`);
    expect(second.rows).toEqual(all.rows.slice(2));
    expect(second.more).toBeNull();
  });

  test('finds words of subjects, whatever signs are typed, and keeps to one standing', async () => {
    const pipeline = await w.pipeline(
      ['hot 100% pepper mash', 'mild pepper relish'],
      steps([stepKinds.hold.fresh('s9')]),
    );
    await w.settled(await w.take(pipeline), ['held']);
    const found = async (query: string) => (await sheet(pipeline, query)).rows.map(({ subject }) => subject);
    expect(await found('?find=pepper')).toHaveLength(2);
    expect(await found('?find=PEPPER%20mild')).toEqual(['mild pepper relish']);
    expect(await found('?find=100%25%20')).toEqual(['hot 100% pepper mash']);
    expect(await found('?find=%25%25')).toEqual([]);
    expect(await found('?find=_')).toEqual([]);
    expect(await found('?standing=held')).toHaveLength(2);
    expect(await found('?standing=stopped')).toEqual([]);
    expect((await reader('GET', `/pipelines/${pipeline}/sheet?standing=lost`)).status).toBe(422);
    expect((await reader('GET', '/pipelines/nowhere/sheet')).status).toBe(404);
  });

  test('says what stopped a brief', async () => {
    const inside = { ...stepKinds.fetch.fresh('s9'), address: 'http://10.0.0.1/figures' };
    const pipeline = await w.pipeline(['a page nobody may read'], steps([inside]));
    await w.settled(await w.take(pipeline), ['stopped']);
    const [row] = (await sheet(pipeline)).rows;
    expect(row!.cells.at(-1)).toBe('s');
    expect(row!.says).not.toBe('stopped');
  });
});

describe('one step run', () => {
  test('tells what it read and gave, its rounds, and the attempts that did not end it', async () => {
    const pipeline = await w.pipeline(
      ['salt by weight'],
      steps([{ ...stepKinds.check.fresh('s5'), ...LENIENT, words: { from: 1, to: 900 } }, stepKinds.hold.fresh('s9')]),
    );
    const [id] = await w.take(pipeline);
    await w.settled([id!], ['held']);
    await editor('POST', `/briefs/${id}/again`, { step: 's5' });
    await w.settled([id!], ['held']);
    const { runs } = (await reader<BriefWhole>('GET', `/briefs/${id}`)).body;
    const check = runs.filter(({ path }) => path === 's5');
    expect(check.map(({ round }) => round)).toEqual([0, 1]);
    const whole = (await reader<RunWhole>('GET', `/runs/${check[1]!.id}`)).body;
    expect(whole.rounds.map(({ round, state }) => [round, state])).toEqual([
      [0, 'done'],
      [1, 'done'],
    ]);
    expect(whole.wentIn.find(({ name }) => name === 'subject')?.text).toBe('salt by weight');
    expect(whole.wentIn.find(({ name }) => name === 'article')?.text).toMatch(/^\d+ words: .*twenty grams/s);
    expect(whole.run.gave).toMatchObject({ check: { words: expect.any(Number) as number } });
    expect(whole.attempts).toEqual([]);
    expect((await reader('GET', '/runs/nowhere')).status).toBe(404);
    const fill = async (brief: string, text: string) => reader('POST', `/briefs/${brief}/fill`, { step: 's5', text });
    expect((await fill(id!, 'On {{ subject }}, {{ article.words }} words.')).body).toEqual({
      text: expect.stringMatching(/^On salt by weight, \d+ words\.$/) as string,
      problem: null,
    });
    expect((await fill(id!, 'On {{ nobody }}.')).body['problem']).toContain('nobody');
    expect((await fill(id!, 'On {{ subject')).body['problem']).not.toBeNull();
    expect((await fill('nowhere', 'x')).status).toBe(404);
  });
});

test('what is said beside the rev is never answered from a store', async () => {
  const pipeline = await w.pipeline(['never stale'], steps([stepKinds.hold.fresh('s9')]));
  const { headers } = await reader('GET', `/pipelines/${pipeline}`);
  expect([headers.get('etag'), headers.get('cache-control')]).toEqual(['"1"', 'no-store']);
});

describe('many briefs', () => {
  test('are set aside and brought back at once; those it does not fit are counted and left', async () => {
    const pipeline = await w.pipeline(['one jar', 'two jars', 'three jars'], steps([stepKinds.hold.fresh('s9')]));
    const briefs = await w.take(pipeline);
    await w.settled(briefs, ['held']);
    const many = async (act: string, ids: string[]) =>
      (await editor<{ done: number; left: number }>('POST', '/briefs/many', { do: act, briefs: ids })).body;
    expect(await many('set aside', briefs.slice(0, 2))).toEqual({ done: 2, left: 0, more: 0 });
    expect(await many('set aside', briefs)).toEqual({ done: 1, left: 2, more: 0 });
    expect(await many('put ahead', briefs)).toEqual({ done: 0, left: 3, more: 0 });
    expect(await many('bring back', [...briefs, '0'.repeat(20)])).toEqual({ done: 3, left: 1, more: 0 });
    await w.settled(briefs, ['held']);
    for (const { cells, siblings } of (await sheet(pipeline)).rows) {
      expect(cells).toBe('dddh');
      expect(siblings.map((sibling) => sibling.cells)).toEqual(['..d.']);
    }
    const standings = await w.product.ground.db.rows<{ standing: string }>(
      'SELECT standing FROM article WHERE brief IN (?)',
      [briefs],
    );
    expect(new Set(standings.map(({ standing }) => standing))).toEqual(new Set(['in work']));
    expect((await reader('POST', '/briefs/many', { do: 'set aside', briefs })).status).toBe(403);
    expect((await editor('POST', '/briefs/many', { do: 'burn', briefs })).status).toBe(422);
  });
});

describe('a brief stopped by a person', () => {
  test('goes no further, says who stopped it, and goes on where it was without paying again', async () => {
    w.standIns.trouble('writer', { how: 'delay', ms: 1_500 }, 1);
    const pipeline = await w.pipeline(['how much salt for sauerkraut'], ([take, look, outline]) => [
      take!,
      look!,
      outline!,
      stepKinds.hold.fresh('s9'),
    ]);
    const [id] = await w.take(pipeline);
    const whole = async () => (await reader<BriefWhole>('GET', `/briefs/${id}`)).body;
    await expect
      .poll(async () => (await whole()).runs.find(({ path }) => path === 's3')?.state, {
        timeout: 10_000,
        interval: 20,
      })
      .toBe('running');
    expect((await editor('POST', `/briefs/${id}/stop`, {})).status).toBe(204);
    const stopped = (await whole()).runs.find(({ path }) => path === 's3');
    expect(stopped).toMatchObject({ state: 'stopped', failure: { sentence: 'editor stopped it.' } });
    expect((await editor('POST', `/briefs/${id}/stop`, {})).status).toBe(409);
    const asked = () => w.standIns.received().calls.filter(({ name }) => name === 'outline').length;
    // The call that was under way comes back, is kept, and does not move the brief.
    await expect.poll(asked, { timeout: 5_000 }).toBe(1);
    await new Promise((resolve) => setTimeout(resolve, 300));
    expect((await whole()).standing).toBe('stopped');
    expect((await editor('POST', `/briefs/${id}/release`, {})).status).toBe(200);
    await w.settled([id!], ['held']);
    expect(asked()).toBe(1);
  });
});

describe('a brief set aside', () => {
  test('by a check goes on when it is brought back: the person overrules it, and what was done is not done again', async () => {
    const pipeline = await w.pipeline(['too short by far'], steps([set('s5'), stepKinds.hold.fresh('s9')]));
    const [id] = await w.take(pipeline);
    await w.settled([id!], ['set aside']);
    const before = (await reader<BriefWhole>('GET', `/briefs/${id}`)).body.runs;
    expect((await editor('POST', `/briefs/${id}/bring-back`, {})).status).toBe(204);
    await w.settled([id!], ['held']);
    const after = (await reader<BriefWhole>('GET', `/briefs/${id}`)).body.runs;
    expect(after.map(({ path, state }) => `${path} ${state}`).sort()).toEqual([
      's2 done',
      's3 done',
      's3/s4 done',
      's5 done',
      's9 held',
    ]);
    const done = before.filter(({ state }) => state === 'done').map((run) => run.id);
    expect(after.filter((run) => done.includes(run.id))).toHaveLength(done.length);
    expect((await editor('POST', `/briefs/${id}/bring-back`, {})).status).toBe(409);
    expect((await editor('POST', '/briefs/nowhere/bring-back', {})).status).toBe(404);
  });

  test('before it began waits to be let in again', async () => {
    const pipeline = await w.pipeline(['patience first'], (before) =>
      steps([stepKinds.hold.fresh('s9')])(before.map((step) => (step.kind === 'take' ? { ...step, atOnce: 1 } : step))),
    );
    await w.product.ground.db.run('UPDATE pipeline SET open_limit = 0 WHERE id = ?', [pipeline]);
    const [id] = await w.take(pipeline);
    await editor('POST', `/briefs/${id}/set-aside`, {});
    await w.settled([id!], ['set aside']);
    await editor('POST', `/briefs/${id}/bring-back`, {});
    await w.settled([id!], ['waiting']);
    await w.product.ground.db.run('UPDATE pipeline SET open_limit = 5 WHERE id = ?', [pipeline]);
    w.product.bell.ring({ kind: 'admit' });
    await w.settled([id!], ['held']);
  });
});
