import type { ArticleWhole } from '@grivo/contract';
import { type BlockOf, inlineText, stepKinds as k, type ProcedureDocument, type Step } from '@grivo/core';
import sharp from 'sharp';
import { describe, expect, test } from 'vitest';
import { chartPictures } from '../src/nouns/articles/charts.ts';
import { atTheDesk, type Desk } from './ground/desk.ts';
import { intakeAt } from './ground/intake.ts';

let desk: Desk;
atTheDesk(
  (open) => {
    desk = open;
  },
  { upkeep: [] },
);
const { sourceOf } = intakeAt(() => desk);

async function upload(text: string): Promise<string> {
  const response = await fetch(`${desk.http.address}/api/uploads?name=kiln.md&mime=text/markdown`, {
    method: 'POST',
    headers: { cookie: desk.cookie, 'content-type': 'application/octet-stream' },
    body: text,
  });
  return ((await response.json()) as { file: string }).file;
}

const MANUAL = `# What the kiln took

In 2019 the pottery sold 140 bowls, in 2020 180 and in 2021 231. Most of them went to the two markets of the coast.

| Glaze | Water taken up |
| --- | --- |
| Ash | 9 % |
| Celadon | 4 % |
| Tenmoku | 2 % |

Clay has no memory, whatever people say, and a bowl that was bent once stands straight again after firing.
`;
const BODY =
  'The pottery has sold more bowls each year, and the coast bought most of them.\n\n## Glazes\n\nA glaze keeps water out.';

let n = 0;
/** An article laid out of a manual, with charts as the step says. */
async function charted(
  change: Partial<ReturnType<typeof k.chart.fresh>>,
  { text = MANUAL, language = 'en', after = [] as Step[], before = [] as Step[] } = {},
) {
  n++;
  const source = await sourceOf({
    kind: 'documents',
    files: [{ file: await upload(text.replace('Clay has', `Clay ${n} has`)), fileName: 'kiln.md' }],
  });
  await desk.ask('POST', `/sources/${source}/look`);
  const document = {
    grivo: 1,
    language,
    steps: [
      { ...k.take.fresh('s1'), sources: [source], most: null },
      { ...k.read.fresh('s2'), what: 'the document' },
      ...before,
      { ...k['lay out'].fresh('s3'), body: BODY, reads: 'Markdown', title: `Bowls ${n}` },
      { ...k.chart.fresh('s4'), ...change },
      ...after,
    ],
  } as ProcedureDocument;
  const made = await desk.ask<{ id: string }>('POST', '/pipelines', { name: `Charts ${n}`, document });
  const { briefs } = (await desk.ask<{ briefs: string[] }>('POST', `/pipelines/${made.body.id}/take`, {})).body;
  await desk.w.settled(briefs, ['out', 'held', 'stopped']);
  const [row] = await desk.w.product.ground.db.rows<{ id: string }>('SELECT id FROM article WHERE brief = ?', briefs);
  const { body } = await desk.ask<ArticleWhole>('GET', `/articles/${row!.id}`);
  const charts = body.document.body.filter((block): block is BlockOf<'chart'> => block.type === 'chart');
  return { article: body, charts, tables: body.document.body.filter(({ type }) => type === 'table') };
}

describe('the step that draws charts', () => {
  test('finds series in sentences and in tables, shows each where the article speaks of it, with what it rests on', async () => {
    const { article, charts } = await charted({ most: 2 });
    expect(charts).toMatchObject([
      { form: 'line', labels: ['2019', '2020', '2021'], series: [{ name: 'bowls', values: [140, 180, 231] }] },
      {
        form: 'bar',
        labels: ['Ash', 'Celadon', 'Tenmoku'],
        series: [{ name: 'Water taken up, %', values: [9, 4, 2] }],
      },
    ]);
    expect(charts[0]!.alternative).toBe('Chart: bowls: 2019 140, 2020 180, 2021 231');
    const { body } = article.document;
    // After the paragraph that speaks of bowls sold.
    expect(body.findIndex(({ id }) => id === charts[0]!.id)).toBe(1);
    const passage = article.passages.find(({ id }) => id === charts[0]!.evidence![0]!.passage);
    expect(passage?.text).toContain('In 2019 the pottery sold 140 bowls');
  });

  test('makes at most as many as it is told, as charts, tables or both', async () => {
    expect((await charted({ most: 1 })).charts).toHaveLength(1);
    const tables = await charted({ most: 2, as: 'table' });
    expect([tables.charts.length, tables.tables.length]).toEqual([0, 2]);
    const both = await charted({ most: 1, as: 'both' });
    expect([both.charts.length, both.tables.length]).toEqual([1, 1]);
    expect(both.tables[0]).toMatchObject({
      rows: [[[{ text: '2019' }], [{ text: '140' }]], expect.anything(), expect.anything()],
    });
  });

  test('sets items that were taken together side by side, with the columns that are chosen', async () => {
    const source = await sourceOf({ kind: 'sheet', address: `${desk.w.standIns.address}/sheets/stock.csv` });
    await desk.ask('POST', `/sources/${source}/look`);
    const { items } = (
      await desk.ask<{ items: { id: string; subject: string; leftOut: string | null }[] }>(
        'GET',
        `/sources/${source}/items`,
      )
    ).body;
    const offered = items.filter(({ leftOut }) => leftOut === null);
    // What is drawn is told apart by its name.
    const three = [...new Map(offered.map((one) => [one.subject, one])).values()].slice(0, 3);
    const { fields } = (await desk.ask<{ fields: Record<string, unknown> }>('GET', `/items/${three[0]!.id}`)).body;
    const figures = Object.keys(fields).filter((name) => typeof fields[name] === 'number');
    expect(figures.length).toBeGreaterThan(0);
    const made = await desk.ask<{ id: string }>('POST', '/pipelines', {
      name: 'Round-up',
      document: {
        grivo: 1,
        language: 'en',
        steps: [
          { ...k.take.fresh('s1'), sources: [source], most: null, gather: 3 },
          { ...k['lay out'].fresh('s2'), body: BODY, reads: 'Markdown', title: 'Three of them' },
          { ...k.chart.fresh('s3'), from: 'items', as: 'both', columns: ['kind', ...figures], most: 5 },
        ],
      },
    });
    expect(made.status).toBe(201);
    const { briefs } = (
      await desk.ask<{ briefs: string[] }>('POST', `/pipelines/${made.body.id}/take`, {
        items: three.map(({ id }) => id),
      })
    ).body;
    await desk.w.settled(briefs, ['out', 'held', 'stopped']);
    const [row] = await desk.w.product.ground.db.rows<{ id: string }>('SELECT id FROM article WHERE brief = ?', briefs);
    const { document } = (await desk.ask<ArticleWhole>('GET', `/articles/${row!.id}`)).body;
    // Between the opening and the first heading.
    expect(document.body.map(({ type }) => type)).toEqual([
      'paragraph',
      ...figures.map(() => 'chart'),
      'table',
      'heading',
      'paragraph',
    ]);
    const table = document.body.find(({ type }) => type === 'table') as BlockOf<'table'>;
    expect(table.rows.map(([first]) => inlineText(first!)).sort()).toEqual(three.map(({ subject }) => subject).sort());
    expect(table.head).toHaveLength(2 + figures.length);
    const chart = document.body.find(({ type }) => type === 'chart') as BlockOf<'chart'>;
    expect(chart.labels).toHaveLength(3);
  });

  test('invents none where the source has none, and does not fail', async () => {
    const none = await charted(
      { most: 3 },
      { text: '# Clay\n\nClay has no memory. Fire it at 1,000 °C for 8 hours, then wait for 2 days.' },
    );
    expect(none.charts).toEqual([]);
  });

  test('draws the lines of a field, which a text can fill', async () => {
    const lines: Step = {
      ...k.vary.fresh('v1'),
      for: 'a field',
      as: 'losses',
      variants: ['Raku; 12\nSalt; 7\nWood; 21'],
    } as Step;
    const { charts } = await charted({ from: 'field', field: 'losses' }, { before: [lines] });
    expect(charts).toMatchObject([{ labels: ['Raku', 'Salt', 'Wood'], series: [{ values: [12, 7, 21] }] }]);
  });

  test('says figures as the language of the article does', async () => {
    const { charts } = await charted(
      {},
      {
        language: 'de',
        text: '# Ofen\n\nMit 5 kg Ton trocknet die Schale 1,5 Tage, mit 10 kg 2,5 Tage und mit 20 kg 4 Tage. Clay has no memory.',
      },
    );
    expect(charts[0]!.alternative).toBe('Diagramm: Tage: 5 kg 1,5, 10 kg 2,5, 20 kg 4');
  });
});

test('a chart of more figures than fit a picture is a table alone, and so is an empty one', async () => {
  const { db } = desk.w.product.ground;
  const chart = (many: number) => ({
    type: 'chart' as const,
    id: 'c1',
    form: 'bar' as const,
    labels: Array.from({ length: many }, (_, i) => `Row ${i}`),
    series: [{ name: 'bowls', values: Array.from({ length: many }, (_, i) => i) }],
    alternative: '',
  });
  const drawn = async (many: number) => (await chartPictures(db, { body: [chart(many)], language: 'en' })).size;
  expect([await drawn(60), await drawn(5_000), await drawn(0)]).toEqual([1, 0, 0]);
});

test('a chart reaches the blog as a picture with all its figures below, and every copy too', async () => {
  const publish = { ...k.publish.fresh('p1'), blog: desk.w.blog, when: 'at once' } as Step;
  const { article, charts } = await charted({}, { after: [publish] });
  const [row] = await desk.w.product.ground.db.rows<{ address: string }>(
    'SELECT address FROM publication WHERE article = ?',
    [article.id],
  );
  const page = await (await fetch(row!.address)).text();
  const [, src] = /<figure class="chart"><img src="([^"]+)"/.exec(page)!;
  const [, alt] = /<img[^>]+alt="(Chart: bowls[^"]+)"/.exec(page)!;
  expect(alt).toBe(charts[0]!.alternative);
  for (const figure of ['140', '180', '231', '2019', '2020', '2021']) expect(page).toContain(`>${figure}</t`);
  const picture = await sharp(Buffer.from(await (await fetch(new URL(src!, row!.address))).arrayBuffer())).metadata();
  const [shown] = (await chartPictures(desk.w.product.ground.db, article.document)).values();
  expect([picture.width, picture.height]).toEqual([shown!.width * 2, shown!.height * 2]);
  for (const form of ['Word', 'PDF']) {
    const copy = await fetch(`${desk.http.address}/api/articles/${article.id}/copy?as=${encodeURIComponent(form)}`, {
      headers: { cookie: desk.cookie },
    });
    expect([form, copy.status]).toEqual([form, 200]);
    expect((await copy.arrayBuffer()).byteLength).toBeGreaterThan(600);
  }
});
