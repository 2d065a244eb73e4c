import { expect, type Page, test } from '@playwright/test';
import { faultsOf } from './ground/access.ts';
import { address, asking, pipelineForIt, readArticle, signedIn, watched } from './ground/desk.ts';

const base = () => address('WEEK');
const ask = asking(base);

test.beforeEach(async ({ page }) => signedIn(page, base()));

/** Where the stand-ins of the installation are. */
async function standIns(page: Page): Promise<string> {
  const { services } = await ask<{ services: { address: string }[] }>(page, 'get', '/services');
  return new URL(services[0]!.address).origin;
}

async function add(page: Page, kind: 'a sheet' | 'videos', where: string, name: string): Promise<void> {
  await page.goto(`${base()}/intake`);
  await page.getByRole('button', { name: 'Add a source' }).click();
  await page.getByRole('button', { name: /Kind of source/ }).click();
  await page.getByRole('radio', { name: new RegExp(`^${kind}`) }).click();
  await page.getByLabel(kind === 'a sheet' ? 'Address of the sheet' : /Handle, name or address/).fill(where);
  await page.getByLabel('Called').fill(name);
  await page.getByRole('button', { name: 'Add it' }).click();
  await expect(page).toHaveURL(/\/intake\/\w{20}/);
}

test('a sheet by its address: what is wrong stands at its cell, and a row of it becomes a published note', async ({
  page,
}) => {
  await add(page, 'a sheet', `${await standIns(page)}/sheets/stock.csv`, 'Shelf list');
  await expect(page.getByText('‘five’ is not a number')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Header: row 2' })).toBeVisible();
  await page.getByRole('button', { name: /^Look at it/ }).click();
  await expect(page.getByText(/Looked: \d+ new items/)).toBeVisible();
  expect(await faultsOf(page)).toEqual([]);
  const list = page.url();
  await pipelineForIt(page, 'Shelf notes');
  await page.goto(list);
  // The first three are ticked; one is enough.
  for (const row of [3, 4]) await page.getByRole('checkbox', { name: `Row ${row}`, exact: true }).click();
  await page.getByRole('button', { name: /^Take 1 row/ }).click();
  await watched(page);
  await expect(page.getByRole('listitem').filter({ hasText: 'Kraut crock' }).first()).toContainText('out', {
    timeout: 30_000,
  });
  await page.goto(list);
  await page.getByRole('button', { name: /^Look again/ }).click();
  await expect(page.getByText('Looked: nothing new.')).toBeVisible();
});

test('a channel by its handle: a part of a video is chosen, taken, and goes out with its chapters', async ({
  page,
}) => {
  await add(page, 'videos', ' @crockhaven-bench ', 'The bench');
  await page.getByRole('button', { name: /^Look at it/ }).click();
  await page.getByRole('button', { name: /When to skim, when not/ }).click();
  await expect(page.getByRole('heading', { name: 'When to skim, when not', level: 1 })).toBeVisible();
  await expect(page.getByText('There is something white on the brine')).toBeVisible();
  await page.getByLabel('Find in what is said').fill('mould');
  await expect(page.getByText(/^\d+ sentences$/)).toBeVisible();
  await page.getByLabel('Find in what is said').fill('');
  expect(await faultsOf(page)).toEqual([]);
  const video = page.url();
  await pipelineForIt(page, 'Bench guides');
  await page.goto(video);
  await page.getByRole('slider', { name: 'From', exact: true }).focus();
  for (let i = 0; i < 4; i++) await page.keyboard.press('PageUp');
  await expect(page.getByRole('button', { name: /^Take 00:40 to/ })).toBeVisible();
  await page.getByRole('button', { name: /^Take 00:40 to/ }).click();
  await watched(page);
  await expect(page.getByRole('listitem').filter({ hasText: 'When to skim' }).first()).toContainText('out', {
    timeout: 30_000,
  });
  await readArticle(page, page.getByRole('listitem').filter({ hasText: 'When to skim' }).first());
  await expect(page.getByRole('heading', { name: 'Kahm yeast', exact: true })).toBeVisible();
});

test('what cannot be read says so where it was asked for', async ({ page }) => {
  await page.goto(`${base()}/intake?new=videos`);
  await page.getByLabel(/Handle, name or address/).fill('@nobody-at-all');
  await page.getByRole('button', { name: 'Add it' }).click();
  await expect(page.getByRole('alert')).toContainText('knows no such channel');
  await expect(page.getByLabel(/Handle, name or address/)).toHaveValue('@nobody-at-all');
  await add(page, 'a sheet', 'http://10.1.2.3/prices.csv', 'Not ours');
  await expect(page.getByRole('alert').first()).toContainText('10.1.2.3 is on a private network');
});

test('a pasted list is grouped, measured, widened and gone through; a group with a line round it becomes one article', async ({
  page,
}) => {
  const { id } = await ask<{ id: string }>(page, 'post', '/sources', { name: 'From the keyword tool' });
  await page.goto(`${base()}/intake/${id}`);
  await page
    .getByLabel('Phrases', { exact: true })
    .fill(
      [
        'kahm yeast\nkahm yeast smell\nhow to get rid of kahm yeast\nkahm yeast or mold',
        'hollow pickles\nwhy are my pickles hollow\npickles hollow inside\nkahm yeast or mould',
        'blue garlic\nis blue garlic safe to eat\npickle crock near me',
      ].join('\n'),
    );
  await page.getByRole('button', { name: /Clean and add/ }).click();
  await expect(page.getByText(/9 phrases added.*; 2 left out/)).toBeVisible();
  await page.getByRole('button', { name: 'Look figures up' }).click();
  await expect(page.getByText(/Figures of \d+ phrases looked up/)).toBeVisible();
  await page.getByRole('button', { name: /^Group them/ }).click();
  await page.getByRole('radio', { name: /^closely/ }).click();
  await expect(page.getByText(/9 phrases in \d groups/)).toBeVisible();
  await expect(page.locator('li.row').filter({ hasText: 'hollow pickles' })).toContainText('pickles hollow inside');
  await page.reload();
  await expect(page.getByRole('group', { name: 'Groups of the list' })).toBeVisible();
  // Another formula, refused and kept.
  await page.getByRole('button', { name: /^Opportunity/ }).click();
  await page.getByRole('textbox', { name: 'Opportunity of a phrase' }).fill('volume / traffic');
  await expect(page.getByText('there is no ‘traffic’')).toBeVisible();
  await page.getByRole('textbox', { name: 'Opportunity of a phrase' }).fill('volume / 2');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: 'Opportunity: volume ÷ 2' })).toBeVisible();
  expect(await faultsOf(page)).toEqual([]);
  // Widened, and what was found added.
  await page.keyboard.press('w');
  await page.getByLabel('Phrase to widen').fill('blue garlic');
  await page.getByRole('button', { name: 'Widen', exact: true }).click();
  await page.getByRole('checkbox', { name: 'garlic turned blue in brine' }).click();
  await page.getByRole('button', { name: 'Add 1 phrase' }).click();
  await expect(page.getByText(/10 phrases in \d groups/)).toBeVisible();
  // A line round all points ticks all that is open; what is not meant is left out.
  await page.getByRole('button', { name: 'Widen from a phrase' }).click();
  const canvas = page.getByRole('img', { name: /by searches a month and difficulty/ });
  const box = (await canvas.boundingBox())!;
  await page.mouse.move(box.x + 52, box.y + 4);
  await page.mouse.down();
  for (const [x, y] of [
    [box.width - 4, 4],
    [box.width - 4, 260],
    [52, 260],
  ] as const)
    await page.mouse.move(box.x + x, box.y + y, { steps: 4 });
  await page.mouse.up();
  await expect(page.getByRole('button', { name: /^Take \d as briefs/ })).toBeVisible();
  await page.reload();
  const stray = page.getByRole('checkbox', { name: 'pickle crock near me' });
  await stray.click();
  await page.getByRole('button', { name: /^Leave 1 out/ }).click();
  await expect(page.getByRole('region', { name: 'Left out' })).toContainText('pickle crock near me');
  // One group, one article.
  const list = page.url();
  await pipelineForIt(page, 'Workshop guides');
  await page.goto(list);
  const group = page.locator('li.row').filter({ hasText: 'blue garlic' }).first();
  await group.getByRole('checkbox').click();
  await expect(page.getByText(/^\d phrases?,/)).toBeVisible();
  await page.getByRole('button', { name: /^Take 1 as brief/ }).click();
  await expect(page.getByText('1 brief taken.')).toBeVisible();
  await expect(group).toContainText('out', { timeout: 60_000 });
});
