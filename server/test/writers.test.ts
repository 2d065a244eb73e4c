import type { Estimate } from '@grivo/contract';
import { type ProcedureDocument, type Step, stepKinds } from '@grivo/core';
import { expect, test } from 'vitest';
import { atTheDesk, type Desk } from './ground/desk.ts';
import { intakeAt } from './ground/intake.ts';

let desk: Desk;
atTheDesk((open) => {
  desk = open;
});
const { sourceOf } = intakeAt(() => desk);

let owner: Desk['ask'];

/** Another writer behind the same door, ten times as dear. */
async function second(): Promise<string> {
  owner ??= await desk.http.as('owner');
  const made = await owner<{ id: string }>('POST', '/services', {
    role: 'writer',
    name: `The dear writer ${Math.random()}`,
    address: desk.w.product.tools.services.get(desk.w.writer)!.address,
    model: 'stand-in',
    secret: desk.w.standIns.keys.one,
    price: { microsPerThousandIn: 9_000, microsPerThousandOut: 27_000, microsPerPicture: 0 },
  });
  return made.body.id;
}

test('a step calls the writer it names, else that of its procedure, else that of the installation', async () => {
  const dear = await second();
  const dearer = await second();
  const source = await sourceOf({ kind: 'requests' }, 'Two writers');
  const steps: Step[] = [
    { ...stepKinds.take.fresh('s1'), sources: [source] },
    {
      ...stepKinds.answer.fresh('s2'),
      reading: 'nothing besides',
      instruction: 'Say one thing on {{ subject }}.',
      as: 'one',
    },
    {
      ...stepKinds.answer.fresh('s3'),
      reading: 'nothing besides',
      instruction: 'Say another on {{ subject }}.',
      as: 'two',
      service: dearer,
    },
  ];
  const document: ProcedureDocument = { grivo: 1, language: 'en', steps, services: { writer: dear } };
  const pipeline = (await desk.ask<{ id: string }>('POST', '/pipelines', { name: 'Two writers', document })).body.id;
  const called = async (brief: string) =>
    (
      await desk.w.product.ground.db.rows<{ path: string; service: string }>(
        'SELECT r.path, l.service FROM ledger l JOIN step_run r ON r.id = l.step_run WHERE r.brief = ? ORDER BY r.path',
        [brief],
      )
    ).map(({ path, service }) => [path, service]);
  const run = async (subject: string) => {
    await desk.ask('POST', `/sources/${source}/requests`, { subject, notes: 'Say it plainly.' });
    const took = await desk.ask<{ briefs: string[] }>('POST', `/pipelines/${pipeline}/take`, {});
    const { briefs } = took.body;
    await desk.w.settled(briefs, ['out']);
    return called(briefs[0]!);
  };
  expect(await run('rosin')).toEqual([
    ['s2', dear],
    ['s3', dearer],
  ]);
  const estimate = async (document: ProcedureDocument) =>
    (await desk.ask<{ micros: number }>('POST', '/procedures/estimate', { document })).body.micros;
  expect(await estimate(document)).toBeGreaterThan(0);
  // Without either, the installation's.
  const { services: _, ...rest } = document;
  const plain = { ...rest, steps: steps.map(({ service: __, ...step }) => step as Step) };
  const whole = (await desk.ask<{ rev: number }>('GET', `/pipelines/${pipeline}`)).body;
  const saved = await desk.ask('PUT', `/pipelines/${pipeline}`, { document: plain }, { 'if-match': `"${whole.rev}"` });
  expect([200, 204]).toContain(saved.status);
  expect(await run('bow hair')).toEqual([
    ['s2', desk.w.writer],
    ['s3', desk.w.writer],
  ]);
});

test('judged by a cheap writer and answered by a dear one: what it will cost names both, and the books agree to the millionth', async () => {
  const dear = await second();
  const cheap = desk.w.writer;
  const source = await sourceOf({ kind: 'requests' }, 'Cheap and dear');
  const steps: Step[] = [
    { ...stepKinds.take.fresh('s1'), sources: [source], most: 5 },
    { ...stepKinds.judge.fresh('s2'), of: 'the subject', least: 0 },
    {
      ...stepKinds.answer.fresh('s3'),
      reading: 'nothing besides',
      instruction: 'Say one thing on {{ subject }}.',
      as: 'one',
      service: dear,
    },
  ];
  const document: ProcedureDocument = { grivo: 1, language: 'en', steps };
  const estimate = async (of = document) =>
    (await desk.ask<Estimate>('POST', '/procedures/estimate', { document: of })).body;
  const first = await estimate();
  expect(first.steps.map(({ step, service, named }) => [step, service, named])).toEqual([
    ['s2', cheap, false],
    ['s3', dear, true],
  ]);
  // Each by either, side by side: the dear one takes ten times as much.
  for (const { by } of first.steps) {
    const of = (id: string) => by.find(({ service }) => service === id)!.micros;
    expect(of(dear) / of(cheap)).toBeCloseTo(10, 1);
  }

  const pipeline = (await desk.ask<{ id: string }>('POST', '/pipelines', { name: 'Cheap and dear', document })).body.id;
  const before = desk.w.standIns.received().calls.length;
  for (const subject of ['rosin', 'tail gut', 'a soundpost', 'bridges', 'pegs'])
    await desk.ask('POST', `/sources/${source}/requests`, { subject, notes: 'Say it plainly.' });
  const { briefs } = (await desk.ask<{ briefs: string[] }>('POST', `/pipelines/${pipeline}/take`, {})).body;
  expect(briefs).toHaveLength(5);
  await desk.w.settled(briefs, ['out']);

  // What the service itself says it used, at the price of each.
  const calls = desk.w.standIns.received().calls.slice(before);
  const owed = (judged: boolean, tenfold: number) =>
    calls
      .filter(({ name }) => (name === 'judgement') === judged)
      .reduce(
        (sum, { tokensIn, tokensOut }) =>
          sum + Math.ceil((tokensIn * 900 * tenfold + tokensOut * 2_700 * tenfold) / 1_000),
        0,
      );
  const booked = await desk.w.product.ground.db.rows<{ service: string; micros: number }>(
    'SELECT service, SUM(micros) AS micros FROM ledger WHERE brief IN (?) GROUP BY service',
    [briefs],
  );
  const paid = Object.fromEntries(booked.map(({ service, micros }) => [service, Number(micros)]));
  expect(paid).toEqual({ [cheap]: owed(true, 1), [dear]: owed(false, 10) });

  // What comes next is expected to cost what these did, each step at the price of its writer.
  const next = await estimate();
  expect(next.byPrice).toBe(0);
  const each = Object.values(paid).reduce((a, b) => a + b, 0) / briefs.length;
  expect(Math.abs(next.micros - each)).toBeLessThan(4);
  const allDear = await estimate({ ...document, services: { writer: dear } });
  const judgedDear = next.steps[0]!.by.find(({ service }) => service === dear)!.micros;
  expect(allDear.micros).toBe(
    next.micros - next.steps[0]!.by.find(({ service }) => service === cheap)!.micros + judgedDear,
  );
  // A price that changes tells at once, whatever was paid before.
  const { rev } = (await owner<{ services: { id: string; rev: number }[] }>('GET', '/services')).body.services.find(
    ({ id }) => id === dear,
  )!;
  const changed = await owner(
    'PUT',
    `/services/${dear}`,
    { price: { microsPerThousandIn: 18_000, microsPerThousandOut: 54_000, microsPerPicture: 0 } },
    { 'if-match': `"${rev}"` },
  );
  expect(changed.status).toBeLessThan(300);
  const twice = await estimate();
  const ofAnswer = (one: Estimate) => one.steps[1]!.by.find(({ service }) => service === dear)!.micros;
  expect(ofAnswer(twice) / ofAnswer(next)).toBeCloseTo(2, 3);
});

test('a service that a procedure names is not taken away, and one that is not there is told', async () => {
  const dear = await second();
  const source = await sourceOf({ kind: 'requests' }, 'Named writers');
  const steps: Step[] = [
    { ...stepKinds.take.fresh('s1'), sources: [source] },
    {
      ...stepKinds.answer.fresh('s2'),
      reading: 'nothing besides',
      instruction: 'Say one thing.',
      as: 'one',
      service: dear,
    },
  ];
  const made = await desk.ask<{ id: string }>('POST', '/pipelines', {
    name: 'Named writers',
    document: { grivo: 1, language: 'en', steps },
  });
  expect((await owner('DELETE', `/services/${dear}`)).problem.detail).toMatch(/‘Named writers’ names it/);
  const { sentences } = (await desk.ask<{ sentences: string[] }>('GET', `/pipelines/${made.body.id}`)).body;
  expect(JSON.stringify(sentences)).toContain('The dear writer');
  const strange = steps.map((step) => (step.id === 's2' ? { ...step, service: 'nobody' } : step));
  const checked = await desk.ask<{ id: string }>('POST', '/pipelines', {
    name: 'Strange writers',
    document: { grivo: 1, language: 'en', steps: strange },
  });
  const problems = (await desk.ask<{ problems: { sentence: string }[] }>('GET', `/pipelines/${checked.body.id}`)).body;
  expect(problems.problems.map(({ sentence }) => sentence)).toContain('The writer it names is not there.');
});
