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
  expect((await blogs()).find((blog) => blog.id === id)?.test?.lines).toHaveLength(7);
});

test('two blogs of one name are told apart', async () => {
  const { token, endpoint } = desk.w.standIns.blog('barrels');
  const { id } = (await connect(token, endpoint)).body;
  expect((await blogs()).find((blog) => blog.id === id)?.name).toBe('Wheels (2)');
});

test('words of a cadence changed quickly one after another are all kept; finished articles move only when it is said', async () => {
  const { endpoint } = desk.w.standIns.blog('barrels');
  const { id } = (await blogs()).find((blog) => blog.endpoint === endpoint)!;
  const put = (cadence: object) => owner<{ blogs: Blog[]; moves: unknown[] }>('PATCH', `/blogs/${id}`, { cadence });
  const answers = await Promise.all([
    put({ days: [1, 2, 3] }),
    put({ gapMinutes: 90 }),
    put({ pauses: [{ from: '2027-01-01', to: '2027-01-05' }] }),
    put({ zone: 'Europe/Dublin' }),
    put({ hours: { from: '07:00', to: '09:00' } }),
  ]);
  expect(answers.map(({ status }) => status)).toEqual([200, 200, 200, 200, 200]);
  const rule = (await blogs()).find((blog) => blog.id === id)!.cadence;
  expect(rule).toMatchObject({
    days: [1, 2, 3],
    gapMinutes: 90,
    pauses: [{ from: '2027-01-01', to: '2027-01-05' }],
    zone: 'Europe/Dublin',
    hours: { from: '07:00', to: '09:00' },
    start: '2024-01-01',
  });
  // A word that cannot be is told, and nothing of it kept.
  expect((await put({ zone: 'Nowhere' })).status).toBe(422);
  const source = await sourceOf({ kind: 'requests' });
  for (const n of [1, 2, 3])
    await desk.ask('POST', `/sources/${source}/requests`, { subject: `Wheel ${n}`, notes: 'Turn the nipple.' });
  const steps: Step[] = [
    { ...stepKinds.take.fresh('s1'), sources: [source], most: null },
    { ...stepKinds['lay out'].fresh('s2'), body: 'Turn the nipple.', title: '{{ subject }}' },
    { ...stepKinds.publish.fresh('s3'), blog: id },
  ];
  const made = await desk.ask<{ id: string }>('POST', '/pipelines', {
    name: 'Placed',
    document: { grivo: 1, language: 'en', steps },
  });
  const { briefs } = (await desk.ask<{ briefs: string[] }>('POST', `/pipelines/${made.body.id}/take`, {})).body;
  await desk.w.settled(briefs, ['ready']);
  const placed = async () =>
    (
      await desk.w.product.ground.db.rows<{ at: number }>(
        'SELECT due_desk AS at FROM placement WHERE blog = ? ORDER BY due_desk',
        [id],
      )
    ).map(({ at }) => Number(at));
  const before = await placed();
  // At other hours, so that none stays where it is, whatever day it is today.
  const daily = await put({
    days: [1, 2, 3, 4, 5, 6, 7],
    rate: { kind: 'count', n: 3, per: 'day' },
    gapMinutes: 0,
    hours: { from: '10:00', to: '12:00' },
  });
  expect(daily.body.moves).toHaveLength(3);
  expect(await placed()).toEqual(before);
  const moved = await owner<{ moves: unknown[] }>('PATCH', `/blogs/${id}`, { move: true });
  expect(moved.body.moves).toEqual([]);
  expect(await placed()).not.toEqual(before);
});

test('a post goes under no category unless some are chosen; the article’s own tags go along where that is said', async () => {
  const { endpoint } = desk.w.standIns.blog('kitchen');
  const { id } = (await blogs()).find((blog) => blog.endpoint === endpoint)!;
  const posted = async (name: string, more: object) => {
    // A list of its own: what another pipeline made is not made once more.
    const source = await sourceOf({ kind: 'requests' });
    await desk.ask('POST', `/sources/${source}/requests`, {
      subject: `Dynamo hubs ${name}`,
      notes: 'They give light.',
    });
    const steps: Step[] = [
      { ...stepKinds.take.fresh('s1'), sources: [source] },
      { ...stepKinds['lay out'].fresh('s2'), body: 'A dynamo hub gives three watts of light.', title: '{{ subject }}' },
      { ...stepKinds.title.fresh('s3'), instruction: '' },
      { ...stepKinds.publish.fresh('s4'), blog: id, when: 'at once', ...more },
    ];
    const posts = () => desk.w.standIns.received().posts('kitchen');
    const before = new Set(posts().map(({ address }) => address));
    const made = await desk.ask<{ id: string }>('POST', '/pipelines', {
      name,
      document: { grivo: 1, language: 'en', steps },
    });
    const { briefs } = (await desk.ask<{ briefs: string[] }>('POST', `/pipelines/${made.body.id}/take`, {})).body;
    await desk.w.settled(briefs, ['out']);
    return posts().find(({ address }) => !before.has(address))!.categories;
  };
  expect(await posted('one', {})).toEqual([]);
  expect(await posted('two', { categories: ['Hubs', 'about {{ subject }}', 'hubs'] })).toEqual([
    'Hubs',
    'about Dynamo hubs two',
  ]);
  const tagged = await posted('three', { categories: ['Hubs'], tags: 'its own' });
  expect(tagged[0]).toBe('Hubs');
  for (const tag of tagged) expect(tag).not.toMatch(/^(?:about|of|a|the)\b|\b(?:about|of|a|the)$/i);
  // What the blog has is known from its last test.
  await owner('POST', `/blogs/${id}/test`);
  expect(await posted('four', { categories: ['hubs', 'Spokes'], newOnes: 'left out' })).toEqual(['Hubs']);
  expect(await posted('five', { categories: ['Pantry'], fit: 'best fit' })).toEqual(['Hubs']);
  expect(await posted('six', { categories: ['Pantry'], fit: 'as chosen' })).toEqual(['Pantry']);
});

test('a draft on a blog is a draft wherever it stands, and is never counted as out', async () => {
  const { endpoint } = desk.w.standIns.blog('kitchen');
  const { id } = (await blogs()).find((blog) => blog.endpoint === endpoint)!;
  const { out } = (await blogs()).find((blog) => blog.id === id)!;
  const source = await sourceOf({ kind: 'keywords' });
  await desk.ask('POST', `/sources/${source}/keywords`, { paste: 'dynamo hubs by night' });
  const steps: Step[] = [
    { ...stepKinds.take.fresh('s1'), sources: [source] },
    { ...stepKinds['lay out'].fresh('s2'), body: 'A dynamo hub gives three watts.', title: 'Hubs, as a draft' },
    { ...stepKinds.publish.fresh('s4'), blog: id, when: 'at once', as: 'draft' },
  ];
  const made = await desk.ask<{ id: string }>('POST', '/pipelines', {
    name: 'Drafts',
    document: { grivo: 1, language: 'en', steps },
  });
  const { briefs } = (await desk.ask<{ briefs: string[] }>('POST', `/pipelines/${made.body.id}/take`, {})).body;
  await desk.w.settled(briefs, ['out']);
  const articles = async (standing: string) =>
    (
      await desk.ask<{ articles: { title: string; standing: string }[] }>('GET', `/articles?standing=${standing}`)
    ).body.articles.filter(({ title }) => title === 'Hubs, as a draft');
  expect(await articles('draft')).toMatchObject([{ standing: 'draft' }]);
  expect(await articles('out')).toEqual([]);
  expect((await blogs()).find((blog) => blog.id === id)!.out).toBe(out);
  const { blogs: lanes } = (
    await desk.ask<{ blogs: { blog: string; slots: { title: string; standing: string }[] }[] }>('GET', '/slots?days=1')
  ).body;
  const own = lanes.find((lane) => lane.blog === id)!.slots.filter(({ title }) => title === 'Hubs, as a draft');
  expect(own.map(({ standing }) => standing)).not.toContain('out');
  const sheet = await (
    await fetch(`${desk.http.address}/api/sources/${source}/written-back`, { headers: { cookie: desk.cookie } })
  ).text();
  expect(sheet).toMatch(/dynamo hubs by night,.*,draft,"?Hubs, as a draft"?,http[^,]+,\r\n/);
});
