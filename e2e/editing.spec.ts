import { expect, type Locator, type Page, test } from '@playwright/test';
import { address, ownCopy, signedIn, tabTo } from './ground/desk.ts';

const base = () => address('WEEK');

test.beforeEach(async ({ page }) => {
  await signedIn(page, base());
  await page.setViewportSize({ width: 1280, height: 900 });
});

interface Step {
  id: string;
  kind: string;
  steps?: Step[];
  holds?: Step[];
  otherwise?: Step[];
  [word: string]: unknown;
}

/** The saved procedure as an outline of its kinds. */
async function saved(page: Page): Promise<string> {
  const id = /pipelines\/([^?/]+)/.exec(page.url())![1];
  const { document } = (await (await page.request.get(`${base()}/api/pipelines/${id}`)).json()) as {
    document: { steps: Step[] };
  };
  const words = (steps: Step[]): string =>
    steps
      .map(({ kind, steps, holds, otherwise }) =>
        holds ? `${kind}[${words(holds)} | ${words(otherwise ?? [])}]` : steps ? `${kind}[${words(steps)}]` : kind,
      )
      .join(', ');
  return words(document.steps);
}

const WANTED =
  'take, look up, judge, outline, write, title, when[illustrate | illustrate], link, check, meanwhile[vary], for each[translate, publish], publish';

const line = (page: Page, key: string | RegExp): Locator => page.getByRole('button', { name: key });
/** A step's number, by its kind. */
const step = (page: Page, kind: string): Locator => line(page, new RegExp(`^Line \\d+, ${kind}$`));
const linesShown = (page: Page) => page.locator('[data-line]').evaluateAll((all) => all.map((one) => one.ariaLabel));

test('a procedure with blocks is made from nothing by keyboard alone', async ({ page }) => {
  await page.goto(`${base()}/pipelines`);
  await page.waitForLoadState('networkidle');
  const press = async (...keys: string[]) => {
    for (const key of keys) await page.keyboard.press(key);
  };
  const focused = () => page.evaluate(() => document.activeElement?.getAttribute('aria-label') ?? '');
  await tabTo(page, page.getByRole('button', { name: 'Make a pipeline' }));
  await press('Enter');
  const begin = page.getByRole('button', { name: /What the new pipeline begins with/ });
  await begin.waitFor();
  // Back past the words for the blog it goes to and the source that feeds it.
  await page.getByLabel('Its name').press('Shift+Tab');
  for (let n = 0; n < 3 && (await focused()).startsWith('What the new') === false; n++) await press('Shift+Tab');
  await expect(begin).toBeFocused();
  await press('Enter');
  const nothing = page.getByRole('radio', { name: /nothing yet/ });
  await nothing.waitFor();
  await tabTo(page, nothing);
  await press('Enter');
  await tabTo(page, page.getByLabel('Its name'));
  await page.keyboard.type('Made by keys');
  await press('Enter');
  await page.waitForURL(/\/pipelines\/[^?]+$/);
  await tabTo(page, line(page, 'Line 1, take'));
  let at = 1;
  const add = async (kind: string, key = 'a') => {
    await press(key);
    await page.getByRole('listbox', { name: 'Kinds of steps' }).waitFor();
    await page.keyboard.type(kind);
    await press('Enter');
    await expect.poll(focused).toBe(`Line ${++at}, ${kind}`);
  };
  for (const kind of ['look up', 'judge', 'outline', 'write', 'title', 'when']) await add(kind, 'Enter');
  await press('ArrowDown');
  await expect.poll(focused).toBe('Empty, no step yet');
  await add('illustrate');
  await press('ArrowDown');
  await expect.poll(focused).toBe('Empty, otherwise');
  await add('illustrate');
  // Out of the branch, on as a step of the procedure.
  await add('link');
  await press('Alt+ArrowLeft');
  await add('check');
  // One written first and put into its block after.
  await add('vary');
  await press('b');
  await page.getByRole('listbox', { name: 'Kinds of steps' }).waitFor();
  await page.keyboard.type('mean');
  await press('Enter');
  await expect.poll(focused).toBe('Line 12, meanwhile');
  at = 13;
  await add('for each');
  await press('ArrowDown', 'ArrowDown');
  await expect.poll(focused).toMatch(/Empty|vary/);
  while (!(await focused()).startsWith('Empty')) await press('ArrowDown');
  at = 14;
  await add('translate');
  // Two of the same, one made another kind.
  await press('d', 'k');
  await page.getByRole('listbox', { name: 'Kinds of steps' }).waitFor();
  await page.keyboard.type('publish');
  await press('Enter');
  await expect.poll(focused).toBe('Line 16, publish');
  await press('d', 'Alt+ArrowDown');
  await expect.poll(focused).toBe('Line 17, publish');
  // A word of a sentence: down to its editor and back.
  await press('Home', 'ArrowDown', 'ArrowRight', 'Enter');
  const pages = page.getByRole('textbox', { name: 'pages, typed' });
  await tabTo(page, pages);
  await pages.press('Control+a');
  await page.keyboard.type('7');
  await press('Escape');
  await expect(page.getByText('7 pages')).toBeVisible();
  // Taken back all the way, and done again.
  const led = await linesShown(page);
  await press('Escape');
  await tabTo(page, line(page, 'Line 2, look up'), 200);
  for (let i = 0; i < 40; i++) await press('z');
  await expect.poll(() => linesShown(page)).toEqual(['Line 1, take']);
  for (let i = 0; i < 40; i++) await press('Z');
  await expect.poll(() => linesShown(page)).toEqual(led);
  await press('s');
  await expect(page.getByText('Saved as version 2.')).toBeVisible();
  expect(await saved(page)).toBe(WANTED);
});

interface Place {
  x: number;
  y: number;
}

/** Lines stand where they will: what is said of one may come a moment later and moves those below. */
async function still(page: Page): Promise<void> {
  const tops = () =>
    page
      .getByRole('button', { name: /^Line / })
      .evaluateAll((all) => all.map((one) => one.getBoundingClientRect().top));
  await expect
    .poll(async () => {
      const before = await tops();
      await page.waitForTimeout(400);
      return (await tops()).join() === before.join();
    })
    .toBe(true);
}

/** Drags a line by its number to a place on the page, in steps as a hand does. */
async function drag(page: Page, from: Locator, where: () => Promise<Place>): Promise<void> {
  await still(page);
  const to = await where();
  const box = (await from.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(to.x, to.y - 6, { steps: 5 });
  await page.mouse.move(to.x, to.y, { steps: 2 });
  // A hand sees where it would fall before it lets go.
  await page.evaluate(() => new Promise((seen) => requestAnimationFrame(() => requestAnimationFrame(seen))));
  await page.mouse.up();
}

test('the same is made by pointer, steps dragged into their blocks and to their places', async ({ page }) => {
  await page.setViewportSize({ width: 1280, height: 1_700 });
  await page.goto(`${base()}/pipelines`);
  await page.getByRole('button', { name: 'Make a pipeline' }).click();
  await page.getByRole('button', { name: /What the new pipeline begins with/ }).click();
  await page.getByRole('radio', { name: /nothing yet/ }).click();
  await page.getByLabel('Its name').fill('Made by drags');
  await page.getByRole('button', { name: 'Make it' }).click();
  await line(page, 'Line 1, take').waitFor();
  // All in one row first, the last ones in a wrong order.
  const order = ['look up', 'judge', 'outline', 'write', 'title', 'when', 'illustrate', 'link', 'meanwhile', 'check'];
  order.push('for each', 'publish', 'translate', 'vary');
  for (const kind of order) {
    await page.getByRole('button', { name: 'Add a step', exact: true }).click();
    await page.getByRole('combobox', { name: 'Which step?' }).fill(kind);
    await page.getByRole('option').first().click();
  }
  const onto = async (name: string) => {
    const { y, height } = (await line(page, name).first().boundingBox())!;
    return { x: 120, y: y + height / 2 };
  };
  const under = async (kind: string, x = 66) => {
    const { y, height } = (await step(page, kind).boundingBox())!;
    return { x, y: y + height + 6 };
  };
  // Into the empty blocks.
  // Each is measured only once the one before is drawn where it fell.
  for (const [left, kind] of [
    [2, 'illustrate'],
    [1, 'vary'],
    [0, 'translate'],
  ] as const) {
    await drag(page, step(page, kind), () => onto('Empty, no step yet'));
    await expect(line(page, 'Empty, no step yet')).toHaveCount(left);
  }
  // Behind ‘translate’, in its block, which the distance from the left says.
  await step(page, 'publish').click();
  await page.getByRole('menuitem', { name: /Duplicate it/ }).click();
  await expect(page.getByRole('menu')).toHaveCount(0);
  await drag(page, step(page, 'publish').first(), () => under('translate', 90));
  // ‘check’ before the branch that goes on beside it.
  await drag(page, step(page, 'check'), () => under('link'));
  // The other picture by its menu.
  await step(page, 'illustrate').click();
  await page.getByRole('menuitem', { name: /Duplicate it/ }).click();
  await expect(page.getByRole('menu')).toHaveCount(0);
  await drag(page, step(page, 'illustrate').nth(1), () => onto('Empty, otherwise'));
  await page.getByRole('button', { name: /Save as version/ }).click();
  await expect(page.getByText('Saved as version 2.')).toBeVisible();
  expect(await saved(page)).toBe(WANTED);
});

test('a dragged block does not fall into itself, and Esc lets it be where it was', async ({ page }) => {
  await page.goto(`${base()}/pipelines`);
  await page.getByRole('link', { name: 'What readers asked' }).click();
  await step(page, 'when').waitFor();
  const before = await linesShown(page);
  const block = step(page, 'when');
  const inner = (await step(page, 'illustrate').first().boundingBox())!;
  await drag(page, block, async () => ({ x: 120, y: inner.y + inner.height / 2 }));
  expect(await linesShown(page)).toEqual(before);
  const box = (await block.boundingBox())!;
  await page.mouse.move(box.x + 4, box.y + 8);
  await page.mouse.down();
  await page.mouse.move(box.x + 4, box.y - 120, { steps: 5 });
  await expect(page.locator('[data-landing]')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.locator('[data-landing]')).toBeHidden();
  await page.mouse.up();
  expect(await linesShown(page)).toEqual(before);
});

test('without a connection nothing typed is lost: not by a refused save, not by reading the page again', async ({
  page,
  context,
}) => {
  await page.goto(`${base()}/pipelines`);
  await page.getByRole('link', { name: 'What readers asked' }).click();
  await step(page, 'outline').focus();
  await page.keyboard.press('a');
  await page.keyboard.type('notes');
  await page.keyboard.press('Enter');
  await expect(step(page, 'notes')).toBeFocused();
  await context.setOffline(true);
  await page.keyboard.press('s');
  await expect(page.getByRole('alert').first()).toBeVisible();
  await expect(step(page, 'notes')).toBeVisible();
  await context.setOffline(false);
  await page.reload();
  await expect(step(page, 'notes')).toBeVisible();
  await expect(page.getByRole('button', { name: /Save as version/ })).toBeVisible();
  await page.getByRole('button', { name: 'Drop changes' }).click();
  await expect(step(page, 'notes')).toHaveCount(0);
});

test('a procedure goes out as a file and comes in from one; a version is brought back; one pipeline is made once more', async ({
  page,
}) => {
  const id = await ownCopy(page, base(), 'What readers asked', 'Out and in');
  await step(page, 'outline').waitFor();
  const yaml = await (await page.request.get(`${base()}/api/pipelines/${id}/procedure.yaml`)).text();
  const open = (name: string, text: string) =>
    page
      .getByLabel('A YAML file with a procedure')
      .setInputFiles({ name, mimeType: 'application/yaml', buffer: Buffer.from(text) });
  // Broken in two places: both are told with their lines, and nothing is changed.
  await open(
    'broken.yaml',
    yaml
      .replace('kind: outline', 'kind: outlne')
      .replace('kind: notes', 'kind: notes')
      .replace('kind: title', 'kind: tile'),
  );
  await expect(page.getByRole('alert')).toContainText('2 faults; nothing was changed');
  await expect(page.getByText(/line \d+, column \d+/)).toHaveCount(2);
  await page.getByRole('button', { name: 'Close this' }).click();
  await expect(page.getByRole('button', { name: /Save as version/ })).toHaveCount(0);
  await open('large.yaml', 'x'.repeat(1_100_000));
  await expect(page.getByRole('alert')).toContainText('larger than a megabyte');
  await page.getByRole('button', { name: 'Close this' }).click();
  // A changed file comes in as a draft.
  await open('shorter.yaml', yaml.replace(/most: 60/, 'most: 48'));
  await expect(page.getByText('at most 48')).toBeVisible();
  await page.getByRole('button', { name: /Save as version/ }).click();
  await expect(page.getByText(/Saved as version/)).toBeVisible();
  // The version before is brought back.
  await page.getByRole('button', { name: 'Versions' }).click();
  const newest = page.getByRole('listitem').first();
  await expect(newest.locator('s')).toContainText('at most 60');
  await expect(newest).toContainText('at most 48');
  await page.getByRole('button', { name: 'Bring it back' }).first().click();
  await expect(page.getByText('at most 60')).toBeVisible();
  await page.getByRole('button', { name: 'Drop changes' }).click();
  await expect(page.getByText('at most 48')).toBeVisible();
  // Once more, under another name.
  await page.getByRole('button', { name: 'file', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Make a copy of this pipeline' }).click();
  await expect(page.getByRole('heading', { name: 'Out and in, copy' })).toBeVisible();
  await expect(page.getByText('at most 48')).toBeVisible();
});

test('two people at one procedure: the second sees both, and nothing of theirs is lost', async ({ page, context }) => {
  const id = await ownCopy(page, base(), 'What readers asked', 'For two people');
  await step(page, 'outline').waitFor();
  await step(page, 'outline').focus();
  await page.keyboard.press('d');
  await expect(step(page, 'outline')).toHaveCount(2);
  await context.setOffline(true);
  const before = (await (await page.request.get(`${base()}/api/pipelines/${id}`)).json()) as {
    rev: number;
    document: { steps: Step[] };
  };
  const theirs = { ...before.document, steps: before.document.steps.filter(({ kind }) => kind !== 'link') };
  const put = await page.request.put(`${base()}/api/pipelines/${id}`, {
    data: { document: theirs },
    headers: { 'if-match': `"${before.rev}"` },
  });
  expect(put.status()).toBe(200);
  await context.setOffline(false);
  await page.keyboard.press('s');
  await expect(page.getByRole('alert').first()).toContainText('Somebody else has changed this pipeline');
  await expect(page.getByText('mine', { exact: true }).first()).toBeVisible();
  await page.getByRole('button', { name: 'keep mine and save again' }).click();
  await expect(step(page, 'outline')).toHaveCount(2);
  await page.keyboard.press('s');
  await expect(page.getByText(/Saved as version/)).toBeVisible();
  expect(await saved(page)).toContain('outline, outline');
});
