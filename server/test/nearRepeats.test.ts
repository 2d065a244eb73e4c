import { stepKinds as k, type ProcedureDocument } from '@grivo/core';
import { expect, test } from 'vitest';
import { atTheDesk, type Desk } from './ground/desk.ts';
import { intakeAt } from './ground/intake.ts';

let desk: Desk;
atTheDesk((open) => {
  desk = open;
});
const ask: Desk['ask'] = (...words) => desk.ask(...words);
const { itemsOf, sourceOf, look, bench, take } = intakeAt(() => desk);

const putUp = (slug: string, title: string) =>
  desk.w.standIns.channels.do({
    act: 'put up',
    channel: 'crockhaven-bench',
    video: {
      slug,
      title,
      description: 'From the bench.',
      date: '2026-01-10',
      language: 'en',
      captions: 'hand',
      chapters: [{ title: 'All of it', text: 'Salt by weight. '.repeat(80) }],
    },
  });

async function leftOutOf(source: string) {
  return (await itemsOf(source))
    .filter(({ leftOut }) => leftOut === 'near repeat')
    .map(({ subject, leftDetail }) => [subject, leftDetail]);
}

test('a video put up again under nearly the same title is left out with what it repeats, and can be brought back', async () => {
  const source = await sourceOf(bench());
  await look(source);
  expect(await leftOutOf(source)).toEqual([]);
  putUp('barrel-1', 'Why a cold barrel ferments slowly, and what to do');
  putUp('barrel-2', 'Why a cold barrel ferments slowly and what to do!');
  putUp('barrel-3', 'Why a warm shed ruins cabbage by Monday');
  expect(await look(source)).toMatchObject({ fresh: 3, leftOut: 1 });
  const [repeat] = await leftOutOf(source);
  expect(repeat?.[0]).toContain('cold barrel');
  expect(repeat?.[1]).toContain('“Why a cold barrel ferments slowly');
  // It stays left out when it is looked at again, and stays offered once a person said so.
  expect(await look(source)).toMatchObject({ fresh: 0 });
  expect(await leftOutOf(source)).toHaveLength(1);
  const item = (await itemsOf(source)).find(({ leftOut }) => leftOut === 'near repeat')!;
  await ask('POST', `/sources/${source}/offer`, { items: [item.id], offer: true });
  await look(source);
  expect(await leftOutOf(source)).toEqual([]);
});

test('the same channel at another source is no repeat of itself', async () => {
  const other = await sourceOf(bench(), 'The same for another blog');
  await look(other);
  expect((await leftOutOf(other)).map(([subject]) => subject)).toEqual([expect.stringContaining('cold barrel')]);
});

test('what an article of ours tells already is left out with that article', async () => {
  const { w } = desk;
  const source = await sourceOf({ kind: 'keywords' });
  await ask('POST', `/sources/${source}/keywords`, { paste: 'weights' });
  const title = 'Glass, stone or a brine bag to keep cabbage down';
  const body = 'A weight keeps cabbage under the brine. '.repeat(20);
  const document: ProcedureDocument = {
    grivo: 1,
    language: 'en',
    steps: [
      { ...k.take.fresh('s1'), sources: [source], most: null },
      { ...k['lay out'].fresh('s2'), title, body },
      { ...k.publish.fresh('s3'), blog: w.blog, when: 'at once' },
    ],
  };
  const { body: made } = await ask<{ id: string }>('POST', '/pipelines', { name: 'Weights', document });
  await w.settled(await take(made.id), ['out']);
  const videos = await sourceOf(bench(), 'Looked at later');
  putUp('weights-again', 'Glass, stone or a brine bag to keep the cabbage down');
  await look(videos);
  expect(await leftOutOf(videos)).toContainEqual([
    'Glass, stone or a brine bag to keep the cabbage down',
    `the article “${title}”`,
  ]);
});
