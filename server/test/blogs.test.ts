import type { Blog, Today } from '@grivo/contract';
import { type Step, stepKinds } from '@grivo/core';
import { expect, test } from 'vitest';
import { atTheDesk, type Desk } from './ground/desk.ts';
import { intakeAt } from './ground/intake.ts';

let desk: Desk;
let owner: Desk['ask'];
atTheDesk((open) => {
  desk = open;
});
const { sourceOf } = intakeAt(() => desk);

const cadence = {
  rate: { kind: 'count', n: 1, per: 'day' },
  days: [1, 2, 3, 4, 5, 6, 7],
  hours: { from: '08:00', to: '10:00' },
  gapMinutes: 60,
  start: '2024-01-01',
  pauses: [],
  zone: 'UTC',
};

interface Connected {
  id: string;
  joined: boolean;
  lines: { tried: string; well: boolean; change: string | null }[];
}

const connect = (secret: string, endpoint: string, name = 'Wheels') =>
  owner<Connected>('POST', '/blogs', {
    name,
    address: desk.w.standIns.blog('kitchen').address,
    endpoint,
    secret,
    language: 'en',
    cadence,
  });
const blogs = async () => (await owner<{ blogs: Blog[] }>('GET', '/blogs')).body.blogs;
const today = async () => (await owner<Today>('GET', '/today')).body;

test('a blog connected with a wrong secret first: the failure is kept, the same with the right one is joined and works', async () => {
  owner = await desk.http.as('owner');
  const { endpoint, token } = desk.w.standIns.blog('kitchen');
  const before = (await today()).begun.blogs;
  const wrong = await connect('not the secret', endpoint);
  expect(wrong.status).toBe(201);
  expect(wrong.body.joined).toBe(false);
  expect(wrong.body.lines).toMatchObject([{ well: false, change: expect.stringMatching(/secret again/) as string }]);
  const failed = (await blogs()).find(({ id }) => id === wrong.body.id)!;
  expect(failed).toMatchObject({ mediaEndpoint: null, test: { lines: [{ well: false }] } });
  // What failed does not count as connected.
  expect((await today()).begun.blogs).toBe(before);
  const right = await connect(token, `${endpoint}/`, 'Wheels again');
  expect(right.body).toMatchObject({ id: wrong.body.id, joined: true });
  expect(right.body.lines.every(({ well }) => well)).toBe(true);
  const all = await blogs();
  expect(all.filter((blog) => blog.endpoint === endpoint)).toHaveLength(1);
  const mended = all.find(({ id }) => id === right.body.id)!;
  expect(mended.name).toBe('Wheels');
  expect(mended.mediaEndpoint).toMatch(/media/);
  expect((await today()).begun.blogs).toBe(before + 1);
  // Pictures go where the blog takes them.
  const source = await sourceOf({ kind: 'requests' });
  await desk.ask('POST', `/sources/${source}/requests`, { subject: 'How a wheel is trued', notes: 'Turn the nipple.' });
  const steps: Step[] = [
    { ...stepKinds.take.fresh('s1'), sources: [source] },
    { ...stepKinds['lay out'].fresh('s2'), body: 'Turn the nipple a quarter turn at a time.', title: '{{ subject }}' },
    stepKinds.illustrate.fresh('s3'),
    { ...stepKinds.publish.fresh('s4'), blog: right.body.id, when: 'at once' },
  ];
  const made = await desk.ask<{ id: string }>('POST', '/pipelines', {
    name: 'To wheels',
    document: { grivo: 1, language: 'en', steps },
  });
  const { briefs } = (await desk.ask<{ briefs: string[] }>('POST', `/pipelines/${made.body.id}/take`, {})).body;
  await desk.w.settled(briefs, ['out']);
});

test('a secret that is changed is tested at once: wrong, then right', async () => {
  const { token, endpoint } = desk.w.standIns.blog('kitchen');
  const { id } = (await blogs()).find((blog) => blog.endpoint === endpoint)!;
  const put = async (secret: string) =>
    (await owner<{ lines: Connected['lines'] }>('PUT', `/blogs/${id}/secret`, { secret })).body.lines;
  expect((await put('wrong')).map(({ well }) => well)).toEqual([false]);
  expect((await blogs()).find((blog) => blog.id === id)?.test?.lines).toHaveLength(1);
  expect((await put(token)).every(({ well }) => well)).toBe(true);
  expect((await blogs()).find((blog) => blog.id === id)?.test?.lines).toHaveLength(4);
});

test('two blogs of one name are told apart', async () => {
  const { token, endpoint } = desk.w.standIns.blog('barrels');
  const { id } = (await connect(token, endpoint)).body;
  expect((await blogs()).find((blog) => blog.id === id)?.name).toBe('Wheels (2)');
});
