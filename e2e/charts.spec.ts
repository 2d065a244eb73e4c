import { expect, type Page, test } from '@playwright/test';
import { faultsOf } from './ground/access.ts';
import { address, asking, signedIn } from './ground/desk.ts';

const base = () => address('WEEK');
const ask = asking(base);
test.beforeEach(({ page }) => signedIn(page, base()));

interface Whole {
  document: {
    body: { type: string; form?: string; labels?: string[]; series?: { name: string; values: number[] }[] }[];
  };
}
const chartOf = async (page: Page, article: string) =>
  (await ask<Whole>(page, 'get', `/articles/${article}`)).document.body.find(({ type }) => type === 'chart');

test('a chart is drawn of figures in the source, its figures are mended by hand and it is drawn another way', async ({
  page,
}) => {
  const text = `# What the hives gave

In spring the yard gave 14 kilos, in summer 52 kilos and in autumn 9 kilos. Lime trees make the difference.`;
  const upload = await page.request.post(`${base()}/api/uploads?name=hives.md&mime=text/markdown`, {
    headers: { 'content-type': 'application/octet-stream', origin: base() },
    data: Buffer.from(text),
  });
  const { file } = (await upload.json()) as { file: string };
  const { id: source } = await ask<{ id: string }>(page, 'post', '/sources', {
    name: 'Hive notes',
    settings: { kind: 'documents', files: [{ file, fileName: 'hives.md' }] },
  });
  await ask(page, 'post', `/sources/${source}/look`, {});
  const step = (id: string, kind: string, more: object) => ({ id, kind, off: false, ...more });
  const { id: pipeline } = await ask<{ id: string }>(page, 'post', '/pipelines', {
    name: 'Hive charts',
    document: {
      grivo: 1,
      language: 'en',
      steps: [
        step('s1', 'take', { sources: [source], most: null, everyMinutes: null, atOnce: null, apartMinutes: 0 }),
        step('s2', 'read', { what: 'the document', from: '', to: '' }),
        step('s3', 'lay out', {
          body: 'The yard gave most kilos in summer.',
          title: 'What hives give',
          reads: 'Markdown',
        }),
        step('s4', 'chart', { as: 'chart', from: 'source', field: 'figures', most: 1 }),
      ],
    },
  });
  // The step is said in a sentence whose words can be changed.
  await page.goto(`${base()}/pipelines/${pipeline}`);
  await expect(page.getByText(/Draw/).first()).toBeVisible();
  await expect(page.getByRole('button', { name: /figures in the source/ })).toBeVisible();
  const { briefs } = await ask<{ briefs: string[] }>(page, 'post', `/pipelines/${pipeline}/take`, {});
  let article = '';
  await expect
    .poll(
      async () => {
        const { articles } = await ask<{ articles: { id: string; brief: string }[] }>(page, 'get', '/articles');
        article = articles.find(({ brief }) => brief === briefs[0])?.id ?? '';
        return article === '' ? undefined : (await chartOf(page, article))?.labels;
      },
      { timeout: 30_000 },
    )
    .toEqual(['spring', 'summer', 'autumn']);

  await page.goto(`${base()}/articles/${article}`);
  const drawn = page.getByRole('img', { name: /Chart: kilos: spring 14, summer 52, autumn 9/ });
  await expect(drawn).toBeVisible();
  expect(await faultsOf(page)).toEqual([]);

  await page.goto(`${base()}/articles/${article}?edit`);
  await page.locator('.whole-block svg').click();
  await page.getByRole('button', { name: /^How it is drawn/ }).click();
  await page.getByRole('radio', { name: /^bars/ }).click();
  const figures = page.getByLabel(/^A line each/);
  await figures.fill('spring, 14\nsummer, lots\nautumn, 9');
  await figures.blur();
  await expect(page.getByText(/line 2: a name, then a figure/)).toBeVisible();
  await figures.fill('spring, 14\nsummer, 58\nautumn, 9');
  await figures.blur();
  await expect
    .poll(
      async () => {
        const chart = await chartOf(page, article);
        return [chart?.form, chart?.series?.[0]?.values[1]];
      },
      { timeout: 20_000 },
    )
    .toEqual(['bar', 58]);
  await expect(page.locator('.whole-block svg rect')).not.toHaveCount(0);
});
