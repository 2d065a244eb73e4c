import { expect, type Page, test } from '@playwright/test';
import { faultsOf } from './ground/access.ts';
import { address, asking, signedIn } from './ground/desk.ts';

const base = () => address('WEEK');
const ask = asking(base);

interface Site {
  name: string;
  address: string;
  secret: string;
  user: string;
}
interface Whole {
  id: string;
  title: string;
  publications: { id: string; blogName: string; state: string; address: string; outside: unknown }[];
}

let site: Site;
test.beforeEach(async ({ page }) => {
  await signedIn(page, base());
  const { blogs } = await ask<{ blogs: Site[] }>(page, 'get', '/stand-ins');
  // The one the demonstration does not use.
  site = blogs.at(-1)!;
});

async function connecting(page: Page, way: RegExp | null, typed: Record<string, string>): Promise<void> {
  await page.goto(`${base()}/blogs?new`);
  if (way) {
    await page.getByRole('button', { name: /How posts go there/ }).click();
    await page.getByRole('radio', { name: way }).click();
  }
  for (const [label, text] of Object.entries(typed)) await page.getByLabel(label, { exact: true }).fill(text);
  await page.getByRole('button', { name: /Connect and test/ }).click();
  await expect(page).toHaveURL(/\/blogs\/[0-9a-z]{20}$/);
}

async function connected(page: Page): Promise<void> {
  await expect(page.getByRole('heading', { name: 'Where it is' })).toBeVisible();
  await expect(page.getByText(/^connected, tested/)).toBeVisible();
}
const idIn = (page: Page): string => page.url().split('/').at(-1)!;

async function newSecret(page: Page, secret: string, user?: string): Promise<void> {
  await page.getByRole('button', { name: 'Give it a new secret' }).click();
  if (user) await page.getByLabel('User name').fill(user);
  await page.getByLabel('New secret').fill(secret);
  await page.getByRole('button', { name: 'Save and test it' }).click();
  await expect(page.getByText('Saved and tested: it works.')).toBeVisible();
}

async function read(page: Page, title: string): Promise<Whole> {
  const { articles } = await ask<{ articles: Whole[] }>(page, 'get', '/articles?limit=100');
  return ask<Whole>(page, 'get', `/articles/${articles.find((one) => one.title === title)!.id}`);
}

/** What an admin of the blog does there. */
async function admin(page: Page, at: string, change: object): Promise<void> {
  const data = { act: 'update', blog: site.address.split('/').at(-1), address: at, change };
  expect((await page.request.post(`${new URL(site.address).origin}/control/blogs`, { data })).status()).toBe(204);
}

test('five blogs by five ways, wrong first and then right; an article on each, changed there and settled, taken back and put there again', async ({
  page,
}) => {
  const ids: string[] = [];
  // Found by its address, a page of its administration, with a secret that is over and then with blanks around the right one.
  await connecting(page, null, {
    'Address of the blog': `${site.address}/admin/posts`,
    'Its secret': `${site.secret}-old`,
  });
  await expect(page.getByText(/knows the secret, and its time is over/)).toBeVisible();
  await newSecret(page, ` ${site.secret}\n`);
  await connected(page);
  expect(await faultsOf(page)).toEqual([]);
  ids.push(idIn(page));
  await connecting(page, /by the interface for desk programs/, {
    'Address of the blog': site.address,
    'User name there': 'nobody',
    'Its secret': site.secret,
  });
  await expect(page.getByText(/does not know this user with this password/)).toBeVisible();
  await newSecret(page, site.secret, site.user);
  await connected(page);
  await expect(page.getByRole('heading', { name: 'What posts here cannot carry' })).toBeVisible();
  ids.push(idIn(page));
  await connecting(page, /by the Atom Publishing Protocol/, {
    'Address of the blog': site.address,
    'Its secret': site.secret,
  });
  await connected(page);
  ids.push(idIn(page));
  await connecting(page, /by signed calls/, {
    'What you call it': 'Ours by hook',
    'Where its readers find it': site.address,
    'Address the calls go to': `${site.address}/hook`,
    'Its secret': site.secret,
  });
  await connected(page);
  ids.push(idIn(page));
  await connecting(page, /as files in a folder/, {
    'What you call it': 'Ours in a folder',
    'Where its readers find it': 'https://notes.example',
    Folder: 'from-the-browser',
  });
  await connected(page);
  expect(await faultsOf(page)).toEqual([]);
  ids.push(idIn(page));

  const title = 'A mute for a violin';
  const { id: source } = await ask<{ id: string }>(page, 'post', '/sources', { name: 'Mutes' });
  await ask(page, 'post', `/sources/${source}/keywords`, { paste: 'a mute for a violin' });
  const body = 'A mute sits on the bridge.\n\n## Rubber\n\nRubber takes away the edge. It costs little.';
  const document = {
    grivo: 1,
    language: 'en',
    steps: [
      { id: 's1', kind: 'take', sources: [source], most: null, everyMinutes: null, atOnce: null, apartMinutes: 0 },
      { id: 's2', kind: 'lay out', body, title, reads: 'Markdown' },
      ...ids.map((blog, i) => ({ id: `p${i}`, kind: 'publish', blog, when: 'at once', as: 'live' })),
    ],
  };
  const { id: pipeline } = await ask<{ id: string }>(page, 'post', '/pipelines', { name: 'Mutes', document });
  await ask(page, 'post', `/pipelines/${pipeline}/take`, {});
  const standsThere = async () => (await read(page, title).catch(() => null))?.publications.map(({ state }) => state);
  await expect.poll(standsThere, { timeout: 40_000 }).toEqual(Array(5).fill('live'));
  const whole = await read(page, title);

  // Changed there: ours stays for one place, theirs is taken for the other.
  const [first] = whole.publications;
  const shown = await (await page.request.get(first!.address)).text();
  expect(shown).toContain('Rubber takes away the edge.');
  await admin(page, first!.address, {
    html: '<p>A mute sits on the bridge, always.</p>\n<h2 id="rubber">Rubber</h2>\n<p>Rubber takes away the edge. It costs nothing.</p>',
  });
  await page.goto(`${base()}/articles/${whole.id}`);
  const onBlogs = page.getByRole('region', { name: 'On blogs' });
  await onBlogs.getByRole('link', { name: 'Look what is there' }).first().click();
  await expect(page.getByRole('region', { name: 'Changed on the blog' })).toHaveCount(2);
  expect(await faultsOf(page)).toEqual([]);
  await page.keyboard.press('t');
  await page.keyboard.press('j');
  await page.keyboard.press('o');
  await expect(page.getByText(/1 as theirs and 1 as ours/)).toBeVisible();
  await page.keyboard.press('Control+Enter');
  await expect(page).toHaveURL(new RegExp(`/articles/${whole.id}$`));
  await expect.poll(async () => (await page.request.get(first!.address)).text()).toContain('always');
  expect(await (await page.request.get(first!.address)).text()).toContain('It costs little.');
  // The others are brought what was taken, one press each.
  for (let n = 0; n < 4; n++) {
    const bring = onBlogs.getByRole('button', { name: 'Bring the newest text there' });
    await expect(bring).toHaveCount(4 - n);
    await bring.first().click();
  }
  await expect(onBlogs.getByRole('button', { name: 'Bring the newest text there' })).toHaveCount(0);

  // Removed there: it is told on the blog's page and stays removed; then it is published there again.
  await admin(page, first!.address, { deleted: true });
  await onBlogs.getByRole('link', { name: 'Look what is there' }).first().click();
  await page.getByRole('button', { name: 'It stays removed' }).click();
  await expect(onBlogs.getByText(/taken back/)).toBeVisible();
  await onBlogs.getByRole('button', { name: 'Publish it there again' }).click();
  await expect(onBlogs.getByText(/taken back/)).toHaveCount(0);
  const again = await read(page, title);
  expect(again.publications.map(({ state }) => state)).toEqual(Array(5).fill('live'));

  // Taken back by every way.
  for (let n = 0; n < 5; n++) {
    const take = onBlogs.getByRole('button', { name: 'Take it from the blog…' });
    await expect(take).toHaveCount(5 - n);
    await take.first().click();
    await page.getByRole('button', { name: 'Take it away', exact: true }).click();
  }
  await expect(onBlogs.getByText(/taken back/)).toHaveCount(5);
  for (const { address: at } of again.publications.slice(0, 4)) expect((await page.request.get(at)).status()).toBe(404);
});

test('a blog is connected by its owner’s approval there, refused first; a wrong secret is mended the same way', async ({
  page,
}) => {
  const begin = async () => {
    await page.goto(`${base()}/blogs?new`);
    await page.getByLabel('Address of the blog', { exact: true }).fill(site.address);
    await page.getByRole('button', { name: 'Approve it at the blog instead' }).click();
  };
  await begin();
  await expect(page.getByText('asks to do this on your blog: create, update, delete, media.')).toBeVisible();
  await page.getByRole('button', { name: 'Refuse' }).click();
  await expect(page.getByRole('heading', { name: 'Not approved' })).toBeVisible();
  await expect(page.getByText('It was refused at the blog.')).toBeVisible();
  expect(await faultsOf(page)).toEqual([]);
  await begin();
  await page.getByRole('button', { name: 'Approve' }).click();
  await expect(page.getByRole('heading', { name: 'Approved' })).toBeVisible();
  expect(await faultsOf(page)).toEqual([]);
  // The address is good once: opened again it says so.
  const used = page.url();
  await page.goto(used);
  await expect(page.getByText(/^This approval is over/)).toBeVisible();
  const { blogs } = await ask<{ blogs: { id: string; address: string; way: string }[] }>(page, 'get', '/blogs');
  const id = blogs.find(({ address, way }) => address === site.address && way === 'micropub')!.id;
  await page.goto(`${base()}/blogs/${id}`);
  await newSecretWrong(page);
  await page.getByRole('button', { name: 'Approve it again at the blog' }).click();
  await page.getByRole('button', { name: 'Approve' }).click();
  await page.getByRole('link', { name: 'Look at it' }).click();
  await connected(page);
});

async function newSecretWrong(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Give it a new secret' }).click();
  await page.getByLabel('New secret').fill('wrong');
  await page.getByRole('button', { name: 'Save and test it' }).click();
  await expect(page.getByText('Saved and tested: see below what is wrong.')).toBeVisible();
}
