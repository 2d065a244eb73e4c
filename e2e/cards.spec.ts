import { expect, type Page, test } from '@playwright/test';
import { faultsOf } from './ground/access.ts';
import { address, asking, signedIn } from './ground/desk.ts';

const base = () => address('WEEK');
const ask = asking(base);
test.beforeEach(({ page }) => signedIn(page, base()));

interface Card {
  name: string;
  width: number;
  height: number;
  texts: { says: string; to: number; box: { x: number; y: number; width: number; height: number } }[];
  areas: unknown[];
}
const cardsOf = async (page: Page, style: string) =>
  (await ask<{ document: { cards: Card[] } }>(page, 'get', `/styles/${style}`)).document.cards;

test('a card is made, changed by words, keys and dragging, kept, copied, renamed, saved as a file and removed', async ({
  page,
}) => {
  await page.goto(`${base()}/styles?new`);
  await page.getByLabel('Its name', { exact: true }).fill('Hive voice');
  await page.getByRole('button', { name: 'Make it' }).click();
  await page.waitForURL(/styles\/[a-z0-9]{20}/);
  const style = /styles\/([a-z0-9]{20})/.exec(page.url())![1]!;
  await page.getByRole('button', { name: 'Cards', exact: true }).click();
  await expect(page.getByText('No card yet.')).toBeVisible();
  await page.getByRole('button', { name: 'Make the first card' }).click();
  await expect(page.getByText(/of our titles, short to long/)).toBeVisible();
  const titles = page.getByRole('region', { name: 'The card with titles of ours' });
  await expect(titles.getByText(/characters, \d+ px, \d lines?/).first()).toBeVisible();

  // Square: what is on it grows along.
  await page.getByRole('button', { name: /^Form of the card/ }).click();
  await page.getByRole('radio', { name: /^square/ }).click();
  await expect(page.getByText('1 change not kept yet')).toBeVisible();

  // By keys, and by dragging.
  const title = page.getByRole('button', { name: /^Text {{ title }}, at/ });
  await title.focus();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Shift+ArrowLeft');
  const blog = page.getByRole('button', { name: /^Text {{ blog.name }}, at/ });
  const box = (await blog.boundingBox())!;
  await page.mouse.move(box.x + 40, box.y + 10);
  await page.mouse.down();
  await page.mouse.move(box.x + 60, box.y + 40, { steps: 4 });
  await page.mouse.up();
  await expect(page.getByText('4 changes not kept yet')).toBeVisible();
  expect(await cardsOf(page, style)).toMatchObject([{ width: 1_200 }]);

  // Letters that are too large for some titles are told, and taken back.
  await title.click();
  await page.getByRole('button', { name: /^Largest size/ }).click();
  await page.getByRole('spinbutton').fill('400');
  await page.getByRole('button', { name: 'Set it' }).click();
  await page.getByRole('button', { name: /^Smallest size/ }).click();
  await page.getByRole('spinbutton').fill('300');
  await page.getByRole('button', { name: 'Set it' }).click();
  await expect(titles.getByText(/of these do(es)? not fit/)).toBeVisible();
  await expect(titles.getByText(/does not fit its box at 300 px/).first()).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(titles.getByText(/of these do(es)? not fit/)).toBeHidden();

  // What is not kept outlasts a look elsewhere.
  await page.getByRole('button', { name: 'Versions', exact: true }).click();
  await page.getByRole('button', { name: 'Cards', exact: true }).click();
  await page.getByRole('button', { name: /^Keep as version/ }).click();
  await expect(page.getByText(/^kept, version/)).toBeVisible();
  const [kept] = await cardsOf(page, style);
  expect(kept).toMatchObject({ width: 1_080, height: 1_080 });
  expect(kept!.texts[1]!.box).toMatchObject({ y: 319, width: 926 });
  expect(kept!.texts[0]!.box.x).toBeGreaterThan(80);

  await page.getByRole('button', { name: 'copy it' }).last().click();
  await expect(page.getByRole('button', { name: 'Title and blog, copy', exact: true })).toHaveAttribute(
    'aria-pressed',
    'true',
  );
  await page.getByRole('button', { name: /^Name of the card/ }).click();
  await page.getByRole('textbox', { name: 'Name of the card' }).fill('For notices');
  await page.getByRole('button', { name: /^Set it/ }).click();
  await expect(page.getByRole('button', { name: 'For notices', exact: true })).toBeVisible();
  expect(await faultsOf(page)).toEqual([]);

  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Save this one as a file' }).click(),
  ]);
  expect(file.suggestedFilename()).toMatch(/^For-notices-.*\.png$/);

  await page.getByRole('button', { name: 'remove it' }).click();
  await expect(page.getByRole('button', { name: 'For notices', exact: true })).toBeHidden();
  expect((await cardsOf(page, style)).map(({ name }) => name)).toEqual(['Title and blog']);
});

test('an article gets a card with its title from its page', async ({ page }) => {
  const { pictures: all } = await ask<{ pictures: { file: string; uses: number }[] }>(page, 'get', '/pictures');
  const used = all.find(({ uses }) => uses > 0)!;
  const { usedIn } = await ask<{ usedIn: { article: string; title: string }[] }>(page, 'get', `/pictures/${used.file}`);
  const { article: id, title } = usedIn[0]!;
  await page.goto(`${base()}/articles/${id}?edit`);
  await page.locator('.whole-block img').first().click();
  await page.getByRole('button', { name: /^Another picture/ }).click();
  await page.getByText('Draw a card with its title').locator('..').getByRole('button').first().click();
  await expect
    .poll(async () => {
      const { document } = await ask<{ document: { body: { type: string; alternative?: string }[] } }>(
        page,
        'get',
        `/articles/${id}`,
      );
      return document.body.find(({ type }) => type === 'figure')?.alternative ?? '';
    })
    .toMatch(/Card with the words|Karte mit den Worten/);
  const { pictures } = await ask<{ pictures: { kind: string; words: string; width: number }[] }>(
    page,
    'get',
    '/pictures?kind=card',
  );
  expect(pictures[0]).toMatchObject({ kind: 'card', width: 1_200 });
  expect(pictures[0]!.words).toContain(title);
});
