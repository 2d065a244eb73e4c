// Publishing: a thousand articles into a folder with front page, feed and sitemap, over writing the same files plainly.
import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, relative } from 'node:path';
import { FOLDER_AS_MADE } from '@grivo/contract';
import { FolderBlog } from '../../server/src/ports/blogs/ways/folder/folderBlog.ts';
import { median } from './ground.mjs';

const MANY = 1_000;
const ROUNDS = 3;

export async function publish() {
  const ratios = [];
  const times = [];
  for (let round = 0; round < ROUNDS; round++) {
    const sites = mkdtempSync(join(tmpdir(), 'grivo-bench-'));
    try {
      const ours = await published(sites);
      const plain = written(join(sites, 'ours'), join(sites, 'plain'));
      times.push(ours);
      ratios.push(ours / plain);
    } finally {
      rmSync(sites, { recursive: true, force: true });
    }
  }
  return { 'publish.folder1000': Number(median(ratios).toFixed(2)), 'publish.folder1000Ms': Math.round(median(times)) };
}

/** A thousand articles one after the other, and all that is kept around them. @returns milliseconds */
async function published(sites) {
  const folder = join(sites, 'ours');
  mkdirSync(folder);
  const port = new FolderBlog({ folders: [sites], now: Date.now });
  const blog = {
    id: 'b',
    name: 'Notes',
    address: 'https://notes.example',
    way: 'folder',
    endpoint: folder,
    mediaEndpoint: null,
    secret: null,
    settings: { folder: { ...FOLDER_AS_MADE, form: 'HTML', file: '{slug}', link: '{slug}.html', pages: true } },
    timeLimitMs: 5_000,
  };
  const html = '<p>Comb the hair wet, and let it dry for a day before the bow is tightened again.</p>\n'.repeat(60);
  const begun = performance.now();
  for (let n = 0; n < MANY; n++) {
    const done = await port.create(blog, post(n, html), 'published');
    if (done.kind !== 'done') throw new Error(JSON.stringify(done));
  }
  await port.settled();
  return performance.now() - begun;
}

const post = (n, html) => ({
  key: `k${n}`,
  name: `Rehairing ${n}`,
  html,
  markdown: 'Comb the hair wet.',
  summary: 'How it is done.',
  slug: `rehairing-k${n}`,
  categories: ['bows'],
  language: 'en',
  author: null,
  photo: null,
});

/** The same files written one after the other. @returns milliseconds */
function written(from, to) {
  const files = readdirSync(from, { recursive: true, withFileTypes: true })
    .filter((one) => one.isFile())
    .map((one) => relative(from, join(one.parentPath, one.name)));
  const bodies = files.map((file) => [file, readFileSync(join(from, file))]);
  for (const file of files) mkdirSync(join(to, file, '..'), { recursive: true });
  if (!statSync(to).isDirectory()) throw new Error(to);
  const begun = performance.now();
  for (const [file, body] of bodies) writeFileSync(join(to, file), body, { flush: true });
  return performance.now() - begun;
}
