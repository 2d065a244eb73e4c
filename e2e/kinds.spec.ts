import { createHmac } from 'node:crypto';
import { DOCUMENTS, fileOf } from '@grivo/standins';
import { expect, type Page, test } from '@playwright/test';
import { faultsOf } from './ground/access.ts';
import { address, asking, pipelineForIt, readArticle, signedIn, watched } from './ground/desk.ts';

const base = () => address('WEEK');
const ask = asking(base);

test.beforeEach(async ({ page }) => signedIn(page, base()));

async function standIns(page: Page): Promise<string> {
  const { services } = await ask<{ services: { address: string }[] }>(page, 'get', '/services');
  return new URL(services[0]!.address).origin;
}

/** Opens the form for a source of a kind. */
async function adding(page: Page, kind: RegExp): Promise<void> {
  await page.goto(`${base()}/intake`);
  await page.getByRole('button', { name: 'Add a source' }).click();
  await page.getByRole('button', { name: /Kind of source/ }).click();
  await page.getByRole('radio', { name: kind }).click();
}

async function added(page: Page): Promise<string> {
  await page.getByRole('button', { name: 'Add it' }).click();
  await expect(page).toHaveURL(/\/intake\/\w{20}/);
  return page.url();
}

async function look(page: Page): Promise<void> {
  await page.getByRole('button', { name: /^Look at it/ }).click();
  await expect(page.getByText(/Looked: \d+ new item/)).toBeVisible();
}

/** Takes what is ticked, and waits until every brief of the list is out. */
async function takeAndWatch(page: Page, button: RegExp, subject: string | RegExp): Promise<void> {
  await page.getByRole('button', { name: button }).click();
  await watched(page);
  await isOut(page, subject);
}

async function isOut(page: Page, subject: string | RegExp): Promise<void> {
  await expect(page.getByRole('listitem').filter({ hasText: subject }).first()).toContainText(/out$/, {
    timeout: 40_000,
  });
}

test('a feed found by its site: newest titles, one entry read and published, its source credited', async ({ page }) => {
  await adding(page, /^a feed/);
  await page
    .getByLabel('Address of a feed or of a site, or a subject')
    .fill(`${await standIns(page)}/news/cellar-wire/`);
  await page.getByRole('button', { name: 'Find feeds' }).click();
  await expect(page.getByText('Turnips, the forgotten ferment')).toBeVisible();
  await page.getByLabel('Called').fill('The wire');
  const list = await added(page);
  await look(page);
  await page.getByRole('button', { name: 'Why brine goes cloudy, and when to worry' }).click();
  await expect(page.getByText(/words can be read/)).toBeVisible();
  expect(await faultsOf(page)).toEqual([]);
  await pipelineForIt(page, 'Wire pieces', /News, one article each/);
  await page.goto(list);
  await page.getByRole('checkbox', { name: /Turnips/ }).click();
  await takeAndWatch(page, /^Take 1 entry/, 'Turnips');
  await readArticle(page, page.getByRole('listitem').filter({ hasText: 'Turnips' }).first());
  await expect(page.getByRole('link', { name: 'Turnips, the forgotten ferment' }).first()).toHaveAttribute(
    'href',
    /\/news\/cellar-wire\/turnips-forgotten(?:#:~:text=.*)?$/,
  );
});

test('what has no feed says so, and what would mend it', async ({ page }) => {
  await adding(page, /^a feed/);
  await page.getByLabel('Address of a feed or of a site, or a subject').fill(`${await standIns(page)}/documents/none`);
  await page.getByRole('button', { name: 'Find feeds' }).click();
  await expect(page.getByRole('alert')).toContainText('it answers 404');
  await expect(page.getByRole('alert')).toContainText('Give the address of the feed itself');
});

test('a document uploaded and one by its address: read with pages and parts, and published', async ({ page }) => {
  await adding(page, /^pages and documents/);
  await page
    .getByLabel(/Addresses of pages and documents/)
    .fill(`${await standIns(page)}/documents/keeping-a-cellar.pdf`);
  await page.locator('input[type=file]').setInputFiles({
    name: 'counter.docx',
    mimeType: 'application/octet-stream',
    buffer: fileOf(DOCUMENTS.find(({ form }) => form === 'docx')!),
  });
  await page.getByLabel('Called').fill('Two handbooks');
  // What is put in by hand is there without a look asked for, and what is named beside it.
  const list = await added(page);
  await page.getByRole('button', { name: 'Keeping a cellar' }).click();
  await expect(page.getByText('page 2, Floor and shelves')).toBeVisible();
  expect(await faultsOf(page)).toEqual([]);
  await pipelineForIt(page, 'From handbooks');
  await page.goto(list);
  await page.getByRole('checkbox', { name: 'counter' }).click();
  await takeAndWatch(page, /^Take 1 document/, 'counter');
});

test('a catalogue of twenty with three unticked and two unreadable: fifteen notes with the partner’s id, two refusals', async ({
  page,
}) => {
  test.setTimeout(150_000);
  await adding(page, /^a catalogue/);
  await page.getByLabel('Address of the list').fill(`${await standIns(page)}/partner/northquay/list.json`);
  await page.getByLabel('Called').fill('Partner list');
  const list = await added(page);
  await page.getByRole('button', { name: /^Languages/ }).click();
  await page.getByLabel('Languages of two letters, one a line').fill('en');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /^Partner’s link/ }).click();
  await page.getByLabel('The partner’s link').fill('{link}?partner={partner}');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: /^Your id/ }).click();
  await page.getByLabel('Your id at the partner').fill('crockhaven-7');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: /^Leave out names with/ }).click();
  await page.getByLabel('Words that leave an item out').fill('barrel\nstrips');
  await page.keyboard.press('Escape');
  await expect(page.getByText('NQ-1001?partner=crockhaven-7')).toBeVisible();
  await look(page);
  await expect(page.getByRole('button', { name: 'new 20' })).toBeVisible();
  await pipelineForIt(page, 'Partner notes');
  await page.goto(list);
  await page.getByRole('checkbox', { name: 'All 20' }).click();
  const unticked = ['Wooden lid of beech', 'Wide jars, box of six', 'Mother for vinegar, 250 millilitres'];
  for (const name of unticked) await page.getByRole('checkbox', { name }).click();
  await page.getByRole('button', { name: /^Take 17 products/ }).click();
  await expect(page.getByText('17 briefs taken.')).toBeVisible();
  const { pipelines } = await ask<{ pipelines: { id: string; name: string; counts: Record<string, number> }[] }>(
    page,
    'get',
    '/pipelines',
  );
  const { id } = pipelines.find(({ name }) => name === 'Partner notes')!;
  await expect
    .poll(
      async () => {
        const now = await ask<typeof pipelines extends never ? never : { pipelines: typeof pipelines }>(
          page,
          'get',
          '/pipelines',
        );
        const { counts } = now.pipelines.find((one) => one.id === id)!;
        return [counts['out'], counts['stopped']];
      },
      { timeout: 90_000 },
    )
    .toEqual([15, 2]);
  await page.goto(`${base()}/pipelines/${id}?show=briefs`);
  await page.getByText('Fermenting box with thermostat').first().click();
  await expect(page.getByText(/gave nothing readable/).first()).toBeVisible();
  for (const name of unticked) await expect(page.getByRole('listitem').filter({ hasText: name })).toHaveCount(0);
  const { briefs } = await ask<{ briefs: { id: string; pipeline: string }[] }>(
    page,
    'get',
    `/briefs?pipeline=${id}&limit=50`,
  );
  const own = new Set(briefs.map((brief) => brief.id));
  const { articles } = await ask<{ articles: { address: string; brief: string }[] }>(
    page,
    'get',
    '/articles?limit=100',
  );
  const made = articles.filter(({ brief }) => own.has(brief));
  expect(made).toHaveLength(15);
  for (const article of made) {
    const whole = await page.request.get(article.address);
    const links = (await whole.text()).match(/\/partner\/northquay\/NQ-\d+[^"]*/g) ?? [];
    expect(links.length).toBeGreaterThan(0);
    for (const link of links) expect(link).toContain('?partner=crockhaven-7');
  }
});

test('our own publications: what went out is followed by a short version, and never by itself', async ({ page }) => {
  await adding(page, /^our own publications/);
  await page.getByLabel('Called').fill('What went out');
  const list = await added(page);
  await page.getByRole('button', { name: /^Start from/ }).click();
  await page.getByRole('radio', { name: /^the last so many/ }).click();
  await page.keyboard.press('Escape');
  await look(page);
  await pipelineForIt(page, 'Followed', null, async () => {
    // Live, so that it could come in again.
    await page.getByRole('button', { name: /^publish, as/ }).click();
    await page.getByRole('radio', { name: /^live/ }).click();
    await page.getByRole('button', { name: /^tell, by/ }).click();
    await page.getByRole('radio', { name: /^message/ }).click();
    await page.getByRole('button', { name: /^tell, to/ }).click();
    await page
      .getByRole('textbox')
      .last()
      .fill(`${await standIns(page)}/inbox/message/desk`);
    await page.keyboard.press('Escape');
  });
  await page.goto(list);
  // One of the pipeline's own language and with something to tell: others' are made by the journeys before this one.
  const { articles } = await ask<{ articles: { title: string; language: string; words: number; standing: string }[] }>(
    page,
    'get',
    '/articles?standing=out&limit=500',
  );
  const telling = new Set(
    articles.filter(({ language, words }) => language === 'en' && words >= 300).map(({ title }) => title),
  );
  const boxes = page.getByRole('group', { name: /Items of/ }).getByRole('checkbox');
  await expect(boxes.first()).toBeVisible();
  const names = await boxes.evaluateAll((all) => all.map((box) => box.getAttribute('aria-label') ?? ''));
  const at = names.findLastIndex((name) => telling.has(name));
  const subject = names[at]!;
  await boxes.nth(at).click();
  await takeAndWatch(page, /^Take 1 publication/, subject);
  await page.goto(list);
  await page.getByRole('button', { name: /^Look again/ }).click();
  await expect(page.getByText(/Looked: nothing new/)).toBeVisible();
});

const NOTES =
  'A crock of 3 litres takes 2.4 kilograms of shredded cabbage. Salt it at 2 per cent, which is 48 grams. Press it down until the brine stands two centimetres over the leaves. At 18 degrees it is sour after 21 days, at 22 degrees after 12. Skim the white film once a week with a clean spoon and wipe the rim with vinegar. Keep the finished kraut at 6 degrees, where it stays crisp for five months.';

/** Switches a pipeline on, from its page. */
async function on(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'off', exact: true }).click();
  await expect(page.getByRole('button', { name: 'on', exact: true })).toHaveAttribute('aria-pressed', 'true');
}

test('a hook: its address called by a program, signed; the article is out, and the caller is told where', async ({
  page,
}) => {
  await adding(page, /^a hook/);
  await page.getByLabel('Called').fill('From the till');
  const list = await added(page);
  await expect(page.getByText('How it is called')).toBeVisible();
  await page.getByRole('button', { name: 'Show', exact: true }).click();
  const secret = Buffer.from((await page.getByText(/^whsec_/).innerText()).replace('whsec_', ''), 'base64');
  const at = await page
    .getByText(/\/hooks\/[\w-]{40,}$/)
    .first()
    .innerText();
  expect(await faultsOf(page)).toEqual([]);
  await pipelineForIt(page, 'Handed in');
  await on(page);
  const body = JSON.stringify({ subject: 'A crock for two', notes: NOTES });
  const time = String(Math.floor(Date.now() / 1_000));
  const sign = createHmac('sha256', secret).update(`call-1.${time}.${body}`).digest('base64');
  const headers = { 'webhook-id': 'call-1', 'webhook-timestamp': time, 'webhook-signature': `v1,${sign}` };
  const sent = await page.request.post(at, { headers, data: Buffer.from(body) });
  expect(sent.status()).toBe(202);
  const again = await page.request.post(at, { headers, data: Buffer.from(body) });
  expect(((await again.json()) as { repeated: boolean }).repeated).toBe(true);
  const { ask: asked } = (await sent.json()) as { ask: string };
  const outcome = async () =>
    (await (await page.request.get(asked)).json()) as { standing: string; briefs: { article: { address: string } }[] };
  await expect.poll(async () => (await outcome()).standing, { timeout: 40_000 }).toBe('out');
  const [brief] = (await outcome()).briefs;
  expect((await page.request.get(brief!.article.address)).ok()).toBe(true);
  await page.goto(list);
  await page.getByRole('button', { name: 'all 1' }).click();
  await expect(page.getByRole('button', { name: 'A crock for two' })).toBeVisible();
});

test('a request typed in: taken at once by the pipeline that is on, and published', async ({ page }) => {
  await adding(page, /^requests/);
  await page.getByLabel('Called').fill('Asked for');
  const list = await added(page);
  await pipelineForIt(page, 'As asked');
  await on(page);
  const pipeline = page.url();
  await page.goto(list);
  await page.getByLabel('Subject', { exact: true }).fill('What a beginner needs');
  await page.getByLabel('Notes to write from').fill(NOTES);
  await expect(page.getByText(/by themselves enough for about \d+/)).toBeVisible();
  expect(await faultsOf(page)).toEqual([]);
  await page.getByRole('button', { name: 'Ask for it' }).click();
  await expect(page.getByText('Added.')).toBeVisible();
  await page.goto(`${pipeline.split('?')[0]}?show=briefs`);
  await isOut(page, 'What a beginner needs');
});
