import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { ArticleWhole, BlogWay, BriefWhole, Slot } from '@grivo/contract';
import { type PublishStep, type Step, stepKinds } from '@grivo/core';
import { describe, expect, test } from 'vitest';
import { testBlog } from '../src/nouns/blogs/connect.ts';
import { rememberPages } from '../src/nouns/links/pages.ts';
import { takeBackDated } from '../src/nouns/publishing/dated.ts';
import { compareOutside } from '../src/nouns/publishing/outside.ts';
import { atTheSites, connectedBy, type Sites } from './ground/sites.ts';

let w: Sites['w'];
let ask: Sites['ask'];
let sites: string;
atTheSites((open) => ({ w, ask, sites } = open));

const k = stepKinds;

/** A blog of its own by a way, tested, so that it has said what its posts may be. */
async function blogBy(
  way: BlogWay,
  {
    form = 'Markdown',
    name = way,
    ...more
  }: Partial<Parameters<typeof connectedBy>[2]> & {
    form?: 'Markdown' | 'HTML';
  } = {},
): Promise<string> {
  const id = await connectedBy(w, way, { ...more, name, folder: { form, pages: true } });
  await testBlog({ ground: w.product.ground, tools: w.product.tools }, id);
  return id;
}

const BODY =
  'Weigh the *tallow* before it is rendered.\n\n## Render\n\nRender it slowly.\n\n### Which pan?\n\nA wide one.\n\nLet it stand.';

/** A brief about a title, laid out and published as the step says. */
async function brief(title: string, publish: Partial<PublishStep>, among: Step[] = []): Promise<string> {
  const layOut = { ...k['lay out'].fresh('s2'), body: BODY, title, reads: 'Markdown' as const };
  const pipeline = await w.pipeline([title], (all) => [
    all[0]!,
    layOut as Step,
    ...among,
    { ...k.publish.fresh('s9'), when: 'at once', ...publish } as Step,
  ]);
  const [made] = await w.take(pipeline);
  return made!;
}

const whole = async (id: string) => (await ask<BriefWhole>('GET', `/briefs/${id}`)).body;
const gaveBy = async (id: string) =>
  (await whole(id)).runs.find(({ kind }) => kind === 'publish')!.gave as {
    publication: { blog: string; address: string; as: string };
  };
async function articleOf(id: string): Promise<ArticleWhole> {
  const [row] = await w.product.ground.db.rows<{ id: string }>("SELECT id FROM article WHERE brief = ? AND line = ''", [
    id,
  ]);
  return (await ask<ArticleWhole>('GET', `/articles/${row!.id}`)).body;
}
const posts = (site = 'kitchen') => w.standIns.received().posts(site);
const postOf = (title: string, site = 'kitchen') => posts(site).find(({ name }) => name === title);
/** What somebody does at a blog itself. */
const control = (act: object) =>
  fetch(`${w.standIns.address}/control/blogs`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(act),
  });
const found = async (address: string) => (await fetch(address)).status;

describe('what a post is on the blog', () => {
  test.each([
    ['micropub', 'review'],
    ['hook', 'review'],
  ] as const)('by %s it may wait for the blog’s own review, and that it was passed there is seen', async (way, as) => {
    const blog = await blogBy(way);
    const title = `Rendering tallow by ${way}`;
    const id = await brief(title, { blog, as });
    await w.settled([id], ['out']);
    const post = postOf(title)!;
    expect(post).toMatchObject({ status: 'pending' });
    expect(await found(post.address)).toBe(404);
    expect((await articleOf(id)).publications[0]).toMatchObject({ state: 'draft', as: 'review' });
    // Its people pass it there.
    await control({ act: 'update', blog: 'kitchen', address: post.address, change: { status: 'published' } });
    await w.product.ground.db.run("UPDATE publication SET compare_at = '2020-01-01' WHERE state = 'draft'");
    await compareOutside(w.product.tools);
    const article = await articleOf(id);
    expect(article.publications[0]).toMatchObject({ state: 'live', as: 'live', underWay: null });
    expect(article.standing).toBe('out');
    const links = await w.product.ground.db.rows('SELECT 1 FROM link_page WHERE article = ?', [article.id]);
    expect(links).toHaveLength(1);
  });

  test.each(['micropub', 'hook'] as const)(
    'by %s it may be private: no reader finds it and no article links to it',
    async (way) => {
      const blog = await blogBy(way);
      const title = `A private matter by ${way}`;
      const id = await brief(title, { blog, as: 'private' });
      await w.settled([id], ['out']);
      const post = postOf(title)!;
      expect(post).toMatchObject({ status: 'published', private: true });
      expect(await found(post.address)).toBe(404);
      const article = await articleOf(id);
      expect(article.publications[0]).toMatchObject({ state: 'live', as: 'private', can: ['update', 'withdraw'] });
      expect(await w.product.ground.db.rows('SELECT 1 FROM link_page WHERE article = ?', [article.id])).toEqual([]);
      // A change keeps it so.
      const document = { ...article.document, title: `${title}, changed` };
      const edited = await ask<{ revision: string }>('PUT', `/articles/${article.id}/document`, {
        base: article.revision,
        document,
        sitting: 'one',
      });
      const { revision } = edited.body;
      await ask('POST', `/articles/${article.id}/publications/${article.publications[0]!.id}`, {
        act: 'update',
        revision,
      });
      expect(postOf(document.title)).toMatchObject({ address: post.address });
      expect(posts().find(({ address }) => address === post.address)).toMatchObject({ private: true });
    },
  );

  test.each(['micropub', 'atom', 'hook'] as const)('by %s it may be a standing page, outside the list', async (way) => {
    const blog = await blogBy(way);
    const title = `About our pans by ${way}`;
    const id = await brief(title, { blog, shape: 'page' });
    await w.settled([id], ['out']);
    const post = postOf(title)!;
    expect(post).toMatchObject({ status: 'published', page: true });
    expect(await found(post.address)).toBe(200);
    expect(await (await fetch(w.standIns.blog('kitchen').address)).text()).not.toContain(title);
    expect(await (await fetch(`${w.standIns.blog('kitchen').address}/sitemap.xml`)).text()).toContain(post.address);
  });

  test('what a blog cannot is told before it runs, with the reason, and stops a step that asks for it', async () => {
    const blog = await blogBy('xml-rpc');
    const document = {
      grivo: 1,
      language: 'en',
      steps: [
        { ...k['lay out'].fresh('s2'), body: BODY, title: 'Fat' },
        { ...k.publish.fresh('s9'), blog, as: 'private', replies: 'off', properties: ['season: autumn'] },
      ],
    };
    const { id } = (await ask<{ id: string }>('POST', '/pipelines', { name: 'Private fat', document })).body;
    const { problems } = (await ask<{ problems: { field?: string; sentence: string }[] }>('GET', `/pipelines/${id}`))
      .body;
    const of = (field: string) => problems.find((one) => one.field === field)?.sentence;
    expect(of('as')).toMatch(/cannot do this: It does not say that it keeps posts for those who sign in/);
    expect(of('replies')).toMatch(/set on the blog itself/);
    expect(of('properties')).toMatch(/no properties/);
    const stopped = await brief('Private fat', { blog, as: 'private' });
    await w.settled([stopped], ['stopped']);
    expect(JSON.stringify(await whole(stopped))).toContain('has no means for private posts');
    expect(postOf('Private fat')).toBeUndefined();
  });
});

describe('what a post says besides its text', () => {
  test('properties of the blog’s own with fields filled in, and replies off', async () => {
    const properties = ['reading-time: {{ article.words }} words', 'season: autumn'];
    const micropub = await blogBy('micropub');
    const one = await brief('Tallow in autumn', { blog: micropub, properties });
    const hook = await blogBy('hook');
    const two = await brief('Tallow in winter', { blog: hook, properties, replies: 'off' });
    await w.settled([one, two], ['out']);
    expect(postOf('Tallow in autumn')!.more).toEqual({
      'reading-time': expect.stringMatching(/^\d+ words$/),
      season: 'autumn',
    });
    const post = postOf('Tallow in winter')!;
    expect(post).toMatchObject({ replies: false, more: { season: 'autumn' } });
    expect(await (await fetch(post.address)).text()).toContain('Replies are closed.');
  });

  test('in a folder it stands at the head, and pages of HTML say what they are for machines and where they stood first', async () => {
    const journal = w.blog;
    const markdown = await blogBy('folder', { name: 'markdown' });
    const html = await blogBy('folder', { name: 'html', form: 'HTML' });
    const publish = (id: string, blog: string, more: Partial<PublishStep> = {}) =>
      ({ ...k.publish.fresh(id), blog, when: 'at once', ...more }) as Step;
    const id = await brief('Three places for tallow', { blog: html, author: 'Ada Quill' }, [
      publish('s3', journal),
      publish('s4', markdown, { replies: 'off', properties: ['season: autumn'] }),
    ]);
    await w.settled([id], ['out']);
    const [journalPost] = w.standIns
      .received()
      .posts('journal')
      .filter(({ name }) => name === 'Three places for tallow');
    const article = await articleOf(id);
    const slug = (blog: string) =>
      new URL(article.publications.find((one) => one.blog === blog)!.address!).pathname.replace(/^\//, '');
    const head = await readFile(join(sites, 'markdown', `${slug(markdown)}.md`), 'utf8');
    expect(head).toMatch(/\nreplies: false\n/);
    expect(head).toMatch(/^season: autumn$/m);
    expect(head).toContain(`canonical: ${journalPost!.address}`);
    const page = await readFile(join(sites, 'html', `${slug(html)}.html`), 'utf8');
    expect(page).toContain(`<link rel="canonical" href="${journalPost!.address}">`);
    const data = JSON.parse(/<script type="application\/ld\+json">(.*?)<\/script>/.exec(page)![1]!);
    expect(data).toMatchObject({
      '@type': 'Article',
      headline: 'Three places for tallow',
      author: { name: 'Ada Quill' },
      url: article.publications.find((one) => one.blog === html)!.address,
    });
    expect(data.datePublished).toMatch(/^\d{4}-/);
  });

  test('people take turns as its author, the one longest not named first', async () => {
    const blog = await blogBy('hook', { name: 'Turns', site: 'barrels' });
    const authors = ['Ada Quill', 'Moa Lund', 'Jon Reed'];
    const by = [];
    for (let i = 0; i < 4; i++) {
      const id = await brief(`Turn ${i}`, { blog, authors });
      await w.settled([id], ['out']);
      by.push(postOf(`Turn ${i}`, 'barrels')!.author);
    }
    expect(by).toEqual([...authors, 'Ada Quill']);
    const fixed = await brief('Turn 9', { blog, authors, author: 'The shop' });
    await w.settled([fixed], ['out']);
    expect(postOf('Turn 9', 'barrels')!.author).toBe('The shop');
  });

  test('siblings in other languages are named where they are live', async () => {
    const blog = await blogBy('hook', { name: 'Siblings' });
    const loop: Step = {
      ...k['for each'].fresh('f1'),
      values: ['German'],
      as: 'tongue',
      steps: [
        { ...k.translate.fresh('t1'), into: '{{ tongue }}' },
        { ...k.publish.fresh('t2'), blog, when: 'at once' },
      ],
    } as Step;
    const id = await brief('Salt by weight', { blog }, [
      { ...k.publish.fresh('s3'), blog, when: 'at once' } as Step,
      loop,
    ]);
    await w.settled([id], ['out', 'stopped']);
    const rows = await w.product.ground.db.rows<{ language: string; address: string }>(
      'SELECT a.language, p.address FROM article a JOIN publication p ON p.article = a.id WHERE a.brief = ? ORDER BY a.language',
      [id],
    );
    expect(rows.map(({ language }) => language)).toEqual(['de', 'en']);
    const german = posts().find(({ address }) => address === rows[0]!.address)!;
    expect(german.siblings).toEqual([{ language: 'en', address: rows[1]!.address }]);
    expect(await (await fetch(german.address)).text()).toContain(`hreflang="en" href="${rows[1]!.address}"`);
  });
});

describe('which blog it is', () => {
  test('that of its language, or the one a field names; an unknown name stops that article alone', async () => {
    const german = await blogBy('hook', { name: 'Gärtagebuch', site: 'gaertagebuch', language: 'de-AT' });
    const english = await blogBy('hook', { name: 'The English one' });
    const plain = await brief('Tallow as such', { blog: english, by: 'its language' });
    // Its links lead to pages of the blog it goes to.
    const page = { title: 'Grams of salt for a kilo', article: null, language: null, terms: null };
    await rememberPages(w.product.ground.db, german, [{ ...page, address: 'https://garten.example/salz' }]);
    await rememberPages(w.product.ground.db, english, [{ ...page, address: 'https://kitchen.example/salt' }]);
    const salted = { ...k['lay out'].fresh('s3'), title: 'Tallow elsewhere', reads: 'plain text' as const };
    const named = await brief('Tallow elsewhere', { blog: english, by: 'a name', named: ' gärtagebuch ' }, [
      { ...salted, body: 'It takes 20 grams of salt for a kilo of cabbage, and no more.' } as Step,
      { ...k.link.fresh('s4'), blog: english, own: 2 } as Step,
    ]);
    const empty = await brief('Tallow at home', { blog: english, by: 'a name', named: '{{ nothing }}' });
    const translated = await brief('Talg', { blog: english, by: 'its language' }, [
      { ...k.translate.fresh('t1'), into: 'German' },
    ]);
    const wrong = await brief('Tallow nowhere', { blog: english, by: 'a name', named: 'The Candle Post' });
    await w.settled([plain, named, translated], ['out']);
    await w.settled([wrong], ['stopped']);
    expect((await gaveBy(plain)).publication.blog).toBe(english);
    expect((await gaveBy(named)).publication.blog).toBe(german);
    const { links } = (await whole(named)).runs.find(({ kind }) => kind === 'link')!.gave as {
      links: { address: string }[];
    };
    expect(links.map(({ address }) => address)).toEqual(['https://garten.example/salz']);
    expect((await gaveBy(translated)).publication.blog).toBe(german);
    expect(postOf('Tallow elsewhere', 'gaertagebuch')).toMatchObject({ status: 'published' });
    expect(JSON.stringify(await whole(wrong))).toContain('No blog is called ‘The Candle Post’.');
    expect(['out', 'stopped']).toContain((await whole(empty)).standing);
  });
});

describe('dated ahead', () => {
  const slotOf = async (blog: string, article: string) =>
    (await ask<{ blogs: { blog: string; slots: Slot[] }[] }>('GET', '/slots?days=30')).body.blogs
      .find((one) => one.blog === blog)!
      .slots.find((slot) => slot.article === article)!;

  test.each(['micropub', 'atom', 'xml-rpc', 'hook'] as const)(
    'by %s the blog has it before its slot and shows it to nobody; moved, it is dated anew; set aside, it is taken back',
    async (way) => {
      const blog = await blogBy(way, { name: `ahead by ${way}` });
      const title = `Tallow ahead by ${way}`;
      const id = await brief(title, { blog, when: 'dated ahead' });
      await expect
        .poll(async () => (await articleOf(id).catch(() => null))?.publications[0]?.datedDesk ?? null, {
          timeout: 20_000,
        })
        .not.toBeNull();
      const article = await articleOf(id);
      const { datedDesk, address } = article.publications[0]!;
      expect(new Date(postOf(title)!.published).getTime()).toBe(datedDesk);
      expect(await found(address!)).toBe(404);
      const slot = await slotOf(blog, article.id);
      expect(slot).toMatchObject({ at: datedDesk, standing: 'ready' });
      const to = datedDesk! + 3 * 86_400_000;
      const moved = await ask('PUT', `/articles/${article.id}/slot`, { blog, at: to, force: true });
      expect(moved.status).toBeLessThan(300);
      await expect.poll(() => new Date(postOf(title)!.published).getTime(), { timeout: 20_000 }).toBe(to);
      expect(posts().filter(({ name }) => name === title)).toHaveLength(1);
      await ask('POST', `/briefs/${id}/set-aside`, {});
      // What was under way is known first; the chore looks again and again.
      await expect
        .poll(
          async () => {
            await takeBackDated(w.product.tools);
            return postOf(title)?.status ?? 'gone';
          },
          { timeout: 20_000 },
        )
        .toMatch(/^(?:gone|draft)$/);
    },
  );

  test('at its slot it is live, out at that moment, and what a blog shows too early is out at once and told', async () => {
    const { desk } = w.product.ground;
    await desk.set(Date.parse('2027-03-01T07:00:00Z'), 0);
    const heeding = await blogBy('hook', { name: 'Heeding', site: 'journal' });
    const heedless = await blogBy('micropub', { name: 'Heedless', site: 'barrels' });
    await control({ act: 'heedless', blog: 'barrels', at: new Date().toISOString() });
    const [kept, early] = [
      await brief('Kept until its slot', { blog: heeding, when: 'dated ahead' }),
      await brief('Shown at once', { blog: heedless, when: 'dated ahead' }),
    ];
    await w.settled([early], ['out']);
    const shown = await articleOf(early);
    expect(shown.publications[0]).toMatchObject({ state: 'live', outDesk: desk.now(), datedDesk: null });
    const blogs = (await ask<{ blogs: { id: string; lacks: Record<string, string> }[] }>('GET', '/blogs')).body.blogs;
    const lacks = (id: string) => blogs.find((blog) => blog.id === id)!.lacks;
    expect(lacks(heedless)['dated ahead']).toMatch(/they wait here for their slot/);
    expect(lacks(heeding)['dated ahead']).toBeUndefined();
    // The next one waits here.
    const next = await brief('Waits here now', { blog: heedless, when: 'dated ahead' });
    await expect.poll(async () => (await whole(next)).runs.some(({ state }) => state === 'waiting')).toBe(true);
    expect(postOf('Waits here now', 'barrels')).toBeUndefined();

    await expect
      .poll(async () => (await articleOf(kept).catch(() => null))?.publications[0]?.datedDesk ?? null)
      .not.toBeNull();
    const { datedDesk, address } = (await articleOf(kept)).publications[0]!;
    expect(await found(address!)).toBe(404);
    await desk.set(datedDesk! + 30_000, 0);
    await w.product.ringAll();
    await w.settled([kept], ['out']);
    expect((await articleOf(kept)).publications[0]).toMatchObject({
      state: 'live',
      outDesk: datedDesk,
      datedDesk: null,
    });
    expect(await found(address!)).toBe(200);
    expect(posts('journal').filter(({ name }) => name === 'Kept until its slot')).toHaveLength(1);
  });
});
