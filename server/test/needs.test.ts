import type { Need, Today } from '@grivo/contract';
import { type Step, stepKinds } from '@grivo/core';
import { expect, test } from 'vitest';
import { atTheDesk, type Desk } from './ground/desk.ts';
import { intakeAt } from './ground/intake.ts';

let desk: Desk;
atTheDesk((open) => {
  desk = open;
});
const { sourceOf } = intakeAt(() => desk);

const k = stepKinds;
const needs = async <K extends Need['kind']>(kind: K) =>
  (await desk.ask<Today>('GET', '/today')).body.needs.filter(
    (need): need is Extract<Need, { kind: K }> => need.kind === kind,
  );

/** A pipeline of phrases through some steps, each phrase taken. */
async function taken(name: string, phrases: string[], steps: Step[]): Promise<string[]> {
  const source = await sourceOf({ kind: 'keywords' });
  await desk.ask('POST', `/sources/${source}/keywords`, { paste: phrases.join('\n') });
  const document = {
    grivo: 1,
    language: 'en',
    steps: [{ ...k.take.fresh('s1'), sources: [source], most: null }, ...steps],
  };
  const { body } = await desk.ask<{ id: string }>('POST', '/pipelines', { name, document });
  return (await desk.ask<{ briefs: string[] }>('POST', `/pipelines/${body.id}/take`, {})).body.briefs;
}

const many = (act: string, briefs: readonly string[]) => desk.ask('POST', '/briefs/many', { do: act, briefs });

test('phrases of another trade are set aside before anything is written, and stand on Today as one, with what is lacking', async () => {
  const paid = () => desk.w.standIns.received().calls.filter(({ what }) => what === 'text').length;
  const before = paid();
  const write: Step[] = [k['look up'].fresh('s2'), k.outline.fresh('s3'), { ...k.write.fresh('s4'), words: 200 }];
  const briefs = await taken('Off', ['cross-cut paper shredder', 'bicycle bells for tandems'], write);
  await desk.w.settled(briefs, ['set aside']);
  expect(paid()).toBe(before);
  const [aside, ...others] = await needs('aside');
  expect(others).toEqual([]);
  expect(aside).toMatchObject({ pipelineName: 'Off', step: 'look up' });
  expect([...aside!.briefs].sort()).toEqual([...briefs].sort());
  const [shredder, bells] = aside!.briefs as [string, string];
  expect(aside!.why).toMatch(
    /^Nothing found that answers ‘cross-cut paper shredder’: of \d pages found, none speaks of it\. Nothing is said of ‘cross-cut’\.$/,
  );
  // Left aside by a person, it is shown no more; brought back, it goes on with what was found.
  expect((await many('leave aside', [bells])).body).toEqual({ done: 1, left: 0, more: 0 });
  expect((await needs('aside'))[0]!.briefs).toEqual([shredder]);
  await many('bring back', [shredder]);
  await desk.w.settled([shredder], ['out', 'stopped']);
  expect(paid()).toBeGreaterThan(before);
  expect(await needs('aside')).toEqual([]);
});

test.each([
  ['stop it', 'stopped'],
  ['hold it for me', 'held'],
] as const)('with too few pages that answer it a brief ends as the step says: %s', async (otherwise, standing) => {
  const briefs = await taken(
    otherwise,
    ['tandem bells'],
    [{ ...k['look up'].fresh('s2'), otherwise }, k.outline.fresh('s3')],
  );
  await desk.w.settled(briefs, [standing]);
  await many('set aside', briefs);
  // Set aside by a person, it needs nobody.
  expect(await needs('aside')).toEqual([]);
});

test('pages that speak of the thing and not of what is asked answer nothing', async () => {
  const asks = ['where to buy shredded cabbage', 'history of shredded cabbage'];
  const briefs = await taken('Asked', asks, [k['look up'].fresh('s2'), k.outline.fresh('s3')]);
  await desk.w.settled(briefs, ['set aside']);
  const why = (await needs('aside')).map((need) => need.why).join('\n');
  expect(why).toMatch(/of it\. None says (?:where it is sold or what it costs|where it comes from)\./);
  await many('leave aside', briefs);
});

test('how many pages must answer it is said in the step', async () => {
  const of = (least: number) =>
    taken(
      `At least ${least}`,
      ['how long does sauerkraut last'],
      [{ ...k['look up'].fresh('s2'), pages: 8, least }, k.wait.fresh('s3')],
    );
  const [few, many8] = [await of(1), await of(8)];
  await desk.w.settled(many8, ['set aside']);
  await desk.w.settled(few, ['in work', 'out']);
  await many('leave aside', many8);
});

test('briefs stopped for one cause are one entry, and go on or are set aside together', async () => {
  const briefs = await taken(
    'Texts',
    ['salt one', 'salt two', 'salt three'],
    [{ ...k.fetch.fresh('s2'), address: 'no address', as: 'x' }],
  );
  await desk.w.settled(briefs, ['stopped']);
  const [one] = (await needs('brief')).filter(({ pipelineName }) => pipelineName === 'Texts');
  expect([...one!.briefs].sort()).toEqual([...briefs].sort());
  expect((await many('set aside', one!.briefs)).body).toEqual({ done: 3, left: 0, more: 0 });
  expect((await needs('brief')).filter(({ pipelineName }) => pipelineName === 'Texts')).toEqual([]);
});

test('what is tried again for more than two minutes is told, with the reason; before that it is not', async () => {
  desk.w.standIns.trouble('look-up', { how: 'busy', retryAfterSeconds: 30 });
  const briefs = await taken('Again', ['shredding cabbage'], [k['look up'].fresh('s2'), k.outline.fresh('s3')]);
  const { db } = desk.w.product.ground;
  for (let i = 0; i < 100; i++) {
    const rows = await db.rows("SELECT 1 FROM step_run WHERE brief IN (?) AND state = 'waiting' AND tries > 0", [
      briefs,
    ]);
    if (rows.length > 0) break;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  expect(await needs('again')).toEqual([]);
  await db.run(
    'UPDATE step_run SET started_at = UTC_TIMESTAMP(3) - INTERVAL 121 SECOND, made_at = UTC_TIMESTAMP(3) - INTERVAL 121 SECOND WHERE brief IN (?)',
    [briefs],
  );
  expect(await needs('again')).toMatchObject([{ pipelineName: 'Again', step: 'look up', briefs }]);
  desk.w.standIns.calm();
  await many('set aside', briefs);
  expect(await needs('again')).toEqual([]);
});

test('what waits for a yes at a hook stands there until it is said', async () => {
  const source = await sourceOf({ kind: 'hook', signed: false, confirm: true }, 'The shop');
  const { address } = (await desk.ask<{ address: string }>('GET', `/sources/${source}/hook`)).body;
  await fetch(address, { method: 'POST', body: JSON.stringify({ subject: 'A tandem came in' }) });
  expect(await needs('confirm')).toEqual([
    { kind: 'confirm', id: source, name: 'The shop', items: 1, subject: 'A tandem came in' },
  ]);
});
