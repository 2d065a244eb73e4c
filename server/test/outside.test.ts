import { readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { ArticleWhole, BlogWay, OutsideShown } from '@grivo/contract';
import { articleText, type Step, stepKinds } from '@grivo/core';
import { describe, expect, test } from 'vitest';
import { compareOutside } from '../src/nouns/publishing/outside.ts';
import { atTheSites, connectedBy, type Sites } from './ground/sites.ts';

let w: Sites['w'];
let http: Sites['http'];
let ask: Sites['ask'];
let sites: string;
atTheSites((open) => ({ w, http, ask, sites } = open));

const k = stepKinds;

/** A blog by a way, connected once. */
const blogs = new Map<string, string>();
async function blogBy(way: BlogWay, form: 'Markdown' | 'HTML' = 'Markdown'): Promise<string> {
  const name = `${way} ${form}`;
  const known = blogs.get(name);
  if (known) return known;
  const id = await connectedBy(w, way, { name: way === 'folder' ? form : name, folder: { form } });
  blogs.set(name, id);
  return id;
}

/** An article laid out of a text with all kinds of parts, live on a blog. */
async function live(title: string, blog: string): Promise<ArticleWhole> {
  const body = `Weigh the *salt* with [our scales](https://crockhaven.example/scales).\n\n## Press\n\nPress the cabbage.\n\n- first\n- second\n\n| Salt | Days |\n| --- | --- |\n| 20 g | 7 |\n\nLet it stand.`;
  const layOut = { ...k['lay out'].fresh('s2'), body, title, reads: 'Markdown' as const };
  const pipeline = await w.pipeline([title], (all) => [
    all[0]!,
    layOut as Step,
    { ...all.at(-1)!, id: 's9', when: 'at once', blog } as Step,
  ]);
  const [brief] = await w.take(pipeline);
  await w.settled([brief!], ['out']);
  const [row] = await w.product.ground.db.rows<{ id: string }>("SELECT id FROM article WHERE brief = ? AND line = ''", [
    brief,
  ]);
  return read(row!.id);
}

const read = async (id: string) => (await ask<ArticleWhole>('GET', `/articles/${id}`)).body;
const at = (article: ArticleWhole) => `/articles/${article.id}/publications/${article.publications[0]!.id}`;
const outside = async (article: ArticleWhole) => (await ask<OutsideShown>('GET', `${at(article)}/outside`)).body;
const settle = (article: ArticleWhole, seen: OutsideShown, choices: string[], title = 'ours') =>
  ask<{ done: boolean }>('POST', `${at(article)}/outside`, { digest: seen.digest, title, choices });

/** What an admin of the blog makes of a post, by its own means. */
async function editThere(article: ArticleWhole, change: (html: string) => string | null, name?: string): Promise<void> {
  const address = article.address!;
  if (address.startsWith('https://notes.example')) {
    const form = blogs.get('folder HTML') === article.publications[0]!.blog ? 'HTML' : 'Markdown';
    const folder = join(sites, form);
    const file = join(folder, readdirSync(folder).find((one) => one.startsWith(address.split('/').at(-1)!))!);
    const text = change(readFileSync(file, 'utf8'));
    return text === null ? rmSync(file) : writeFileSync(file, text);
  }
  const post = w.standIns
    .received()
    .posts('kitchen')
    .find((one) => one.address === address)!;
  const html = change(post.html);
  await fetch(`${w.standIns.address}/control/blogs`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({
      act: 'update',
      blog: 'kitchen',
      address,
      change: html === null ? { deleted: true } : { html, ...(name ? { name } : {}) },
    }),
  });
}

const shownThere = async (article: ArticleWhole): Promise<string> => {
  const seen = await outside(article);
  return seen.places.length === 0 ? '' : articleText(seen.document);
};

const WAYS: [BlogWay, 'Markdown' | 'HTML'][] = [
  ['micropub', 'HTML'],
  ['atom', 'HTML'],
  ['xml-rpc', 'HTML'],
  ['hook', 'HTML'],
  ['folder', 'Markdown'],
  ['folder', 'HTML'],
];

describe.each(WAYS)('a post by %s (%s)', (way, form) => {
  test('is as it was sent, told by its words, as long as nobody touched it', async () => {
    const article = await live(`As sent, ${way} ${form}`, await blogBy(way, form));
    const seen = await outside(article);
    expect(seen).toMatchObject({ kind: 'same', title: null, newer: false });
    expect(seen.acts.map(({ act }) => act)).toEqual(['published']);
    expect((await read(article.id)).publications[0]!.outside).toBeNull();
  });

  test('that somebody changed there is told, not written over, and theirs is taken', async () => {
    const article = await live(`Theirs, ${way} ${form}`, await blogBy(way, form));
    await editThere(article, (html) => html.replace('Press the cabbage.', 'Press the cabbage hard.'));
    const seen = await outside(article);
    expect(seen.kind).toBe('changed');
    expect(seen.acts.map(({ act }) => act)).toEqual(['published', 'changed there']);
    expect(seen.places.filter(({ changed }) => changed)).toHaveLength(1);
    expect((await read(article.id)).publications[0]!.outside).toMatchObject({ kind: 'changed' });
    const { document, revision } = await read(article.id);
    const saved = await ask<{ revision: string }>('PUT', `/articles/${article.id}/document`, {
      base: revision,
      document: { ...document, description: 'Anew.' },
      sitting: 'one',
    });
    const over = await ask('POST', at(article), { act: 'update', revision: saved.body.revision });
    expect([over.status, over.problem.detail]).toEqual([502, expect.stringContaining('Somebody changed the post')]);
    expect((await settle(article, seen, ['theirs'])).body).toEqual({ done: true });
    expect(articleText((await read(article.id)).document)).toContain('Press the cabbage hard.');
    expect(await outside(article)).toMatchObject({ kind: 'same' });
    expect((await read(article.id)).publications[0]).toMatchObject({ outside: null, newest: true });
  });

  test('ours is put back, exactly as it was sent', async () => {
    const article = await live(`Ours, ${way} ${form}`, await blogBy(way, form));
    await editThere(article, (html) => html.replace('Let it stand.', 'Let it stand for long.'));
    const seen = await outside(article);
    expect((await settle(article, seen, ['ours'])).body).toEqual({ done: true });
    const after = await outside(article);
    expect(after).toMatchObject({ kind: 'same' });
    expect(after.acts.map(({ act }) => act)).toEqual(['published', 'updated']);
    expect(await shownThere(article)).not.toContain('for long');
    const revisions = await ask<{ revisions: unknown[] }>('GET', `/articles/${article.id}/revisions`);
    expect(revisions.body.revisions).toHaveLength(1);
  });
});

describe('what was changed on a blog', () => {
  test('is found by itself, and a title, an added and a removed paragraph are told apart', async () => {
    const article = await live('By itself', await blogBy('micropub'));
    await editThere(
      article,
      (html) => html.replace('<p>Let it stand.</p>', '<p>Come and see us.</p><p>Bring a jar.</p>'),
      'Renamed there',
    );
    await w.product.ground.db.run(
      'UPDATE publication SET compare_at = UTC_TIMESTAMP(3) - INTERVAL 1 SECOND WHERE article = ?',
      [article.id],
    );
    await compareOutside(w.product.tools);
    expect((await read(article.id)).publications[0]!.outside).toMatchObject({ kind: 'changed' });
    const seen = await outside(article);
    expect(seen.title).toEqual({ ours: 'By itself', theirs: 'Renamed there' });
    const changed = seen.places.filter(({ changed }) => changed);
    expect(
      (
        await settle(
          article,
          seen,
          changed.map(() => 'both'),
          'theirs',
        )
      ).body,
    ).toEqual({ done: true });
    const now = await read(article.id);
    expect(now.title).toBe('Renamed there');
    expect(articleText(now.document)).toMatch(/Let it stand\.[\s\S]*Come and see us\.\s*Bring a jar\./);
    expect(await outside(article)).toMatchObject({ kind: 'same' });
  });

  test('is not that another article of ours, linked to in it, was put elsewhere', async () => {
    const blog = await blogBy('micropub');
    const other = await live('Linked to', blog);
    const linking = await live('Linking', blog);
    const body = linking.document.body.map((block, i) =>
      i === 0 ? { ...block, content: [{ text: 'See there.', link: { to: 'article', article: other.id } }] } : block,
    );
    const saved = await ask<{ revision: string }>('PUT', `/articles/${linking.id}/document`, {
      base: linking.revision,
      document: { ...linking.document, body },
      sitting: 'l',
    });
    expect((await ask('POST', at(linking), { act: 'update', revision: saved.body.revision })).status).toBe(200);
    for (const act of ['withdraw', 'publish']) {
      expect(await outside(linking)).toMatchObject({ kind: 'same' });
      expect((await ask('POST', at(other), { act, revision: other.revision })).status).toBe(200);
    }
    expect(await outside(linking)).toMatchObject({ kind: 'same' });
  });

  test('since it was looked at is not settled by what was chosen before', async () => {
    const article = await live('Twice there', await blogBy('micropub'));
    await editThere(article, (html) => html.replace('Let it stand.', 'Let it stand for long.'));
    const seen = await outside(article);
    await editThere(article, (html) => html.replace('for long', 'for a week'));
    expect((await settle(article, seen, ['theirs'])).status).toBe(412);
    expect(articleText((await read(article.id)).document)).not.toContain('for long');
  });

  test('and here since is brought together: theirs is taken, and what was changed here goes out with it', async () => {
    const article = await live('Both sides', await blogBy('micropub'));
    await editThere(article, (html) => html.replace('Let it stand.', 'Let it stand for long.'));
    const { document, revision } = await read(article.id);
    const body = document.body.map((block) =>
      articleText({ body: [block] }) === 'Press the cabbage.' ? { ...block, content: [{ text: 'Press it.' }] } : block,
    );
    await ask('PUT', `/articles/${article.id}/document`, {
      base: revision,
      document: { ...document, body },
      sitting: 'x',
    });
    const seen = await outside(article);
    expect(seen.newer).toBe(true);
    expect((await settle(article, seen, ['theirs'])).body).toEqual({ done: true });
    const post = w.standIns
      .received()
      .posts('kitchen')
      .find((one) => one.address === article.address)!;
    expect(post.html).toContain('Press it.');
    expect(post.html).toContain('Let it stand for long.');
  });

  test('a post somebody removed is told and not made again; it can be published anew', async () => {
    const article = await live('Removed there', await blogBy('micropub'));
    await editThere(article, () => null);
    const seen = await outside(article);
    expect(seen.kind).toBe('gone');
    expect((await settle(article, seen, [])).body).toEqual({ done: true });
    const gone = await read(article.id);
    expect(gone.publications[0]).toMatchObject({ state: 'withdrawn', outside: null });
    const again = await ask<{ done: boolean }>('POST', at(article), { act: 'publish', revision: gone.revision });
    expect(again.body).toEqual({ done: true });
    expect(await outside(await read(article.id))).toMatchObject({ kind: 'same' });
  });

  test('a reader may not settle it', async () => {
    const article = await live('Not by readers', await blogBy('micropub'));
    const proofreader = await http.as('proofreader');
    const refused = await proofreader('POST', `${at(article)}/outside`, { digest: 'x', title: 'ours', choices: [] });
    expect(refused.status).toBe(403);
  });
});
