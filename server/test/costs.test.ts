import type { Article, BriefWhole, LimitStanding, Today } from '@grivo/contract';
import { stepKinds as k, type Step } from '@grivo/core';
import { expect, test } from 'vitest';
import type { z } from 'zod';
import { atTheDesk, type Desk } from './ground/desk.ts';
import { intakeAt } from './ground/intake.ts';

let desk: Desk;
atTheDesk((open) => {
  desk = open;
});
const { sourceOf } = intakeAt(() => desk);

const NOTES = [
  'A bridge of maple stands on the belly of a violin and carries the strings. It leans towards the pegs a little each time the strings are tuned up. Pull it back by its upper edge with both hands before it falls.',
  'A bridge that leans for a month warps, and a warped bridge cannot be bent back cold. A maker steams it between two boards for ten minutes and lets it dry for a day. After two such cures the wood is tired, and a new one is cut.',
  'A bridge that has fallen may have cracked the belly under the treble foot. Hold a lamp inside and look for a line of light before you set it up again. Loosen all four strings by half a turn, never one string alone.',
  'The feet of a bridge are cut to the arch of the belly with a knife and chalk. Where the chalk rubs off, the wood still touches, and is pared away. It takes an hour and about forty cuts until no light passes under the feet.',
].join('\n\n');

test('what a brief paid is shown once: each article has its own part, and what all rest on stands at the first', async () => {
  const { ask, w } = desk;
  const source = await sourceOf({ kind: 'requests' }, 'Asked for in three languages');
  const steps: Step[] = [
    { ...k.take.fresh('s1'), sources: [source] },
    { ...k.read.fresh('s2'), what: 'the notes' },
    k.outline.fresh('s8'),
    { ...k.write.fresh('s3'), words: 120 },
    k.title.fresh('s9'),
    {
      ...k['for each'].fresh('s4'),
      values: ['German', 'French'],
      as: 'tongue',
      steps: [
        { ...k.translate.fresh('s5'), into: '{{ tongue }}' },
        { ...k.publish.fresh('s6'), blog: w.blog, when: 'at once' },
      ],
    },
    { ...k.publish.fresh('s7'), blog: w.blog, when: 'at once' },
  ];
  const made = await ask<{ id: string }>('POST', '/pipelines', {
    name: 'In three languages',
    document: { grivo: 1, language: 'en', steps },
  });
  expect(made).toMatchObject({ status: 201 });
  const { id } = made.body;
  await ask('POST', `/sources/${source}/requests`, { subject: 'A bridge that leans', notes: NOTES });
  const took = await ask<{ briefs: string[] }>('POST', `/pipelines/${id}/take`, {});
  expect(took.status < 300 ? null : took.problem).toBeNull();
  const { briefs } = took.body;
  await w.settled(briefs, ['out']);
  const brief = (await ask<BriefWhole>('GET', `/briefs/${briefs[0]}`)).body;
  const { articles } = (await ask<{ articles: Article[] }>('GET', '/articles?limit=50')).body;
  const own = articles.filter((article) => article.brief === briefs[0]).sort((a, b) => (a.id < b.id ? -1 : 1));
  expect(own).toHaveLength(3);
  const cost = (path: RegExp) =>
    brief.runs.filter((run) => path.test(run.path)).reduce((sum, run) => sum + run.micros, 0);
  expect(cost(/^s4\[/)).toBeGreaterThan(0);
  expect(own.reduce((sum, { micros }) => sum + micros, 0)).toBe(brief.micros);
  expect(own[0]!.micros).toBe(brief.micros - cost(/^s4\[/));
  for (const translated of own.slice(1)) expect(translated.micros).toBeLessThan(own[0]!.micros);
  // The same at the article, on Today and for the pipeline.
  expect((await ask<Article>('GET', `/articles/${own[1]!.id}`)).body.micros).toBe(own[1]!.micros);
  const today = (await ask<Today>('GET', '/today')).body;
  for (const rows of [today.wentOut, today.costs])
    expect(
      rows.filter(({ article }) => own.some((one) => one.id === article)).reduce((sum, { micros }) => sum + micros, 0),
    ).toBe(brief.micros);
  const { pipelines } = (await ask<{ pipelines: { id: string; microsEach: number }[] }>('GET', '/pipelines')).body;
  expect(pipelines.find((one) => one.id === id)?.microsEach).toBe(Math.round(brief.micros / 3));
});

test('tests of services and trials of procedures are in the books, and in what the month has used', async () => {
  const { ask, http, w } = desk;
  const owner = await http.as('owner');
  const standing = async () => (await owner<z.infer<typeof LimitStanding>>('GET', '/limit')).body;
  const before = await standing();
  await owner('PUT', '/limit', { capMicros: 900_000_000, scope: 'month' });
  const tested = await owner<{ lines: { well: boolean }[] }>('POST', `/services/${w.writer}/test`, {});
  expect(tested.body.lines.every(({ well }) => well)).toBe(true);
  const after = await standing();
  expect(after.testsMicros).toBeGreaterThan(before.testsMicros);
  expect(after.spentMicros - before.spentMicros).toBe(after.testsMicros - before.testsMicros);
  const source = await sourceOf({ kind: 'requests' }, 'Asked for a trial');
  const steps: Step[] = [
    { ...k.take.fresh('s1'), sources: [source] },
    { ...k.read.fresh('s2'), what: 'the notes' },
    k.outline.fresh('s8'),
    { ...k.write.fresh('s3'), words: 120 },
  ];
  const { id } = (
    await ask<{ id: string }>('POST', '/pipelines', { name: 'Tried', document: { grivo: 1, language: 'en', steps } })
  ).body;
  await ask('POST', `/sources/${source}/requests`, { subject: 'A peg that slips', notes: NOTES });
  const { items } = (await ask<{ items: { id: string }[] }>('GET', `/sources/${source}/items`)).body;
  const made = await ask<{ id: string }>('POST', `/pipelines/${id}/trials`, {
    units: [[items[0]!.id]],
    document: { grivo: 1, language: 'en', steps },
  });
  expect(made.status).toBeLessThan(300);
  await expect
    .poll(async () => (await standing()).trialsMicros, { timeout: 20_000 })
    .toBeGreaterThan(before.trialsMicros);
  await owner('PUT', '/limit', { capMicros: null, scope: 'month' });
});
