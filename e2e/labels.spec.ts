import { expect, test } from '@playwright/test';
import { address, asking, signedIn } from './ground/desk.ts';

const base = () => address('WEEK');
const ask = asking(base);
const LABEL = 'Strings and bows';

test.beforeEach(async ({ page }) => signedIn(page, base()));
test.afterEach(async ({ page }) => {
  const { labels } = await ask<{ labels: { id: string }[] }>(page, 'get', '/labels');
  for (const { id } of labels) await page.request.delete(`${base()}/api/labels/${id}`);
});

test('a label is made where a pipeline is, put on its source, and shows only what carries it everywhere', async ({
  page,
}) => {
  const { pipelines } = await ask<{ pipelines: { id: string; name: string; sources: string[] }[] }>(
    page,
    'get',
    '/pipelines',
  );
  const [mine, other] = pipelines;
  await page.goto(`${base()}/pipelines/${mine!.id}`);
  await page.getByRole('button', { name: `More about ${mine!.name}` }).click();
  await page.getByRole('menuitem', { name: 'Labels…' }).click();
  await page.getByLabel('A new label').fill(LABEL);
  await page.getByRole('button', { name: 'Make it and put it on' }).click();
  const tick = page.getByRole('checkbox', { name: LABEL });
  await expect(tick).toBeChecked();
  await tick.click();
  await expect(tick).not.toBeChecked();
  await tick.click();
  await expect(tick).toBeChecked();
  // Others may have made labels of their own.
  const label = async () =>
    (
      await ask<{ labels: { id: string; name: string; on: { pipeline: number } }[] }>(page, 'get', '/labels')
    ).labels.find(({ name }) => name === LABEL)!;
  const carried = async () => (await label()).on.pipeline;
  await expect.poll(carried).toBe(1);
  await page.goto(`${base()}/intake/${mine!.sources[0]}`);
  await page.getByRole('button', { name: /^More about/ }).click();
  await page.getByRole('menuitem', { name: 'Labels…' }).click();
  await page.getByRole('checkbox', { name: LABEL }).click();
  await expect(page.getByRole('checkbox', { name: LABEL })).toBeChecked();

  // Everything by the label: one pipeline, one source, no blog, its articles, its costs.
  await page.locator('[data-label] button').click();
  await page
    .getByRole('option', { name: new RegExp(`only ${LABEL}`) })
    .or(page.getByText(`only ${LABEL}`))
    .last()
    .click();
  await page.goto(`${base()}/pipelines`);
  await expect(page.getByRole('link', { name: mine!.name })).toBeVisible();
  await expect(page.getByRole('link', { name: other!.name, exact: true })).toHaveCount(0);
  await expect(page.getByText(/^1 in all/)).toBeVisible();
  await page.goto(`${base()}/intake`);
  await expect(page.getByRole('main').getByRole('link')).toHaveCount(1);
  await page.goto(`${base()}/blogs`);
  await expect(page.getByText('0 blogs')).toBeVisible();
  const { id } = await label();
  const { articles } = await ask<{ articles: { title: string }[] }>(page, 'get', `/articles?limit=500&label=${id}`);
  const all = await ask<{ articles: { title: string }[] }>(page, 'get', '/articles?limit=500');
  expect(articles.length).toBeLessThan(all.articles.length);
  await page.goto(`${base()}/articles`);
  await expect(page.getByText(`${articles.length} shown`)).toBeVisible();
  await page.goto(`${base()}/`);
  const { costs } = await ask<{ costs: object[] }>(page, 'get', `/today?label=${id}`);
  await expect(page.getByText(new RegExp(`four weeks, ${costs.length} articles?`))).toBeVisible();

  // Gone from the settings it is gone everywhere, and everything is shown again.
  await page.goto(`${base()}/settings`);
  await page.getByRole('button', { name: `More about ${LABEL}` }).click();
  await page.getByRole('menuitem', { name: 'Remove it…' }).click();
  await page
    .getByRole('button', { name: /^Remove/ })
    .last()
    .click();
  await expect(page.getByText(LABEL)).toHaveCount(0);
  await page.goto(`${base()}/pipelines`);
  await expect(page.getByText(`${pipelines.length} in all`)).toBeVisible();
});

test('a destination is kept, tested with a sample, chosen in a step and told from an article, which is shared', async ({
  page,
  browser,
}) => {
  const { services } = await ask<{ services: { address: string }[] }>(page, 'get', '/services');
  const standIns = new URL(services[0]!.address).origin;
  await page.goto(`${base()}/settings`);
  const section = page.getByRole('region', { name: 'Destinations' });
  await section.getByRole('button', { name: 'Add one' }).click();
  await section.getByLabel('What you call it').fill('The workshop chat');
  await section.getByLabel('Its address').fill('no address');
  await expect(section.getByText('It is not an address that begins with https://.')).toBeVisible();
  await expect(section.getByRole('button', { name: 'Keep it' })).toBeDisabled();
  await section.getByLabel('Its address').fill(`${standIns}/inbox/message/workshop`);
  await section.getByRole('button', { name: 'Keep it' }).click();
  await section.getByRole('button', { name: 'Send a sample' }).click();
  await expect(section.getByText('It answered 200')).toBeVisible();

  const { articles } = await ask<{ articles: { id: string; title: string }[] }>(page, 'get', '/articles?standing=out');
  const [article] = articles;
  await page.goto(`${base()}/articles/${article!.id}`);
  await page.getByRole('button', { name: 'Tell somebody…' }).click();
  await page.getByRole('button', { name: 'Tell ‘The workshop chat’' }).click();
  await expect(page.getByText(`Told ‘The workshop chat’ of ‘${article!.title}’`)).toBeVisible();
  await page.getByRole('button', { name: 'Share it…' }).click();
  await page.getByRole('button', { name: 'Share it', exact: true }).click();
  const shared = (await page.getByRole('code').or(page.locator('code')).first().textContent())!;

  // Somebody without an account reads it, its pictures with it, and gets nowhere else.
  const stranger = await browser.newContext();
  const other = await stranger.newPage();
  await other.goto(shared);
  await expect(other.getByRole('heading', { level: 1 })).toHaveText(article!.title);
  const drawn = () =>
    other.locator('img').evaluateAll((all) => all.map((one) => (one as HTMLImageElement).naturalWidth > 0));
  await expect.poll(drawn).not.toContain(false);
  expect(await stranger.cookies()).toEqual([]);
  await page.getByRole('button', { name: 'Take it back' }).click();
  await expect(page.getByRole('button', { name: 'Take it back' })).toHaveCount(0);
  expect((await other.goto(shared))!.status()).toBe(404);
  await stranger.close();

  // A step names it; it cannot be removed while it does.
  const { pipelines } = await ask<{ pipelines: { id: string; name: string }[] }>(page, 'get', '/pipelines');
  await page.goto(`${base()}/pipelines/${pipelines[0]!.id}`);
  await page.getByRole('button', { name: 'Add a step', exact: true }).click();
  await page.getByRole('combobox', { name: 'Which step?' }).fill('tell');
  await page.getByRole('option').first().click();
  await page.getByRole('button', { name: 'a destination kept in the settings' }).click();
  await page.getByText('The workshop chat').last().click();
  await expect(page.getByRole('button', { name: 'The workshop chat' })).toBeVisible();
});
