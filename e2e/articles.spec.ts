import { readFileSync } from 'node:fs';
import { expect, type Page, test } from '@playwright/test';
import { unzipSync } from 'fflate';
import { faultsOf } from './ground/access.ts';
import { address, asking, signedIn } from './ground/desk.ts';

const base = () => address('WEEK');
const ask = asking(base);

interface Line {
  id: string;
  title: string;
  standing: string;
}

const PARTS = [
  'bobbin',
  'treadle',
  'heddle',
  'shuttle',
  'reed',
  'warp beam',
  'raddle',
  'lease stick',
  'temple',
  'batten',
];

/** Articles on looms, each written by hand and waiting for a word. */
async function looms(page: Page, n: number, about: string): Promise<string[]> {
  const { blogs } = await ask<{ blogs: { id: string }[] }>(page, 'get', '/blogs');
  const titles = Array.from({ length: n }, (_, i) => `The ${PARTS[i % PARTS.length]!} ${about} ${i + 1}`);
  for (const title of titles) {
    const made = await page.request.post(`${base()}/api/articles`, {
      data: { blog: blogs[0]!.id, title, text: `${title}. A loom of ${about} needs it, and a weaver knows why.` },
    });
    expect(made.ok()).toBe(true);
  }
  await expect.poll(async () => (await standingsOf(page, about)).filter((one) => one === 'held').length).toBe(n);
  return titles;
}

const found = async (page: Page, word: string) =>
  (await ask<{ articles: Line[] }>(page, 'get', `/articles?limit=500`)).articles.filter(({ title }) =>
    title.includes(word),
  );
const standingsOf = async (page: Page, word: string) => (await found(page, word)).map(({ standing }) => standing);

/** The list, once it can be used. */
async function list(page: Page, search = ''): Promise<void> {
  await page.goto(`${base()}/articles${search}`);
  await expect(page.getByRole('group', { name: 'Articles' }).getByRole('link').first()).toBeVisible();
}

test.beforeEach(async ({ page }) => signedIn(page, base()));

test('articles are found by their words, picked, saved in one file, passed and set aside, and the list is kept', async ({
  page,
}) => {
  await looms(page, 6, 'ashwood');
  await list(page);
  await page.keyboard.press('f');
  await page.keyboard.type('weaver ashwood -heddle');
  await expect(page.getByText(/^5 shown of/)).toBeVisible();
  await expect(page).toHaveURL(/q=weaver\+ashwood/);
  expect(await faultsOf(page)).toEqual([]);
  await page.getByRole('button', { name: /^Kept lists/ }).click();
  await page.getByLabel('Keep what is shown as').fill('Looms');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Kept lists: Looms' })).toBeVisible();

  await page.getByRole('heading', { level: 1 }).click();
  await page.keyboard.press('a');
  await expect(page.getByText(/^5 picked/)).toBeVisible();
  expect(await faultsOf(page)).toEqual([]);
  await page.getByRole('button', { name: /^Save as/ }).click();
  const saved = page.waitForEvent('download');
  await page.getByRole('radio', { name: /^Markdown/ }).click();
  const files = unzipSync(new Uint8Array(readFileSync(await (await saved).path())));
  expect(Object.keys(files)).toHaveLength(5);
  expect(Object.keys(files).every((name) => /^the-[a-z-]+-ashwood-\d\.md$/.test(name))).toBe(true);

  await page.keyboard.press('Escape');
  await page.keyboard.press(' ');
  await page.keyboard.press('j');
  await page.keyboard.press(' ');
  await page.keyboard.press('p');
  await expect(page.getByText('Passing: 2 articles done.')).toBeVisible();
  await page.getByRole('button', { name: 'Seen' }).click();
  await page.keyboard.press('a');
  await page.getByRole('button', { name: /^Set aside/ }).click();
  await expect(page.getByText('Setting aside: 5 articles done.')).toBeVisible();
  await expect(page.getByText(/^0 shown of/)).toBeVisible();
  await expect
    .poll(async () => (await standingsOf(page, 'ashwood')).sort())
    .toEqual(['held', ...Array.from({ length: 5 }, () => 'set aside')]);
  await page.getByRole('button', { name: 'Standing: any state' }).click();
  await page.getByRole('radio', { name: /^set aside/ }).click();
  await expect(page.getByText(/^5 shown of/)).toBeVisible();

  // The list is there by its name from anywhere, and as it was kept.
  await list(page);
  await page.getByRole('button', { name: /^Kept lists/ }).click();
  await page.getByRole('button', { name: 'Looms', exact: true }).click();
  await expect(page.getByRole('searchbox', { name: 'Words in articles' })).toHaveValue('weaver ashwood -heddle');
  await page.getByRole('button', { name: 'Kept lists: Looms' }).click();
  await page.getByRole('button', { name: 'Forget Looms' }).click();
  await expect(page.getByRole('button', { name: 'Forget Looms' })).toHaveCount(0);
});

test('twenty that wait are looked over by one key each, and each stands as it was decided', async ({ page }) => {
  const titles = await looms(page, 20, 'beechwood');
  await list(page);
  await expect(page.getByRole('link', { name: /^Look over/ })).toBeVisible();
  await page.keyboard.press('l');
  const passed: string[] = [];
  const aside: string[] = [];
  for (let i = 0; i < 20; i++) {
    await expect(page.getByRole('region', { name: 'Your word on it' })).toBeVisible();
    const heading = page.getByRole('heading', { level: 1 });
    const title = await heading.innerText();
    // The newest wait first: ours were made last.
    expect(titles).toContain(title);
    (i % 3 === 1 ? aside : passed).push(title);
    await page.keyboard.press(i % 3 === 1 ? 'x' : 'p');
    await expect(page.getByRole('heading', { level: 1, name: title, exact: true })).toBeHidden();
  }
  const stand = async () =>
    Object.fromEntries((await found(page, 'beechwood')).map(({ title, standing }) => [title, standing]));
  // The page goes on before what was decided last is done.
  await expect.poll(async () => Object.values(await stand()).filter((one) => one === 'held')).toEqual([]);
  const now = await stand();
  for (const title of passed) expect(['ready', 'out']).toContain(now[title]);
  for (const title of aside) expect(now[title]).toBe('set aside');
});

test('who comes back from an article is where they were, in the list they left', async ({ page }) => {
  await list(page, '?standing=out');
  const row = page.getByRole('group', { name: 'Articles' }).getByRole('link');
  await page.keyboard.press('j');
  await page.keyboard.press('j');
  const title = await row.nth(2).innerText();
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/articles\/[0-9a-z]{20}$/);
  await page.goBack();
  await expect(page).toHaveURL(/standing=out/);
  await expect(page.locator('.bracketed').getByRole('link')).toHaveText(title);
});

test('a paragraph is changed in Markdown; whoever has the article open too sees it, and is named', async ({
  page,
  browser,
}) => {
  const [title] = await looms(page, 1, 'cherrywood');
  const { id } = (await found(page, title!))[0]!;
  const other = await browser.newContext();
  const beside = await other.newPage();
  await signedIn(beside, base());
  await beside.goto(`${base()}/articles/${id}`);
  await expect(beside.getByRole('heading', { level: 1, name: title! })).toBeVisible();
  await page.goto(`${base()}/articles/${id}`);
  await expect(page.getByText(/^You, in another window, have it open too/)).toBeVisible();
  await page.getByRole('button', { name: 'Markdown', exact: true }).click();
  await page.getByRole('button', { name: 'Edit it here' }).click();
  const text = page.getByRole('textbox', { name: 'The text in Markdown' });
  await expect(text).toBeVisible();
  expect(await faultsOf(page)).toEqual([]);
  await text.click();
  await page.keyboard.press('Control+End');
  await page.keyboard.type(' It is oiled in May.');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(text).toBeHidden();
  await expect(beside.getByText('It is oiled in May.')).toBeVisible();
  await beside.keyboard.press('e');
  await expect(page.getByText(/^You, in another window, have it open too, and edit/)).toBeVisible();
  // Where they are stands beside the text while one edits oneself.
  await page.keyboard.press('e');
  await beside.getByRole('textbox', { name: 'The text of the article' }).locator('p').first().click();
  await expect(page.locator('.also-here')).toHaveAttribute('data-who', 'you, elsewhere');
  await page.keyboard.press('Escape');
  // A page that is loaded again is not taken for a second one of the same person; one that is closed is gone at once.
  await beside.reload();
  await expect(beside.getByText(/^You, in another window, have it open too$/)).toBeVisible();
  await expect(page.getByText(/^You, in another window, have it open too$/)).toBeVisible();
  await beside.close();
  await expect(page.getByText(/have it open too/)).toBeHidden();
  await other.close();
});

test('an article is edited as HTML: a word is made bold, a script is refused with its place, and the file of its page holds it', async ({
  page,
}) => {
  const [title] = await looms(page, 1, 'elmwood');
  const { id } = (await found(page, title!))[0]!;
  await page.goto(`${base()}/articles/${id}`);
  await page.getByRole('button', { name: 'HTML', exact: true }).click();
  await page.getByRole('button', { name: 'Edit it here' }).click();
  const text = page.getByRole('textbox', { name: 'The text in HTML' });
  await expect(text).toContainText('data-block=');
  expect(await faultsOf(page)).toEqual([]);
  await text.click();
  await page.keyboard.press('Control+End');
  await page.keyboard.type('<p>It is <strong>waxed</strong> in June.</p><script>x()</script>');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByText(/no place for a script/)).toBeVisible();
  await text.click();
  await page.keyboard.press('Control+End');
  for (const _ of '<script>x()</script>') await page.keyboard.press('Backspace');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(text).toBeHidden();
  await page.getByRole('button', { name: 'Page', exact: true }).click();
  await expect(page.locator('.page strong')).toHaveText('waxed');
  const saved = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save as HTML' }).click();
  const file = readFileSync(await (await saved).path(), 'utf8');
  expect(file).toMatch(/^<!doctype html><html lang="en" dir="ltr">/);
  expect(file).toContain('It is <strong>waxed</strong> in June.');
});

test('picked articles are labelled, put in other words at a price, and those that wait moved to later slots', async ({
  page,
}) => {
  const titles = await looms(page, 3, 'hollywood');
  const label = await ask<{ id: string }>(page, 'post', '/labels', { name: 'Looms of holly' });
  await list(page, '?q=hollywood');
  await page.getByRole('checkbox', { name: `Pick ${titles[0]!}` }).focus();
  await page.keyboard.press('a');
  await page.keyboard.press('p');
  await expect(page.getByText('Passing: 3 articles done.')).toBeVisible();
  const coming = async () =>
    (await ask<{ articles: (Line & { dueDesk: number })[] }>(page, 'get', '/articles?q=hollywood&order=slot')).articles;
  await expect.poll(async () => (await coming()).map(({ standing }) => standing)).toEqual(['ready', 'ready', 'ready']);
  const { now } = await ask<{ now: number }>(page, 'get', '/slots');
  await page.getByRole('button', { name: 'Seen' }).click();
  await page.keyboard.press('a');
  await page.getByRole('button', { name: /^Label them/ }).click();
  await page.getByRole('radio', { name: 'put ‘Looms of holly’ on' }).click();
  await expect(page.getByText('Labelling: 3 articles done.')).toBeVisible();
  await page.getByRole('button', { name: /^Move to slots/ }).click();
  await page.getByRole('radio', { name: 'those in a month' }).click();
  await expect(page.getByText('Moving: 3 articles done.')).toBeVisible();
  // The desk's clock went on a little since.
  const inAMonth = now + 30 * 86_400_000;
  expect(Math.min(...(await coming()).map(({ dueDesk }) => dueDesk))).toBeGreaterThanOrEqual(inAMonth);
  await page.getByRole('button', { name: /^Put in other words/ }).click();
  await expect(page.getByText(/^About .* € for all of them/)).toBeVisible();
  await page.getByRole('radio', { name: 'lightly' }).click();
  // The writer of this installation knows nothing of looms: it says so, and nothing is changed.
  await expect(page.getByText('Putting in other words: 0 articles done, 3 left as they are.')).toBeVisible();
  await expect(page.getByText(/Nothing of it could be said otherwise without losing/).first()).toBeVisible();
  // Everything is looked at by the label.
  await list(page, `?label=${label.id}`);
  await page.getByRole('button', { name: /^What is shown/ }).click();
  await page.getByRole('radio', { name: 'only Looms of holly' }).click();
  await expect(page.getByText(/^3 shown of 3/)).toBeVisible();
  await page.getByRole('button', { name: /^What is shown/ }).click();
  await page.getByRole('radio', { name: 'everything' }).click();
  expect((await page.request.delete(`${base()}/api/labels/${label.id}`)).ok()).toBe(true);
});

test('somebody without an account says something at the address of an article, until it is taken back', async ({
  page,
  browser,
}) => {
  const [title] = await looms(page, 1, 'pearwood');
  const { id } = (await found(page, title!))[0]!;
  await page.goto(`${base()}/articles/${id}`);
  await page.getByRole('button', { name: 'Share it…' }).click();
  await page.getByRole('button', { name: /^What they may do/ }).click();
  await page.getByRole('radio', { name: /^read it and say something of it/ }).click();
  await page.getByRole('button', { name: 'Share it', exact: true }).click();
  const address = await page.locator('code').innerText();
  const stranger = await browser.newContext();
  const reader = await stranger.newPage();
  await reader.goto(`${base()}${new URL(address).pathname}`);
  await reader.getByLabel('What you would say of it').fill('Which pear was it?');
  await reader.getByLabel('Your name').fill('Oda');
  await reader.getByRole('button', { name: 'Say it' }).click();
  await expect(reader.getByText(/^Oda on ‘The bobbin pearwood 1/)).toBeVisible();
  await expect(page.getByText('Which pear was it?')).toBeVisible();
  await expect(page.getByText('Oda, a guest')).toBeVisible();
  await page.getByRole('button', { name: 'Take it back' }).click();
  await expect(page.getByRole('button', { name: 'Share it', exact: true })).toBeVisible();
  await reader.reload();
  await expect(reader.getByText('Nothing is shared at this address, or not any more.')).toBeVisible();
  await stranger.close();
});
