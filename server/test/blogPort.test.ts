import { execFileSync } from 'node:child_process';
import { readdirSync } from 'node:fs';
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { hostname, tmpdir } from 'node:os';
import { join } from 'node:path';
import { type BlogWay, FOLDER_AS_MADE, type FolderSettings } from '@grivo/contract';
import { XMLParser, XMLValidator } from 'fast-xml-parser';
import { parseFeed } from 'htmlparser2';
import { parse as parseToml } from 'smol-toml';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { parse as parseYaml } from 'yaml';
import { type BlogPort, type BlogTarget, PLAIN, type Placed, type Post } from '../src/ports/blogs/blog.ts';
import { allWays } from '../src/ports/blogs/ways/all.ts';
import { waysTable } from '../src/ports/blogs/ways/carries.ts';
import { PretendBlog } from './ground/pretendBlog.ts';
import { type World, world } from './ground/world.ts';

let w: World;
let sites: string;
beforeAll(async () => {
  sites = await mkdtemp(join(tmpdir(), 'sites-'));
  w = await world('one', { folders: [sites] });
});
afterAll(async () => {
  await w.close();
  await rm(sites, { recursive: true, force: true });
});

const network = (way: 'micropub' | 'atom' | 'xml-rpc' | 'hook', secret?: string) => async () => {
  const site = w.standIns.blog('journal');
  const blog: BlogTarget = {
    id: 'b',
    name: 'Journal',
    address: site.address,
    way,
    endpoint: { micropub: site.endpoint, atom: site.atom, 'xml-rpc': site.rpc, hook: site.hook }[way],
    mediaEndpoint: null,
    secret: w.product.secrets.seal(secret ?? site.token),
    settings: way === 'xml-rpc' ? { user: site.user, blogId: 'journal' } : way === 'atom' ? { user: site.user } : {},
    timeLimitMs: 2_000,
  };
  return { port: w.product.tools.blogs(blog), blog };
};
const folder = (name: string, change: Partial<FolderSettings>) => async () => {
  const blog: BlogTarget = {
    id: 'f',
    name: 'Shop notes',
    address: 'https://notes.example',
    way: 'folder',
    endpoint: join(sites, name),
    mediaEndpoint: null,
    secret: null,
    settings: { folder: { ...FOLDER_AS_MADE, ...change } },
    timeLimitMs: 2_000,
  };
  execFileSync('mkdir', ['-p', blog.endpoint]);
  return { port: w.product.tools.blogs(blog), blog };
};

/** Every way to a blog there is, the one of the tests too: what is tried with it is as the others are. */
const WAYS: [string, () => Promise<{ port: BlogPort; blog: BlogTarget }>][] = [
  ['micropub', network('micropub')],
  ['atom', network('atom')],
  ['xml-rpc', network('xml-rpc')],
  ['hook', network('hook')],
  ['folder of Markdown', folder('markdown', {})],
  ['folder of pages', folder('pages', { form: 'HTML', file: '{year}/{slug}.html', pages: true })],
  [
    'pretended',
    async () => ({
      port: new PretendBlog('pretended', ['drafts', 'find', 'update', 'withdraw', 'removes', 'media', 'categories']),
      blog: { id: 'p', way: 'p' as BlogWay } as BlogTarget,
    }),
  ],
];

const post = (key: string, more: Partial<Post> = {}): Post => ({
  key,
  name: 'Rehairing a bow',
  html: '<p>Comb the hair <em>wet</em> &amp; cold.</p>',
  markdown: 'Comb the hair *wet* & cold.',
  summary: 'How it is done.',
  slug: `rehairing-${key}`,
  categories: ['bows', 'salt & brine'],
  language: 'en',
  author: null,
  photo: null,
  ...PLAIN,
  ...more,
});
const signal = new AbortController().signal;
const value = <T>(effect: { kind: string; value?: T }) => {
  expect(effect).toMatchObject({ kind: 'done' });
  return effect.value!;
};

describe.each(WAYS)('a blog by the way called %s', (name, open) => {
  let port: BlogPort;
  let blog: BlogTarget;
  let at: Placed;
  const there = async () => {
    const read = await port.read(blog, at, signal);
    return read.ok ? read.value : read;
  };
  const text = async () => {
    const read = await there();
    return read && 'html' in read ? (read.html ?? read.markdown) : read;
  };
  beforeAll(async () => {
    ({ port, blog } = await open());
    at = value(await port.create(blog, post('k3y'), 'draft', signal));
  });

  test('says what it can, to whoever may know', async () => {
    for (const one of ['drafts', 'find', 'update', 'withdraw'] as const) expect(port.can(blog)).toContain(one);
    expect(await port.config(blog, signal)).toMatchObject({ ok: true });
  });

  test('keeps a draft as a draft, found by its key and by nothing less', async () => {
    expect(await there()).toMatchObject({ status: 'draft', name: 'Rehairing a bow' });
    expect(await port.find(blog, 'k3y', 0, signal)).toMatchObject({ ok: true, value: { handle: at.handle } });
    expect(await port.find(blog, 'k3', 0, signal)).toEqual({ ok: true, value: null });
    expect(await port.find(blog, '3y', 0, signal)).toEqual({ ok: true, value: null });
  });

  test('turns it live, twice with no harm', async () => {
    for (let i = 0; i < 2; i++) at = value(await port.turnLive(blog, at, '2026-11-28T10:00:00.000Z', signal));
    expect(await there()).toMatchObject({ status: 'published' });
    expect(await text()).toContain('Comb the hair');
  });

  test('shows what a change says, and gives it back as it was sent', async () => {
    const changed = post('k3y', {
      name: 'Rehairing a cello bow',
      html: '<p>It takes more.</p>',
      markdown: 'It takes more.',
    });
    for (let i = 0; i < 2; i++) at = value(await port.update(blog, at, changed, signal));
    expect(await there()).toMatchObject({ status: 'published', name: changed.name });
    expect([changed.html, changed.markdown]).toContain(await text());
  });

  test('takes a picture, and a post with it at its head', async () => {
    if (name === 'pretended') return;
    const says = await port.config(blog, signal);
    const whole = { ...blog, ...(says.ok ? { mediaEndpoint: says.value.mediaEndpoint } : {}) };
    const bytes = Buffer.from('RIFF0000WEBPVP8 ');
    const picture = value(await port.upload(whole, { bytes, mime: 'image/webp', name: 'bow.webp' }, signal));
    expect(URL.canParse(picture)).toBe(true);
    const photo = { address: picture, alternative: 'A bow, "fresh"' };
    const pictured = value(await port.create(whole, post('p1c'), 'published', signal));
    value(await port.update(whole, pictured, post('p1c', { photo }), signal));
    expect(await port.read(whole, pictured, signal)).toMatchObject({ ok: true, value: { status: 'published' } });
    value(await port.withdraw(whole, pictured, signal));
  });

  test('tells its categories, those of posts too', async () => {
    if (name === 'pretended') return;
    expect(await port.categories(blog, signal)).toMatchObject({
      ok: true,
      value: expect.arrayContaining(['bows', 'salt & brine']),
    });
  });

  test('has nothing there for readers once it is withdrawn, and what is gone cannot be changed', async () => {
    expect(await port.isWithdrawn(blog, at, signal)).toEqual({ ok: true, value: false });
    value(await port.withdraw(blog, at, signal));
    expect(await port.isWithdrawn(blog, at, signal)).toEqual({ ok: true, value: true });
    if (!port.can(blog).has('removes')) return;
    expect(await there()).toBeNull();
    expect(await port.find(blog, 'k3y', 0, signal)).toEqual({ ok: true, value: null });
    expect((await port.update(blog, at, post('x'), signal)).kind).toBe('not done');
  });

  test('puts it there again under another key', async () => {
    const again = value(await port.create(blog, post('k3ye2'), 'published', signal));
    expect(await port.find(blog, 'k3ye2', 0, signal)).toMatchObject({ ok: true, value: { handle: again.handle } });
    value(await port.withdraw(blog, again, signal));
  });
});

describe('secrets', () => {
  const refused = async (way: Parameters<typeof network>[0], suffix: string) => {
    const { port, blog } = await network(way, `${w.standIns.blog('journal').token}${suffix}`)();
    const made = await port.create(blog, post('n0'), 'draft', signal);
    return made.kind === 'not done' && 'mistake' in made.failure ? [made.failure.code, made.failure.mistake] : made;
  };
  test.each(['micropub', 'atom', 'xml-rpc'] as const)(
    'that are over, may only read or are unknown are told apart by %s',
    async (way) => {
      expect(await refused(way, '-old')).toEqual(['key-refused', 'secret expired']);
      expect(((await refused(way, '-read')) as string[])[1]).toMatch(/may only read|wrong user/);
      expect(((await refused(way, '-none')) as string[])[1]).toMatch(/secret unknown|wrong user/);
    },
  );
  test('of a hook that are wrong do not fit the signature', async () => {
    expect(await refused('hook', '-none')).toEqual(['key-refused', 'secret unknown']);
  });
});

test('a change by Micropub takes away what the post no longer has', async () => {
  const { port, blog } = await network('micropub')();
  const photo = { address: `${w.standIns.address}/p.webp`, alternative: 'A bow' };
  const made = value(await port.create(blog, post('pictured', { photo }), 'published', signal));
  const site = w.standIns.blog('journal');
  const kept = async () => {
    const reply = await fetch(`${site.endpoint}?q=source&url=${encodeURIComponent(made.handle)}`, {
      headers: { authorization: `Bearer ${site.token}`, accept: 'application/json' },
    });
    return ((await reply.json()) as { properties: Record<string, unknown[]> }).properties;
  };
  expect(await kept()).toMatchObject({ category: ['bows', 'salt & brine'], photo: [expect.anything()] });
  await port.update(blog, made, post('pictured', { categories: [] }), signal);
  const { category = [], photo: picture = [] } = await kept();
  expect([category, picture]).toEqual([[], []]);
});

test('an entry by Atom is changed in the state it was read in, and again when somebody was faster', async () => {
  const { port, blog } = await network('atom')();
  const at = value(await port.create(blog, post('et4g'), 'published', signal));
  const lost = new Promise<void>((resolve) => {
    let once = false;
    w.standIns.watch((point, { path }) => {
      if (once || point !== 'blog.received' || !path.includes('et4g')) return;
      once = true;
      resolve();
    });
  });
  const done = value(await port.update(blog, at, post('et4g', { name: 'Mine' }), signal));
  await lost;
  w.standIns.watch(() => undefined);
  expect(await port.read(blog, done, signal)).toMatchObject({ ok: true, value: { name: 'Mine' } });
});

test('who it is by goes along by Atom and by a hook, and stays when the post is changed', async () => {
  for (const way of ['atom', 'hook'] as const) {
    const { port, blog } = await network(way)();
    const at = value(await port.create(blog, post(`by${way}`, { author: 'Ada Quill' }), 'published', signal));
    value(await port.update(blog, at, post(`by${way}`, { name: 'Changed' }), signal));
    const there = w.standIns
      .received()
      .posts('journal')
      .find(({ address }) => address === at.address);
    expect(there).toMatchObject({ name: 'Changed', author: 'Ada Quill' });
    value(await port.withdraw(blog, at, signal));
  }
});

describe('a folder', () => {
  test.each(['YAML', 'TOML', 'JSON'] as const)(
    'has front matter in %s that the usual libraries read back, under the names it was given',
    async (head) => {
      const names = { ...FOLDER_AS_MADE.names, description: 'summary', pictureText: '' };
      const { port, blog } = await folder(`head-${head}`, { head, names })();
      const photo = { address: 'https://notes.example/p.webp', alternative: 'A "bow": fresh' };
      const said = { name: 'Bows: "wet" or \'dry\' #1', author: 'Ada Quill', photo };
      const at = value(await port.create(blog, post('h3ad', said), 'draft', signal));
      value(await port.turnLive(blog, at, '2026-11-28T10:00:00.000Z', signal));
      const [name] = readdirSync(blog.endpoint).filter((one) => one.endsWith('.md'));
      const text = await readFile(join(blog.endpoint, name!), 'utf8');
      const line = { YAML: '---', TOML: '+++', JSON: '' }[head];
      const front = head === 'JSON' ? text.slice(0, text.indexOf('\n}\n') + 2) : text.split(`${line}\n`)[1]!;
      const libraries: Record<typeof head, (text: string) => unknown> = {
        YAML: parseYaml,
        TOML: parseToml,
        JSON: JSON.parse,
      };
      const read = libraries[head](front) as Record<string, unknown>;
      expect(read).toMatchObject({
        title: said.name,
        summary: 'How it is done.',
        author: 'Ada Quill',
        categories: ['bows', 'salt & brine'],
        picture: photo.address,
        key: 'h3ad',
      });
      expect(new Date(String(read['date'])).toISOString()).toBe('2026-11-28T10:00:00.000Z');
      expect(read).not.toHaveProperty('draft');
      expect(read).not.toHaveProperty('picture_text');
      expect(text.trimEnd()).toMatch(/Comb the hair \*wet\* & cold\.$/);
    },
  );

  test('is written to in a working tree of git, a commit an act, and nothing it brings along is run', async () => {
    const { port, blog } = await folder('tree', { commits: true })();
    const git = (...words: string[]) =>
      execFileSync('git', ['-C', blog.endpoint, ...words], { encoding: 'utf8' }).trim();
    git('init', '--quiet');
    execFileSync(
      'sh',
      [
        '-c',
        `printf '#!/bin/sh\\ntouch ${join(sites, 'ran')}\\nexit 1\\n' > .git/hooks/pre-commit && chmod +x .git/hooks/pre-commit`,
      ],
      { cwd: blog.endpoint },
    );
    const at = value(await port.create(blog, post('g1t'), 'draft', signal));
    value(await port.turnLive(blog, at, '2026-11-28T10:00:00.000Z', signal));
    value(await port.withdraw(blog, at, signal));
    expect(git('log', '--format=%s').split('\n')).toEqual([
      'Withdraw: Rehairing a bow',
      'Publish: Rehairing a bow',
      'Draft: Rehairing a bow',
    ]);
    expect(git('status', '--porcelain')).toBe('');
    expect(git('ls-files')).toBe('.grivo/.gitignore');
    await expect(readFile(join(sites, 'ran'))).rejects.toThrow('ENOENT');
  });

  test('goes on writing a post as it was written first, whatever new ones are', async () => {
    const { port, blog } = await folder('turned', {})();
    const at = value(await port.create(blog, post('f0rm'), 'published', signal));
    const pages = { ...blog, settings: { folder: { ...FOLDER_AS_MADE, form: 'HTML' as const, file: '{slug}' } } };
    value(await port.update(pages, at, post('f0rm', { name: 'Changed' }), signal));
    value(await port.create(pages, post('n3w'), 'published', signal));
    const [markdown, page] = readdirSync(blog.endpoint)
      .filter((one) => /\.(?:md|html)$/.test(one))
      .sort();
    expect(await readFile(join(blog.endpoint, markdown!), 'utf8')).toMatch(/^---\ntitle: Changed/);
    expect(page).toBe('rehairing-n3w.html');
    expect(await port.read(pages, at, signal)).toMatchObject({ ok: true, value: { name: 'Changed', html: null } });
  });

  test('whose lock was left by a process that is gone is written to at once', async () => {
    const { port, blog } = await folder('left', {})();
    const gone = execFileSync('sh', ['-c', 'echo $$'], { encoding: 'utf8' }).trim();
    execFileSync('mkdir', ['-p', join(blog.endpoint, '.grivo')]);
    await writeFile(join(blog.endpoint, '.grivo', 'lock'), `${hostname()} ${gone}`);
    value(await port.create(blog, post('l0ck'), 'published', signal));
  });

  test('is never left, by a link in it or by a name', async () => {
    const { port, blog } = await folder('linked', { pictures: 'pictures' })();
    execFileSync('ln', ['-s', '/tmp', join(blog.endpoint, 'pictures')]);
    const bytes = Buffer.from('x');
    expect(await port.upload(blog, { bytes, mime: 'image/png', name: '../../x.png' }, signal)).toMatchObject({
      kind: 'not done',
      failure: { said: expect.stringContaining('outside') },
    });
    const elsewhere = { ...blog, endpoint: '/etc' };
    expect(await port.create(elsewhere, post('e1'), 'published', signal)).toMatchObject({
      kind: 'not done',
      failure: { mistake: 'no folder' },
    });
    expect(
      await port.create({ ...blog, endpoint: join(sites, 'gone') }, post('e1'), 'published', signal),
    ).toMatchObject({
      failure: { mistake: 'no folder' },
    });
  });

  test('has pages that look as it says, those that are written already too', async () => {
    const { port, blog } = await folder('looks', { form: 'HTML', file: '{slug}.html' })();
    value(await port.create(blog, post('l00k'), 'published', signal));
    const style = () => readFile(join(blog.endpoint, 'style.css'), 'utf8');
    expect(await readFile(join(blog.endpoint, 'rehairing-l00k.html'), 'utf8')).toContain(
      '<link rel="stylesheet" href="https://notes.example/style.css">',
    );
    expect(await style()).toContain('prefers-color-scheme:dark');
    const look = { logo: 'pictures/bow.svg', ground: '#102030', letters: '#f0e0d0', links: '#80c0ff' };
    await port.changed?.({ ...blog, settings: { folder: { ...FOLDER_AS_MADE, form: 'HTML', look } } });
    expect(await style()).toMatch(
      /color:#f0e0d0;background:#102030[\s\S]*url\("pictures\/bow\.svg"\)[\s\S]*a\{color:#80c0ff\}/,
    );
    expect(await style()).not.toContain('prefers-color-scheme:dark');
  });

  test('keeps a look that was changed while somebody who read the blog before that still writes', async () => {
    const { port, blog } = await folder('looked', { form: 'HTML', file: '{slug}.html', pages: true })();
    const look = { logo: '', ground: '#102030', letters: '#f0e0d0', links: '#80c0ff' };
    value(await port.create(blog, post('l1'), 'published', signal));
    await port.changed?.({ ...blog, settings: { folder: { ...blog.settings.folder!, look } } });
    value(await port.create(blog, post('l2'), 'published', signal));
    const front = () => readFile(join(blog.endpoint, 'index.html'), 'utf8').catch(() => '');
    await expect.poll(async () => (await front()).match(/rehairing-l\d/g)?.length, { timeout: 10_000 }).toBe(2);
    expect(await readFile(join(blog.endpoint, 'style.css'), 'utf8')).toContain('background:#102030');
  });

  test('gets each of many posts at once, whole, and a front page, a feed and a sitemap with all of them', async () => {
    const { port, blog } = await folder('many', { form: 'HTML', file: '{slug}.html', pages: true })();
    await Promise.all(Array.from({ length: 30 }, (_, n) => port.create(blog, post(`m${n}`), 'published', signal)));
    await expect
      .poll(
        async () =>
          (await readFile(join(blog.endpoint, 'sitemap.xml'), 'utf8').catch(() => '')).match(/rehairing-m\d+/g)?.length,
        { timeout: 10_000 },
      )
      .toBe(30);
    const page = await readFile(join(blog.endpoint, 'rehairing-m7.html'), 'utf8');
    expect(page).toContain('<p>Comb the hair <em>wet</em> &amp; cold.</p>');
    // Read by libraries that read what anybody writes.
    const feed = await readFile(join(blog.endpoint, 'feed.atom'), 'utf8');
    expect(XMLValidator.validate(feed)).toBe(true);
    const read = parseFeed(feed)!;
    expect([read.type, read.title, read.items.length]).toEqual(['atom', blog.name, 20]);
    expect(read.items[0]).toMatchObject({
      title: 'Rehairing a bow',
      link: expect.stringMatching(/^https:\/\/notes\.example\/rehairing-m\d+/),
      description: expect.stringContaining('How it is done.'),
      pubDate: expect.any(Date),
    });
    const map = await readFile(join(blog.endpoint, 'sitemap.xml'), 'utf8');
    expect(XMLValidator.validate(map)).toBe(true);
    const { urlset } = new XMLParser().parse(map) as { urlset: { url: { loc: string; lastmod?: string }[] } };
    expect(new Set(urlset.url.map(({ loc }) => loc))).toHaveProperty('size', 31);
    expect(urlset.url.filter(({ lastmod }) => !Number.isNaN(Date.parse(lastmod ?? '')))).toHaveLength(30);
  });
});

test('the table of ways in the documentation is what the code says', async () => {
  const ways = allWays({ ...w.product.tools, now: Date.now, desk: Date.now });
  const can = Object.fromEntries(
    Object.entries(ways).map(([name, way]) => [name, way.can({ settings: {} } as BlogTarget)]),
  );
  const document = await readFile(new URL('../../docs/ways.md', import.meta.url), 'utf8');
  const rows = (text: string) =>
    text
      .split('\n')
      .filter((line) => line.startsWith('|'))
      .map((line) => line.split('|').map((cell) => cell.trim()));
  expect(rows(document).filter(([, cell]) => !/^-+$/.test(cell!))).toEqual(
    rows(waysTable(can as never)).filter(([, cell]) => !/^-+$/.test(cell!)),
  );
});
