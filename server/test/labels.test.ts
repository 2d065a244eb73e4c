import type {
  Articles,
  Blogs,
  Briefs,
  Holds,
  Labels,
  LimitStanding,
  Pipelines,
  Slots,
  Sources,
  Today,
} from '@grivo/contract';
import { stepKinds } from '@grivo/core';
import { beforeAll, expect, test } from 'vitest';
import type { z } from 'zod';
import { atTheDesk, type Desk } from './ground/desk.ts';
import { sourceAt } from './ground/labelled.ts';

let w: Desk['w'];
let ask: Desk['ask'];
atTheDesk((desk) => ({ w, ask } = desk));

type Of<S extends z.ZodType> = z.infer<S>;
const get = async <T>(path: string) => (await ask<T>('GET', path)).body;
const on = (label: string, noun: string, id: string, put = true) =>
  ask('POST', `/labels/${label}/on`, { noun, id, on: put });

/** Two clients, each with a pipeline that makes an article at once; one of them has the blog. */
const clients: Record<'salt' | 'wood', { label: string; pipeline: string; brief: string; source: string }> =
  {} as never;

beforeAll(async () => {
  for (const [name, subject] of [
    ['salt', 'salted plums'],
    ['wood', 'choosing a crock'],
  ] as const) {
    const label = (await ask<{ id: string }>('POST', '/labels', { name: `Client ${name}` })).body.id;
    const pipeline = await w.pipeline([subject], ([take, , , , , , , , publish]) => [
      take!,
      {
        ...stepKinds['lay out'].fresh('s2'),
        body: `All about ${subject}.`,
        title: `On ${subject}`,
        reads: 'Markdown' as const,
      },
      { ...stepKinds.hold.fresh('s3') },
      publish!,
    ]);
    const source = await sourceAt(w, pipeline);
    const [brief] = await w.take(pipeline);
    await w.settled([brief!], ['held']);
    clients[name] = { label, pipeline, brief: brief!, source };
    expect((await on(label, 'pipeline', pipeline)).status).toBe(204);
    expect((await on(label, 'source', source)).status).toBe(204);
  }
  await on(clients.wood.label, 'blog', w.blog);
});

test('every list shows what carries a label, and nothing else', async () => {
  const { label, pipeline, brief, source } = clients.salt;
  const of = `label=${label}`;
  expect((await get<Of<typeof Pipelines>>(`/pipelines?${of}`)).pipelines.map(({ id }) => id)).toEqual([pipeline]);
  expect((await get<Of<typeof Sources>>(`/sources?${of}`)).sources.map(({ id }) => id)).toEqual([source]);
  expect((await get<Of<typeof Blogs>>(`/blogs?${of}`)).blogs).toEqual([]);
  expect((await get<Of<typeof Blogs>>(`/blogs?label=${clients.wood.label}`)).blogs.map(({ id }) => id)).toEqual([
    w.blog,
  ]);
  expect((await get<Of<typeof Briefs>>(`/briefs?${of}`)).briefs.map(({ id }) => id)).toEqual([brief]);
  expect((await get<Of<typeof Holds>>(`/holds?${of}`)).holds.map((hold) => hold.brief)).toEqual([brief]);
  const { articles } = await get<Of<typeof Articles>>(`/articles?${of}`);
  expect(articles.map((one) => one.brief)).toEqual([brief]);
  expect(await get(`/articles/${articles[0]!.id}/neighbours?${of}`)).toEqual({ newer: null, older: null });
  expect((await get<Of<typeof Slots>>(`/slots?days=7&${of}`)).blogs).toEqual([]);
  expect((await get<Of<typeof Slots>>(`/slots?days=7&label=${clients.wood.label}`)).blogs).toHaveLength(1);
});

test('what wants a person and what was spent is of those who carry it', async () => {
  const today = await get<Today>(`/today?label=${clients.salt.label}`);
  expect(today.needs.flatMap((need) => ('briefs' in need && Array.isArray(need.briefs) ? need.briefs : []))).toEqual([
    clients.salt.brief,
  ]);
  const { ground } = w.product;
  for (const [i, { pipeline }] of [clients.salt, clients.wood].entries())
    await ground.db.run(
      "INSERT INTO ledger (id, brief, pipeline, service, at_desk, what, micros) VALUES (?, NULL, ?, ?, ?, 'call', ?)",
      [ground.ids(), pipeline, w.writer, ground.desk.now(), (i + 1) * 1_000],
    );
  const spent = async (label: string) => (await get<Of<typeof LimitStanding>>(`/limit?label=${label}`)).spentMicros;
  const [salt, wood] = [await spent(clients.salt.label), await spent(clients.wood.label)];
  expect(wood - salt).toBe(1_000);
  expect((await get<Of<typeof LimitStanding>>('/limit')).spentMicros).toBeGreaterThanOrEqual(salt + wood);
});

test('an article on a blog that carries it is of the label, whatever its pipeline carries', async () => {
  const { brief } = clients.salt;
  const { holds } = await get<Of<typeof Holds>>(`/briefs/${brief}/holds`);
  await ask('POST', `/briefs/${brief}/holds/${holds[0]!.run}`, { decide: 'pass', change: {} });
  await w.settled([brief], ['out']);
  const briefs = async (label: string) =>
    (await get<Of<typeof Articles>>(`/articles?label=${label}`)).articles.map((one) => one.brief);
  expect(await briefs(clients.wood.label)).toContain(brief);
  const wentOut = (await get<Today>(`/today?label=${clients.wood.label}`)).wentOut.map(({ title }) => title);
  expect(wentOut).toContain('On salted plums');
  expect(await briefs(clients.salt.label)).toEqual([brief]);
});

test('a label is put on twice with no harm, taken off, renamed, and removed with all it was on', async () => {
  const { label, pipeline } = clients.salt;
  expect((await on(label, 'pipeline', pipeline)).status).toBe(204);
  const count = async () => (await get<Of<typeof Labels>>('/labels')).labels.find(({ id }) => id === label);
  expect(await count()).toMatchObject({ name: 'Client salt', on: { pipeline: 1, source: 1, blog: 0 } });
  await on(label, 'pipeline', pipeline, false);
  expect((await get<Of<typeof Pipelines>>(`/pipelines?label=${label}`)).pipelines).toEqual([]);
  await on(label, 'pipeline', pipeline);
  expect((await ask('PATCH', `/labels/${label}/words`, { name: 'client WOOD' })).status).toBe(409);
  expect((await ask('PATCH', `/labels/${label}/words`, { name: 'Client sugar' })).status).toBe(204);
  expect((await ask('POST', '/labels', { name: 'Client sugar' })).status).toBe(409);
  expect(await get(`/labels/${label}/hangs`)).toMatchObject({
    name: 'Client sugar',
    with: expect.arrayContaining(['it on 1 pipeline', 'it on 1 source']),
    unless: [],
  });
  expect((await ask('DELETE', `/labels/${label}`)).status).toBe(204);
  expect(await count()).toBeUndefined();
  expect((await get<Of<typeof Pipelines>>('/pipelines')).pipelines.find(({ id }) => id === pipeline)?.labels).toEqual(
    [],
  );
});

test('what is no label and no thing is said so', async () => {
  const none = 'n'.repeat(20);
  expect((await on(none, 'pipeline', clients.wood.pipeline)).status).toBe(404);
  expect((await on(clients.wood.label, 'pipeline', none)).status).toBe(404);
  expect((await ask('POST', `/labels/${clients.wood.label}/on`, { noun: 'person', id: none, on: true })).status).toBe(
    422,
  );
  expect((await ask('GET', '/pipelines?label=x')).status).toBe(422);
});
