import { expect, type Page, test } from '@playwright/test';
import { address, ownCopy, signedIn } from './ground/desk.ts';

const base = () => address('WEEK');

test.beforeEach(async ({ page }) => signedIn(page, base()));

const number = (page: Page, kind: string) => page.getByRole('button', { name: new RegExp(`^Line \\d+, ${kind}$`) });
const row = (page: Page, kind: string) => page.locator('[data-row]', { has: number(page, kind) });

test('a trial goes to a line, a step on, over a changed word and to the end; three subjects stand beside each other', async ({
  page,
}) => {
  test.setTimeout(120_000);
  await ownCopy(page, base(), 'Guides for the Journal', 'To be tried');
  await number(page, 'look up').waitFor();
  await expect(page.getByText(/^about 0\.\d+(?: to 0\.\d+)? €$/)).toBeVisible();
  await page.getByRole('button', { name: /^Trial on/ }).click();
  await page.getByRole('textbox', { name: 'A subject for the trial' }).fill('salt for fermented garlic');
  await page.getByRole('button', { name: 'Use this one' }).click();
  // To the line.
  await row(page, 'look up').hover();
  await row(page, 'look up').getByRole('button', { name: 'run to here' }).click();
  await expect(row(page, 'look up')).toContainText('pages, enough for about');
  await expect(row(page, 'outline')).toContainText('not run yet');
  // One step on, by its key.
  await expect(page.getByRole('button', { name: /one step on/ })).toBeEnabled();
  await page.keyboard.press('n');
  await expect(row(page, 'outline')).not.toContainText('not run yet');
  await expect(row(page, 'write')).toContainText('not run yet');
  await expect(page.getByRole('button', { name: /Run what changed/ })).toBeEnabled();
  const outlined = await row(page, 'outline').textContent();
  // Another outline, and only from there.
  await page.getByRole('button', { name: 'outline, sections' }).first().click();
  const least = page.getByRole('textbox', { name: /from/ }).first();
  await least.fill('2');
  await page.getByRole('textbox', { name: /to/ }).first().fill('3');
  await page.keyboard.press('Escape');
  await page.keyboard.press('r');
  await expect(row(page, 'publish')).toContainText('not in a trial; it would go out', { timeout: 30_000 });
  expect(await row(page, 'outline').textContent()).not.toBe(outlined);
  const cost = await page.getByText(/^0\.\d+ €$/).textContent();
  // Nothing changed, nothing paid.
  await page.keyboard.press('r');
  await expect(page.getByRole('button', { name: /Run what changed/ })).toBeEnabled();
  await expect(page.getByText(/^0\.\d+ €$/)).toHaveText(cost!);
  // Two more beside it.
  await page.getByRole('button', { name: /^Trial on/ }).click();
  const ticks = page.getByRole('checkbox', { name: /beside the others/ });
  await ticks.nth(1).click();
  await ticks.nth(2).click();
  await page.keyboard.press('Escape');
  await page.keyboard.press('r');
  await expect(row(page, 'publish').getByText(/it would go out/)).toHaveCount(3, { timeout: 30_000 });
  await page.getByRole('button', { name: 'Drop changes' }).click();
});

test('keys pressed one after the other are each done, however quick', async ({ page }) => {
  await ownCopy(page, base(), 'Guides for the Journal', 'Quick presses');
  await row(page, 'look up').waitFor();
  await page.getByRole('button', { name: /^Trial on/ }).click();
  await page.getByRole('textbox', { name: 'A subject for the trial' }).fill('salt for fermented garlic');
  await page.getByRole('button', { name: 'Use this one' }).click();
  await expect(page.getByRole('button', { name: 'Trial on: salt for fermented garlic' })).toBeVisible();
  for (const key of ['n', 'n', 'n']) await page.keyboard.press(key);
  const third = page.locator('[data-row]').nth(3);
  await expect(third).not.toContainText('not run yet', { timeout: 30_000 });
  await expect(page.locator('[data-row]').nth(4)).toContainText('not run yet');
  await page.keyboard.press('n');
  await page.keyboard.press('r');
  await expect(row(page, 'publish')).toContainText('not in a trial', { timeout: 60_000 });
});

test('an instruction of one’s own: fields are offered while typing, and it stands filled for the subject beside it', async ({
  page,
}) => {
  await ownCopy(page, base(), 'Guides for the Journal', 'In one’s own words');
  await number(page, 'look up').waitFor();
  await page.getByRole('button', { name: /^Trial on/ }).click();
  await page.getByRole('textbox', { name: 'A subject for the trial' }).fill('brine by weight');
  await page.getByRole('button', { name: 'Use this one' }).click();
  await row(page, 'look up').hover();
  await row(page, 'look up').getByRole('button', { name: 'run to here' }).click();
  await expect(row(page, 'look up')).toContainText('pages, enough for about');
  await row(page, 'outline').first().hover();
  await row(page, 'outline').first().getByRole('button', { name: 'outline, own instruction' }).click();
  const editor = page.getByRole('textbox', { name: 'Own instruction' });
  await expect(editor).toBeFocused();
  await page.keyboard.type('Speak of {{sub');
  await expect(page.getByRole('option', { name: /subject/ })).toBeVisible();
  await page.waitForTimeout(150);
  await page.keyboard.press('Enter');
  await page.keyboard.type(' only.');
  await expect(editor).toHaveText('Speak of {{ subject }} only.');
  await expect(page.getByText('For ‘brine by weight’ it says:')).toBeVisible();
  await expect(page.getByText('Speak of brine by weight only.')).toBeVisible();
  await page.keyboard.type(' And {{ nobody }}');
  await expect(page.getByText('No step above gives ‘nobody’.')).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Drop changes' }).click();
});
