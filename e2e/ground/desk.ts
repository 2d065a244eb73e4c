import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { type APIRequestContext, expect, type Locator, type Page } from '@playwright/test';
import { weekOf } from './sideBySide.ts';

export const OWNER = { email: 'ines@crockhaven.example', password: 'salt-and-patience' };

/** Where an installation is; of those with a week of history, the one of the journeys that go one after the other. */
export function address(name: 'POINTER' | 'KEYBOARD' | 'WEEK'): string {
  const own = name === 'WEEK' ? weekOf(process.env['TEST_PARALLEL_INDEX'] ?? 0) : name;
  const found = process.env[`GRIVO_${own}`];
  if (!found) throw new Error(`the installation ${name} was not started`);
  return found;
}

/** Kills the server of the installation with a week as a power cut would; it is started again by itself. */
export function killServer(): void {
  const folder = process.env[`GRIVO_${weekOf(process.env['TEST_PARALLEL_INDEX'] ?? 0)}_FOLDER`];
  if (!folder) throw new Error('the installation was not started');
  const { parts } = JSON.parse(readFileSync(join(folder, 'running.json'), 'utf8')) as { parts: { api: number } };
  process.kill(parts.api, 'SIGKILL');
}

/** Signs a page in without the screen for it, for tests of what comes after. */
export async function signedIn(page: Page, base: string): Promise<void> {
  await page.request.post(`${base}/api/session`, { data: OWNER });
}

/** Lets time pass at the desk: puts the clock just behind a moment. */
export async function passTo(request: APIRequestContext, base: string, ms: number): Promise<void> {
  await request.put(`${base}/api/desk-clock`, { data: { at: new Date(ms + 1_500).toISOString(), speed: 1 } });
}

/** The next placed slot of any blog. */
export async function nextPlaced(request: APIRequestContext, base: string): Promise<{ at: number; title: string }> {
  const slots = (await (await request.get(`${base}/api/slots?days=14`)).json()) as {
    blogs: { slots: { at: number; standing: string; title: string | null }[] }[];
  };
  const first = slots.blogs.flatMap((blog) => blog.slots).find((slot) => slot.standing === 'ready');
  if (!first) throw new Error('nothing is placed');
  return { at: first.at, title: first.title ?? '' };
}

/** Presses Tab until the focus is on what is wanted, as somebody without a pointer would. */
export async function tabTo(page: Page, wanted: Locator, most = 120): Promise<void> {
  await wanted.first().waitFor();
  for (let i = 0; i < most; i++) {
    if (await wanted.first().evaluate((element) => element === document.activeElement)) return;
    await page.keyboard.press('Tab');
  }
  throw new Error(`Tab did not reach ${String(wanted)}`);
}

/** Follows the link to what was just taken, and waits for its sheet: what is pressed is pressed there. */
export async function watched(page: Page): Promise<void> {
  await page.getByRole('link', { name: 'Watch them' }).click();
  await expect(page.getByRole('group', { name: 'Briefs against steps' })).toBeVisible();
}

/** Opens a brief by one press on its line, and reads its article; where that shows nothing, says what the page and the API do. */
export async function readArticle(page: Page, line: Locator): Promise<void> {
  const link = page.getByRole('link', { name: 'Read the article' });
  await line.click();
  await link.waitFor().catch(async () => {
    throw new Error(await whatIsOpen(page));
  });
  await link.click();
}

/** What a page of briefs shows of the one that is open, and what the API says of it. */
async function whatIsOpen(page: Page): Promise<string> {
  const { origin, search, searchParams } = new URL(page.url());
  const drawer = page.getByLabel('The step chosen');
  const shows = (await drawer.count()) > 0 ? await drawer.innerText() : 'nothing';
  const brief = searchParams.get('brief');
  const answer = brief ? await page.request.get(`${origin}/api/briefs/${brief}`) : null;
  return `opened ${search}, the page shows: ${shows.slice(0, 400)}\nthe API: ${answer?.status()} ${(await answer?.text())?.slice(0, 1_500)}`;
}

/** Asks the API as the person signed in on the page. */
export function asking(base: () => string) {
  return async <T>(page: Page, method: 'get' | 'post' | 'patch', path: string, data?: object): Promise<T> => {
    const answer = await page.request[method](`${base()}/api${path}`, data ? { data } : {});
    if (!answer.ok()) throw new Error(`${path}: ${await answer.text()}`);
    return (await answer.json()) as T;
  };
}

/** A pipeline of a test's own, with the procedure of another, open on the page: tests do not meet at one. */
export async function ownCopy(page: Page, base: string, of: string, name: string): Promise<string> {
  const ask = asking(() => base);
  const { pipelines } = await ask<{ pipelines: { id: string; name: string }[] }>(page, 'get', '/pipelines');
  const { document } = await ask<{ document: object }>(
    page,
    'get',
    `/pipelines/${pipelines.find((one) => one.name === of)!.id}`,
  );
  const { id } = await ask<{ id: string }>(page, 'post', '/pipelines', { name, document });
  await page.goto(`${base}/pipelines/${id}`);
  return id;
}

/**
 * A pipeline from the shipped procedure that fits the source on the page, publishing at once.
 * @param begins another shipped procedure than the first that fits, by its name
 * @param change what else is to be changed before it is saved
 */
export async function pipelineForIt(
  page: Page,
  name: string,
  begins: RegExp | null = null,
  change: () => Promise<void> = async () => undefined,
): Promise<void> {
  await page.getByRole('link', { name: 'one made for it' }).click();
  await expect(page).toHaveURL(/pipelines\?new/);
  if (begins) {
    await page.getByRole('button', { name: /^What the new pipeline begins with/ }).click();
    await page.getByRole('radio', { name: begins }).click();
  }
  await page.getByRole('textbox', { name: /name/i }).fill(name);
  await page.getByRole('button', { name: 'Make it' }).click();
  // Where there are several blogs it asks which.
  const which = page.getByText('Choose the blog its articles go to.');
  await expect(which.or(page.getByRole('button', { name: /^publish, when/ })).first()).toBeVisible();
  if (await which.isVisible()) {
    await page.getByRole('button', { name: /^The blog it goes to/ }).click();
    await page.getByRole('radio').first().click();
    await page.getByRole('button', { name: 'Make it' }).click();
  }
  await expect(page).toHaveURL(/\/pipelines\/\w{20}/);
  await page.getByRole('button', { name: /^publish, when/ }).click();
  await page.getByRole('radio', { name: /at once/ }).click();
  if (await page.getByRole('button', { name: /^check, likeness/ }).isVisible()) await copyingAllowed(page);
  await change();
  const save = page.getByRole('button', { name: /Save as version/ });
  // A procedure that publishes at once already has nothing to be saved.
  if (await save.isEnabled()) await save.click();
  await expect(page.getByText(/version [12]/, { exact: true }).first()).toBeVisible();
}

/** The stand-in writer copies what it does not know: a check that looks at that would hold every article of such things. */
export async function copyingAllowed(page: Page): Promise<void> {
  for (const word of ['likeness', 'own']) {
    await page.getByRole('button', { name: new RegExp(`^check, ${word}`) }).click();
    await page.getByRole('button', { name: 'do not look' }).click();
    await page.keyboard.press('Escape');
  }
  // Another journey may have made an article of the same.
  await page.getByRole('button', { name: /^check, alone/ }).click();
  await page.getByRole('radio', { name: /^on any subject/ }).click();
  const ours = page.getByRole('button', { name: /^look up, ours/ });
  if (await ours.isVisible()) {
    await ours.click();
    await page.getByRole('radio', { name: /^whatever we have/ }).click();
  }
  // And a person would be asked about every sentence that is longer than the house has them.
  await page.getByRole('button', { name: /^check, otherwise/ }).click();
  await page.getByRole('radio', { name: /^set it aside/ }).click();
}
