import { stepKinds as k } from '@grivo/core';
import { expect, type Page, test } from '@playwright/test';
import { address, asking, pipelineForIt, readArticle, signedIn, watched } from './ground/desk.ts';
import { CAPTIONS, MARKDOWN, SHEET, soundOf, TITLES, textOf } from './ground/workshop.ts';

const base = () => address('WEEK');
const ask = asking(base);
const workshop = () => process.env['GRIVO_WORKSHOP']!;

test.beforeEach(async ({ page }) => signedIn(page, base()));

async function adding(page: Page, kind: RegExp, name: string): Promise<void> {
  await page.goto(`${base()}/intake`);
  await page.getByRole('button', { name: 'Add a source' }).click();
  await page.getByRole('button', { name: /Kind of source/ }).click();
  await page.getByRole('radio', { name: kind }).click();
  await page.getByLabel('Called').fill(name);
}

async function added(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Add it' }).click();
  await expect(page).toHaveURL(/\/intake\/\w{20}/);
}

async function look(page: Page): Promise<void> {
  await page.getByRole('button', { name: /^Look at it/ }).click();
  await expect(page.getByText(/Looked: \d+ new item/)).toBeVisible();
}

const upload = async (page: Page, name: string, body: string | Buffer) =>
  page
    .locator('input[type=file]')
    .first()
    .setInputFiles({ name, mimeType: 'application/octet-stream', buffer: Buffer.from(body) });

const row = (page: Page, kind: string) =>
  page.locator('[data-row]', { has: page.getByRole('button', { name: new RegExp(`^Line \\d+, ${kind}$`) }) });

/** What is made is shorter than the shipped procedures ask for: the sources are. */
async function shorter(page: Page): Promise<void> {
  await page.getByRole('button', { name: /^write, words/ }).click();
  await page.getByLabel('words, typed').fill('150');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /^check, words/ }).click();
  await page.getByRole('textbox', { name: /from/ }).first().fill('30');
  await page.keyboard.press('Escape');
}

/** A trial on an item: to a line, a step on, to the end; then one word changed and run again. */
async function tried(page: Page, subject: string | RegExp, first: string): Promise<void> {
  await page.getByRole('button', { name: /^Trial on/ }).click();
  const item = page.getByRole('dialog').getByRole('button', { name: subject }).first();
  if (await item.isVisible()) await item.click();
  else await page.keyboard.press('Escape');
  await row(page, first).hover();
  await row(page, first).getByRole('button', { name: 'run to here' }).click();
  await expect(row(page, first)).not.toContainText('not run yet', { timeout: 60_000 });
  await expect(page.getByRole('button', { name: /one step on/ })).toBeEnabled({ timeout: 60_000 });
  await page.keyboard.press('n');
  await expect(page.getByRole('button', { name: /Run what changed/ })).toBeEnabled({ timeout: 60_000 });
  await page.keyboard.press('r');
  await expect(row(page, 'publish')).toContainText('not in a trial', { timeout: 40_000 });
  const written = await row(page, 'write').textContent();
  await page.getByRole('button', { name: /^write, words/ }).click();
  await page.getByLabel('words, typed').fill('110');
  await page.keyboard.press('Escape');
  await page.keyboard.press('r');
  await expect(row(page, 'write')).not.toHaveText(written!.replace('150', '110'), { timeout: 40_000 });
  await expect(page.getByRole('button', { name: /Run what changed/ })).toBeEnabled({ timeout: 40_000 });
  await expect(row(page, 'publish')).toContainText('not in a trial', { timeout: 40_000 });
  await page.getByRole('button', { name: /Save as version/ }).click();
  await expect(page.getByText(/Saved as version/).first()).toBeVisible();
}

/** The brief of a subject is out, and what it says is of the workshop's trade. */
async function isOut(page: Page, subject: string | RegExp, says: RegExp): Promise<void> {
  const line = page.getByRole('listitem').filter({ hasText: subject }).first();
  await expect(line).toContainText(/out$/, { timeout: 60_000 });
  await readArticle(page, line);
  await expect(page.getByRole('heading', { level: 1 }).first()).toBeVisible();
  await expect(page.getByText(says).first()).toBeVisible();
}

/** What another journey published of the same is a near repeat; here it is wanted all the same. */
async function wanted(page: Page, subject: string): Promise<void> {
  await page.getByRole('button', { name: subject }).first().click();
  const anyway = page.getByRole('button', { name: 'Include it anyway' });
  await expect(anyway.or(page.getByRole('button', { name: 'Leave it out' }))).toBeVisible();
  if (await anyway.isVisible()) await anyway.click();
  await expect(page.getByRole('checkbox', { name: subject }).first()).toBeVisible();
}

async function taken(page: Page, list: string, tick: string | RegExp | null, take: RegExp): Promise<void> {
  await page.goto(list);
  if (tick !== null) await page.getByRole('checkbox', { name: tick }).first().click();
  await page.getByRole('button', { name: take }).click();
  await watched(page);
}

test('keywords of a trade of their own, looked up where it is known', async ({ page }) => {
  test.setTimeout(300_000);
  const services = await ask<{ services: { name: string }[] }>(page, 'get', '/services');
  if (!services.services.some(({ name }) => name === 'Violin pages'))
    await ask(page, 'post', '/services', {
      role: 'look-up',
      name: 'Violin pages',
      address: `${workshop()}/look-up`,
      price: { microsPerThousandIn: 0, microsPerThousandOut: 0, microsPerPicture: 0 },
    });
  await page.goto(`${base()}/intake?new=keywords`);
  await page.getByLabel('Called').fill('Violin questions');
  await added(page);
  const list = page.url();
  await page
    .getByLabel('Phrases', { exact: true })
    .fill('Keyword\n1. bridge of a violin leans\nn/a\npegs of a violin slip');
  await page.getByRole('button', { name: /Clean and add/ }).click();
  await expect(page.getByText(/2 phrases added.*; 2 left out/)).toBeVisible();
  await expect(page.getByText('bridge of a violin leans').first()).toBeVisible();
  await pipelineForIt(page, 'Violin answers', null, async () => {
    await shorter(page);
    await page.getByRole('button', { name: /^look up, service/ }).click();
    await page.getByRole('radio', { name: /Violin pages/ }).click();
  });
  await tried(page, 'bridge of a violin leans', 'look up');
  await taken(page, list, 'bridge of a violin leans', /^Take 1/);
  await isOut(page, 'bridge of a violin leans', /bridge/i);
});

test('a sheet of things, its rows', async ({ page }) => {
  test.setTimeout(300_000);
  await adding(page, /^a sheet/, 'Violin things');
  await upload(page, 'things.csv', SHEET);
  await added(page);
  const list = page.url();
  await look(page);
  await expect(page.getByText(TITLES['rosin']!).first()).toBeVisible();
  await pipelineForIt(page, 'Violin rows', null, async () => {
    await shorter(page);
    await page.getByRole('button', { name: /^read, columns/ }).click();
    await page.getByRole('checkbox', { name: 'articleNumber' }).click();
    await page.keyboard.press('Escape');
  });
  await tried(page, TITLES['rosin']!, 'read');
  await page.goto(list);
  const ticks = page.getByRole('checkbox', { name: /^Row \d+/ });
  for (const tick of await ticks.all()) if ((await tick.getAttribute('aria-checked')) === 'true') await tick.click();
  await taken(page, list, null, /^Take \d+/);
  await isOut(page, TITLES['rosin']!, /rosin/i);
});

test('a video with captions, by its address', async ({ page }) => {
  test.setTimeout(300_000);
  await adding(page, /^videos/, 'Violin films');
  await page.getByLabel(/Handle, name or address/).fill(`${workshop()}/watch/bridge`);
  await added(page);
  const list = page.url();
  await look(page);
  await expect(page.getByText('A bridge that leans towards').first()).toBeVisible();
  await pipelineForIt(page, 'Violin films told', null, () => shorter(page));
  await tried(page, TITLES['bridge']!, 'read');
  await taken(page, list, null, /^Take/);
  await isOut(page, TITLES['bridge']!, /bridge/i);
});

test('captions put in as a file', async ({ page }) => {
  await adding(page, /^videos/, 'Violin captions');
  await upload(page, 'bridge.vtt', CAPTIONS);
  // What is put in by hand is there without a look asked for.
  await added(page);
  await expect(page.getByText('A bridge that leans towards').first()).toBeVisible();
});

test('a feed found by its site', async ({ page }) => {
  test.setTimeout(300_000);
  await adding(page, /^a feed/, 'Violin notes');
  await page.getByLabel('Address of a feed or of a site, or a subject').fill(`${workshop()}/`);
  await page.getByRole('button', { name: 'Find feeds' }).click();
  await expect(page.getByText(TITLES['pegs']!).first()).toBeVisible();
  await added(page);
  const list = page.url();
  await look(page);
  await page.getByRole('button', { name: TITLES['pegs']! }).click();
  await expect(page.getByText(/words can be read/)).toBeVisible();
  await pipelineForIt(page, 'Violin news', /News, one article each/, () => shorter(page));
  await tried(page, TITLES['pegs']!, 'read');
  await taken(page, list, TITLES['pegs']!, /^Take 1 entry/);
  await isOut(page, TITLES['pegs']!, /pegs?/i);
});

test('a document put in as a file', async ({ page }) => {
  test.setTimeout(300_000);
  await adding(page, /^pages and documents/, 'Violin papers');
  await upload(page, 'pegs.md', MARKDOWN);
  await added(page);
  const list = page.url();
  await page.getByRole('button', { name: /pegs/i }).first().click();
  await expect(page.getByText('What helps').first()).toBeVisible();
  await pipelineForIt(page, 'Violin papers read', null, () => shorter(page));
  await tried(page, /pegs/i, 'read');
  await taken(page, list, /pegs/i, /^Take 1 document/);
  await isOut(page, /pegs/i, /pegs?/i);
});

test('a partner’s list of products', async ({ page }) => {
  test.setTimeout(300_000);
  await adding(page, /^a catalogue/, 'Violin partner');
  await page.getByLabel('Address of the list').fill(`${workshop()}/things.csv`);
  await added(page);
  const list = page.url();
  await look(page);
  await page.getByRole('button', { name: TITLES['rosin']! }).first().click();
  await expect(page.getByText(/words can be read/)).toBeVisible();
  await pipelineForIt(page, 'Violin products', null, () => shorter(page));
  await tried(page, TITLES['rosin']!, 'read');
  await taken(page, list, TITLES['rosin']!, /^Take 1 product/);
  await isOut(page, TITLES['rosin']!, /rosin/i);
});

test('a talk of a podcast, heard', async ({ page }) => {
  test.setTimeout(300_000);
  await adding(page, /^recordings/, 'Violin talks');
  await page.getByLabel('Address of a podcast’s feed').fill(`${workshop()}/talks.xml`);
  await added(page);
  const list = page.url();
  await look(page);
  await wanted(page, TITLES['rosin']!);
  await pipelineForIt(page, 'Violin talks written', null, () => shorter(page));
  await tried(page, TITLES['rosin']!, 'hear');
  await taken(page, list, TITLES['rosin']!, /^Take 1 recording/);
  await isOut(page, TITLES['rosin']!, /rosin/i);
  expect(soundOf('rosin').length).toBeGreaterThan(100_000);
});

test('what a program hands in at a hook', async ({ page }) => {
  test.setTimeout(300_000);
  await adding(page, /^a hook/, 'Violin till');
  await added(page);
  const list = page.url();
  const source = list.split('/').at(-1)!.split('?')[0]!;
  const { address: at } = await ask<{ address: string }>(page, 'get', `/sources/${source}/hook`);
  const body = { subject: 'How a bridge is set', notes: textOf('bridge') };
  const whole = await ask<{ settings: object; rev: number }>(page, 'get', `/sources/${source}`);
  await page.request.put(`${base()}/api/sources/${source}`, {
    data: { settings: { ...whole.settings, signed: false } },
    headers: { 'if-match': `"${whole.rev}"` },
  });
  expect((await page.request.post(at, { data: body })).status()).toBe(202);
  await page.goto(list);
  await wanted(page, 'How a bridge is set');
  await pipelineForIt(page, 'Violin till told', null, () => shorter(page));
  await tried(page, 'How a bridge is set', 'read');
  await taken(page, list, 'How a bridge is set', /^Take 1/);
  await isOut(page, 'How a bridge is set', /bridge/i);
});

test('a request typed in', async ({ page }) => {
  test.setTimeout(300_000);
  await adding(page, /^requests/, 'Violin desk');
  await added(page);
  const list = page.url();
  await page.getByLabel('Subject', { exact: true }).fill('Pegs in a dry winter');
  await page.getByLabel('Notes to write from').fill(textOf('pegs'));
  await page.getByRole('button', { name: 'Ask for it' }).click();
  await expect(page.getByText('Added.')).toBeVisible();
  await pipelineForIt(page, 'Violin desk answers', null, () => shorter(page));
  await tried(page, 'Pegs in a dry winter', 'read');
  await taken(page, list, 'Pegs in a dry winter', /^Take 1/);
  await isOut(page, 'Pegs in a dry winter', /pegs?/i);
});

test('what went out on our own blogs, followed', async ({ page }) => {
  test.setTimeout(300_000);
  // A first article of the trade, made from notes.
  const { blogs } = await ask<{ blogs: { id: string }[] }>(page, 'get', '/blogs');
  const asked = await ask<{ id: string }>(page, 'post', '/sources', {
    name: 'Violin notes typed',
    settings: { kind: 'requests' },
  });
  await ask(page, 'post', `/sources/${asked.id}/requests`, {
    subject: 'Rosin through the year',
    notes: textOf('rosin'),
  });
  const first = await ask<{ id: string }>(page, 'post', '/pipelines', {
    name: 'Violin notes laid out',
    document: {
      grivo: 1,
      language: 'en',
      steps: [
        { ...k.take.fresh('s1'), sources: [asked.id], most: 1 },
        { ...k['lay out'].fresh('s2'), body: '{{ text }}', reads: 'plain text' },
        { ...k.publish.fresh('s3'), blog: blogs[0]!.id, when: 'at once' },
      ],
    },
  });
  await ask(page, 'post', `/pipelines/${first.id}/take`, {});
  await expect
    .poll(
      async () =>
        (
          await ask<{ articles: { title: string; standing: string }[] }>(page, 'get', '/articles?limit=20')
        ).articles.some(({ title, standing }) => title === 'Rosin through the year' && standing === 'out'),
      { timeout: 40_000 },
    )
    .toBe(true);
  await adding(page, /^our own publications/, 'What went out of violins');
  await added(page);
  const list = page.url();
  await page.getByRole('button', { name: /^Start from/ }).click();
  await page.getByRole('radio', { name: /^the last so many/ }).click();
  await page.keyboard.press('Escape');
  await look(page);
  await page.getByRole('button', { name: 'Rosin through the year' }).first().click();
  await expect(page.getByText(/words can be read/)).toBeVisible();
  await pipelineForIt(page, 'Violin articles followed', null, async () => {
    await page.getByRole('button', { name: /^publish, as/ }).click();
    await page.getByRole('radio', { name: /^live/ }).click();
    await page.getByRole('button', { name: /^tell, by/ }).click();
    await page.getByRole('radio', { name: /^message/ }).click();
    const { services } = await ask<{ services: { address: string }[] }>(page, 'get', '/services');
    await page.getByRole('button', { name: /^tell, to/ }).click();
    await page
      .getByRole('textbox')
      .last()
      .fill(`${new URL(services[0]!.address).origin}/inbox/message/desk`);
    await page.keyboard.press('Escape');
  });
  await tried(page, 'Rosin through the year', 'read');
  await taken(page, list, 'Rosin through the year', /^Take 1 publication/);
  await isOut(page, 'Rosin through the year', /rosin/i);
});
