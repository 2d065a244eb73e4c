import type { Article, Articles, DoneToArticles, KeptLists } from '@grivo/contract';
import { searchTerms } from '@grivo/core';
import { unzipSync } from 'fflate';
import { beforeAll, describe, expect, test, vi } from 'vitest';
import type { z } from 'zod';
import { allOf, TEXTS as NOTED, parted, saidOf } from '../src/nouns/articles/said.ts';
import { numbersSaying } from '../src/nouns/articles/wordIndex.ts';
import { articleTitled } from './ground/articles.ts';
import { atTheDesk, type Desk } from './ground/desk.ts';
import type { Ask } from './ground/http.ts';

const DAY = 86_400_000;

let desk: Desk;
let proofreader: Ask;
atTheDesk((one) => {
  desk = one;
});

/** Panniers and what goes with them: what each article says, by its title. */
const TEXTS: Record<string, string> = {
  'Waxing a canvas pannier': 'Rub the wax in warm. The seams drink most of it.\n\n## Drying\n\nTwo days in the shade.',
  'Straps that hold': 'A strap of webbing holds a heavy bag; a strap of hide stretches.',
  'Under the saddle': 'What is wedged under the saddle stays dry, as long as the mudguard is long.',
  'Rolltops in the rain': 'A rolltop keeps the rain out where a zip lets it in.',
  'Tweed and reflectors': 'Reflective thread woven into tweed shines at night only.',
  革の自転車用バッグ: '防水の革は雨の日にも長持ちします。',
  'Kettles on the rack': 'A kettle of two litres rides low, beside the saddle.',
};

const read = async (query: string, ask: Ask = desk.ask) =>
  (await ask<z.infer<typeof Articles>>('GET', `/articles?${query}`)).body;
const titles = async (query: string) => (await read(query)).articles.map(({ title }) => title);
const found = (q: string, more = '') => titles(`order=fit&q=${encodeURIComponent(q)}${more}`);
const counted = async (query = '') =>
  (await desk.ask<{ shown: number; all: number; held: number }>('GET', `/articles/count?${query}`)).body;
const idOf = async (title: string) => (await articleTitled(desk.ask, title)).id;
const decide = (body: object, ask: Ask = desk.ask) => ask<DoneToArticles>('POST', '/articles/decide', body);
const many = (body: object, ask: Ask = desk.ask) => ask<DoneToArticles>('POST', '/articles/many', body);
const SOON = { timeout: 20_000, interval: 150 };
const stands = (title: string, standing: string) =>
  expect.poll(async () => (await articleTitled(desk.ask, title)).standing, SOON).toBe(standing);

beforeAll(async () => {
  proofreader = await desk.http.as('proofreader');
  const briefs: string[] = [];
  for (const [title, text] of Object.entries(TEXTS))
    briefs.push((await desk.ask<{ id: string }>('POST', '/articles', { blog: desk.w.blog, title, text })).body.id);
  await desk.w.settled(briefs, ['held']);
  const noted = async () => (await read('limit=50')).articles.every(({ outOfRange }) => outOfRange !== null);
  await vi.waitFor(async () => expect(await noted()).toBe(true), SOON);
});

describe('finding', () => {
  test.each([
    ['saddle', ['Under the saddle', 'Kettles on the rack']],
    ['strap', ['Straps that hold']],
    ['"the rain out"', ['Rolltops in the rain']],
    ['saddle -kettle', ['Under the saddle']],
    ['革', ['革の自転車用バッグ']],
    ['雨の日', ['革の自転車用バッグ']],
    ['the', ['Waxing a canvas pannier', 'Under the saddle', 'Rolltops in the rain', 'Kettles on the rack']],
    ['sourdough', []],
    ['%', []],
    ['"); DROP TABLE article; --', []],
  ])('%s', async (q, expected) => {
    expect((await found(q)).sort()).toEqual([...expected].sort());
    expect((await counted(`q=${encodeURIComponent(q)}`)).shown).toBe(expected.length);
  });

  test('beginnings of words, alone and together, find what says words that begin so', async () => {
    const beginnings = ['sad', 'rai', 'str', 'wax', 'ket', 'the', 'can', 'pan', 'rol'];
    const says = (text: string, beginning: string) =>
      (text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? []).some((word) => word.startsWith(beginning));
    const fitting = (all: readonly string[]) =>
      Object.entries(TEXTS)
        .filter(([title, text]) => all.every((one) => says(`${title} ${text}`, one)))
        .map(([title]) => title)
        .sort();
    for (const [i, a] of beginnings.entries())
      for (const more of [[], [beginnings[(i + 1) % beginnings.length]!], ['the', 'sad']]) {
        const asked = [a, ...more];
        expect([asked, (await found(asked.join(' '))).sort()]).toEqual([asked, fitting(asked)]);
      }
  });

  test.each([
    'the sad',
    'str hol',
    'rai the -kettle',
    'rol "the rain" rai',
    'the',
    'str -saddle',
    'wax -saddle',
    'sad "the" -kettle',
  ])('%s: an article that is met and the index say the same', async (q) => {
    const { db } = desk.w.product.ground;
    const said = await saidOf(db, searchTerms(q));
    const met = await db.rows<{ n: number }>(
      `SELECT a.n FROM article a${NOTED} WHERE ${allOf(said).text} ORDER BY a.n DESC`,
      allOf(said).values,
    );
    expect(met.length).toBeGreaterThan(0);
    const { sayings, rest } = parted(said)!;
    const all: number[] = [];
    for await (const numbers of numbersSaying(db, sayings, null, 1)) all.push(...numbers);
    const { text, values } = allOf([{ text: 'a.n IN (?)', values: [all] }, ...rest]);
    const told = await db.rows<{ n: number }>(
      `SELECT a.n FROM article a${NOTED} WHERE ${text} ORDER BY a.n DESC`,
      values,
    );
    expect(told).toEqual(met);
  });

  test('however much is typed, it is asked', async () => {
    const letters = [...'abcdefghijklmnopqrstuvwxyz'];
    const many = letters.flatMap((a) => ['x', 'y', 'z'].map((b) => a + b)).slice(0, 66);
    for (const q of [
      many.join(' '),
      `"${many.join(' ')}"`,
      many
        .map((one) => `"${one} q"`)
        .join(' ')
        .slice(0, 199),
    ])
      for (const query of [`order=fit&q=`, 'order=slot&q=', 'order=fit&title=saddle&q='])
        expect((await read(`${query}${encodeURIComponent(q.slice(0, 200))}`)).articles).toEqual([]);
    const long = 'what is wedged under the saddle stays dry, as long as the mudguard is long';
    expect(await found(`"${long}"`)).toEqual(['Under the saddle']);
    expect(await found(long)).toEqual(['Under the saddle']);
  });

  test('what a title says comes before what only the text says', async () => {
    expect((await found('saddle'))[0]).toBe('Under the saddle');
  });

  test('titles alone, where only they are asked', async () => {
    expect(await titles('title=saddle')).toEqual(['Under the saddle']);
    expect(await titles('order=fit&title=saddle')).toEqual(['Under the saddle']);
    expect(await titles('order=fit&title=saddle&q=kettle')).toEqual([]);
    expect(await titles('order=fit')).toHaveLength(7);
  });

  test('what was changed is found by its new words and no more by its old ones', async () => {
    const id = await idOf('Tweed and reflectors');
    const whole = (
      await desk.ask<{ revision: string; document: { title: string; body: unknown[] } }>('GET', `/articles/${id}`)
    ).body;
    const saved = await desk.ask('PUT', `/articles/${id}/document`, {
      base: whole.revision,
      sitting: 'a'.repeat(20),
      document: { ...whole.document, title: 'Wool and reflectors', keyPhrase: '', description: '', body: [] },
    });
    expect(saved.status).toBe(200);
    await expect.poll(() => found('wool'), SOON).toEqual(['Wool and reflectors']);
    expect(await found('tweed')).toEqual([]);
  });
});

describe('measures out of range', () => {
  test('are those of the page, and narrow the list', async () => {
    for (const { id, outOfRange } of (await read('limit=50')).articles) {
      const { measures } = (
        await desk.ask<{ measures: { name: string; value: number; least: number | null; most: number | null }[] }>(
          'GET',
          `/articles/${id}`,
        )
      ).body;
      const out = measures.filter(
        ({ name, value, least, most }) =>
          name !== 'House style' && ((least !== null && value < least) || (most !== null && value > most)),
      );
      expect(outOfRange!.map(({ name }) => name)).toEqual(out.map(({ name }) => name));
      for (const { name } of outOfRange!)
        expect((await read(`limit=50&mark=${encodeURIComponent(name)}`)).articles.map((one) => one.id)).toContain(id);
    }
    const few = await read('limit=50&mark=Sections');
    expect(few.articles.every(({ outOfRange }) => outOfRange!.some(({ name }) => name === 'Sections'))).toBe(true);
    expect(await counted('mark=Sections')).toMatchObject({ shown: few.articles.length });
  });
});

describe('several at once', () => {
  test('are passed, sent back and set aside; what does not wait is left and says why', async () => {
    expect(await counted()).toEqual({ shown: 7, all: 7, held: 7 });
    const [a, b] = [await idOf('Waxing a canvas pannier'), await idOf('Straps that hold')];
    const passed = await decide({ articles: [a, b, a], decide: 'pass' }, proofreader);
    expect([passed.status, passed.body]).toEqual([200, { done: 2, left: [] }]);
    await stands('Waxing a canvas pannier', 'ready');
    await stands('Straps that hold', 'ready');
    const again = await decide({ articles: [a], decide: 'pass' });
    expect(again.body).toEqual({
      done: 0,
      left: [{ id: a, title: 'Waxing a canvas pannier', why: 'It does not wait for anybody’s word.' }],
    });
    const aside = await decide({ articles: [await idOf('Wool and reflectors')], decide: 'set aside' });
    expect(aside.body.done).toBe(1);
    await stands('Wool and reflectors', 'set aside');
    expect(await counted()).toEqual({ shown: 6, all: 6, held: 4 });
    expect((await decide({ articles: [a], decide: 'send back', note: ' ' })).status).toBe(422);
    expect((await decide({ articles: [], decide: 'pass' })).status).toBe(422);
    expect((await decide({ articles: ['z'.repeat(20)], decide: 'pass' })).body.left[0]!.why).toBe(
      'It was removed meanwhile.',
    );
  });

  test('are brought to their blogs, taken back and removed; of each it is said what was not done', async () => {
    const { w } = desk;
    const [a, b] = [await idOf('Waxing a canvas pannier'), await idOf('Straps that hold')];
    expect((await many({ articles: [a], do: 'withdraw' })).body.left[0]!.why).toBe('It is on no blog.');
    const out = (n: number) => expect.poll(async () => (await counted('standing=out')).shown, SOON).toBe(n);
    // The second keeps its distance from when the first truly went out.
    for (const n of [1, 2]) {
      await w.product.ground.desk.set(w.product.ground.desk.now() + 3 * DAY, 0);
      await out(n);
    }
    expect((await many({ articles: [a], do: 'update' })).body.left[0]!.why).toBe(
      'Its blogs show the newest text already.',
    );
    expect((await many({ articles: [a, b], do: 'withdraw' }, proofreader)).status).toBe(403);
    expect((await decide({ articles: [b], decide: 'set aside' })).body.left[0]!.why).toBe(
      'It is on a blog. Take it back from there first.',
    );
    const whole = (await desk.ask<{ revision: string; document: object }>('GET', `/articles/${b}`)).body;
    await desk.ask('PUT', `/articles/${b}/document`, {
      base: whole.revision,
      sitting: 'b'.repeat(20),
      document: { ...whole.document, title: 'Straps that truly hold' },
    });
    const updated = await many({ articles: [a, b], do: 'update' });
    expect([updated.body.done, updated.body.left.map(({ id }) => id)]).toEqual([1, [a]]);
    const site = await fetch((await read('limit=50')).articles.find(({ id }) => id === b)!.address!);
    expect(await site.text()).toContain('Straps that truly hold');
    w.standIns.trouble('blog', { how: 'key refused' }, 1, '/micropub');
    const refused = (await many({ articles: [b], do: 'withdraw' })).body;
    expect([refused.done, refused.left.length]).toEqual([0, 1]);
    expect(refused.left[0]!.why).toMatch(/^Crockhaven Journal: .{20}/);
    expect((await many({ articles: [b], do: 'withdraw' })).body).toEqual({ done: 1, left: [] });
    await stands('Straps that truly hold', 'withdrawn');
    const kept = await idOf('Rolltops in the rain');
    const removed = await many({ articles: [a, kept], do: 'remove' });
    expect([removed.body.done, removed.body.left]).toEqual([
      1,
      [{ id: kept, title: 'Rolltops in the rain', why: 'Its brief has not ended: set the brief aside first.' }],
    ]);
    expect((await desk.ask('GET', `/articles/${a}`)).status).toBe(404);
    expect(await found('pannier')).toEqual([]);
  });

  test('are saved in one file, in any form, under names of their own', async () => {
    const ids = [await idOf('Under the saddle'), await idOf('革の自転車用バッグ'), await idOf('Kettles on the rack')];
    const zip = async (as: string) => {
      const answer = await fetch(
        `${desk.http.address}/api/articles/zip?as=${encodeURIComponent(as)}&articles=${ids.join(',')}`,
        { headers: { cookie: desk.cookie } },
      );
      expect(answer.headers.get('content-type')).toBe('application/zip');
      return unzipSync(new Uint8Array(await answer.arrayBuffer()));
    };
    const text = await zip('Markdown');
    expect(Object.keys(text)).toHaveLength(3);
    expect(Object.keys(text)[0]).toBe('under-the-saddle.md');
    expect(new TextDecoder().decode(text['under-the-saddle.md'])).toContain('wedged under the saddle');
    expect(Object.keys(await zip('Word')).every((name) => name.endsWith('.docx'))).toBe(true);
    expect((await desk.ask('GET', '/articles/zip?as=Markdown&articles=x')).status).toBe(422);
  });
});

describe('in the order of their slots', () => {
  test('pages of any size give every article once, in one order, whatever is asked for', async () => {
    const whole = (await read('order=slot&limit=500')).articles;
    const rank = ({ standing }: Article) => ['held', 'in work', 'ready', 'draft', 'out', 'withdrawn'].indexOf(standing);
    expect(whole.length).toBe((await counted()).shown);
    expect(whole.some(({ standing }) => standing === 'set aside')).toBe(false);
    expect(whole.map((one) => rank(one) < 3)).toEqual(
      whole.map((one) => rank(one) < 3).sort((a, b) => Number(b) - Number(a)),
    );
    for (const query of ['', '&standing=held', '&q=saddle', '&mark=any', '&days=30'])
      for (const limit of [1, 2, 3]) {
        const all = (await read(`order=slot&limit=500${query}`)).articles.map(({ id }) => id);
        const paged: string[] = [];
        for (let next: string | null = ''; next !== null; ) {
          const page: z.infer<typeof Articles> = await read(
            `order=slot&limit=${limit}${query}${next && `&before=${next}`}`,
          );
          paged.push(...page.articles.map(({ id }) => id));
          next = page.next;
        }
        expect(paged).toEqual(all);
      }
    const byFit = (await read('order=fit&limit=500&q=the')).articles.map(({ id }) => id);
    const one = await read('order=fit&limit=1&q=the');
    const rest = await read(`order=fit&limit=500&q=the&before=${one.next}`);
    expect([...one.articles, ...rest.articles].map(({ id }) => id)).toEqual(byFit);
    expect((await desk.ask('GET', '/articles?before=<script>')).status).toBe(422);
  });

  test('of those that are out, only the ones of so many days; what comes is there all the same', async () => {
    const { desk: clock } = desk.w.product.ground;
    await clock.set(clock.now() + 20 * DAY, 0);
    const recent = (await read('order=slot&limit=500&days=7')).articles;
    expect(recent.filter(({ standing }) => standing === 'out' || standing === 'withdrawn')).toEqual([]);
    expect(recent.some(({ standing }) => standing === 'held')).toBe(true);
    expect((await counted('days=7')).shown).toBe(recent.length);
  });
});

test('the settings of an article make another pipeline, off at first, as they were when it was made', async () => {
  const kept = await idOf('Rolltops in the rain');
  const { brief } = (await read('limit=50')).articles.find(({ id }) => id === kept)!;
  const made = await desk.ask<{ id: string }>('POST', `/articles/${kept}/pipeline`, {});
  expect(made.status).toBe(201);
  type Whole = { name: string; document: unknown; isOn: boolean };
  const pipeline = (await desk.ask<Whole>('GET', `/pipelines/${made.body.id}`)).body;
  const { body } = await desk.ask<{ pipeline: string }>('GET', `/briefs/${brief}`);
  const first = (await desk.ask<Whole>('GET', `/pipelines/${body.pipeline}`)).body;
  expect(pipeline).toMatchObject({ name: 'As for ‘Rolltops in the rain’', isOn: false, document: first.document });
  expect((await proofreader('POST', `/articles/${kept}/pipeline`, {})).status).toBe(403);
  expect((await desk.ask('POST', `/articles/${'z'.repeat(20)}/pipeline`, {})).status).toBe(404);
});

test('lists are kept by name, each by the person whose they are', async () => {
  const all = async (ask: Ask = desk.ask) => (await ask<z.infer<typeof KeptLists>>('GET', '/lists')).body.lists;
  const { id } = (await desk.ask<{ id: string }>('POST', '/lists', { name: ' Rain ', wanted: 'q=rain' })).body;
  await proofreader('POST', '/lists', { name: 'Rain', wanted: 'q=regen' });
  expect(await all()).toEqual([{ id, name: 'Rain', wanted: 'q=rain' }]);
  const same = await desk.ask<{ id: string }>('POST', '/lists', { name: 'Rain', wanted: 'q=rain&standing=out' });
  expect(same.body.id).toBe(id);
  await desk.ask('POST', '/lists', { name: 'Sun', wanted: '' });
  expect((await desk.ask('PATCH', `/lists/${id}`, { name: 'Sun' })).problem.detail).toContain('‘Sun’ already');
  expect((await desk.ask('PATCH', `/lists/${id}`, { name: 'Showers' })).status).toBe(204);
  expect((await all()).map(({ name, wanted }) => [name, wanted])).toEqual([
    ['Showers', 'q=rain&standing=out'],
    ['Sun', ''],
  ]);
  expect((await proofreader('DELETE', `/lists/${id}`)).status).toBe(404);
  expect((await desk.ask('DELETE', `/lists/${id}`)).status).toBe(204);
  expect((await desk.ask('DELETE', `/lists/${id}`)).status).toBe(404);
  expect((await desk.ask('POST', '/lists', { name: ' ', wanted: '' })).status).toBe(422);
});
