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
