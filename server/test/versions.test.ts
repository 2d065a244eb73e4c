import type { BriefWhole, PipelineWhole, Sheet } from '@grivo/contract';
import { stepKinds as k, type ProcedureDocument, type Step } from '@grivo/core';
import { expect, test } from 'vitest';
import { atTheDesk, type Desk } from './ground/desk.ts';
import { intakeAt } from './ground/intake.ts';

let desk: Desk;
atTheDesk((open) => {
  desk = open;
});
const { sourceOf } = intakeAt(() => desk);

/** Fifty requests, of which one begins every hour: the first fails, as the others would. */
async function fifty(name: string, body: string, more: Partial<ProcedureDocument> = {}) {
  const source = await sourceOf({ kind: 'requests' });
  const document: ProcedureDocument = {
    grivo: 1,
    language: 'en',
    ...more,
    steps: [
      { ...k.take.fresh('s1'), sources: [source], most: null, apartMinutes: 60 },
      { ...k.vary.fresh('s2'), variants: ['{{ subject }}'], for: 'a field', as: 'said' },
      { ...k['lay out'].fresh('s3'), body, title: '{{ subject }}' },
    ],
  };
  const made = await desk.ask<{ id: string }>('POST', '/pipelines', { name, document, openLimit: 60 });
  for (let i = 1; i <= 50; i++)
    await desk.ask('POST', `/sources/${source}/requests`, { subject: `Wheel ${i}`, notes: 'Turn the nipple.' });
  const { briefs } = (await desk.ask<{ briefs: string[] }>('POST', `/pipelines/${made.body.id}/take`, {})).body;
  expect(briefs).toHaveLength(50);
  return { id: made.body.id, document, briefs };
}

const whole = async (id: string) => (await desk.ask<PipelineWhole>('GET', `/pipelines/${id}`)).body;
const brief = async (id: string) => (await desk.ask<BriefWhole>('GET', `/briefs/${id}`)).body;
const many = async (body: object) =>
  (await desk.ask<{ done: number; left: number; more: number }>('POST', '/briefs/many', body)).body;
const saved = async (id: string, document: ProcedureDocument) => {
  const answer = await desk.ask<PipelineWhole>(
    'PUT',
    `/pipelines/${id}`,
    { document },
    { 'if-match': `"${(await whole(id)).rev}"` },
  );
  expect(answer.status).toBe(200);
  return answer.body;
};
const withStep = (document: ProcedureDocument, step: Step): ProcedureDocument => ({
  ...document,
  steps: document.steps.map((one) => (one.id === step.id ? step : one)),
});

test('50 waiting, a correction saved: what waits begins with it, what has begun is brought to it, all stop, all go on, one begins now', async () => {
  const { id, document, briefs } = await fifty('Corrected', '> '.repeat(2_000));
  const [first] = briefs as [string];
  await desk.w.settled([first], ['stopped']);
  const mended = withStep(document, { ...k['lay out'].fresh('s3'), body: 'Turn the nipple.', title: '{{ subject }}' });
  const after = await saved(id, mended);
  expect(after).toMatchObject({ version: 2, older: 1, counts: { waiting: 49, stopped: 1 } });
  // Brought to the newest, it goes on from the step that was corrected; what stood above it is kept.
  expect(await many({ do: 'bring to the newest', matching: { pipeline: id } })).toEqual({ done: 1, left: 0, more: 0 });
  await desk.w.settled([first], ['out']);
  const done = await brief(first);
  expect(done.version).toBe(2);
  expect(done.runs.filter(({ path }) => path === 's2')).toHaveLength(1);
  expect((await whole(id)).older).toBe(0);
  // All stop, begun or not, and all go on.
  expect(await many({ do: 'stop', matching: { pipeline: id, standing: ['waiting', 'in work'] } })).toMatchObject({
    done: 49,
  });
  expect((await whole(id)).counts).toMatchObject({ waiting: 0, stopped: 49 });
  expect(await many({ do: 'go on', matching: { pipeline: id, standing: ['stopped'] } })).toMatchObject({ done: 49 });
  expect((await whole(id)).counts).toMatchObject({ waiting: 49, stopped: 0 });
  // The queue says when each begins and what it waits for.
  const sheet = (await desk.ask<Sheet>('GET', `/pipelines/${id}/sheet?standing=waiting&limit=10`)).body;
  expect(sheet.rows.map((row) => row.subject)).toEqual(Array.from({ length: 10 }, (_, i) => `Wheel ${i + 2}`));
  const begins = sheet.rows.map((row) => row.begins!);
  expect(begins[0]).toMatchObject({ after: 0, for: 'the time between two' });
  expect(begins[9]!.at! - begins[0]!.at!).toBe(9 * 3_600_000);
  const next = (await desk.ask<Sheet>('GET', `/pipelines/${id}/sheet?standing=waiting&limit=10&before=${sheet.more}`))
    .body;
  expect(next.rows[0]?.subject).toBe('Wheel 12');
  // One begins now, whatever its turn, by the newest version; the others wait on.
  expect(await many({ do: 'begin now', briefs: [briefs[30]!] })).toMatchObject({ done: 1 });
  await desk.w.settled([briefs[30]!], ['out']);
  expect((await brief(briefs[30]!)).version).toBe(2);
  expect((await whole(id)).counts).toMatchObject({ waiting: 48, out: 2 });
  // Those found by a word of their subject.
  expect(await many({ do: 'set aside', matching: { pipeline: id, find: 'Wheel 4' } })).toMatchObject({ done: 14 });
}, 60_000);

test('an input that a newer version asks for is what stands there otherwise in briefs that wait', async () => {
  const { id, document, briefs } = await fifty('Asked', 'Turn it.');
  await desk.w.settled([briefs[0]!], ['out']);
  const asks = withStep(document, {
    ...k['lay out'].fresh('s3'),
    body: '{{ tone }} {{ text }}',
    title: '{{ subject }}',
  });
  await saved(id, { ...asks, inputs: [{ name: 'tone', asks: 'How?', otherwise: 'Kindly.' }] });
  await many({ do: 'begin now', briefs: [briefs[9]!] });
  await desk.w.settled([briefs[9]!], ['out']);
  expect((await brief(briefs[9]!)).fields).toMatchObject({ tone: 'Kindly.' });
}, 60_000);
