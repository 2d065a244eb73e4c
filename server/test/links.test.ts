import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import type {
  ArticleWhole,
  BlogLinks,
  Forwards,
  LinkOffers,
  MendedLinks,
  Pages,
  Rules,
  RulesRead,
  RulesTried,
} from '@grivo/contract';
import { linkUses, type Step, stepKinds } from '@grivo/core';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { readLinkIndex } from '../src/nouns/links/read.ts';
import { LinkLooker, lookAt } from '../src/nouns/upkeep/look.ts';
import { noteUses } from '../src/nouns/upkeep/uses.ts';
import { atTheDesk, type Desk } from './ground/desk.ts';

let w: Desk['w'];
let ask: Desk['ask'];
let cookie: string;
let http: Desk['http'];
// Links are looked at when a test says so.
atTheDesk((desk) => ({ w, ask, cookie, http } = desk), { upkeep: [] });

const k = stepKinds;

/** A site with every trouble links have. */
let site: Server;
let at = '';
const asked: { path: string; time: number }[] = [];
let gone = false;
beforeAll(async () => {
  const page = (title: string, more = '') =>
    `<html><head><title>${title}</title></head><body><h1>${title}</h1><p>Words.</p>${more}</body></html>`;
  site = createServer((request, response) => {
    const path = request.url ?? '/';
    asked.push({ path, time: Date.now() });
    const say = (status: number, body: string, headers: Record<string, string> = {}) => {
      response.writeHead(status, { 'content-type': 'text/html', ...headers });
      response.end(body);
    };
    if (path === '/robots.txt')
      return say(200, 'User-agent: *\nDisallow: /private/\n', { 'content-type': 'text/plain' });
    if (path === '/there') return gone ? say(404, 'no') : say(200, page('Here it is', '<h2 id="by-room">By room</h2>'));
    if (path === '/new') return say(200, page('The new place'));
    if (path === '/old') return say(301, '', { location: '/new' });
    if (path === '/for-now') return say(302, '', { location: '/new' });
    if (path === '/loop') return say(301, '', { location: '/loop2' });
    if (path === '/loop2') return say(301, '', { location: '/loop' });
    if (path === '/itself') return say(302, '', { location: '/itself' });
    if (path === '/home-page') return say(302, '', { location: '/' });
    if (path === '/soft') return say(200, page('Page not found'));
    if (path === '/taken') return say(410, 'gone');
    if (path === '/busy') return say(503, 'later');
    if (path === '/signed') return say(403, 'no');
    if (path === '/') return say(200, page('Front page'));
    say(404, 'no');
  });
  await new Promise<void>((resolve) => site.listen(0, '127.0.0.1', resolve));
  at = `http://127.0.0.1:${(site.address() as AddressInfo).port}`;
  w.product.allowed.add(at);
});
afterAll(() => new Promise((resolve) => site.close(resolve)));

/** An article laid out of a text and published at once. */
async function published(title: string, body: string, more: Step[] = []): Promise<ArticleWhole> {
  const layOut = { ...k['lay out'].fresh('s2'), body, title, reads: 'Markdown' as const };
  const pipeline = await w.pipeline([title], (all) => [
    all[0]!,
    layOut,
    ...more,
    { ...all.at(-1)!, id: 's9', when: 'at once' } as Step,
  ]);
  const [brief] = await w.take(pipeline);
  await w.settled([brief!], ['out']);
  const [row] = await w.product.ground.db.rows<{ id: string }>("SELECT id FROM article WHERE brief = ? AND line = ''", [
    brief,
  ]);
  return (await ask<ArticleWhole>('GET', `/articles/${row!.id}`)).body;
}
const again = async (id: string) => (await ask<ArticleWhole>('GET', `/articles/${id}`)).body;
const blogAddress = async () =>
  (await w.product.ground.db.rows<{ address: string }>('SELECT address FROM blog WHERE id = ?', [w.blog]))[0]!.address;
const links = async () => (await ask<BlogLinks>('GET', `/blogs/${w.blog}/links`)).body;
/** Everything noted and looked at now. */
async function lookedAt(): Promise<void> {
  while ((await noteUses(w.product.ground.db)) > 0);
  const looker = new LinkLooker(w.product.tools, 5);
  while ((await looker.round(5_000)) > 0);
}
const rule = (words: string, more: object = {}) => ({
  blog: null as string | null,
  words,
  address: 'https://glass.example/swing',
  most: 1,
  placing: 'first',
  after: 0,
  forms: true,
  anyCase: true,
  sponsored: true,
  ...more,
});

describe('where an address leads', () => {
  test.each([
    ['/there', 'answers', ''],
    ['/there#by-room', 'answers', ''],
    ['/there#gone', 'dead', 'is there, the place on it is not'],
    ['/old', 'moved', 'moved for good'],
    ['/for-now', 'answers', ''],
    ['/loop', 'dead', 'leads on and on'],
    ['/itself', 'dead', 'leads back to itself'],
    ['/home-page', 'dead', 'sends everybody to the front page'],
    ['/soft', 'dead', 'says ‘not found’, with no error'],
    ['/taken', 'dead', 'was taken away'],
    ['/nothing', 'dead', 'is not there'],
    ['/busy', 'unsure', 'answers with 503, which says nothing of the page'],
    ['/signed', 'unsure', 'is only for those who sign in'],
  ])('%s: %s', async (path, state, reason) => {
    const found = await lookAt(w.product.tools, at + path, AbortSignal.timeout(10_000));
    expect([found.state, found.reason]).toEqual([state, reason]);
    if (state === 'moved') expect(found.leadsTo).toBe(`${at}/new`);
  });

  test('a private network is never called, and that says nothing of the link', async () => {
    const found = await lookAt(w.product.tools, 'http://10.0.0.1/x', AbortSignal.timeout(10_000));
    expect(found.state).toBe('unsure');
  });
});

describe('links of what is live', () => {
  test('are noted, looked at gently, told when they die, and mended in every article and on the blog', async () => {
    const made = [];
    for (const n of [1, 2, 3])
      made.push(await published(`Plums number ${n}`, `Salt them by [the table](${at}/there), then wait ${n} weeks.`));
    const other = await published('Pears', `Ask [the guild](${at}/private/list) or [the lab](${at}/busy).`);
    await lookedAt();
    const before = await links();
    expect(before.stand).toMatchObject({ answers: 1, dead: 0, unsure: 2, waiting: 0 });
    expect(asked.some(({ path }) => path.startsWith('/private'))).toBe(false);

    gone = true;
    expect((await ask<{ links: number }>('POST', `/blogs/${w.blog}/links/look`)).body.links).toBeGreaterThan(0);
    await lookedAt();
    const [dead, ...more] = (await links()).dead;
    expect(more).toEqual([]);
    expect(dead).toMatchObject({ address: `${at}/there`, state: 'dead', reason: 'is not there' });
    expect(dead!.articles.map(({ title }) => title).sort()).toEqual(made.map(({ title }) => title).sort());

    const mended = await ask<MendedLinks>('POST', `/blogs/${w.blog}/links/mend`, {
      from: `${at}/there`,
      to: `${at}/new`,
    });
    expect(mended.body).toEqual({ articles: 3, updated: 3, left: [] });
    for (const { id } of made) {
      const now = await again(id);
      expect(linkUses(now.document).map(({ target }) => target)).toEqual([{ to: 'address', address: `${at}/new` }]);
      expect(await (await fetch(now.address!)).text()).toContain(`${at}/new`);
      expect(now.publications[0]).toMatchObject({ newest: true });
    }
    await lookedAt();
    expect((await links()).dead).toEqual([]);
    // Nothing is left to be done, and doing it again changes nothing.
    expect(
      (await ask<MendedLinks>('POST', `/blogs/${w.blog}/links/mend`, { from: `${at}/there`, to: null })).body,
    ).toEqual({ articles: 0, updated: 0, left: [] });
    expect((await again(other.id)).revision).toBe(other.revision);
  });

  test('an article that went out before its words were kept is known by them once its links are noted', async () => {
    const { db } = w.product.ground;
    const made = await published('Salted mirabelles', 'Mirabelles are stoned and salted.');
    await db.run('UPDATE link_page SET terms = NULL WHERE article = ?', [made.id]);
    await db.run('UPDATE publication SET links_stale = 1 WHERE article = ?', [made.id]);
    await lookedAt();
    const [row] = await db.rows<{ terms: [string, number][] }>('SELECT terms FROM link_page WHERE article = ?', [
      made.id,
    ]);
    expect(row!.terms.map(([stem]) => stem)).toContain('mirabell');
  });

  test('one that moved says where it leads now, and can be taken off', async () => {
    const made = await published('Moved quinces', `See [the old place](${at}/old).`);
    await lookedAt();
    const [line] = (await links()).dead;
    expect(line).toMatchObject({ state: 'moved', replacement: { address: `${at}/new`, why: 'where it leads now' } });
    await ask('POST', `/blogs/${w.blog}/links/mend`, { from: `${at}/old`, to: null });
    const now = await again(made.id);
    expect(linkUses(now.document)).toEqual([]);
    expect(await (await fetch(now.address!)).text()).not.toContain('/old');
  });

  test('what gave no answer three times is dead, not before; a look in between is claimed by one alone', async () => {
    const port = (site.address() as AddressInfo).port === 1 ? 2 : 1;
    const silent = `http://127.0.0.1:${port}/x`;
    w.product.allowed.add(`http://127.0.0.1:${port}`);
    await published('Silent plums', `See [them](${silent}).`);
    const state = async () =>
      (
        await w.product.ground.db.rows<{ state: string; fails: number }>(
          'SELECT state, fails FROM link_look WHERE address = ?',
          [silent],
        )
      )[0]!;
    await lookedAt();
    expect(await state()).toEqual({ state: 'unsure', fails: 1 });
    for (const fails of [2, 3]) {
      await w.product.ground.db.run('UPDATE link_look SET next_at = UTC_TIMESTAMP(3) WHERE address = ?', [silent]);
      const two = [new LinkLooker(w.product.tools, 5), new LinkLooker(w.product.tools, 5)];
      const looked = await Promise.all(two.map((one) => one.round(3_000)));
      expect(looked.reduce((a, b) => a + b)).toBe(1);
      expect(await state()).toEqual({ state: fails === 3 ? 'dead' : 'unsure', fails });
    }
  });

  test('what is taken from the blog has no links any more', async () => {
    const made = await published('Withdrawn plums', `See [it](${at}/new?withdrawn).`);
    await lookedAt();
    const there = () =>
      w.product.ground.db.rows('SELECT 1 FROM link_use WHERE article = ?', [made.id]).then((rows) => rows.length);
    expect(await there()).toBe(1);
    await ask('POST', `/articles/${made.id}/publications/${made.publications[0]!.id}`, {
      act: 'withdraw',
      revision: made.revision,
    });
    await lookedAt();
    expect(await there()).toBe(0);
  });
});

describe('words that have a rule', () => {
  test('are linked in articles of the blog, marked, and the article of a step without rules has none', async () => {
    const made = await ask<{ id: string }>('POST', '/link-rules', rule('swing-top bottle', { blog: w.blog, most: 2 }));
    expect(made.status).toBe(201);
    const text =
      '## Swing-top bottles\n\nA swing-top bottle holds it. Two swing-top bottles hold more. A third swing-top bottle too.';
    const step = (rules: boolean) => ({ ...k.link.fresh('s3'), blog: w.blog, own: 0, rules }) as Step;
    const linked = await published('Bottles', text, [step(true)]);
    expect(linkUses(linked.document).map(({ anchor, target }) => [anchor, target])).toEqual([
      ['swing-top bottle', { to: 'address', address: 'https://glass.example/swing', sponsored: true }],
      ['swing-top bottles', { to: 'address', address: 'https://glass.example/swing', sponsored: true }],
    ]);
    expect(await (await fetch(linked.address!)).text()).toContain('rel="sponsored');
    const plain = await published('Bottles again', text.replaceAll('holds', 'keeps'), [step(false)]);
    expect(linkUses(plain.document)).toEqual([]);

    const tried = (await ask<RulesTried>('GET', `/blogs/${w.blog}/links/try?article=${plain.id}`)).body;
    expect([tried.title, tried.placed, tried.alone]).toEqual(['Bottles again', 2, 2]);
    expect(tried.texts[0]).toMatchObject({ kind: 'heading', notes: [{ says: 'in a heading, left alone' }] });
    expect((await again(plain.id)).revision).toBe(plain.revision);
  });

  test('are changed, found, kept from being written over, and removed', async () => {
    const { id } = (await ask<{ id: string }>('POST', '/link-rules', rule('grey sea salt'))).body;
    const change = (rev: number, words: string) =>
      ask('PUT', `/link-rules/${id}`, rule(words), { 'if-match': `"${rev}"` });
    expect((await change(1, 'grey salt')).status).toBe(200);
    expect((await change(1, 'sea salt')).status).toBe(412);
    expect((await ask('POST', '/link-rules', rule('x', { address: 'javascript:alert(1)' }))).status).toBe(422);
    const find = async (text: string) =>
      (await ask<Rules>('GET', `/blogs/${w.blog}/links/rules?find=${encodeURIComponent(text)}`)).body.rules;
    expect((await find('grey')).map(({ words }) => words)).toEqual(['grey salt']);
    expect((await ask('POST', '/link-rules/remove', { ids: [id] })).status).toBe(204);
    expect(await find('grey')).toEqual([]);
  });

  test('are read from a file line by line, told where a line is wrong, and written out the same', async () => {
    const file = [
      'Words;Address;At most;Where;After;Forms;Case;Marked',
      'cabbage slicer;https://tools.example/slicer;1;first;0;yes;any;sponsored',
      'Kraut board;https://tools.example/board;3;spread;200;no;exact;',
      ';https://tools.example/none;1',
      'bad address;tools.example;1',
      'too often;https://tools.example/often;99',
      '"cabbage ""slicer"" two";https://tools.example/two',
    ].join('\n');
    const read = (text: string) =>
      ask<RulesRead>('POST', `/blogs/${w.blog}/links/rules.csv`, { text, everyBlog: false });
    const first = (await read(file)).body;
    expect(first).toEqual({
      added: 3,
      known: 0,
      unread: [
        { line: 4, why: 'it has no words' },
        { line: 5, why: '‘tools.example’ is no web address; it begins with https://' },
        { line: 6, why: '‘99’ is no number from 1 to 20' },
      ],
    });
    expect((await read(file)).body).toMatchObject({ added: 0, known: 3 });
    const got = await fetch(`${http.address}/api/blogs/${w.blog}/links/rules.csv`, { headers: { cookie } });
    const out = await got.text();
    expect(out).toContain('Kraut board,https://tools.example/board,3,spread,200,no,exact,');
    expect((await read(out)).body).toMatchObject({ added: 0, unread: [] });
    expect((await read('a,b\n1,2')).body.unread).toEqual([
      { line: 1, why: 'the first row names no columns ‘words’ and ‘address’' },
    ]);
    expect((await read(`words,address\n"${'x'.repeat(100_000)}`)).status).toBe(200);
  });

  test('five thousand are read from a file, and hold', async () => {
    const lines = Array.from({ length: 5_000 }, (_, i) => `thing ${i},https://things.example/${i}`);
    const text = ['words,address', ...lines].join('\n');
    const read = await ask<RulesRead>('POST', `/blogs/${w.blog}/links/rules.csv`, { text, everyBlog: true });
    expect(read.body).toMatchObject({ added: 5_000, unread: [] });
    const made = await published('Things', 'One thing 4999 and another thing 12.', [
      { ...k.link.fresh('s3'), blog: w.blog, own: 0 } as Step,
    ]);
    expect(linkUses(made.document).map(({ anchor }) => anchor)).toEqual(['thing 4999', 'thing 12']);
  });
});

describe('addresses kept for linking', () => {
  test('of ours and of others are linked for what they are good for, changed and removed', async () => {
    const keep = (kind: string, address: string, goodFor: string) =>
      ask<{ id: string }>('POST', '/kept-addresses', { blog: w.blog, kind, address, goodFor });
    const own = (await keep('own', 'https://crock.example/ask', 'quince orders, medlar advice')).body;
    await keep('outside', 'https://lab.example', 'botulism toxins');
    const text = 'For medlar advice we have a page. Botulism toxins are rare in brine.';
    const step = (outside: number) => ({ ...k.link.fresh('s3'), blog: w.blog, own: 3, outside }) as Step;
    const made = await published('Medlars', text, [step(2)]);
    const leads = (article: ArticleWhole) =>
      linkUses(article.document).map(({ anchor, target }) => [anchor, target.to === 'address' ? target.address : '']);
    expect(leads(made)).toContainEqual(['medlar advice', 'https://crock.example/ask']);
    expect(leads(await published('Medlars too', text.replace('rare', 'few'), [step(0)])).join()).not.toContain(
      'lab.example',
    );
    // One link a paragraph: the outside one has a paragraph of its own.
    const apart = await published('Medlars apart', text.replace('. Bot', '.\n\nBot'), [step(1)]);
    expect(leads(apart)).toContainEqual(['Botulism toxins', 'https://lab.example']);
    const change = { blog: null, address: 'https://crock.example/ask-us', goodFor: 'quince orders' };
    expect((await ask('PUT', `/kept-addresses/${own.id}`, change, { 'if-match': '"1"' })).status).toBe(204);
    expect((await ask('PUT', `/kept-addresses/${own.id}`, change, { 'if-match': '"1"' })).status).toBe(412);
    expect((await links()).addresses.map(({ address }) => address)).toContain('https://crock.example/ask-us');
    expect((await ask('DELETE', `/kept-addresses/${own.id}`)).status).toBe(204);
    expect((await ask('DELETE', `/kept-addresses/${own.id}`)).status).toBe(404);
  });
});

describe('older articles', () => {
  test('that say what a newer one is about are offered with the sentence, and lead to it once that is wanted', async () => {
    const old = await published(
      'Cellar year',
      'A damp shed is no place for it. We learnt that mulberry vinegar wants air.',
    );
    const fresh = await published('Mulberry vinegar', 'Mulberries first turn to wine and then sour.');
    const offered = async () =>
      (await ask<Forwards>('GET', `/blogs/${w.blog}/links/forward`)).body.to.find(
        ({ article }) => article === fresh.id,
      );
    expect((await offered())?.from).toMatchObject([
      { article: old.id, anchor: 'mulberry vinegar', sentence: 'We learnt that mulberry vinegar wants air.' },
    ]);
    const { block, anchor } = (await offered())!.from[0]!;
    const done = await ask<MendedLinks>('POST', `/blogs/${w.blog}/links/forward`, {
      article: old.id,
      block,
      anchor,
      to: fresh.id,
    });
    expect(done.body).toEqual({ articles: 1, updated: 1, left: [] });
    const now = await again(old.id);
    expect(linkUses(now.document).map(({ target }) => target)).toEqual([{ to: 'article', article: fresh.id }]);
    expect(await (await fetch(now.address!)).text()).toContain(fresh.address!);
    expect(await offered()).toBeUndefined();
  });
});

describe('while an article is edited', () => {
  test('its words are offered where they could lead: pages about them, kept addresses, titles that hold what is typed; never itself', async () => {
    const page = await published('Sloe gin without sugar', 'Sloes are pricked and wait for the winter.');
    const other = await published('Hedge days', 'We keep sloe gin in the shed.');
    await ask('POST', '/kept-addresses', {
      blog: w.blog,
      kind: 'outside',
      address: 'https://hedges.example/law',
      goodFor: 'hedge law',
    });
    const offered = async (article: ArticleWhole, words: string) =>
      (await ask<LinkOffers>('GET', `/articles/${article.id}/link-offers?words=${encodeURIComponent(words)}`)).body
        .offers;
    expect((await offered(other, 'sloe gin'))[0]).toMatchObject({
      to: { to: 'article', article: page.id },
      title: 'Sloe gin without sugar',
    });
    expect((await offered(other, 'without su')).map(({ title }) => title)).toContain('Sloe gin without sugar');
    expect((await offered(other, 'the hedge law')).map(({ at }) => at)).toContain('https://hedges.example/law');
    expect((await offered(page, 'sloe gin')).map(({ to }) => to)).not.toContainEqual({
      to: 'article',
      article: page.id,
    });
    expect((await ask('GET', `/articles/${page.id}/link-offers?words=x`)).status).toBe(422);
  });

  test('a sentence may lead to what is about the same, where no words of a paragraph do; never to itself', async () => {
    const page = await published('Medlars: blet them in straw', 'Medlars lie in straw until they are brown and soft.');
    const other = await published(
      'November in the shed',
      'The fruit lies in straw until it is brown, soft and bletted; a medlar takes its time.',
    );
    const near = async (article: ArticleWhole, words: string) =>
      (await ask<LinkOffers>('GET', `/articles/${article.id}/link-offers?near=yes&words=${encodeURIComponent(words)}`))
        .body.offers;
    const said = 'They blet in straw, brown and soft, as medlars do.';
    expect((await near(other, said))[0]).toMatchObject({
      to: { to: 'article', article: page.id },
      title: 'Medlars: blet them in straw',
    });
    expect(await near(page, said)).toEqual([]);
    expect(await near(other, 'Nothing of this is known to anybody at all.')).toEqual([]);
  });
});

describe('pages of the blog', () => {
  test('are read with what they say, seen, and barred from being linked to', async () => {
    const blog = { id: w.blog, address: await blogAddress(), language: 'en' };
    const { db } = w.product.ground;
    await db.run('UPDATE link_page SET read_at = NULL, terms = NULL WHERE blog = ? AND article IS NULL', [w.blog]);
    const read = await readLinkIndex(db, w.product.tools, blog, AbortSignal.timeout(60_000));
    expect(read).toMatchObject({ ok: true, left: 0 });
    const [known] = await db.rows<{ n: number; all_: number }>(
      'SELECT COUNT(terms) AS n, COUNT(*) AS all_ FROM link_page WHERE blog = ?',
      [w.blog],
    );
    expect(Number(known!.n)).toBe(Number(known!.all_));
    expect(await readLinkIndex(db, w.product.tools, blog, AbortSignal.timeout(60_000))).toMatchObject({ fresh: 0 });

    const shown = async (find = '') =>
      (await ask<Pages>('GET', `/blogs/${w.blog}/links/pages?find=${encodeURIComponent(find)}`)).body;
    const page = (await shown()).pages.find(({ isOurs }) => !isOurs)!;
    await ask('POST', `/blogs/${w.blog}/links/pages`, { page: page.id, barred: true });
    expect((await shown(page.title)).pages.find(({ id }) => id === page.id)).toMatchObject({ isBarred: true });
    const text = `Much is said of ${page.title.toLowerCase()} here.`;
    const step = { ...k.link.fresh('s3'), blog: w.blog, own: 5 } as Step;
    const made = await published('Barred', text, [step]);
    const leads = linkUses(made.document).map(({ target }) => (target.to === 'address' ? target.address : ''));
    expect(leads).not.toContain(page.address);
  });
});
