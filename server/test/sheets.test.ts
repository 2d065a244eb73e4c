import type { SheetPreview } from '@grivo/contract';
import { SHIPPED } from '@grivo/core';
import { describe, expect, test } from 'vitest';
import { passagesById } from '../src/nouns/materials/repository.ts';
import { atTheDesk, type Desk } from './ground/desk.ts';
import { intakeAt } from './ground/intake.ts';

let desk: Desk;
let w: Desk['w'];
let ask: Desk['ask'];
atTheDesk((opened) => {
  desk = opened;
  ({ w, ask } = opened);
});
const { at, itemsOf, sourceOf, look, offered, wholeSource, taker, take, stock, writtenBack, upload } = intakeAt(
  () => desk,
);

describe('a sheet', () => {
  test('is shown with what is wrong at its cells; a better reading mends it', async () => {
    const source = await sourceOf(stock());
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
    const kept = await upload('text/csv', Buffer.from('Größe;Preis\r\nKleine Größe;6,50\r\nGroße;9,20\r\n', 'latin1'));
    expect(kept.status).toBe(201);
    const { file } = (await kept.json()) as { file: string };
    const source = await sourceOf({ kind: 'sheet', file, fileName: 'preise.csv' });
    expect(await look(source)).toMatchObject({ found: 2, fresh: 2, trouble: null });
    expect((await offered(source)).map(({ subject }) => subject)).toEqual(['Kleine Größe', 'Große']);
    const empty = await upload('text/csv', '');
    expect([empty.status, ((await empty.json()) as { title: string }).title]).toEqual([422, 'Empty file']);
    const large = await upload('text/csv', Buffer.alloc(100_000_001, 'a'));
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
    const source = await sourceOf(stock());
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

test('a sheet comes back with what was made of its rows, safe for a spreadsheet', async () => {
  w.standIns.sheets.do({
    sheet: 'stock',
    act: 'add',
    cells: ['CH-9300', '=HYPERLINK("x")', 'crock', '5', 'salt', '60', '3', '2026-11-25', 'A1', 'New.'],
  });
  const source = await sourceOf(stock());
  await look(source);
  const [first] = await offered(source);
  const pipeline = await taker(source);
  await ask('POST', `/pipelines/${pipeline}/take`, { items: [first!.id] });
  const answer = await writtenBack(source);
  expect(answer.headers.get('content-type')).toMatch(/text\/csv/);
  const lines = (await answer.text()).split('\r\n');
  expect(lines[1]).toMatch(/^SKU,Name,.*,Notes,standing,article,address,out on$/);
  expect(lines.filter((line) => /,(?:waiting|in work|out),,,$/.test(line))).toHaveLength(1);
  expect(lines.find((line) => line.startsWith('CH-9300'))).toContain(`"'=HYPERLINK(""x"")"`);
});

test('another reading of a sheet brings other fields, and takes nothing anew', async () => {
  const source = await sourceOf({ ...stock(), changed: true, startFrom: { at: 'the last', n: 2 } });
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

const csv = async (text: string) =>
  ((await (await upload('text/csv', Buffer.from(text))).json()) as { file: string }).file;

describe('a row becomes a product note', () => {
  test('from its own text and facts, with the place of each', async () => {
    const source = await sourceOf(stock());
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

  test('only of the columns that are named; the others are known to nobody who writes', async () => {
    const source = await sourceOf({
      kind: 'sheet',
      file: await csv(
        'Instrument,About it,For us\nViola,"A viola has four strings tuned in fifths, and its body is longer than that of a violin. It is strung with gut or steel and played with a bow of horsehair that is rubbed with rosin before it is played. The bridge of maple stands between the notches and carries the strings, and the post of spruce behind it carries the sound to the back.","Margin is 43 per cent, do not tell the orchestra what we paid for the bows last spring"\n',
      ),
      fileName: 'instruments.csv',
    });
    await look(source);
    const made = SHIPPED.find(({ key }) => key === 'rows')!.make({
      source,
      blog: w.blog,
      language: 'en',
      columns: ['instrument', 'aboutIt'],
    });
    const { id, problems } = (
      await ask<{ id: string; problems: unknown[] }>('POST', '/pipelines', {
        name: 'Named columns',
        document: {
          ...made,
          steps: made.steps.map((step) => (step.kind === 'publish' ? { ...step, when: 'at once' as const } : step)),
        },
      })
    ).body;
    expect(problems).toEqual([]);
    const items = (await itemsOf(source)).map((item) => item.id);
    expect((await wholeSource(source)).settings).toMatchObject({ title: 'Instrument' });
    const { briefs } = (await ask<{ briefs: string[] }>('POST', `/pipelines/${id}/take`, { items })).body;
    await w.settled(briefs, ['out', 'set aside']);
    const outputs = await w.product.ground.db.rows<{ gave: unknown }>(
      "SELECT COALESCE(o.decided, o.proposed) AS gave FROM output o JOIN step_run r ON r.id = o.step_run WHERE r.brief = ? AND r.kind = 'read'",
      [briefs[0]],
    );
    const [{ passages }] = outputs.map(({ gave }) => gave as { passages: string[] }) as [{ passages: string[] }];
    const texts = (await passagesById(w.product.ground.db, passages)).map(({ text }) => text).join(' ');
    expect(texts).toContain('gut or steel');
    expect(texts).not.toMatch(/margin/i);
  });
});
