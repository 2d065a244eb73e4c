import type { BriefWhole, Item, Looked, SheetPreview, SourceWhole, VideoText } from '@grivo/contract';
import { type ProcedureDocument, SHIPPED, stepKinds } from '@grivo/core';
import { afterAll, afterEach, beforeAll, describe, expect, test } from 'vitest';
import { readRevision } from '../src/articles/repository.ts';
import { refreshSource } from '../src/sources/refresh.ts';
import { type Ask, serve } from './ground/http.ts';
import { type World, world } from './ground/world.ts';

let w: World;
let http: Awaited<ReturnType<typeof serve>>;
let ask: Ask;

beforeAll(async () => {
  w = await world();
  http = await serve(w);
  ask = await http.as('editor');
  await w.product.work('both');
});
afterEach(() => w.standIns.calm());
afterAll(async () => {
  http.close();
  await w.close();
});

const k = stepKinds;
const at = (path: string) => `${w.standIns.address}${path}`;

async function sourceOf(settings: object, name = 'A source'): Promise<string> {
  const made = await ask<{ id: string }>('POST', '/sources', { name, settings });
  expect(made.status).toBe(201);
  return made.body.id;
}
const look = async (source: string) => (await ask<Looked>('POST', `/sources/${source}/look`)).body;
const itemsOf = async (source: string) => (await ask<{ items: Item[] }>('GET', `/sources/${source}/items`)).body.items;
const offered = async (source: string) => (await itemsOf(source)).filter(({ leftOut }) => leftOut === null);
const wholeSource = async (source: string) => (await ask<SourceWhole>('GET', `/sources/${source}`)).body;

/** Takes what is new and stops at once, so that only taking is looked at. */
async function taker(source: string, most: number | null = null): Promise<string> {
  const document: ProcedureDocument = {
    grivo: 1,
    language: 'en',
    steps: [
      { ...k.take.fresh('s1'), sources: [source], most, everyMinutes: 60 },
      { ...k.wait.fresh('s2'), minutes: 1 },
    ],
  };
  return (await ask<{ id: string }>('POST', '/pipelines', { name: 'Takes', document })).body.id;
}
const take = async (pipeline: string) =>
  (await ask<{ briefs: string[] }>('POST', `/pipelines/${pipeline}/take`, {})).body.briefs;
const subjectsOf = async (briefs: string[]) =>
  (await Promise.all(briefs.map(async (id) => (await ask<BriefWhole>('GET', `/briefs/${id}`)).body.subject))).sort();

const STOCK = () => ({ kind: 'sheet', address: at('/sheets/stock.csv') });
const BENCH = () => ({ kind: 'videos', channel: at('/videos/@crockhaven-bench') });

describe('only what is new', () => {
  test('of a sheet: two rows added are two, however it is reordered and its titles edited', async () => {
    const source = await sourceOf(STOCK());
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
    const source = await sourceOf(BENCH());
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
    const source = await sourceOf({ ...STOCK(), changed: true, startFrom: { at: 'the last', n: 3 } });
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
    const source = await sourceOf(BENCH());
    const { ground, tools } = w.product;
    const ports = { ground, network: tools.network };
    const before = ground.ids;
    let made = 0;
    const dying = {
      ...ports,
      ground: {
        ...ground,
        ids: () => {
          if (++made > 5) throw new Error('dies here');
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
    const source = await sourceOf({ ...STOCK(), startFrom: { at: 'now' } });
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
    const source = await sourceOf({ ...BENCH(), exclude: ['garlic'], shortest: 60 });
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
    const three = await sourceOf({ ...STOCK(), startFrom: { at: 'the last', n: 3 } });
    await look(three);
    expect(await offered(three)).toHaveLength(3);
    const since = await sourceOf({ ...BENCH(), startFrom: { at: 'a day', day: '2026-11-16' } });
    await look(since);
    expect((await offered(since)).every(({ publishedDesk }) => publishedDesk! >= Date.parse('2026-11-16'))).toBe(true);
    expect((await offered(since)).length).toBeGreaterThan(2);
  });
});

describe('a sheet', () => {
  test('is shown with what is wrong at its cells; a better reading mends it', async () => {
    const source = await sourceOf(STOCK());
    const { settings } = await wholeSource(source);
    const shown = (await ask<SheetPreview>('POST', `/sources/${source}/sheet`, settings)).body;
    expect(shown.settings).toMatchObject({ header: 2, identity: ['SKU'], title: 'Name' });
    const wrong = shown.shown.flatMap(({ n, faults }) =>
      faults.map(({ header, problem }) => `${n} ${header}: ${problem}`),
    );
    expect(wrong.map((one) => one.replace(/\d+/g, 'n')).sort()).toEqual([
      'n Arrived: there is no n November',
      'n Litres: ‘five’ is not a number',
      'n Name: no title',
      'n SKU: the same SKU as row n',
    ]);
    expect(shown.usable).toBe(shown.rows - 4);
    const columns = (shown.settings as { columns: { header: string; type: string }[] }).columns.map((column) =>
      ['Litres', 'Arrived'].includes(column.header) ? { ...column, type: 'text' } : column,
    );
    const again = (
      await ask<SheetPreview>('POST', `/sources/${source}/sheet`, {
        ...shown.settings,
        columns,
        identity: ['SKU', 'Name'],
      })
    ).body;
    expect(again.usable).toBe(again.rows - 1);
  });

  test('uploaded in another encoding is read; too large a file, an empty one and a page are refused in words', async () => {
    const upload = (body: Buffer | string) =>
      fetch(`${http.address}/api/uploads?mime=text/csv`, {
        method: 'POST',
        headers: { cookie: cookieOf(), 'content-type': 'application/octet-stream' },
        body: body as never,
      });
    const kept = await upload(Buffer.from('Größe;Preis\r\nKleine Größe;6,50\r\nGroße;9,20\r\n', 'latin1'));
    expect(kept.status).toBe(201);
    const { file } = (await kept.json()) as { file: string };
    const source = await sourceOf({ kind: 'sheet', file, fileName: 'preise.csv' });
    expect(await look(source)).toMatchObject({ found: 2, fresh: 2, trouble: null });
    expect((await offered(source)).map(({ subject }) => subject)).toEqual(['Kleine Größe', 'Große']);
    const empty = await upload('');
    expect([empty.status, ((await empty.json()) as { title: string }).title]).toEqual([422, 'Empty file']);
    const large = await upload(Buffer.alloc(100_000_001, 'a'));
    expect([large.status, ((await large.json()) as { detail: string }).detail]).toEqual([413, 'A file may be 100 MB.']);
    expect(
      await w.product.ground.db.rows(
        'SELECT DISTINCT c.digest FROM file_chunk c LEFT JOIN file f ON f.digest = c.digest WHERE f.digest IS NULL',
      ),
    ).toEqual([]);
    const page = await sourceOf({ kind: 'sheet', address: at('/sheets/stock') });
    expect(await look(page)).toMatchObject({
      found: 0,
      trouble: expect.stringMatching(/it is a web page and no sheet/) as string,
    });
  });

  test('that cannot be reached, is not there, or lies on a private network says so and loses nothing', async () => {
    const source = await sourceOf(STOCK());
    const { fresh } = await look(source);
    w.standIns.trouble('sheets', { how: 'cut before' }, 1);
    expect(await look(source)).toMatchObject({ trouble: expect.stringMatching(/connection was cut/) as string });
    expect((await itemsOf(source)).filter(({ gone }) => gone)).toEqual([]);
    expect((await itemsOf(source)).length).toBe(fresh);
    expect((await wholeSource(source)).trouble).toMatch(/Look at the address/);
    expect(await look(source)).toMatchObject({ trouble: null, fresh: 0 });
    expect(await look(await sourceOf({ kind: 'sheet', address: at('/sheets/none.csv') }))).toMatchObject({
      trouble: expect.stringMatching(/answers 404/) as string,
    });
    expect(await look(await sourceOf({ kind: 'sheet', address: 'http://10.1.2.3/stock.csv' }))).toMatchObject({
      trouble: expect.stringMatching(/10\.1\.2\.3 is on a private network/) as string,
    });
  });
});

function cookieOf(): string {
  return (ask as unknown as { cookie: string }).cookie;
}

test('a sheet comes back with what was made of its rows, safe for a spreadsheet', async () => {
  w.standIns.sheets.do({
    sheet: 'stock',
    act: 'add',
    cells: ['CH-9300', '=HYPERLINK("x")', 'crock', '5', 'salt', '60', '3', '2026-11-25', 'A1', 'New.'],
  });
  const source = await sourceOf(STOCK());
  await look(source);
  const [first] = await offered(source);
  const pipeline = await taker(source);
  await ask('POST', `/pipelines/${pipeline}/take`, { items: [first!.id] });
  const answer = await fetch(`${http.address}/api/sources/${source}/written-back`, { headers: { cookie: cookieOf() } });
  expect(answer.headers.get('content-type')).toMatch(/text\/csv/);
  const lines = (await answer.text()).split('\r\n');
  expect(lines[1]).toMatch(/^SKU,Name,.*,Notes,standing,article,address,out on$/);
  expect(lines.filter((line) => /,(?:waiting|in work|out),,,$/.test(line))).toHaveLength(1);
  expect(lines.find((line) => line.startsWith('CH-9300'))).toContain(`"'=HYPERLINK(""x"")"`);
});

test('a source that cannot be read stands on Today until it can', async () => {
  const source = await sourceOf(STOCK(), 'Stock of today');
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

describe('videos', () => {
  test('a channel is found by handle, name and address, stray characters forgiven', async () => {
    const find = (text: string) =>
      ask<{ name: string; address: string; videos: number }>('POST', '/channels/find', { text });
    for (const text of [
      '@crockhaven-bench',
      ' “Crockhaven Bench”, ',
      'crockhaven bench',
      at('/videos/@crockhaven-bench'),
      'crockhaven-bench\u200b',
    ])
      expect((await find(text)).body).toMatchObject({
        name: 'Crockhaven Bench',
        address: at('/videos/@crockhaven-bench'),
      });
    expect((await find(at('/videos/@crockhaven-bench/lists/basics'))).body).toMatchObject({
      name: 'The basics',
      videos: 3,
    });
    const none = await find('@nobody-at-all');
    expect([none.status, none.problem.detail]).toEqual([422, '‘@nobody-at-all’: The videos knows no such channel.']);
    expect((await find(at('/videos/@nobody'))).problem.detail).toMatch(/there is no such channel/);
    expect((await find(at('/pages/none'))).status).toBe(422);
  });

  test('what is said is read with its chapters, by hand or by machine, and says what it carries', async () => {
    const source = await sourceOf({
      kind: 'videos',
      addresses: ['soft-sauerkraut', 'how-full', 'kraut-keller'].map((slug) =>
        at(`/videos/watch/${slug}?utm_source=mail#t=3`),
      ),
    });
    await look(source);
    const texts = await Promise.all(
      (await offered(source)).map(async ({ id }) => (await ask<VideoText>('GET', `/items/${id}/video`)).body),
    );
    expect(texts.map(({ captions, language, chapters }) => [captions, language, chapters.length])).toEqual([
      ['by hand', 'en', 6],
      ['by machine', 'en', 6],
      ['by hand', 'de', 5],
    ]);
    for (const { words, carries, lines } of texts) {
      expect(words).toBeGreaterThan(450);
      expect(carries).toBeLessThan(words);
      expect(lines.every(({ text }) => !/\[|\bum,/i.test(text))).toBe(true);
    }
    expect(texts[1]!.left.repeats).toBeGreaterThan(40);
  });

  test('a video without captions stops with that reason, and one put under a page without video is unusable', async () => {
    const source = await sourceOf({
      kind: 'videos',
      addresses: [at('/videos/watch/airlock-lids'), at('/sheets/stock')],
    });
    await look(source);
    const [, page] = await itemsOf(source);
    expect(page).toMatchObject({ leftOut: 'unusable', leftDetail: 'there is no video on that page' });
    const document: ProcedureDocument = {
      grivo: 1,
      language: 'en',
      steps: [{ ...k.take.fresh('s1'), sources: [source], most: null }, k.read.fresh('s2')],
    };
    const { id } = (await ask<{ id: string }>('POST', '/pipelines', { name: 'Reads', document })).body;
    const briefs = await take(id);
    expect(briefs).toHaveLength(1);
    await w.settled(briefs, ['stopped']);
    const [run] = (await ask<BriefWhole>('GET', `/briefs/${briefs[0]}`)).body.runs;
    expect(run!.failure).toMatchObject({ problem: 'No captions' });
  });

  test('uploaded captions are read as they are; what is no captions file says so', async () => {
    const upload = async (body: string) =>
      (
        (await (
          await fetch(`${http.address}/api/uploads?mime=text/vtt`, {
            method: 'POST',
            headers: { cookie: cookieOf(), 'content-type': 'application/octet-stream' },
            body,
          })
        ).json()) as { file: string }
      ).file;
    const cues = Array.from({ length: 60 }, (_, i) => {
      const time = (s: number) =>
        `00:${String(Math.floor(s / 60)).padStart(2, '0')}:${String(s % 60).padStart(2, '0')},000`;
      return `9\n${time(i * 4)} --> ${time(i * 4 + 4)}\nWe weigh the salt for jar number ${i} and write it on the lid.`;
    });
    const captions = [
      { file: await upload(cues.join('\n\n')), fileName: 'Weighing_salt.srt' },
      { file: await upload('Dear Ines, the crocks have come.'), fileName: 'letter.txt' },
    ];
    const source = await sourceOf({ kind: 'videos', captions });
    await look(source);
    const [good, bad] = await itemsOf(source);
    expect([good!.subject, good!.leftOut, bad!.leftOut]).toEqual(['Weighing salt', null, 'unusable']);
    expect(bad!.leftDetail).toMatch(/holds no times/);
    const text = (await ask<VideoText>('GET', `/items/${good!.id}/video`)).body;
    expect([text.captions, text.lines.length, text.language]).toEqual(['uploaded', 60, 'en']);
    const document: ProcedureDocument = {
      grivo: 1,
      language: 'en',
      steps: [
        { ...k.take.fresh('s1'), sources: [source], most: null },
        { ...k.read.fresh('s2'), from: '01:00', to: '02:00' },
      ],
    };
    const { id } = (await ask<{ id: string }>('POST', '/pipelines', { name: 'Captions', document })).body;
    const briefs = await take(id);
    await w.settled(briefs, ['out']);
    const [run] = (await ask<BriefWhole>('GET', `/briefs/${briefs[0]}`)).body.runs;
    expect((run!.gave as { spokenWords: number }).spokenWords).toBe(15 * 14);
  });

  test('becomes an article that follows its chapters, shows it and credits it; a chosen part uses that part alone', async () => {
    const source = await sourceOf({ kind: 'videos', addresses: [at('/videos/watch/salt-by-weight')] });
    await look(source);
    const made = SHIPPED.find(({ key }) => key === 'video')!.make({ source, blog: w.blog, language: 'en' });
    const document = {
      ...made,
      steps: made.steps.map((step) => (step.kind === 'publish' ? { ...step, when: 'at once' as const } : step)),
    };
    const run = async (words: object) => {
      const { id } = (await ask<{ id: string }>('POST', '/pipelines', { name: 'Videos', document })).body;
      const [item] = await itemsOf(source);
      const [brief] = (
        await ask<{ briefs: string[] }>('POST', `/pipelines/${id}/take`, { items: [item!.id], ...words })
      ).body.briefs;
      await w.settled([brief!], ['out']);
      const [row] = await w.product.ground.db.rows<{ current: string; address: string }>(
        'SELECT a.current, p.address FROM article a JOIN publication p ON p.article = a.id WHERE a.brief = ?',
        [brief],
      );
      const runs = (await ask<BriefWhole>('GET', `/briefs/${brief}`)).body.runs;
      return {
        document: await readRevision(w.product.ground.db, row!.current),
        page: await (await fetch(row!.address)).text(),
        runs,
      };
    };
    const whole = await run({});
    const headings = whole.document.body.flatMap((block) => (block.type === 'heading' ? [block.text] : []));
    expect(headings.slice(0, 2)).toEqual(['Six spoons on a scale', 'What per cent means here']);
    expect(whole.document.body.filter(({ type }) => type === 'video')).toHaveLength(1);
    expect(whole.document.keyPhrase).not.toBe('');
    expect(whole.page).toContain('Crockhaven Bench');
    const paragraphs = whole.document.body.filter((block) => block.type === 'paragraph');
    expect(paragraphs.every((block) => (block.evidence?.length ?? 0) > 0)).toBe(true);
    const part = await run({ range: { from: 60, to: 200 } });
    const spoken = (runs: BriefWhole['runs']) =>
      (runs.find(({ kind }) => kind === 'read')!.gave as { spokenWords: number }).spokenWords;
    expect(spoken(part.runs)).toBeLessThan(spoken(whole.runs) / 1.8);
  });
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

test('another reading of a sheet brings other fields, and takes nothing anew', async () => {
  const source = await sourceOf({ ...STOCK(), changed: true, startFrom: { at: 'the last', n: 2 } });
  const pipeline = await taker(source);
  expect(await take(pipeline)).toHaveLength(2);
  const { rev, settings } = await wholeSource(source);
  const columns = (settings as { columns: { header: string; field: string | null }[] }).columns.map((column) =>
    column.header === 'Kind' ? { ...column, field: 'sort' } : column,
  );
  await ask('PUT', `/sources/${source}`, { settings: { ...settings, columns } }, { 'if-match': `"${rev}"` });
  expect(await look(source)).toMatchObject({ fresh: 0, changed: 0 });
  const [item] = await itemsOf(source);
  const { fields } = (await ask<{ fields: Record<string, unknown> }>('GET', `/items/${item!.id}`)).body;
  expect([typeof fields['sort'], fields['kind']]).toEqual(['string', undefined]);
  expect(await take(pipeline)).toEqual([]);
  // Told apart by other columns every row looks new; they wait to be offered by hand.
  const now = await wholeSource(source);
  const identity = ['SKU', 'Name'];
  await ask('PUT', `/sources/${source}`, { settings: { ...now.settings, identity } }, { 'if-match': `"${now.rev}"` });
  expect((await look(source)).fresh).toBeGreaterThan(10);
  expect(await take(pipeline)).toEqual([]);
});

describe('phrases', () => {
  test('with words left out are left out, also those that come later, and a person brings one back; answered ones are marked', async () => {
    const source = await sourceOf({ kind: 'keywords' });
    const paste = (text: string) => ask('POST', `/sources/${source}/keywords`, { paste: text });
    await paste('pickle crock near me\nhow much salt for kimchi\nsalt by weight never by spoon');
    const { rev, settings } = await wholeSource(source);
    const put = await ask(
      'PUT',
      `/sources/${source}`,
      { settings: { ...settings, exclude: ['Near me'] } },
      { 'if-match': `"${rev}"` },
    );
    expect(put.status).toBe(200);
    await paste('second hand crock near me');
    const left = (await itemsOf(source)).filter(({ leftOut }) => leftOut !== null);
    expect(left.map(({ subject, leftOut, leftDetail }) => [subject, leftOut, leftDetail])).toEqual([
      ['pickle crock near me', 'filtered', 'Near me'],
      ['second hand crock near me', 'filtered', 'Near me'],
    ]);
    await ask('POST', `/sources/${source}/offer`, { items: [left[0]!.id], offer: true });
    expect((await offered(source)).map(({ subject }) => subject)).toContain('pickle crock near me');
    const answered = (await itemsOf(source)).filter(({ answeredBy }) => answeredBy !== null);
    expect(answered.map(({ subject }) => subject)).toEqual(['salt by weight never by spoon']);
    const stale = await ask('PUT', `/sources/${source}`, { settings }, { 'if-match': `"${rev}"` });
    expect(stale.status).toBe(412);
  });
});

describe('a row becomes a product note', () => {
  test('from its own text and facts, with the place of each', async () => {
    const source = await sourceOf(STOCK());
    await look(source);
    const made = SHIPPED.find(({ key }) => key === 'rows')!.make({ source, blog: w.blog, language: 'en' });
    const document = {
      ...made,
      steps: made.steps.map((step) => (step.kind === 'publish' ? { ...step, when: 'at once' as const } : step)),
    };
    const { id, problems } = (
      await ask<{ id: string; problems: { grade: string }[] }>('POST', '/pipelines', { name: 'Rows', document })
    ).body;
    expect(problems.filter(({ grade }) => grade === 'error')).toEqual([]);
    const slicer = (await itemsOf(source)).find(({ subject }) => subject.startsWith('Vegetable slicer'));
    const { briefs } = (await ask<{ briefs: string[] }>('POST', `/pipelines/${id}/take`, { items: [slicer!.id] })).body;
    await w.settled(briefs, ['out']);
    const places = await w.product.ground.db.rows<{ locator: { place?: string } }>('SELECT locator FROM passage');
    expect(places.some(({ locator }) => /^row \d+, (?:Notes|facts)$/.test(locator.place ?? ''))).toBe(true);
  });
});

describe('what a file knows of phrases', () => {
  const measured = (phrase: string, volume: number | null, difficulty: number | null = null) => ({
    phrase,
    volume,
    difficulty,
  });
  const add = async (source: string, ...phrases: object[]) =>
    (await ask<{ added: number; measured: number }>('POST', `/sources/${source}/keywords`, { phrases })).body;
  const figures = async (source: string) =>
    (await itemsOf(source)).map(({ subject, volume, difficulty }) => [subject, volume, difficulty]);

  test('stays with them, commas and all, and newer figures replace older ones', async () => {
    const source = await sourceOf({ kind: 'keywords' });
    expect(
      await add(
        source,
        measured('salt, how much for kraut', 880, 30),
        measured('kahm yeast', 90),
        measured('kahm yeast', 5),
      ),
    ).toMatchObject({ added: 2, measured: 0 });
    expect(await figures(source)).toEqual([
      ['salt, how much for kraut', 880, 30],
      ['kahm yeast', 90, null],
    ]);
    expect(
      await add(source, measured('Kahm Yeast', 110, 12), measured('salt, how much for kraut', null)),
    ).toMatchObject({
      added: 0,
      measured: 1,
    });
    expect(await figures(source)).toEqual([
      ['salt, how much for kraut', 880, 30],
      ['kahm yeast', 110, 12],
    ]);
  });

  test('comes out as CSV with what was made of each, and can be read in again', async () => {
    const source = await sourceOf({ kind: 'keywords' }, 'Salt & more');
    await add(source, measured('=salt, how much', 880, 30), measured('kahm yeast', null));
    const [first] = await itemsOf(source);
    await ask('POST', `/pipelines/${await taker(source)}/take`, { items: [first!.id] });
    const answer = await fetch(`${http.address}/api/sources/${source}/written-back`, {
      headers: { cookie: cookieOf() },
    });
    expect(answer.headers.get('content-disposition')).toBe('attachment; filename="salt-more.csv"');
    const [head, ...lines] = (await answer.text()).split('\r\n');
    expect(head).toBe('phrase,volume,difficulty,opportunity,left out,standing,article,address,out on');
    expect(lines[0]).toMatch(/^"'=salt, how much",880,30,616,,(?:waiting|in work|out),,,$/);
    expect(lines.slice(1)).toEqual(['kahm yeast,,,,,,,,', '']);
  });

  test('goes with the brief, so that a procedure can go by it', async () => {
    const source = await sourceOf({ kind: 'keywords' });
    await add(source, measured('crock with a water rim', 880, 30), measured('jar with a wire clip', 10, 5));
    const document: ProcedureDocument = {
      grivo: 1,
      language: 'en',
      steps: [
        { ...k.take.fresh('s1'), sources: [source], most: null },
        {
          ...k.when.fresh('w1'),
          tests: [{ field: 'volume', is: 'above', value: '100' }],
          holds: [{ ...k['work out'].fresh('w2'), as: 'size', expression: "'much'" }],
          otherwise: [{ ...k['work out'].fresh('w3'), as: 'size', expression: "'little'" }],
        },
        {
          ...k['lay out'].fresh('s2'),
          title: '{{ size }} sought',
          body: '{{ volume }} a month, difficulty {{ difficulty }}.',
        },
      ],
    };
    const { body } = await ask<{ id: string }>('POST', '/pipelines', { name: 'By volume', document });
    const briefs = await take(body.id);
    await w.settled(briefs, ['out']);
    const titles = await w.product.ground.db.rows<{ title: string }>('SELECT title FROM article WHERE brief IN (?)', [
      briefs,
    ]);
    expect(titles.map(({ title }) => title).sort()).toEqual(['little sought', 'much sought']);
  });

  test('is refused where it is no figure', async () => {
    const source = await sourceOf({ kind: 'keywords' });
    const refused = await ask('POST', `/sources/${source}/keywords`, { phrases: [measured('salt', -1)] });
    expect([refused.status, refused.problem.detail]).toEqual([422, expect.stringContaining('phrases.0.volume')]);
  });
});
