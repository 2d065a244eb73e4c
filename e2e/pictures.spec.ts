import { expect, type Page, test } from '@playwright/test';
import { faultsOf } from './ground/access.ts';
import { address, asking, signedIn } from './ground/desk.ts';

const base = () => address('WEEK');
const ask = asking(base);
test.beforeEach(({ page }) => signedIn(page, base()));

/** A small picture of one colour, as a PNG made by the browser itself. */
async function png(page: Page, colour: string, left: number): Promise<Buffer> {
  const data = await page.evaluate(
    ([fill, x]) => {
      const canvas = document.createElement('canvas');
      canvas.width = 320;
      canvas.height = 200;
      const pen = canvas.getContext('2d')!;
      pen.fillStyle = String(fill);
      pen.fillRect(0, 0, 320, 200);
      pen.fillStyle = '#fff';
      for (let i = 0; i < 5; i++)
        pen.fillRect(Number(x) + i * 50, 20 + i * 30 * (Number(x) > 30 ? -1 : 1) + (Number(x) > 30 ? 150 : 0), 25, 30);
      return canvas.toDataURL('image/png').split(',')[1]!;
    },
    [colour, left] as const,
  );
  return Buffer.from(data, 'base64');
}

interface Whole {
  document: {
    body: { type: string; file?: string; alternative?: string; lead?: boolean; width?: number; height?: number }[];
  };
}

/** An article that can be changed and has a picture at its head. */
async function withLead(page: Page): Promise<string> {
  const { pictures } = await ask<{ pictures: { file: string; uses: number }[] }>(page, 'get', '/pictures');
  for (const { file } of pictures.filter(({ uses }) => uses > 0)) {
    const { usedIn } = await ask<{ usedIn: { article: string; standing: string; isLead: boolean }[] }>(
      page,
      'get',
      `/pictures/${file}`,
    );
    const found = usedIn.find(({ standing, isLead }) => isLead && (standing === 'ready' || standing === 'out'));
    if (found) return found.article;
  }
  throw new Error('no article has a lead picture');
}

test('pictures are brought in, found, said more of, put in place of another and into the text, and taken out', async ({
  page,
}) => {
  await page.goto(`${base()}/articles`);
  await page.getByRole('link', { name: 'Pictures', exact: true }).click();
  await expect(page.getByText(/spent on drawing/)).toBeVisible();

  // What is no picture says so, and what is one comes in by its name.
  const input = page.getByLabel('Bring in pictures');
  await input.setInputFiles({ name: 'notes.png', mimeType: 'image/png', buffer: Buffer.from('no picture') });
  await expect(page.getByText(/The file cannot be used/).first()).toBeVisible();
  await input.setInputFiles([
    { name: 'fiddle_scroll.png', mimeType: 'image/png', buffer: await png(page, '#884422', 20) },
    { name: 'purfling.png', mimeType: 'image/png', buffer: await png(page, '#226688', 40) },
  ]);
  await expect(page.getByText('2 pictures brought in')).toBeVisible();
  await expect(page.getByLabel('What is seen')).toHaveValue('Fiddle scroll');
  await page.getByLabel('What is seen').fill('The scroll of a fiddle, carved from maple');
  await page.getByLabel('Credit, shown with it').fill('Ada Strings');
  await page.getByRole('button', { name: 'Keep the words' }).click();
  await expect(page.getByRole('button', { name: /^The scroll of a fiddle/ })).toBeVisible();
  await page.getByLabel('Pictures whose words hold').fill('purfling');
  await expect(page.getByRole('button', { name: /^Purfling/ })).toBeVisible();
  await expect(page.getByRole('button', { name: /scroll of a fiddle/ })).toHaveCount(0);
  expect(await faultsOf(page)).toEqual([]);

  // In an article one takes the place of its lead, the other stands in the text.
  const ready = await withLead(page);
  await page.goto(`${base()}/articles/${ready}?edit`);
  await page.locator('.whole-block img').first().click();
  await page.getByRole('button', { name: /^Another picture/ }).click();
  await page.getByLabel('Find by what it shows').fill('scroll');
  await page.getByRole('button', { name: /The scroll of a fiddle/ }).click();
  const body = async () => (await ask<Whole>(page, 'get', `/articles/${ready}`)).document.body;
  await expect
    .poll(async () => (await body()).find(({ lead }) => lead)?.alternative, { timeout: 20_000 })
    .toBe('The scroll of a fiddle, carved from maple');

  await page.getByLabel('Redraw it with a note').fill('two jars and a scale');
  await page.getByRole('button', { name: 'Redraw it' }).click();
  await expect(page.getByText('As it is', { exact: true })).toBeVisible({ timeout: 20_000 });
  await page.getByRole('button', { name: 'Use the redrawn one' }).click();
  await expect
    .poll(async () => (await body()).find(({ lead }) => lead)?.alternative, { timeout: 20_000 })
    .not.toBe('The scroll of a fiddle, carved from maple');

  await page.getByRole('button', { name: /^Sides/ }).click();
  await page.getByRole('radio', { name: /^1:1/ }).click();
  await page.getByRole('button', { name: 'Cut it' }).click();
  await expect
    .poll(
      async () => {
        const lead = (await body()).find((block) => block.lead);
        return lead ? lead.width === lead.height : false;
      },
      { timeout: 20_000 },
    )
    .toBe(true);

  await page.keyboard.press('Escape');
  await page.locator('.ProseMirror p').first().click();
  await page.getByRole('button', { name: 'Picture…' }).click();
  await page.getByLabel('Find by what it shows').fill('purfling');
  await page.getByRole('button', { name: /^Purfling/ }).click();
  await expect
    .poll(async () => (await body()).some(({ alternative, lead }) => alternative === 'Purfling' && !lead), {
      timeout: 20_000,
    })
    .toBe(true);

  // The library knows where they stand now, and lets none go that is used.
  await page.goto(`${base()}/articles/pictures`);
  await page.getByRole('button', { name: /^Purfling/ }).click();
  await expect(page.getByText('in its text')).toBeVisible({ timeout: 20_000 });
  await expect(page.getByText(/It stays in the library while/)).toBeVisible();
});
