import type { Hangs, KeptNoun } from '@grivo/contract';
import { type Step, stepKinds } from '@grivo/core';
import { expect, test } from 'vitest';
import { atTheDesk, type Desk } from './ground/desk.ts';
import { byHand } from './ground/guards.ts';
import { intakeAt } from './ground/intake.ts';

let desk: Desk;
let owner: Desk['ask'];
atTheDesk((open) => {
  desk = open;
});
const { sourceOf } = intakeAt(() => desk);

async function made(name = 'Wheels'): Promise<Record<KeptNoun, string>> {
  owner ??= await desk.http.as('owner');
  const sources = await sourceOf({ kind: 'requests' }, name);
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
      name,
      address,
      endpoint,
      secret: token,
      language: 'en',
      cadence,
    })
  ).body.id;
  const routines = (
    await desk.ask<{ id: string }>('POST', '/routines', {
      name,
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
      name,
      document: { grivo: 1, language: 'en', steps },
    })
  ).body.id;
  const services = (
    await owner<{ id: string }>('POST', '/services', {
      role: 'writer',
      name,
      address: 'http://127.0.0.1:9',
      model: 'x',
      secret: null,
      price: { microsPerThousandIn: 0, microsPerThousandOut: 0, microsPerPicture: 0 },
    })
  ).body.id;
  const labels = (await owner<{ id: string }>('POST', '/labels', { name })).body.id;
  const destinations = (
    await owner<{ id: string }>('POST', '/destinations', { kind: 'mail', name, address: 'ada@example.com' })
  ).body.id;
  const styles = (await owner<{ id: string }>('POST', '/styles', { name })).body.id;
  return { pipelines, sources, blogs, services, routines, labels, destinations, styles };
}

const hangs = async (of: KeptNoun, id: string) => (await owner<Hangs>('GET', `/${of}/${id}/hangs`)).body;
const nouns: KeptNoun[] = ['pipelines', 'sources', 'blogs', 'services', 'routines', 'labels', 'destinations', 'styles'];

test('everything is renamed, and no two of a kind have one name; what has a note is noted and archived', async () => {
  const ids = await made();
  for (const of of nouns) {
    const path = `/${of}/${ids[of]}/words`;
    expect((await owner('PATCH', path, { name: `Spokes of ${of}` })).status, of).toBe(204);
    expect((await hangs(of, ids[of])).name).toBe(`Spokes of ${of}`);
    expect((await owner('PATCH', path, { name: '' })).status).toBe(422);
    const noted = await owner('PATCH', path, { note: 'For the spring.', archived: true });
    expect(noted.status, of).toBe(['services', 'routines', 'labels', 'destinations'].includes(of) ? 422 : 204);
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

test('of two writers the one chosen is used, and which that is is told', async () => {
  owner ??= await desk.http.as('owner');
  const writers = async () =>
    (
      await owner<{ services: { id: string; name: string; role: string; used: boolean }[] }>('GET', '/services')
    ).body.services.filter(({ role }) => role === 'writer');
  const [first] = await writers();
  const second = await owner<{ id: string }>('POST', '/services', {
    role: 'writer',
    name: 'The other writer',
    address: 'http://127.0.0.1:9',
    model: 'x',
    secret: null,
    price: { microsPerThousandIn: 0, microsPerThousandOut: 0, microsPerPicture: 0 },
  });
  const used = async () => (await writers()).filter(({ used }) => used).map(({ id }) => id);
  expect(await used()).toEqual([first!.id]);
  expect((await owner('POST', `/services/${second.body.id}/use`, {})).status).toBe(200);
  expect(await used()).toEqual([second.body.id]);
  expect(desk.w.product.tools.services.standard('writer')?.id).toBe(second.body.id);
  await owner('POST', `/services/${first!.id}/use`, {});
  expect(await used()).toEqual([first!.id]);
  expect((await desk.ask('POST', `/services/${first!.id}/use`, {})).status).toBe(403);
});

test('an article is removed with its post, and not while its brief is on the way or a blog keeps the post', async () => {
  const ids = await made('Third wheels');
  await desk.ask('POST', `/sources/${ids.sources}/requests`, { subject: 'A third wheel', notes: 'Turn it.' });
  const { briefs } = (await desk.ask<{ briefs: string[] }>('POST', `/pipelines/${ids.pipelines}/take`, {})).body;
  const articleOf = async () =>
    (
      await desk.ask<{ articles: { id: string; brief: string; address: string }[] }>('GET', '/articles')
    ).body.articles.find(({ brief }) => brief === briefs[0]);
  await desk.w.settled(briefs, ['out']);
  const article = (await articleOf())!;
  expect((await fetch(article.address)).status).toBe(200);
  expect((await desk.ask('GET', `/articles/${article.id}/hangs`)).body).toMatchObject({
    with: ['1 post readers see on a blog'],
    unless: [],
  });
  await byHand(desk.w.product.ground.db, "UPDATE brief SET standing = 'waiting' WHERE id = ?", [briefs[0]]);
  const early = await desk.ask('DELETE', `/articles/${article.id}`);
  expect([early.status, early.problem.detail]).toEqual([
    409,
    '‘A third wheel’ cannot be removed. Its brief has not ended: set the brief aside first.',
  ]);
  await byHand(desk.w.product.ground.db, "UPDATE brief SET standing = 'out' WHERE id = ?", [briefs[0]]);
  await desk.w.product.ground.db.run("UPDATE blog SET endpoint = 'http://127.0.0.1:9/none' WHERE id = ?", [ids.blogs]);
  expect((await desk.ask('DELETE', `/articles/${article.id}`)).status).toBe(502);
  expect(await articleOf()).toBeDefined();
  await desk.w.product.ground.db.run('UPDATE blog SET endpoint = ? WHERE id = ?', [
    desk.w.standIns.blog('barrels').endpoint,
    ids.blogs,
  ]);
  expect((await desk.ask('DELETE', `/articles/${article.id}`)).status).toBe(204);
  expect(await articleOf()).toBeUndefined();
  expect((await fetch(article.address)).status).toBe(404);
});
