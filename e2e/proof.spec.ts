import { expect, type Page, test } from '@playwright/test';
import { faultsOf } from './ground/access.ts';
import { address, asking, killServer, signedIn } from './ground/desk.ts';

const base = () => address('WEEK');
const ask = asking(base);

test.beforeEach(async ({ page }) => signedIn(page, base()));

interface Line {
  id: string;
  title: string;
  standing: string;
}

/** Articles laid out of texts of one's own, one for each subject; held for a look, or published at once. */
async function articles(page: Page, subjects: string[], { hold = false, when = 'at once' } = {}): Promise<Line[]> {
  const { blogs } = await ask<{ blogs: { id: string }[] }>(page, 'get', '/blogs');
  const name = `Proof of ${subjects[0]}`;
  const { id: source } = await ask<{ id: string }>(page, 'post', '/sources', { name });
  await ask(page, 'post', `/sources/${source}/keywords`, { paste: subjects.join('\n') });
  const body = '{{ subject }} wants a soft bow.\n\n## Rosin\n\nDraw it over the hair twice. Less is more.';
  const steps = [
    { id: 's1', kind: 'take', sources: [source], most: null, everyMinutes: null, atOnce: null, apartMinutes: 0 },
    { id: 's2', kind: 'lay out', body, title: '{{ subject }}', reads: 'Markdown' },
    ...(hold ? [{ id: 's3', kind: 'hold', for: 'me', note: 'Is it right' }] : []),
    { id: 's4', kind: 'publish', blog: blogs[0]!.id, when, as: 'live' },
  ];
  const document = { grivo: 1, language: 'en', steps };
  const { id } = await ask<{ id: string }>(page, 'post', '/pipelines', { name, document });
  await ask(page, 'post', `/pipelines/${id}/take`, {});
  const made = async () =>
    (await ask<{ articles: Line[] }>(page, 'get', '/articles?limit=50')).articles.filter(({ title }) =>
      subjects.some((subject) => title.toLowerCase() === subject),
    );
  const standing = hold ? 'held' : when === 'at once' ? 'out' : 'ready';
  await expect
    .poll(async () => (await made()).filter((one) => one.standing === standing).length, { timeout: 40_000 })
    .toBe(subjects.length);
  return made();
}

/** What the server holds of an article. */
async function textOf(page: Page, id: string): Promise<string> {
  return (await page.request.get(`${base()}/api/articles/${id}/text?as=markdown`)).text();
}

const editor = (page: Page) => page.getByRole('textbox', { name: 'The text of the article' });

async function editing(page: Page, id: string): Promise<void> {
  await page.goto(`${base()}/articles/${id}`);
  await expect(page.getByRole('heading', { level: 1 }).first()).toBeVisible();
  await page.keyboard.press('e');
  await expect(editor(page)).toBeFocused();
}

test('an article is made right by keyboard alone: every kind of block, a link, words found and replaced, all undone', async ({
  page,
}) => {
  const [article] = await articles(page, ['a viola for beginners'], { when: 'next free slot' });
  await editing(page, article!.id);
  await page.keyboard.press('Control+End');
  await page.keyboard.press('Enter');
  await page.keyboard.type('### Strings');
  await page.keyboard.press('Enter');
  await page.keyboard.type('- Gut answers sooner');
  await page.keyboard.press('Enter');
  await page.keyboard.type('Steel lasts');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Enter');
  await page.keyboard.type('> Play slowly');
  await page.keyboard.press('Enter');
  await page.keyboard.type('An old teacher');
  await page.keyboard.press('Enter');
  await page.keyboard.type('Prices stand in the ');
  await page.keyboard.press('Control+b');
  await page.keyboard.type('list');
  await page.keyboard.press('Control+b');
  await page.keyboard.type(' of the shop');
  await page.keyboard.press('Control+Shift+ArrowLeft');
  await page.keyboard.press('Control+k');
  await page.keyboard.type('strings.example/prices');
  await page.keyboard.press('Enter');
  await expect(editor(page)).toBeFocused();
  await page.keyboard.press('Control+End');
  for (const [item, typed] of [
    ['Table', 'String'],
    ['Question and answer', 'Which first?'],
    ['Key points', 'Less is more'],
  ] as const) {
    await page.getByRole('button', { name: 'Put in…' }).focus();
    await page.keyboard.press('Enter');
    await page.getByRole('menuitem', { name: item }).focus();
    await page.keyboard.press('Enter');
    await page.keyboard.type(typed);
    if (item === 'Table') {
      await page.keyboard.press('Tab');
      await page.keyboard.type('Kilos');
    } else if (item === 'Question and answer') {
      await page.keyboard.press('Enter');
      await page.keyboard.type('Gut, if you can.');
    }
  }
  expect(await faultsOf(page)).toEqual([]);
  await page.keyboard.press('Control+f');
  await page.getByLabel('Find', { exact: true }).fill('bow');
  await expect(page.getByText('1 found')).toBeVisible();
  await page.getByLabel('put instead').fill('bow of horsehair');
  await page.getByRole('button', { name: 'All of them' }).press('Enter');
  await page.keyboard.press('Escape');
  await expect(page.getByText('everything is kept')).toBeVisible();
  const text = await textOf(page, article!.id);
  for (const part of [
    'wants a soft bow of horsehair.',
    '### Strings',
    '- Gut answers sooner\n- Steel lasts',
    '> Play slowly',
    'An old teacher',
    '**list**',
    '[shop](https://strings.example/prices)',
    '| Kilos',
    'Which first?',
    'Gut, if you can.',
    'Less is more',
  ])
    expect(text).toContain(part);
  await expect(editor(page)).toBeFocused();
  for (let i = 0; i < 120; i++) await page.keyboard.press('Control+z');
  await expect(page.getByText('everything is kept')).toBeVisible();
  await expect
    .poll(async () => (await textOf(page, article!.id)).split('---\n').at(-1)!.trim())
    .toBe('a viola for beginners wants a soft bow.\n\n## Rosin\n\nDraw it over the hair twice. Less is more.');
});

test('what is typed outlives a cut connection and a closed tab, and is on the server once it answers', async ({
  page,
  context,
}) => {
  const [article] = await articles(page, ['a cello in winter'], { when: 'next free slot' });
  await editing(page, article!.id);
  await page.route('**/api/articles/*/document', (route) => route.abort());
  await page.keyboard.press('Control+End');
  await page.keyboard.type(' Keep it from the stove.');
  await expect(page.getByText(/Kept in this browser only/)).toBeVisible();
  await page.close({ runBeforeUnload: false });
  const other = await context.newPage();
  expect(await textOf(other, article!.id)).not.toContain('stove');
  // It goes on where it was left, by itself.
  await other.goto(`${base()}/articles/${article!.id}`);
  await expect(editor(other)).toContainText('Keep it from the stove.');
  await expect.poll(() => textOf(other, article!.id)).toContain('Keep it from the stove.');
  await expect(other.getByText('everything is kept')).toBeVisible();
  await other.keyboard.press('Escape');
  await expect(other.getByRole('button', { name: /^Edit/ })).toBeVisible();
  await expect(other.getByText('Keep it from the stove.')).toBeVisible();
});

test('half a minute without a line and a server that dies take nothing of what is typed', async ({ page, context }) => {
  test.setTimeout(180_000);
  const [article] = await articles(page, ['a bass viol on the road'], { when: 'next free slot' });
  await editing(page, article!.id);
  await page.keyboard.press('Control+End');
  await context.setOffline(true);
  const typed: string[] = [];
  for (let n = 1; n <= 6; n++) {
    typed.push(`Stop ${n} is for the strings.`);
    await page.keyboard.type(` ${typed.at(-1)}`, { delay: 20 });
    await page.waitForTimeout(5_000);
  }
  await expect(page.getByText(/Kept in this browser only/)).toBeVisible();
  killServer();
  await context.setOffline(false);
  typed.push('The case is of ash.');
  await page.keyboard.type(` ${typed.at(-1)}`);
  await expect(page.getByText('everything is kept')).toBeVisible({ timeout: 60_000 });
  const there = await textOf(page, article!.id);
  for (const sentence of typed) expect(there).toContain(sentence);
  // In the order it was typed in, each once.
  const places = typed.map((sentence) => there.indexOf(sentence));
  expect([...places].sort((a, b) => a - b)).toEqual(places);
  expect(there.split('for the strings').length - 1).toBe(6);
});

test('two who edit at once see each other’s words and lose none; where both changed the same words both stand', async ({
  page,
  context,
}) => {
  const [article] = await articles(page, ['a double bass on stairs'], { when: 'next free slot' });
  const other = await context.newPage();
  await editing(page, article!.id);
  await editing(other, article!.id);
  const first = (one: Page) => editor(one).locator('> p').first();
  await first(page).click();
  await page.keyboard.press('End');
  await page.keyboard.type(' Two carry it.');
  await expect(first(other)).toContainText('Two carry it.');
  // Both at the same moment, in one paragraph and in another.
  await page.route('**/api/articles/*/document', async (route) => {
    await new Promise((resolve) => setTimeout(resolve, 1_500));
    await route.continue();
  });
  await first(other).click();
  await other.keyboard.press('Home');
  await first(page).click();
  await page.keyboard.press('End');
  await Promise.all([other.keyboard.type('Mind: '), page.keyboard.type(' One leads.')]);
  await other.keyboard.press('Control+End');
  await other.keyboard.type(' No stairs without a rail.');
  for (const one of [page, other]) {
    await expect(first(one)).toContainText('Mind:');
    await expect(first(one)).toContainText('One leads.');
    await expect(editor(one)).toContainText('No stairs without a rail.');
  }
  const text = await textOf(page, article!.id);
  for (const words of ['Mind:', 'Two carry it.', 'One leads.', 'No stairs without a rail.'])
    expect(text).toContain(words);
});

test('what is held is looked over by one key each, changed where it reads wrong, and goes out as it was decided', async ({
  page,
}) => {
  const subjects = [
    'a fiddle with four pegs',
    'a fiddle with five pegs',
    'a fiddle with six pegs',
    'a fiddle with ten pegs',
  ];
  const held = await articles(page, subjects, { hold: true });
  const of = async (title: string) =>
    (await ask<{ articles: Line[] }>(page, 'get', '/articles?limit=50')).articles.find((one) => one.title === title)!;
  await page.goto(`${base()}/articles`);
  await page.getByRole('link', { name: /^Look over the/ }).click();
  const decided: string[] = [];
  for (const key of ['p', 'x', 'b', 'e']) {
    await expect(page.getByRole('region', { name: 'Your word on it' })).toBeVisible();
    // Others wait there too; ours are the ones that are decided.
    for (;;) {
      await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
      const title = await page.getByRole('heading', { level: 1 }).innerText();
      if (subjects.includes(title.toLowerCase()) && !decided.includes(title)) {
        decided.push(title);
        break;
      }
      const next = held.find((one) => !decided.includes(one.title))!;
      await page.goto(`${base()}/articles/${next.id}?held`);
    }
    if (key === 'b') {
      await page.keyboard.press('b');
      await page.getByLabel('What is to be done differently').fill('With one picture');
      await page.keyboard.press('Enter');
    } else if (key === 'e') {
      await page.keyboard.press('e');
      await expect(editor(page)).toBeFocused();
      await page.keyboard.press('Control+End');
      await page.keyboard.type(' Tune it daily.');
      await page.getByRole('button', { name: /^Pass it/ }).click();
    } else await page.keyboard.press(key);
    await expect(page.getByRole('heading', { level: 1, name: decided.at(-1)!, exact: true })).toBeHidden();
  }
  await expect.poll(async () => (await of(decided[0]!)).standing).toBe('out');
  await expect.poll(async () => (await of(decided[1]!)).standing).toBe('set aside');
  await expect.poll(async () => (await of(decided[3]!)).standing).toBe('out');
  const last = await of(decided[3]!);
  expect(await textOf(page, last.id)).toContain('Tune it daily.');
});

test('what is out is changed, brought to the blog, compared, brought back, taken away and put there again', async ({
  page,
}) => {
  const [article] = await articles(page, ['a bow that needs hair']);
  const post = async () => {
    const { address: at } = await ask<{ address: string }>(page, 'get', `/articles/${article!.id}`);
    const answer = await page.request.get(at);
    return answer.ok() ? answer.text() : `none: ${answer.status()}`;
  };
  await editing(page, article!.id);
  await page.keyboard.press('Control+End');
  await page.keyboard.type(' Once a year will do.');
  await expect(page.getByText('everything is kept')).toBeVisible();
  await page.keyboard.press('Escape');
  const blogs = page.getByRole('region', { name: 'On blogs' });
  await expect(blogs).toContainText('as it was before it was changed here');
  expect(await post()).not.toContain('Once a year');
  await blogs.getByRole('button', { name: 'Bring the newest text there' }).click();
  await expect(blogs.getByRole('button', { name: 'Bring the newest text there' })).toBeHidden();
  await expect.poll(post).toContain('Once a year will do.');
  expect(await faultsOf(page)).toEqual([]);

  await page.getByRole('button', { name: 'Revisions', exact: true }).click();
  await expect(page.getByText('1 place changed', { exact: false })).toBeVisible();
  await expect(page.locator('ins')).toContainText('Once a year will do.');
  expect(await faultsOf(page)).toEqual([]);
  await page
    .getByRole('list', { name: 'Revisions' })
    .getByRole('button', { name: /the step ‘lay out’/ })
    .click();
  await page.getByRole('button', { name: 'Bring this one back' }).click();
  await expect(blogs).toContainText('as it was before it was changed here');
  expect(await textOf(page, article!.id)).not.toContain('Once a year');

  await blogs.getByRole('button', { name: 'Take it from the blog…' }).click();
  await page.getByRole('button', { name: 'Take it away' }).click();
  await expect(blogs).toContainText('taken back');
  expect(await post()).toMatch(/^none/);
  await blogs.getByRole('button', { name: 'Publish it there again' }).click();
  await expect(blogs).toContainText('out since');
  await expect.poll(post).toContain('wants a soft bow.');
});

test('an article of one’s own is begun, written on its page, passed and given a slot', async ({ page }) => {
  await page.goto(`${base()}/articles`);
  await page.getByRole('button', { name: 'Write one yourself…' }).click();
  expect(await faultsOf(page)).toEqual([]);
  await page.getByLabel('Title', { exact: true }).fill('Rosin, dark or light');
  await page.getByLabel(/^Its first words/).fill('Dark rosin is soft.\n\n## Light\n\nLight rosin is hard.');
  await page.getByRole('button', { name: 'Begin' }).click();
  await expect(editor(page)).toBeFocused();
  await expect(editor(page)).toContainText('Light rosin is hard.');
  await page.keyboard.press('Control+End');
  await page.keyboard.type(' Summer asks for it.');
  await page.getByRole('button', { name: 'Pass it' }).click();
  await expect(page.getByRole('region', { name: 'Your word on it' })).toBeHidden();
  const { articles: all } = await ask<{ articles: Line[] }>(page, 'get', '/articles?limit=50');
  const own = all.find(({ title }) => title === 'Rosin, dark or light')!;
  await expect
    .poll(async () => (await ask<{ standing: string }>(page, 'get', `/articles/${own.id}`)).standing)
    .toBe('ready');
  expect(await textOf(page, own.id)).toContain('Summer asks for it.');
});

test('a paragraph, some words and a title are written anew with a note, set beside what was there, kept and undone', async ({
  page,
}) => {
  const { articles: all } = await ask<{ articles: (Line & { language: string; words: number })[] }>(
    page,
    'get',
    '/articles?standing=ready&limit=200',
  );
  const article = all.find(({ language, words }) => language === 'en' && words > 400)!;
  await editing(page, article.id);
  // The longest: what has one thing to say cannot be said shorter.
  const lengths = (await editor(page).locator('> p').allInnerTexts()).map((text) => text.length);
  const paragraph = editor(page)
    .locator('> p')
    .nth(lengths.indexOf(Math.max(...lengths)));
  const before = await paragraph.innerText();
  await paragraph.click();
  await page.keyboard.press('Alt+r');
  await page.keyboard.type('shorter by a third');
  await expect(page.getByText(/^about 0\.\d+ €$/)).toBeVisible();
  // A writer that takes its time: what it has written stands beside the old one before it is whole.
  const { services } = await ask<{ services: { address: string }[] }>(page, 'get', '/stand-ins');
  await page.request.post(`${new URL(services[0]!.address).origin}/control/trouble`, {
    data: { at: 'writer', trouble: { how: 'slowly', ms: 700 }, times: 1, holding: 'shorter by a third' },
  });
  await page.keyboard.press('Enter');
  const soFar = page.getByRole('region', { name: 'Being written anew' }).locator('p').nth(1);
  await expect(soFar).toHaveText(/\p{L}{3}.*\p{L}{3}/u, { timeout: 30_000 });
  const first = await soFar.innerText();
  const written = page.getByRole('region', { name: 'Written anew' });
  await expect(written).toBeVisible({ timeout: 30_000 });
  const whole = await written.locator('p').nth(1).innerText();
  expect(whole.startsWith(first)).toBe(true);
  expect(await faultsOf(page)).toEqual([]);
  await written.getByRole('button', { name: 'Keep it' }).click();
  await expect(editor(page)).toBeFocused();
  await expect(paragraph).not.toHaveText(before);
  expect((await paragraph.innerText()).length).toBeLessThan(before.length);
  await page.keyboard.press('Control+z');
  await expect(paragraph).toHaveText(before);
  // Some words of it alone: the rest stays letter by letter.
  await paragraph.evaluate((element) => {
    const text = document.createTreeWalker(element, NodeFilter.SHOW_TEXT).nextNode()!;
    getSelection()!.setBaseAndExtent(text, 0, text, Math.min(40, text.textContent!.length - 1));
  });
  await page.keyboard.press('Alt+r');
  await expect(page.getByRole('button', { name: 'What: the words picked' })).toBeVisible();
  await page.keyboard.type('plainer words');
  await page.keyboard.press('Enter');
  await expect(written).toBeVisible({ timeout: 30_000 });
  await written.getByRole('button', { name: 'Keep it' }).click();
  await expect(paragraph).not.toHaveText(before);
  expect((await paragraph.innerText()).endsWith(before.slice(41))).toBe(true);
  await page.keyboard.press('Control+z');
  await expect(paragraph).toHaveText(before);
  // Another title, as it was asked for.
  const title = page.getByRole('textbox', { name: 'Title', exact: true });
  const was = await title.inputValue();
  await page.getByRole('button', { name: 'Write other titles…' }).click();
  await page.getByLabel('What titles you want').fill('as a question');
  await expect(page.getByText(/^about 0\.\d+ €$/)).toBeVisible();
  await page.keyboard.press('Enter');
  const titles = page.getByRole('list', { name: 'Titles written' }).getByRole('button');
  await expect(titles.first()).toBeVisible({ timeout: 30_000 });
  expect(await faultsOf(page)).toEqual([]);
  const other = (await titles.allInnerTexts()).findIndex((text) => text !== was);
  await titles.nth(other).click();
  await expect(title).not.toHaveValue(was);
  await expect(page.getByText('everything is kept')).toBeVisible();
});

test('what no source says is marked while it is typed, a figure ringed, answered for with a reason, and no mark any more', async ({
  page,
}) => {
  const { articles: all } = await ask<{ articles: (Line & { language: string; words: number })[] }>(
    page,
    'get',
    '/articles?standing=ready&limit=200',
  );
  const article = all.filter(({ language, words }) => language === 'en' && words > 400).at(-1)!;
  await editing(page, article.id);
  const paragraph = editor(page).locator('> p').first();
  await paragraph.click();
  await paragraph.evaluate((element) => {
    getSelection()!.selectAllChildren(element);
    getSelection()!.collapseToEnd();
  });
  const measures = page.getByRole('complementary', { name: 'Measures' });
  // A sentence on something else altogether, told as such and taken back.
  const strange = 'Penguins nest beside melting glaciers.';
  const told = measures.getByRole('button', { name: `its sources say nothing like ‘${strange}’` });
  await page.keyboard.type(` ${strange}`);
  await expect(told).toBeVisible();
  await expect(paragraph.locator('.doubted').last()).toHaveText(strange);
  await expect(
    measures.getByText(/^\d+ of \d+ sentences says? nothing like what (?:it rests|they rest) on$/),
  ).toBeVisible();
  for (let i = 0; i < strange.length + 1; i++) await page.keyboard.press('Backspace');
  await expect(told).toBeHidden();
  await page.keyboard.type(' Ours took 97 days.');
  await expect(paragraph.locator('.ring')).toHaveText('97 days');
  await expect(measures.getByRole('button', { name: '‘97 days’ stands in no source' })).toBeVisible();
  await page
    .locator('[data-n]')
    .filter({ hasText: '97 days' })
    .getByRole('button', { name: 'answer for it…' })
    .last()
    .click();
  await page.getByLabel('Why ‘97 days’ is right').fill('We wrote it on the lid');
  await page.keyboard.press('Enter');
  await expect(paragraph.locator('.ring')).toHaveCount(0);
  await expect(page.getByText('answers for ‘97 days’: We wrote it on the lid')).toBeVisible();
  await expect(page.getByText('everything is kept')).toBeVisible();
  await page.keyboard.press('Escape');
  await page.reload();
  await expect(page.getByText('Ines Halloran answers for ‘97 days’: We wrote it on the lid')).toBeVisible();
  expect(await faultsOf(page)).toEqual([]);
});

test('what somebody says at a paragraph reaches the other’s page, and is done there', async ({ page, context }) => {
  const [article] = await articles(page, ['a fiddle left in the sun'], { when: 'next free slot' });
  const other = await context.newPage();
  await other.goto(`${base()}/articles/${article!.id}`);
  await page.goto(`${base()}/articles/${article!.id}`);
  await page.getByText('wants a soft bow.').click();
  await page.getByRole('button', { name: 'Say something…' }).click();
  await page.getByLabel('What you say of it').fill('Is soft the right word?');
  await page.getByRole('button', { name: 'Say it' }).click();
  await expect(page.getByText('Is soft the right word?')).toBeVisible();
  expect(await faultsOf(page)).toEqual([]);
  await expect(other.getByText('Is soft the right word?')).toBeVisible();
  await other.getByRole('button', { name: 'done', exact: true }).click();
  await expect(other.getByText('Is soft the right word?')).toBeHidden();
});
