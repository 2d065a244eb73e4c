import type { Hangs, KeptNoun } from '@grivo/contract';
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

async function made(): Promise<Record<KeptNoun, string>> {
  owner ??= await desk.http.as('owner');
  const sources = await sourceOf({ kind: 'requests' }, 'Wheels');
  const { endpoint, token, address } = desk.w.standIns.blog('barrels');
  const cadence = {
    rate: { kind: 'count', n: 1, per: 'day' },
    days: [1],
    hours: { from: '08:00', to: '10:00' },
    gapMinutes: 0,
    start: '2024-01-01',
    pauses: [],
    zone: 'UTC',
  };
  const blogs = (
    await owner<{ id: string }>('POST', '/blogs', {
      name: 'Wheels',
      address,
      endpoint,
      secret: token,
      language: 'en',
      cadence,
    })
  ).body.id;
  const routines = (
    await desk.ask<{ id: string }>('POST', '/routines', {
      name: 'Wheels',
      document: {
        grivo: 1,
        language: 'en',
        inputs: [],
        outputs: [],
        steps: [{ ...stepKinds.vary.fresh('v1'), for: 'a field', as: 'said' }],
      },
    })
  ).body.id;
  const steps: Step[] = [
    { ...stepKinds.take.fresh('s1'), sources: [sources] },
    { ...stepKinds.use.fresh('s2'), routine: routines },
    { ...stepKinds['lay out'].fresh('s3'), body: 'Turn the nipple.', title: '{{ subject }}' },
    { ...stepKinds.publish.fresh('s4'), blog: blogs, when: 'at once' },
  ];
  const pipelines = (
    await desk.ask<{ id: string }>('POST', '/pipelines', {
      name: 'Wheels',
      document: { grivo: 1, language: 'en', steps },
    })
  ).body.id;
  const services = (
    await owner<{ id: string }>('POST', '/services', {
      role: 'writer',
      name: 'Wheels',
      address: 'http://127.0.0.1:9',
      model: 'x',
      secret: null,
      price: { microsPerThousandIn: 0, microsPerThousandOut: 0, microsPerPicture: 0 },
    })
  ).body.id;
  return { pipelines, sources, blogs, services, routines };
}

const hangs = async (of: KeptNoun, id: string) => (await owner<Hangs>('GET', `/${of}/${id}/hangs`)).body;
const nouns: KeptNoun[] = ['pipelines', 'sources', 'blogs', 'services', 'routines'];

test('everything is renamed, and no two of a kind have one name; what has a note is noted and archived', async () => {
  const ids = await made();
  for (const of of nouns) {
    const path = `/${of}/${ids[of]}/words`;
    expect((await owner('PATCH', path, { name: `Spokes of ${of}` })).status, of).toBe(204);
    expect((await hangs(of, ids[of])).name).toBe(`Spokes of ${of}`);
    expect((await owner('PATCH', path, { name: '' })).status).toBe(422);
    const noted = await owner('PATCH', path, { note: 'For the spring.', archived: true });
    expect(noted.status, of).toBe(['services', 'routines'].includes(of) ? 422 : 204);
  }
  expect((await owner('PATCH', `/sources/${ids.sources}/words`, { openLimit: 3 })).status).toBe(422);
  const other = await sourceOf({ kind: 'requests' }, 'Other');
  const taken = await owner('PATCH', `/sources/${other}/words`, { name: 'spokes of SOURCES' });
  expect([taken.status, taken.problem.detail]).toEqual([409, 'There is a source ‘spokes of SOURCES’ already.']);
  expect((await desk.ask('PATCH', `/blogs/${ids.blogs}/words`, { name: 'x' })).status).toBe(403);
  const { pipelines } = (
    await owner<{ pipelines: { id: string; archived: boolean; note: string }[] }>('GET', '/pipelines')
  ).body;
  expect(pipelines.find(({ id }) => id === ids.pipelines)).toMatchObject({ archived: true, note: 'For the spring.' });
  for (const of of ['pipelines', 'sources', 'blogs'] as const)
    expect((await owner('PATCH', `/${of}/${ids[of]}/words`, { archived: false })).status).toBe(204);
  // What hangs on it is said, and nothing goes.
  expect((await hangs('sources', ids.sources)).unless).toEqual([
    '‘Spokes of pipelines’ takes from it: let it take from another source first.',
  ]);
  expect((await hangs('routines', ids.routines)).unless).toEqual([
    '‘Spokes of pipelines’ uses it: take it out there first.',
  ]);
  expect((await hangs('blogs', ids.blogs)).unless[0]).toMatch(/publishes or links to it/);
  for (const of of ['sources', 'blogs', 'routines'] as const)
    expect((await owner('DELETE', `/${of}/${ids[of]}`)).status, of).toBe(409);
  // A trial is no reason to keep a pipeline; a brief that ran is.
  await desk.ask('POST', `/sources/${ids.sources}/requests`, { subject: 'A wheel', notes: 'Turn it.' });
  const whole = (await desk.ask<{ document: object }>('GET', `/pipelines/${ids.pipelines}`)).body;
  const trial = await desk.ask<{ id: string }>('POST', `/pipelines/${ids.pipelines}/trials`, {
    document: whole.document,
    subject: 'A wheel',
  });
  await desk.w.settled([trial.body.id], ['out', 'stopped']);
  expect(await hangs('pipelines', ids.pipelines)).toMatchObject({ with: ['1 version', '1 trial'], unless: [] });
  expect((await owner('DELETE', `/pipelines/${ids.pipelines}`)).status).toBe(204);
  expect((await owner('GET', `/pipelines/${ids.pipelines}`)).status).toBe(404);
  for (const of of ['sources', 'blogs', 'routines', 'services'] as const) {
    expect((await owner('DELETE', `/${of}/${ids[of]}`)).status, of).toBe(204);
    expect((await owner('DELETE', `/${of}/${ids[of]}`)).status, of).toBe(404);
  }
});

test('a pipeline that made something, its source and its blog are kept until that is deleted', async () => {
  const ids = await made();
  await desk.ask('POST', `/sources/${ids.sources}/requests`, { subject: 'Another wheel', notes: 'Turn it.' });
  const { briefs } = (await desk.ask<{ briefs: string[] }>('POST', `/pipelines/${ids.pipelines}/take`, {})).body;
  await desk.w.settled(briefs, ['out']);
  const refused = await owner('DELETE', `/pipelines/${ids.pipelines}`);
  expect([refused.status, refused.problem.detail]).toEqual([
    409,
    '‘Wheels’ cannot be removed. It has made 1 brief: delete all it made first, or archive it.',
  ]);
  const cleared = await owner('POST', `/pipelines/${ids.pipelines}/clear`, { articles: 1 });
  expect(cleared.body).toMatchObject({ briefs: 1, posts: 1, kept: [] });
  expect((await owner('DELETE', `/pipelines/${ids.pipelines}`)).status).toBe(204);
  expect((await owner('DELETE', `/sources/${ids.sources}`)).status).toBe(204);
});
