import { expect, test } from '@playwright/test';
import { faultsOf } from './ground/access.ts';
import { address, asking, signedIn } from './ground/desk.ts';

const base = () => address('WEEK');
const ask = asking(base);
test.beforeEach(({ page }) => signedIn(page, base()));

test('videos are placed at the second and the last heading, as the sentence of the step says, and pictures give way', async ({
  page,
}) => {
  const { services } = await ask<{ services: { role: string; address: string }[] }>(page, 'get', '/services');
  const host = services.find(({ role }) => role === 'video host')!.address.replace(/\/find$/, '');
  const picture = (slug: string) => `![A jar](${host}/watch/${slug}/still.png)`;
  const body = `Cabbage and salt go into jars.\n\n## Salt\n\nSalt by weight.\n\n## Jars\n\n${picture('four-jars')}\n\nFour jars of cabbage.\n\n## Lids\n\n${picture('how-full')}\n\nA lid for each jar.`;
  const { id: source } = await ask<{ id: string }>(page, 'post', '/sources', {
    name: 'Jar talk',
    settings: { kind: 'requests' },
  });
  await ask(page, 'post', `/sources/${source}/requests`, { subject: 'cabbage jars', notes: 'Jars.' });
  const { id: pipeline } = await ask<{ id: string }>(page, 'post', '/pipelines', {
    name: 'Jars with films',
    document: {
      grivo: 1,
      language: 'en',
      steps: [
        { id: 's1', kind: 'take', sources: [source], most: null, everyMinutes: null, atOnce: null, apartMinutes: 0 },
        { id: 's2', kind: 'lay out', body, title: 'Four jars', reads: 'Markdown' },
        { id: 's3', kind: 'videos', most: 2, where: 'where they fit', headings: '2' },
      ],
    },
  });
  await page.goto(`${base()}/pipelines/${pipeline}`);
  await page.getByRole('button', { name: /where they fit/ }).click();
  await page.getByRole('radio', { name: /^at headings/ }).click();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'videos, headings: 2' }).click();
  await page.getByRole('dialog').getByRole('textbox').fill('2, last');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /Save as version/ }).click();
  await expect(page.getByText('Saved as version 2.')).toBeVisible();
  expect(await faultsOf(page)).toEqual([]);
  const { briefs } = await ask<{ briefs: string[] }>(page, 'post', `/pipelines/${pipeline}/take`, {});
  let article = '';
  await expect
    .poll(
      async () => {
        const { articles } = await ask<{ articles: { id: string; brief: string }[] }>(page, 'get', '/articles');
        article = articles.find(({ brief }) => brief === briefs[0])?.id ?? '';
        if (article === '') return [];
        const { document } = await ask<{ document: { body: { type: string }[] } }>(page, 'get', `/articles/${article}`);
        return document.body.map(({ type }) => type).filter((type) => type === 'video' || type === 'figure');
      },
      { timeout: 30_000 },
    )
    .toEqual(['video', 'video']);
  await page.goto(`${base()}/articles/${article}`);
  await expect(page.getByText(/^To watch: “/)).toHaveCount(2);
  const order = await page.locator('.page').innerText();
  expect(order.indexOf('To watch')).toBeGreaterThan(order.indexOf('Jars'));
  expect(order.lastIndexOf('To watch')).toBeGreaterThan(order.indexOf('Lids'));

  // As readers get it: nothing is asked of the host of a video before somebody opens it.
  const html = await (await page.request.get(`${base()}/api/articles/${article}/text?as=html`)).text();
  const asked: string[] = [];
  page.on('request', (request) => asked.push(request.url()));
  await page.goto('about:blank');
  await page.setContent(html);
  await expect(page.locator('summary')).toHaveCount(2);
  await page.waitForTimeout(500);
  expect(asked.filter((url) => url.startsWith(host))).toEqual([]);
  await page.locator('summary').first().click();
  await expect.poll(() => asked.filter((url) => /\/player$/.test(url)).length).toBe(1);
});

test('the still of a film is the lead picture, chosen in the sentence of the step, with its credit', async ({
  page,
}) => {
  const { services } = await ask<{ services: { role: string; address: string }[] }>(page, 'get', '/services');
  const host = services.find(({ role }) => role === 'video host')!.address.replace(/\/find$/, '');
  const film = `${host}/watch/salt-by-weight`;
  const { id: source } = await ask<{ id: string }>(page, 'post', '/sources', {
    name: 'One film',
    settings: { kind: 'requests' },
  });
  await ask(page, 'post', `/sources/${source}/requests`, { subject: 'salt by weight', notes: 'Salt.', link: film });
  const { id: pipeline } = await ask<{ id: string }>(page, 'post', '/pipelines', {
    name: 'A film with its still',
    document: {
      grivo: 1,
      language: 'en',
      steps: [
        { id: 's1', kind: 'take', sources: [source], most: null, everyMinutes: null, atOnce: null, apartMinutes: 0 },
        { id: 's2', kind: 'read', what: 'the captions', address: '{{ link }}', from: '', to: '' },
        { id: 's3', kind: 'lay out', body: 'Salt is weighed.', title: 'Weighing salt', reads: 'Markdown' },
        { id: 's4', kind: 'illustrate', lead: 'drawn', manner: '', otherwise: 'none' },
      ],
    },
  });
  await page.goto(`${base()}/pipelines/${pipeline}`);
  await page.getByRole('button', { name: /^illustrate, lead: a drawn picture/ }).click();
  await page.getByRole('radio', { name: /the source’s own picture/ }).click();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /Save as version/ }).click();
  await expect(page.getByText('Saved as version 2.')).toBeVisible();
  const { briefs } = await ask<{ briefs: string[] }>(page, 'post', `/pipelines/${pipeline}/take`, {});
  let article = '';
  await expect
    .poll(
      async () => {
        const { articles } = await ask<{ articles: { id: string; brief: string }[] }>(page, 'get', '/articles');
        article = articles.find(({ brief }) => brief === briefs[0])?.id ?? '';
        if (article === '') return [];
        const { document } = await ask<{ document: { body: { type: string; lead?: boolean }[] } }>(
          page,
          'get',
          `/articles/${article}`,
        );
        return document.body.map(({ type, lead }) => [type, lead ?? false]);
      },
      { timeout: 30_000 },
    )
    .toEqual([
      ['figure', true],
      ['paragraph', false],
    ]);
  await page.goto(`${base()}/articles/${article}`);
  const still = page.getByRole('img', { name: /^Still of “/ });
  await expect(still).toBeVisible();
  expect(await still.evaluate((image) => (image as HTMLImageElement).naturalWidth)).toBeGreaterThan(100);
  await expect(page.getByText('Crockhaven Bench', { exact: true })).toBeVisible();
  const html = await (await page.request.get(`${base()}/api/articles/${article}/text?as=html`)).text();
  expect(html).toContain(`<a href="${film}">Crockhaven Bench</a>`);
});
