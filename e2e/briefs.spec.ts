import { shipped } from '@grivo/core';
import { expect, type Page, test } from '@playwright/test';
import { faultsOf } from './ground/access.ts';
import { address, asking, signedIn } from './ground/desk.ts';

const base = () => address('WEEK');
const ask = asking(base);

test.beforeEach(async ({ page }) => signedIn(page, base()));

/** A pipeline of its own on some keywords, all taken. */
async function running(page: Page, name: string, keywords: string[], key: string): Promise<string> {
  const { blogs } = await ask<{ blogs: { id: string; language: string }[] }>(page, 'get', '/blogs');
  const { id: source } = await ask<{ id: string }>(page, 'post', '/sources', { name: `For ${name}` });
  await ask(page, 'post', `/sources/${source}/keywords`, { paste: keywords.join('\n') });
  const made = shipped(key).make({ source, blog: blogs[0]!.id, language: blogs[0]!.language });
  const document = {
    ...made,
    steps: made.steps.map((step) => (step.kind === 'take' ? { ...step, most: null } : step)),
  };
  const { id } = await ask<{ id: string }>(page, 'post', '/pipelines', { name, document });
  await ask(page, 'post', `/pipelines/${id}/take`, {});
  return id;
}

test('the guided way: outline, notes and title each changed by a person, and the article is made of them', async ({
  page,
}) => {
  const pipeline = await running(page, 'By the hand', ['salt for sauerkraut'], 'guided');
  await page.goto(`${base()}/pipelines/${pipeline}?show=briefs`);
  await page.getByRole('button', { name: /salt for sauerkraut/ }).click();
  const outline = page.getByRole('region', { name: 'Held: outline' });
  await expect(outline).toBeVisible();
  await outline.getByLabel('Heading 1', { exact: true }).fill('Weigh it, never guess');
  await outline.getByRole('button', { name: 'down' }).first().click();
  await expect(outline.getByLabel('Heading 2', { exact: true })).toHaveValue('Weigh it, never guess');
  const sections = await outline.getByRole('button', { name: 'drop' }).count();
  await outline.getByRole('button', { name: 'drop' }).last().click();
  await outline.getByRole('button', { name: 'Pass it as changed' }).click();
  const notes = page.getByRole('region', { name: 'Held: notes' });
  await expect(notes).toBeVisible();
  await expect(notes.getByText('Weigh it, never guess')).toBeVisible();
  const note = notes.getByLabel('Note 1 of Weigh it, never guess');
  const kept = await note.inputValue();
  await notes.getByRole('button', { name: 'drop' }).last().click();
  await notes.getByRole('button', { name: 'Pass it as changed' }).click();
  const title = page.getByRole('region', { name: 'Held: title' });
  await expect(title).toBeVisible();
  await title.getByLabel('A title of your own').fill('Salt, by the scales');
  await title.getByRole('button', { name: 'Pass it as changed' }).click();
  await expect(title).toBeHidden();
  await page.getByRole('link', { name: 'Read the article' }).click();
  await expect(page.getByRole('heading', { name: 'Salt, by the scales' }).first()).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Weigh it, never guess' })).toBeVisible();
  expect(kept.length).toBeGreaterThan(10);
  const { articles } = await ask<{ articles: { id: string; title: string }[] }>(page, 'get', '/articles');
  const { id } = articles.find((article) => article.title === 'Salt, by the scales')!;
  const text = await (await page.request.get(`${base()}/api/articles/${id}`)).text();
  expect(text.match(/"level":2/g) ?? []).not.toHaveLength(sections);
});

test('briefs are found, filtered, walked through by keys, and many set aside and brought back at once', async ({
  page,
}) => {
  const pipeline = await running(page, 'Many', ['pickled radishes', 'pickled onions', 'brined olives'], 'guided');
  await page.goto(`${base()}/pipelines/${pipeline}?show=briefs`);
  const rows = page.getByRole('group', { name: 'Briefs against steps' }).getByRole('listitem');
  await expect(rows).toHaveCount(3);
  await expect(page.getByRole('button', { name: /^held 3/ })).toBeVisible();
  await page.getByRole('textbox', { name: 'Find a subject' }).fill('pickled');
  await expect(rows).toHaveCount(2);
  await page.getByRole('textbox', { name: 'Find a subject' }).fill('nothing of the kind');
  await expect(page.getByText('No brief is like that.')).toBeVisible();
  await page.getByRole('button', { name: 'Show all' }).click();
  await expect(rows).toHaveCount(3);
  await page.locator('body').click({ position: { x: 640, y: 130 } });
  const drawer = page.getByRole('region', { name: 'The step chosen' });
  await page.keyboard.press('j');
  await expect(drawer).toContainText('brined olives');
  await page.keyboard.press('j');
  await page.keyboard.press('l');
  await expect(drawer.getByRole('heading', { name: 'look up' })).toBeVisible();
  await expect(drawer).toContainText('pickled onions');
  await expect(drawer.getByText('Went in')).toBeVisible();
  expect(await faultsOf(page)).toEqual([]);
  await page.keyboard.press('x');
  await page.keyboard.press('j');
  await page.keyboard.press('x');
  await expect(page.getByText('2 briefs picked')).toBeVisible();
  await page.getByRole('button', { name: 'Set aside', exact: true }).click();
  await expect(page.getByText('2 briefs set aside.')).toBeVisible();
  await page.getByRole('button', { name: /^set aside 2/ }).click();
  await expect(rows).toHaveCount(2);
  await page.getByRole('checkbox', { name: 'pickled radishes' }).click();
  await page.getByRole('button', { name: 'Bring back' }).click();
  await expect(page.getByText('1 brief brought back.')).toBeVisible();
  await expect(rows).toHaveCount(1);
  await page.getByRole('button', { name: /^all 3/ }).click();
  await expect(rows.filter({ hasText: 'pickled radishes' })).toContainText('held at outline');
});
