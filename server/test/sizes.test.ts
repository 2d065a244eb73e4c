import type { ArticleWhole, Blog, BlogWay, OutsideShown } from '@grivo/contract';
import sharp from 'sharp';
import { describe, expect, test } from 'vitest';
import { makeNextCopies } from '../src/nouns/pictures/sizes.ts';
import { notePictures } from '../src/nouns/pictures/uses.ts';
import { bringPosts } from '../src/nouns/publishing/anew.ts';
import type { BlogPort } from '../src/ports/blogs/blog.ts';
import type { Ask } from './ground/http.ts';
import { atTheSites, connectedBy, liveOn, readThere, type Sites } from './ground/sites.ts';

let w: Sites['w'];
let http: Sites['http'];
let ask: Sites['ask'];
let sites: string;
let owner: Ask | undefined;
// What is brought and made in the background the tests do themselves.
atTheSites((open) => ({ w, http, ask, sites } = open), { upkeep: [] });

let tone = 0;
/** A photograph of its own, 1,300 wide, as an address that holds it. */
async function photograph(): Promise<string> {
  tone += 16;
  const background = { r: tone % 256, g: 120, b: 60 };
  const bytes = await sharp({ create: { width: 1_300, height: 650, channels: 3, background } })
    .jpeg()
    .toBuffer();
  return `data:image/jpeg;base64,${bytes.toString('base64')}`;
}

/** An article with a picture in its text, live on a blog. */
async function live(title: string, blog: string): Promise<ArticleWhole> {
  const body = `Oil the girth first.\n\n![A girth on a peg](${await photograph()})\n\nThen let it dry.`;
  return liveOn({ w, ask }, blog, { title, body });
}

const there = (article: ArticleWhole, form: string): string =>
  readThere({ w, sites }, article, form === '' ? null : form);
const setsIn = (html: string): string[] => [...html.matchAll(/srcset="([^"]+)"/g)].map(([, set]) => set!);
const widthsIn = (set: string): number[] => [...set.matchAll(/ (\d+)w/g)].map(([, width]) => Number(width));
async function pictures(blog: string, said: 'one' | 'several'): Promise<void> {
  owner ??= await http.as('owner');
  const { status, body } = await owner<{ blogs: Blog[] }>('PATCH', `/blogs/${blog}`, { pictures: said });
  expect(status).toBe(200);
  expect(body.blogs.find(({ id }) => id === blog)!.settings.pictures).toBe(said);
}
/** What upkeep does, until nothing is left to be done. */
async function work(): Promise<void> {
  for (let busy = true; busy; ) {
    await notePictures(w.product.ground.db);
    busy = (await bringPosts(w.product.tools)) > 0 || (await makeNextCopies(w.product.ground.db));
  }
}
async function unchangedThere(article: ArticleWhole): Promise<void> {
  const at = `/articles/${article.id}/publications/${article.publications[0]!.id}`;
  const seen = (await ask<OutsideShown>('GET', `${at}/outside`)).body;
  expect(seen.places?.filter(({ changed }) => changed) ?? []).toEqual([]);
}

describe.each<[BlogWay, string]>([
  ['micropub', ''],
  ['atom', ''],
  ['xml-rpc', ''],
  ['folder', 'HTML'],
  ['hook', ''],
])('on a blog by %s %s', (way, form) => {
  test('pictures go in one width at first, in several when it is said, and in one again', async () => {
    const name = way === 'folder' ? form : `Sizes ${way}`;
    const blog = await connectedBy(w, way, { name, folder: { form: 'HTML' } });
    const before = await live(`Girths by ${way}`, blog);
    expect(there(before, form)).toMatch(/<img [^>]*alt="A girth on a peg"/);
    expect(setsIn(there(before, form))).toEqual([]);

    await pictures(blog, 'several');
    const after = await live(`Reins by ${way}`, blog);
    // At once in the form that is quick to make.
    expect(setsIn(there(after, form)).map(widthsIn)).toEqual([[400, 800, 1_200, 1_300]]);
    await work();
    for (const article of [before, after]) {
      const html = there(article, form);
      expect(html).toMatch(
        /<picture><source type="image\/avif" srcset="[^"]+" sizes="\(max-width: 720px\) 100vw, 720px"><img /,
      );
      expect(setsIn(html).map(widthsIn)).toEqual([
        [400, 800, 1_200, 1_300],
        [400, 800, 1_200, 1_300],
      ]);
      await unchangedThere(article);
    }
    if (way !== 'folder')
      for (const [i, set] of setsIn(there(after, form)).entries())
        for (const one of set.split(', ')) {
          const [address, width] = one.split(' ');
          const body = Buffer.from(await (await fetch(address!)).arrayBuffer());
          const { width: real, compression, format } = await sharp(body).metadata();
          expect([`${real}w`, i === 0 ? compression : format]).toEqual([width, i === 0 ? 'av1' : 'webp']);
        }

    await pictures(blog, 'one');
    await work();
    for (const article of [before, after]) {
      expect(setsIn(there(article, form))).toEqual([]);
      expect(there(article, form)).not.toContain('<picture>');
      await unchangedThere(article);
    }
  });
});

test('where a blog is sent Markdown there is one width', async () => {
  const blog = await connectedBy(w, 'folder', { name: 'Markdown', folder: { form: 'Markdown' } });
  await pictures(blog, 'several');
  const article = await live('Bits', blog);
  await work();
  expect(there(article, 'Markdown')).toMatch(/!\[A girth on a peg\]\([^)]+\.webp\)/);
  expect(there(article, 'Markdown')).not.toContain('srcset');
});

test('a form that a blog refuses is done without, and nothing else', async () => {
  const { tools } = w.product;
  const real = tools.blogs;
  tools.blogs = (at) =>
    new Proxy(real(at), {
      get: (port: BlogPort, name: keyof BlogPort) =>
        name === 'upload'
          ? async (...[blog, file, signal]: Parameters<BlogPort['upload']>) =>
              file.mime === 'image/avif'
                ? {
                    kind: 'not done',
                    failure: { code: 'reply-unusable', service: blog.id, problem: 'no AVIF' },
                  }
                : port.upload(blog, file, signal)
          : ((port[name] as (...all: unknown[]) => unknown).bind?.(port) ?? port[name]),
    });
  const blog = await connectedBy(w, 'micropub', { name: 'Refuses', site: 'journal' });
  await pictures(blog, 'several');
  const article = await live('Stirrups', blog);
  await work();
  tools.blogs = real;
  const html = there(article, '');
  expect(html).not.toContain('avif');
  expect(setsIn(html).map(widthsIn)).toEqual([[400, 800, 1_200, 1_300]]);
});
