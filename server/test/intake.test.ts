import type { BriefWhole } from '@grivo/contract';
import { SHIPPED } from '@grivo/core';
import { describe, expect, test } from 'vitest';
import { refreshSource } from '../src/nouns/sources/refresh.ts';
import { atTheDesk, type Desk } from './ground/desk.ts';
import { intakeAt } from './ground/intake.ts';

let desk: Desk;
let w: Desk['w'];
let ask: Desk['ask'];
atTheDesk((opened) => {
  desk = opened;
  ({ w, ask } = opened);
});
const { at, itemsOf, sourceOf, look, offered, wholeSource, taker, take, subjectsOf, stock, bench } = intakeAt(
  () => desk,
);

describe('only what is new', () => {
  test('of a sheet: two rows added are two, however it is reordered and its titles edited', async () => {
    const source = await sourceOf(stock());
    const pipeline = await taker(source);
    const first = await take(pipeline);
    expect(first.length).toBeGreaterThan(40);
    expect(await take(pipeline)).toEqual([]);
    const [row] = w.standIns.sheets.rows('stock');
    w.standIns.sheets.do({
      sheet: 'stock',
      act: 'change',
      row: 0,
      cells: row!.map((cell, i) => (i === 1 ? `${cell}, new glaze` : cell)),
    });
    w.standIns.sheets.do({ sheet: 'stock', act: 'reverse' });
    expect(await look(source)).toMatchObject({ fresh: 0, changed: expect.any(Number) as number, trouble: null });
    expect(await take(pipeline)).toEqual([]);
    for (const sku of ['CH-9001', 'CH-9002'])
      w.standIns.sheets.do({
        sheet: 'stock',
        act: 'add',
        cells: [sku, `Crock ${sku}`, 'crock', '5', 'salt', '60', '3', '2026-11-25', 'A1', 'A new one.'],
      });
    expect(await subjectsOf(await take(pipeline))).toEqual(['Crock CH-9001', 'Crock CH-9002']);
    expect(await take(pipeline)).toEqual([]);
  });

  test('of a channel: two videos put up are two; a new title, another order, and one that is gone and back are none', async () => {
    const source = await sourceOf(bench());
    const pipeline = await taker(source);
    const first = await take(pipeline);
    expect(first.length).toBe(9);
    w.standIns.channels.do({ act: 'rename', slug: 'four-jars', title: 'One cabbage and four jars' });
    w.standIns.channels.do({ act: 'reorder' });
    expect(await look(source)).toMatchObject({ fresh: 0, changed: 1 });
    expect(await take(pipeline)).toEqual([]);
    const video = (slug: string) => ({
      slug,
      title: `About ${slug}`,
      description: '',
      date: '2026-11-24',
      language: 'en' as const,
      captions: 'hand' as const,
      chapters: [{ title: 'One', text: 'Salt draws water out of cabbage. '.repeat(60) }],
    });
    for (const slug of ['brine', 'rinds'])
      w.standIns.channels.do({ act: 'put up', channel: 'crockhaven-bench', video: video(slug) });
    expect(await subjectsOf(await take(pipeline))).toEqual(['About brine', 'About rinds']);
    const { looks } = (
      await ask<{ looks: { fresh: number; taken: number; pipeline: string | null }[] }>(
        'GET',
        `/sources/${source}/looks`,
      )
    ).body;
    expect(
      looks.map(({ fresh, taken, pipeline: by }) => `${by ? 'taken' : 'fresh'} ${by ? taken : fresh}`).slice(0, 2),
    ).toEqual(['taken 2', 'fresh 2']);
  });

  test('changed rows come in again where they are wanted, and only when they have changed since', async () => {
    const source = await sourceOf({ ...stock(), changed: true, startFrom: { at: 'the last', n: 3 } });
    const pipeline = await taker(source);
    expect(await take(pipeline)).toHaveLength(3);
    expect(await take(pipeline)).toEqual([]);
    const rows = w.standIns.sheets.rows('stock');
    const last = rows.length - 1;
    const change = (stock: string) =>
      w.standIns.sheets.do({
        sheet: 'stock',
        act: 'change',
        row: last,
        cells: rows[last]!.map((cell, i) => (i === 6 ? stock : cell)),
      });
    change('117');
    expect(await take(pipeline)).toHaveLength(1);
    expect(await take(pipeline)).toEqual([]);
    change('118');
    expect(await take(pipeline)).toHaveLength(1);
  });

  test('a worker that dies between looking and taking leaves everything to the next, once', async () => {
    const source = await sourceOf(bench());
    const { ground, tools } = w.product;
    const ports = tools;
    const before = ground.ids;
    let made = 0;
    const dying = {
      ...ports,
      ground: {
        ...ground,
        ids: () => {
          if (++made > 5) throw Object.assign(new Error('dies here'), { code: 'ECONNRESET' });
          return before();
        },
      },
    };
    await expect(refreshSource(dying, source)).rejects.toThrow('dies here');
    expect((await wholeSource(source)).lastLook).toBeNull();
    const both = await Promise.all([refreshSource(ports, source), refreshSource(ports, source)]);
    expect(both.map(({ kind }) => kind).sort()).toEqual(['busy', 'looked']);
    const pipelines = await Promise.all([taker(source), taker(source)]);
    const taken = await Promise.all([...pipelines, ...pipelines].map(take));
    expect(
      taken
        .map((briefs) => briefs.length)
        .sort((a, b) => a - b)
        .slice(0, 2),
    ).toEqual([0, 0]);
    expect(new Set(taken.flat()).size).toBe(taken.flat().length);
    expect(taken.flat().length).toBe(2 * (await offered(source)).length);
  });

  test('by itself on its schedule, by the desk clock, while the rest goes on', async () => {
    const source = await sourceOf({ ...stock(), startFrom: { at: 'now' } });
    const pipeline = await taker(source);
    await ask('POST', `/pipelines/${pipeline}/on`);
    await expect.poll(async () => (await wholeSource(source)).lastLook, { timeout: 8_000 }).not.toBeNull();
    expect(await subjectsOf(await briefsOf(pipeline))).toEqual([]);
    w.standIns.sheets.do({
      sheet: 'stock',
      act: 'add',
      cells: ['CH-9100', 'Crock by itself', 'crock', '5', 'salt', '60', '3', '2026-11-25', 'A1', 'A new one.'],
    });
    w.standIns.trouble('sheets', { how: 'delay', ms: 800 }, 1);
    await w.product.ground.desk.set(w.product.ground.desk.now() + 61 * 60_000, 1);
    await expect.poll(async () => (await briefsOf(pipeline)).length, { timeout: 10_000 }).toBe(1);
    await ask('POST', `/pipelines/${pipeline}/off`);
  });
});

const briefsOf = async (pipeline: string) =>
  (await w.product.ground.db.rows<{ id: string }>('SELECT id FROM brief WHERE pipeline = ?', [pipeline])).map(
    ({ id }) => id,
  );

describe('why an item is not offered', () => {
  test('what lay before the start, what a word filters, what is too short; a person’s word stays over later looks', async () => {
    const source = await sourceOf({ ...bench(), exclude: ['garlic'], shortest: 60 });
    expect(await look(source)).toMatchObject({ found: 12, fresh: 12 });
    const left = (await itemsOf(source)).filter(({ leftOut }) => leftOut !== null);
    expect(left.map(({ subject, leftOut, leftDetail }) => `${subject}: ${leftOut}, ${leftDetail}`).sort()).toEqual([
      'Garlic turned blue: filtered, garlic',
      'Twenty per cent off crocks this week: too short, 00:19, shorter than 01:00',
    ]);
    const garlic = left.find(({ leftOut }) => leftOut === 'filtered')!;
    await ask('POST', `/sources/${source}/offer`, { items: [garlic.id], offer: true });
    const [other] = await offered(source);
    await ask('POST', `/sources/${source}/offer`, { items: [other!.id], offer: false });
    await look(source);
    const now = await itemsOf(source);
    expect(now.find(({ id }) => id === garlic.id)?.leftOut).toBeNull();
    expect(now.find(({ id }) => id === other!.id)?.leftOut).toBe('by hand');
    expect(await subjectsOf(await take(await taker(source)))).not.toContain(other!.subject);
  });

  test('from the last three, and from a day on', async () => {
    const three = await sourceOf({ ...stock(), startFrom: { at: 'the last', n: 3 } });
    await look(three);
    expect(await offered(three)).toHaveLength(3);
    const since = await sourceOf({ ...bench(), startFrom: { at: 'a day', day: '2026-11-16' } });
    await look(since);
    expect((await offered(since)).every(({ publishedDesk }) => publishedDesk! >= Date.parse('2026-11-16'))).toBe(true);
    expect((await offered(since)).length).toBeGreaterThan(2);
  });
});

test('a source that cannot be read stands on Today until it can', async () => {
  const source = await sourceOf(stock(), 'Stock of today');
  w.standIns.trouble('sheets', { how: 'broken' }, 1);
  await look(source);
  const needs = async () =>
    (await ask<{ needs: { kind: string; name?: string; sentence?: string }[] }>('GET', '/today')).body.needs.filter(
      ({ name }) => name === 'Stock of today',
    );
  expect(await needs()).toMatchObject([{ kind: 'source', sentence: expect.stringMatching(/answers 5/) as string }]);
  await look(source);
  expect(await needs()).toEqual([]);
});

describe('several items gathered into one brief', () => {
  test('are taken once there are so many, each read as a chapter, and make one article', async () => {
    const slugs = ['salt-by-weight', 'when-to-skim', 'airlock-lids', 'glass-weights', 'four-jars'];
    const source = await sourceOf({ kind: 'videos', addresses: slugs.map((slug) => at(`/videos/watch/${slug}`)) });
    const made = SHIPPED.find(({ key }) => key === 'video')!.make({ source, blog: w.blog, language: 'en' });
    const steps = made.steps.map((step) => {
      if (step.kind === 'take') return { ...step, most: null, gather: 4 };
      return step.kind === 'publish' ? { ...step, when: 'at once' as const } : step;
    });
    const { id } = (await ask<{ id: string }>('POST', '/pipelines', { name: 'Round-up', document: { ...made, steps } }))
      .body;
    const briefs = await take(id);
    expect(briefs).toHaveLength(1);
    await w.settled(briefs, ['out']);
    const whole = (await ask<BriefWhole>('GET', `/briefs/${briefs[0]}`)).body;
    expect(whole.subject).toBe('Salt by weight, never by spoon and 3 more');
    const read = whole.runs.find(({ kind }) => kind === 'read')!.gave as {
      chapters: { title: string }[];
      unread: { subject: string; problem: string }[];
    };
    expect(read.chapters).toHaveLength(3);
    expect(read.unread).toEqual([
      { subject: 'Airlock lids, three ways', problem: expect.stringMatching(/has no captions/) as string },
    ]);
    // One is left, and one alone makes no round-up.
    expect(await take(id)).toEqual([]);
  });
});
