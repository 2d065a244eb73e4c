import { expect, type Page, test } from '@playwright/test';
import { address, nextPlaced, OWNER, passTo, tabTo } from './ground/desk.ts';

const PASTE =
  'how much salt for sauerkraut, fermenting garlic in honey\n  how much  salt for Sauerkraut \nsalt for sauerkraut how much\nkahm yeast or mould\n';

/** Counts what a person does: every press, every field filled. */
class Hand {
  actions = 0;
  constructor(readonly page: Page) {}
  async press(name: string | RegExp, role: 'button' | 'link' = 'button'): Promise<void> {
    this.actions++;
    await this.page.getByRole(role, { name }).first().click();
  }
  async fill(label: string | RegExp, text: string): Promise<void> {
    this.actions++;
    await this.page.getByLabel(label).first().fill(text);
  }
}

test('from an empty installation to an article of one’s own on the blog, by pointer', async ({ page }) => {
  const base = address('POINTER');
  const hand = new Hand(page);
  await page.goto(base);
  await hand.fill('Mail address', OWNER.email);
  await hand.fill('Password', OWNER.password);
  await hand.press('Sign in');
  await expect(page.getByRole('heading', { name: /articles written/ })).toBeVisible();

  await hand.press('Crockhaven Journal');
  await hand.press('Connect and test');
  await expect(page.getByText('Took the draft away').first()).toBeVisible();
  await hand.press('Connect the stand-ins');
  await expect(page.getByText(/Stand-in writer: asked/).first()).toBeVisible();
  await expect(page.getByText('It answers in the form asked for').first()).toBeVisible();

  await hand.fill('Phrases', PASTE);
  await hand.press(/Clean and add/);
  await expect(page.getByText(/3 phrases added.*; 2 left out/).first()).toBeVisible();
  await hand.press('Make the pipeline');
  await expect(page.getByRole('heading', { name: 'Keywords to guides' })).toBeVisible();

  await hand.press(/^Run it/);
  await expect(page.getByText('The trial is done, 8 steps.')).toBeVisible();
  await expect(page.getByText('not in a trial; it would go out in the next free slot')).toBeVisible();
  const outline = page.getByText(/pages?, enough for about/);
  await expect(outline).toBeVisible();

  // One word changed, and run again from there.
  await hand.press('title, most: at most 60');
  hand.actions++;
  await page.getByLabel('most, typed').fill('40');
  hand.actions++;
  await page.keyboard.press('Escape');
  await hand.press(/Run what changed/);
  await expect(page.getByText('The trial is done, 8 steps.')).toBeHidden();
  await expect(page.getByText(/The trial is done/)).toBeVisible();

  // Two of three are taken.
  await hand.press('take, most: up to 3 new items');
  hand.actions++;
  await page.getByLabel('most, typed').fill('2');
  hand.actions++;
  await page.keyboard.press('Escape');
  await hand.press(/Save as version 2/);
  await expect(page.getByText('Saved as version 2.')).toBeVisible();
  await hand.press('Take 2 new items now');
  await hand.press('See them', 'link');
  const ready = page.getByRole('listitem').filter({ hasText: 'ready' });
  await expect(ready).toHaveCount(2, { timeout: 40_000 });

  await hand.press(/how much salt for sauerkraut/);
  await hand.press('Read the article', 'link');
  await expect(page.getByText(/of \d+ paragraphs rest on a passage/)).toBeVisible();
  await expect(page.locator('.page h1')).toContainText(/salt/i);
  const band = page.getByRole('region', { name: 'The next seven days' });
  await expect(band.getByRole('link', { name: /, ready$/ })).toHaveCount(2);

  // Its slot comes, and it is on the blog.
  const { at } = await nextPlaced(page.request, base);
  await passTo(page.request, base, at);
  await page.getByRole('link', { name: 'Articles', exact: true }).click();
  hand.actions++;
  await expect(page.getByText(/Out, week of/)).toBeVisible({ timeout: 20_000 });
  hand.actions++;
  await page
    .locator('.row')
    .filter({ has: page.getByRole('img', { name: 'out' }) })
    .getByRole('link')
    .first()
    .click();
  const onBlog = page.getByRole('link', { name: 'Open it on the blog' });
  await expect(onBlog).toBeVisible();
  const live = await page.request.get((await onBlog.getAttribute('href'))!);
  expect(live.ok()).toBe(true);
  expect(await live.text()).toContain('<figure class="lead">');
  console.log(`actions from sign-in to the article on the blog: ${hand.actions}`);
  expect(hand.actions).toBeLessThanOrEqual(25);
});

test('the same by keyboard alone', async ({ page }) => {
  const base = address('KEYBOARD');
  const keys = page.keyboard;
  const button = (name: string | RegExp) => page.getByRole('button', { name });
  const pressed = async (name: string | RegExp) => {
    await tabTo(page, button(name));
    await keys.press('Enter');
  };
  await page.goto(base);
  await tabTo(page, page.getByLabel('Mail address'));
  await keys.type(OWNER.email);
  await keys.press('Tab');
  await keys.type(OWNER.password);
  await keys.press('Enter');
  await pressed('Crockhaven Journal');
  await pressed('Connect and test');
  await expect(page.getByText('Took the draft away').first()).toBeVisible();
  await pressed('Connect the stand-ins');
  await expect(page.getByText('It answers in the form asked for').first()).toBeVisible();
  await tabTo(page, page.getByLabel('Phrases', { exact: true }));
  await keys.insertText(PASTE);
  await keys.press('Control+Enter');
  await expect(page.getByText(/3 phrases added/).first()).toBeVisible();
  await pressed('Make the pipeline');
  await expect(page.getByRole('heading', { name: 'Keywords to guides' })).toBeVisible();
  await expect(button(/^Run it/)).toBeEnabled();
  await keys.press('r');
  await expect(page.getByText('The trial is done, 8 steps.')).toBeVisible();
  await pressed('title, most: at most 60');
  await tabTo(page, page.getByLabel('most, typed'));
  await keys.press('Control+A');
  await keys.type('40');
  await keys.press('Escape');
  await expect(button(/Run what changed/)).toBeEnabled();
  await keys.press('r');
  await expect(page.getByText('The trial is done, 8 steps.')).toBeHidden();
  await expect(page.getByText(/The trial is done/)).toBeVisible();
  await keys.press('s');
  await expect(page.getByText('Saved as version 2.')).toBeVisible();

  // Two are ticked in the list and taken.
  await keys.press('g');
  await keys.press('i');
  await tabTo(page, page.getByRole('link', { name: 'First keywords' }));
  await keys.press('Enter');
  await expect(page.getByText('what was made of it')).toBeVisible();
  await page.locator('body').press('Space');
  await keys.press('j');
  await keys.press('Space');
  await expect(button(/Take 2 as briefs/)).toBeEnabled();
  await keys.press('t');
  await tabTo(page, page.getByRole('link', { name: 'Watch them' }));
  await keys.press('Enter');
  await expect(page.getByRole('listitem').filter({ hasText: 'ready' })).toHaveCount(2, { timeout: 40_000 });
  await keys.press('g');
  await keys.press('a');
  await expect(page.getByText('Coming')).toBeVisible();
  await keys.press('Enter');
  await expect(page.getByText(/of \d+ paragraphs rest on a passage/)).toBeVisible();
  await keys.press('j');
  const { at } = await nextPlaced(page.request, base);
  await passTo(page.request, base, at);
  await keys.press('g');
  await keys.press('t');
  await expect(page.getByText(/1 article went out/)).toBeVisible({ timeout: 20_000 });
  await tabTo(page, page.getByRole('link', { name: 'Crockhaven Journal' }).last());
});
