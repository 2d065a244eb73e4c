import { expect, type Page, test } from '@playwright/test';
import { faultsOf } from './ground/access.ts';
import { address, asking, signedIn } from './ground/desk.ts';

const base = () => address('WEEK');
const ask = asking(base);
test.beforeEach(({ page }) => signedIn(page, base()));

interface Listed {
  id: string;
  title: string;
  standing: string;
  address: string | null;
}
const articles = async (page: Page) => (await ask<{ articles: Listed[] }>(page, 'get', '/articles?limit=200')).articles;

/** Articles of a text each, out on a blog at once. */
async function out(
  page: Page,
  blog: string,
  name: string,
  texts: Record<string, string>,
  more: object[] = [],
): Promise<Listed[]> {
  const { id: source } = await ask<{ id: string }>(page, 'post', '/sources', { name, settings: { kind: 'requests' } });
  for (const [subject, notes] of Object.entries(texts))
    await ask(page, 'post', `/sources/${source}/requests`, { subject, notes });
  const document = {
    grivo: 1,
    language: 'en',
    steps: [
      { id: 's1', kind: 'take', sources: [source], most: null, everyMinutes: null, atOnce: null, apartMinutes: 0 },
      { id: 's2', kind: 'lay out', title: '{{ subject }}', body: '{{ text }}', reads: 'Markdown' },
      ...more,
      { id: 's9', kind: 'publish', blog, when: 'at once', as: 'live' },
    ],
  };
  const { id: pipeline } = await ask<{ id: string }>(page, 'post', '/pipelines', { name, document });
  await ask(page, 'post', `/pipelines/${pipeline}/take`, {});
  const made = async () => (await articles(page)).filter(({ title, standing }) => title in texts && standing === 'out');
  await expect.poll(async () => (await made()).length, { timeout: 90_000 }).toBe(Object.keys(texts).length);
  return made();
}
const live = async (page: Page, { id }: Listed): Promise<string> => {
  const { publications } = await ask<{ publications: { address: string }[] }>(page, 'get', `/articles/${id}`);
  return (await page.request.get(publications[0]!.address)).text();
};

test('a dead link is found, and mended in ten articles and on the blog by one press', async ({ page }) => {
  const { blogs } = await ask<{ blogs: { id: string; name: string }[] }>(page, 'get', '/blogs');
  const blog = blogs[0]!;
  const { web } = await ask<{ web?: string; blogs: { address: string }[] }>(page, 'get', '/stand-ins').then(
    ({ blogs: all }) => ({ web: new URL(all[0]!.address).origin }),
  );
  const dead = `${web}/partner/northquay/NO-1`;
  const there = `${web}/pages/cellar-notes/which-salt`;
  const texts = Object.fromEntries(
    Array.from({ length: 10 }, (_, i) => [
      `Varnish number ${i + 1}`,
      `Coat ${i + 1} is thin. It dries by [the table of oils](${dead}) in ${i + 3} days.`,
    ]),
  );
  const made = await out(page, blog.id, 'Varnish by the day', texts);

  await page.goto(`${base()}/blogs/${blog.id}`);
  await page.getByRole('link', { name: 'Links', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Dead links' })).toBeVisible();
  const line = page.getByRole('listitem').filter({ hasText: 'NO-1' });
  await expect(line).toBeVisible({ timeout: 90_000 });
  await expect(line).toContainText('is not there, since');
  await line.getByRole('button', { name: /in 10 articles/ }).click();
  await expect(line.getByRole('link', { name: 'Varnish number 7' })).toBeVisible();
  expect(await faultsOf(page)).toEqual([]);

  await line.getByRole('button', { name: /^What takes its place/ }).click();
  const box = page.getByRole('dialog').getByRole('textbox');
  await box.fill('somewhere else');
  await expect(page.getByText(/That is no web address/)).toBeVisible();
  await box.fill(there);
  await page.keyboard.press('Control+Enter');
  await line.getByRole('button', { name: 'Mend' }).click();
  await expect(page.getByText('10 articles changed, here and on the blog.')).toBeVisible({ timeout: 60_000 });
  await expect(line).toHaveCount(0);
  for (const one of made) {
    const text = await live(page, one);
    expect(text).toContain(there);
    expect(text).not.toContain(dead);
  }
});

test('a rule is made, tried on an article, and links the next one; an older article leads forward to it', async ({
  page,
}) => {
  const { blogs } = await ask<{ blogs: { id: string }[] }>(page, 'get', '/blogs');
  const blog = blogs[0]!.id;
  const [old] = await out(page, blog, 'Old varnish', {
    'A cupboard of tins': 'The tins stand in rows. Ours began when amber varnish was dear, and none was thrown away.',
  });
  await page.goto(`${base()}/blogs/${blog}/links`);
  await page.getByLabel('Words', { exact: true }).fill('linseed oil');
  await page.getByLabel('Lead to').fill('https://oils.example/linseed');
  await page.getByRole('button', { name: 'Add a rule' }).click();
  await page.getByRole('button', { name: /^Links an article: once/ }).click();
  await page.getByRole('dialog').getByRole('textbox', { name: 'links an article, typed' }).fill('2');
  await page.getByRole('button', { name: 'Set it' }).click();
  await expect(page.getByRole('button', { name: /^Links an article: twice/ })).toBeVisible();
  await page.reload();
  await expect(page.getByRole('row', { name: /linseed oil/ })).toContainText('twice');

  const [fresh] = await out(
    page,
    blog,
    'New varnish',
    { 'Amber varnish': '## Linseed oil\n\nBoil linseed oil slowly. Cold linseed oil drags. Old linseed oil skins.' },
    [{ id: 's3', kind: 'link', own: 0, blog }],
  );
  expect((await live(page, fresh!)).match(/href="https:\/\/oils\.example\/linseed"/g)).toHaveLength(2);
  await page.goto(`${base()}/blogs/${blog}/links`);
  await expect(page.getByText('2 links placed, 2 words left alone')).toBeVisible();
  await expect(page.getByText('in a heading, left alone')).toBeVisible();
  await page.getByRole('button', { name: 'Link: A cupboard of tins to Amber varnish' }).click();
  await expect(page.getByText('1 article changed, here and on the blog.')).toBeVisible({ timeout: 30_000 });
  const { publications } = await ask<{ publications: { address: string }[] }>(page, 'get', `/articles/${fresh!.id}`);
  expect(await live(page, old!)).toContain(publications[0]!.address);

  await page.getByRole('button', { name: 'linseed oil' }).click();
  await page.getByRole('button', { name: /^Remove this rule/ }).click();
  await expect(page.getByRole('row', { name: /linseed oil/ })).toHaveCount(0);
});

test('links are counted when it is said, through a browser and not through a bot, and are plain again by one press', async ({
  page,
  context,
}) => {
  const { blogs } = await ask<{ blogs: { id: string; name: string }[] }>(page, 'get', '/blogs');
  const { id: blog, name } = blogs[0]!;
  const gut = 'https://gut.example/strings?gauge=12';
  const [article] = await out(page, blog, 'Strings', { 'Plain gut': `Ask [the maker](${gut}) for a length of it.` });
  expect(await live(page, article!)).not.toContain('/go/');
  await page.goto(`${base()}/blogs/${blog}/links`);
  await expect(page.getByText(`Links that lead out of ${name} are`)).toBeVisible();
  await page.getByRole('button', { name: /Whether links are counted/ }).click();
  await page.getByText('counted when they are followed', { exact: true }).click();
  await expect.poll(() => live(page, article!), { timeout: 90_000 }).toContain('/go/');
  await expect(page.getByText(/still to be brought to this/)).toHaveCount(0, { timeout: 90_000 });
  await expect(page.getByText(/Nobody has followed one yet/)).toBeVisible();

  // A reader of the blog presses it; where it leads is nowhere in this world, so the browser's way there is watched.
  const { publications } = await ask<{ publications: { address: string }[] }>(page, 'get', `/articles/${article!.id}`);
  const reader = await context.browser()!.newContext({
    userAgent: 'Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/140.0.0.0 Safari/537.36',
  });
  const there = await reader.newPage();
  await there.route('https://gut.example/**', (route) => route.fulfill({ body: 'Strings' }));
  await there.goto(publications[0]!.address);
  const link = there.getByRole('link', { name: 'the maker' });
  const counted = (await link.getAttribute('href'))!;
  await link.click();
  await expect(there).toHaveURL(gut);
  expect(await reader.cookies()).toEqual([]);
  await reader.close();
  const bot = await page.request.get(counted, { headers: { 'user-agent': 'LinkBot/1.0' }, maxRedirects: 0 });
  expect([bot.status(), bot.headers()['location']]).toEqual([302, gut]);
  await page.reload();
  await expect(page.getByText('1 time in 30 days')).toBeVisible();
  await expect(page.getByRole('link', { name: 'Plain gut' })).toBeVisible();
  expect(await faultsOf(page)).toEqual([]);

  await page.getByRole('button', { name: /Whether links are counted/ }).click();
  await page.getByText('not counted', { exact: true }).last().click();
  await expect.poll(() => live(page, article!), { timeout: 90_000 }).not.toContain('/go/');
  await expect(page.getByText('1 time in 30 days')).toBeVisible();
  await expect(page.getByText(/still to be brought to this/)).toHaveCount(0, { timeout: 90_000 });
});

test('no link to a page of ours stands on a scrap of words, in any article of the demonstration', async ({ page }) => {
  const small =
    /^(?:a|an|the|of|for|in|on|with|and|or|to|is|are|was|it|that|der|die|das|des|dem|den|und|im|am|ein|eine|mit|von)$/i;
  const { blogs } = await ask<{ blogs: { address: string }[] }>(page, 'get', '/blogs');
  const isOurs = (link: { to: string; address?: string }) =>
    link.to === 'article' || blogs.some(({ address }) => link.address?.startsWith(address));
  let seen = 0;
  for (const { id } of await articles(page)) {
    const { document } = await ask<{ document: { body: object[] } }>(page, 'get', `/articles/${id}`);
    const texts = document.body.flatMap((block) => {
      const content = (
        block as { content?: { text: string; link?: { to: string; address?: string; sponsored?: boolean } }[] }
      ).content;
      return (block as { type: string }).type === 'paragraph' && content ? [content] : [];
    });
    for (const content of texts)
      for (const [i, { text, link }] of content.entries()) {
        if (!link || link.sponsored || !isOurs(link)) continue;
        seen++;
        const words = text.split(/\s+/);
        expect(words[0], text).not.toMatch(small);
        expect(words.at(-1), text).not.toMatch(small);
        expect(text, 'one phrase').not.toMatch(/[.;:!?]/);
        expect(content[i - 1]?.text ?? ' ', `before ${text}`).not.toMatch(/[\p{L}\p{N}-]$/u);
        expect(content[i + 1]?.text ?? ' ', `behind ${text}`).not.toMatch(/^[\p{L}\p{N}-]/u);
      }
  }
  expect(seen).toBeGreaterThan(3);
});
