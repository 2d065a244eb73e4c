import { expect, type Page, test } from '@playwright/test';
import { faultsOf } from './ground/access.ts';
import { address, asking, readArticle, signedIn } from './ground/desk.ts';

const base = () => address('WEEK');
const ask = asking(base);

test.beforeEach(async ({ page }) => signedIn(page, base()));

/** A pipeline that holds one of its steps, with one brief taken. */
async function held(page: Page, subject: string, at: 'title' | 'lay out' = 'title'): Promise<string> {
  const { blogs } = await ask<{ blogs: { id: string }[] }>(page, 'get', '/blogs');
  const { id: source } = await ask<{ id: string }>(page, 'post', '/sources', { name: `For ${subject}` });
  await ask(page, 'post', `/sources/${source}/keywords`, { paste: subject });
  const body =
    '{{ subject }} wants salt.\n\n## Salt\n\nWeigh it, and use twenty grams a kilo. Coarse salt is lighter by the spoon.';
  const steps = [
    { id: 's1', kind: 'take', sources: [source], most: null, everyMinutes: null, atOnce: null, apartMinutes: 0 },
    { id: 's2', kind: 'lay out', body, title: '', reads: 'Markdown', hold: at === 'lay out' },
    { id: 's3', kind: 'title', most: 60, choices: 3, hold: at === 'title' },
    { id: 's4', kind: 'publish', blog: blogs[0]!.id, when: 'at once', as: 'live' },
  ];
  const document = { grivo: 1, language: 'en', steps };
  const { id } = await ask<{ id: string }>(page, 'post', '/pipelines', { name: `Held for ${subject}`, document });
  await ask(page, 'post', `/pipelines/${id}/take`, {});
  return id;
}

test('what is held stands on Today; a title of one’s own passes it and goes out', async ({ page }) => {
  await held(page, 'pickled walnuts');
  await page.goto(base());
  const need = page.getByRole('listitem').filter({ hasText: 'pickled walnuts' });
  await expect(need).toContainText('held for you at ‘title’');
  await need.getByRole('link', { name: 'Look at it' }).click();
  const hold = page.getByRole('region', { name: 'Held: title' });
  await expect(hold).toBeVisible();
  expect(await faultsOf(page)).toEqual([]);
  await hold.getByLabel('A title of your own').fill('Walnuts, pickled with patience');
  await hold.getByRole('button', { name: 'Pass it as changed' }).click();
  await expect(hold).toBeHidden();
  await expect(page.getByRole('listitem').filter({ hasText: 'pickled walnuts' }).first()).toContainText('out');
  await page.goto(`${base()}/articles`);
  await expect(page.getByRole('link', { name: /Walnuts, pickled with patience/ })).toBeVisible();
});

test('sent back with a note it comes again; decided in one tab it goes from the other by itself', async ({
  page,
  context,
}) => {
  const pipeline = await held(page, 'salted plums');
  const open = async (one: Page) => {
    await one.goto(`${base()}/pipelines/${pipeline}?show=briefs`);
    await one.getByRole('button', { name: 'salted plums', exact: true }).click();
    await expect(one.getByRole('region', { name: 'Held: title' })).toBeVisible();
  };
  await open(page);
  await page.getByRole('button', { name: 'Send back…' }).click();
  await page.getByLabel('What is to be done differently').fill('Shorter, please');
  await page.getByRole('button', { name: 'Send it back' }).click();
  await expect(page.getByText('round 2').first()).toBeVisible();
  const other = await context.newPage();
  await open(other);
  await open(page);
  await other.getByRole('button', { name: 'Pass it', exact: true }).click();
  await expect(other.getByRole('region', { name: 'Held: title' })).toBeHidden();
  await expect(page.getByRole('region', { name: 'Held: title' })).toBeHidden();
});

test('a held text is edited, kept over a reload, and goes out as it was edited', async ({ page }) => {
  const pipeline = await held(page, 'brined radishes', 'lay out');
  const open = async () => {
    await page.goto(`${base()}/pipelines/${pipeline}?show=briefs`);
    await page.getByRole('button', { name: 'brined radishes', exact: true }).click();
    await page.getByRole('button', { name: 'Edit the text' }).click();
    return page.getByRole('textbox', { name: 'The text in Markdown' });
  };
  const editor = await open();
  await expect(editor).toBeFocused();
  await page.keyboard.press('Control+End');
  await page.keyboard.insertText('\n\n## Time\n\nFive days are enough for radishes.');
  await expect(page.getByText('27 words, 20 before')).toBeVisible();
  await page.reload();
  await expect(await open()).toContainText('Five days are enough');
  await page.getByRole('button', { name: 'Done for now' }).click();
  await page.getByRole('button', { name: 'Pass it as changed' }).click();
  const row = page.getByRole('listitem').filter({ hasText: 'brined radishes' }).first();
  await expect(row).toContainText('out');
  await readArticle(page, row);
  await expect(page.getByText('Five days are enough for radishes.').last()).toBeVisible();
});
