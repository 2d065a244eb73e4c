import { expect, type Page, test } from '@playwright/test';
import { faultsOf } from './ground/access.ts';
import { address, signedIn } from './ground/desk.ts';

const base = () => address('WEEK');

async function firstId(page: Page, path: string, name: string): Promise<string> {
  const answer = (await (await page.request.get(`${base()}/api${path}`)).json()) as Record<string, { id: string }[]>;
  return answer[name]![0]!.id;
}

async function views(page: Page): Promise<[string, string][]> {
  const { sources } = (await (await page.request.get(`${base()}/api/sources`)).json()) as {
    sources: { id: string; kind: string }[];
  };
  const kinds = new Map(sources.map(({ id, kind }) => [kind, id]));
  const [pipeline, article, blog, style] = await Promise.all([
    firstId(page, '/pipelines', 'pipelines'),
    firstId(page, '/articles', 'articles'),
    firstId(page, '/blogs', 'blogs'),
    firstId(page, '/styles', 'styles'),
  ]);
  return [
    ['Today', '/'],
    ['Pipelines', '/pipelines'],
    ['a procedure', `/pipelines/${pipeline}`],
    ['briefs', `/pipelines/${pipeline}?show=briefs`],
    ['versions', `/pipelines/${pipeline}?show=versions`],
    ['Intake', '/intake'],
    ...[...kinds].map(([kind, id]): [string, string] => [`a source of ${kind}`, `/intake/${id}`]),
    ['a new pipeline', '/pipelines?new'],
    ['Articles', '/articles'],
    ['Pictures', '/articles/pictures'],
    ['an article', `/articles/${article}`],
    ['Cadence', '/cadence'],
    ['Blogs', '/blogs'],
    ['connecting a blog', '/blogs?new'],
    ['a blog', `/blogs/${blog}`],
    ['links of a blog', `/blogs/${blog}/links`],
    ['House style', '/styles'],
    ['a house style', `/styles/${style}`],
    ['texts of a house style', `/styles/${style}?show=texts`],
    ['cards of a house style', `/styles/${style}?show=cards`],
    ['versions of a house style', `/styles/${style}?show=versions`],
    ['an article beside a house style', `/styles/${style}?show=beside&article=${article}`],
    ['Settings', '/settings'],
    ['the parts', '/design'],
    ['nothing', '/articels'],
  ];
}

test.beforeEach(async ({ page }) => signedIn(page, base()));

test('an address of nothing says so, and leads on', async ({ page }) => {
  await page.goto(`${base()}/articels`);
  await expect(page.getByText('There is no page at this address.')).toBeVisible();
  await page.getByRole('link', { name: 'Go to Today' }).click();
  await expect(page).toHaveURL(`${base()}/`);
});

/** So many tests go through the views, each every so manieth, so that none of them takes minutes. */
const SHARES = 4;

for (let share = 0; share < SHARES; share++)
  test(`no screen has a serious fault of access, and none says anything into the console: ${share + 1} of ${SHARES}`, async ({
    page,
  }) => {
    test.setTimeout(180_000);
    const said: string[] = [];
    // A source that cannot be read, left by another journey, is refused and said on its page; the browser notes that by itself.
    page.on(
      'console',
      (message) => message.type() === 'error' && !/status of 422/.test(message.text()) && said.push(message.text()),
    );
    page.on('pageerror', (error) => said.push(error.message));
    for (const [name, path] of (await views(page)).filter((_, i) => i % SHARES === share)) {
      await page.goto(base() + path);
      await expect(page.getByRole('heading', { level: 1 }).first()).toBeVisible();
      await page.waitForTimeout(350);
      expect((await faultsOf(page)).map((fault) => `${name}: ${fault}`)).toEqual([]);
    }
    expect(said).toEqual([]);
  });

for (const width of [1_024, 1_280, 1_600])
  test(`nothing runs out of the page at ${width}`, async ({ page }) => {
    await page.setViewportSize({ width, height: 800 });
    for (const [name, path] of await views(page)) {
      await page.goto(base() + path);
      await expect(page.getByRole('heading', { level: 1 }).first()).toBeVisible();
      const over = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
      expect(over, name).toBeLessThanOrEqual(0);
    }
  });

test('a procedure changed by two people: the second is told, sees both, and loses nothing', async ({
  page,
  context,
}) => {
  const pipeline = await firstId(page, '/pipelines', 'pipelines');
  const other = await context.newPage();
  for (const one of [page, other]) {
    await one.goto(`${base()}/pipelines/${pipeline}`);
    await expect(one.getByRole('button', { name: /^write, words/ })).toBeVisible();
  }
  const change = async (one: Page, words: string) => {
    await one.getByRole('button', { name: /^write, words/ }).click();
    await one.getByLabel('words, typed').fill(words);
    await one.keyboard.press('Escape');
  };
  await change(other, '1100');
  await change(page, '1200');
  await other.getByRole('button', { name: /Save as version/ }).click();
  await expect(other.getByText(/Saved as version/)).toBeVisible();
  await page.getByRole('button', { name: /Save as version/ }).click();
  await expect(page.getByText(/Somebody else has changed this pipeline/)).toBeVisible();
  await expect(page.getByText(/^Write about 1,100 words/)).toBeVisible();
  await page.getByRole('button', { name: 'keep mine and save again' }).click();
  await page.getByRole('button', { name: /Save as version/ }).click();
  await expect(page.getByText(/Saved as version/)).toBeVisible();
  await expect(page.getByRole('button', { name: /^write, words: 1,200/ })).toBeVisible();
});

test('an article moves to another slot by keys, tells what breaks a rule, and goes back', async ({ page }) => {
  await page.goto(`${base()}/cadence`);
  const ready = page.getByRole('button', { name: /Arrow keys move it/ });
  await expect(ready.first()).toBeVisible();
  const before = await ready.last().getAttribute('aria-label');
  await ready.last().focus();
  await page.keyboard.press('ArrowRight');
  await expect(page.getByRole('button', { name: before! })).toHaveCount(0);
  await expect(page.getByRole('button', { name: /put there by hand/ })).toHaveCount(1);
  await page.keyboard.press('z');
  await expect(
    page.getByRole('button', { name: before!.replace(/\. Arrow.*/, ', put there by hand. Arrow keys move it.') }),
  ).toHaveCount(1);
});

test('a dropped line is said, what is typed stays, and changes arrive when it is back', async ({ page, context }) => {
  await page.goto(`${base()}/intake`);
  await page.getByRole('link', { name: 'Recipe ideas' }).click();
  await page.getByRole('button', { name: 'Paste more' }).click();
  await page.getByLabel('Phrases', { exact: true }).fill('typed while the line is down');
  await context.setOffline(true);
  await page.evaluate(() => window.dispatchEvent(new Event('offline')));
  await page.getByRole('button', { name: /Clean and add/ }).click();
  await expect(page.getByText(/Grivo does not answer/)).toBeVisible();
  await expect(page.getByLabel('Phrases', { exact: true })).toHaveValue('typed while the line is down');
  await context.setOffline(false);
  await page.getByRole('button', { name: /Clean and add/ }).click();
  await expect(page.getByText('1 phrase added')).toBeVisible();
  // Another tab sees it without being loaded again.
  const other = await context.newPage();
  await other.goto(`${base()}/intake`);
  await expect(other.getByText('13', { exact: false }).first()).toBeVisible();
});

test('a file of five thousand keywords with quotes, a mark and semicolons is read without stopping the page', async ({
  page,
}) => {
  await page.goto(`${base()}/intake?new`);
  await page.getByLabel('Called').fill('Five thousand');
  await page.getByRole('button', { name: 'Add it' }).click();
  await expect(page.getByText('No phrase yet.')).toBeVisible();
  const rows = Array.from({ length: 5_000 }, (_, i) => `"phrase${i.toString(36)} number ${i}; quoted";${i}`);
  await page.getByLabel('A file of keywords').setInputFiles({
    name: 'export.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(`\ufeffKeyword;Volume\r\n${rows.join('\r\n')}`),
  });
  await expect(page.getByText('5,000 phrases from export.csv, columns “Keyword”, “Volume”')).toBeVisible();
  await page.getByRole('button', { name: /Clean and add/ }).click();
  await expect(page.getByText(/phrases added/)).toBeVisible({ timeout: 30_000 });
  // Only what is in view is drawn.
  expect(await page.locator('li.row').count()).toBeLessThan(120);
  // What stands in quotes is one phrase, whatever parts it elsewhere; the most sought come first.
  await page.getByRole('button', { name: 'volume', exact: true }).click();
  await expect(page.locator('li.row').first()).toHaveText(/^phrase3uv number 4999; quoted4,999/);
});

test('finding goes to things by their names, ? shows the keys', async ({ page }) => {
  await page.goto(base());
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  await page.keyboard.press('/');
  await page.keyboard.type('kitchen');
  await expect(page.getByRole('option', { name: /Kitchen Notes/ }).first()).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Kitchen Notes');
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
  await page.keyboard.press('Escape');
});
