import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type ArticleWhole, type BlogWay, FOLDER_AS_MADE, type FolderSettings } from '@grivo/contract';
import { stepKinds as k, type Step } from '@grivo/core';
import { afterAll, afterEach, beforeAll } from 'vitest';
import type { EngineOptions } from '../../src/engine/options.ts';
import { createBlog } from '../../src/nouns/blogs/create.ts';
import { type Ask, serve } from './http.ts';
import { DAILY, type World, world } from './world.ts';

/** A product at work that may write to a folder of sites, its API over HTTP, and an editor who asks it. */
export interface Sites {
  w: World;
  http: Awaited<ReturnType<typeof serve>>;
  ask: Ask;
  /** The folder blogs may be written to below. */
  sites: string;
}

/** Opens all of it before the tests of a file, calms the stand-ins after each, and closes it. `at` gets it once it is open. */
export function atTheSites(at: (sites: Sites) => void, options: Partial<EngineOptions> = {}): void {
  let open: Sites | undefined;
  beforeAll(async () => {
    const sites = mkdtempSync(join(tmpdir(), 'sites-'));
    const w = await world('one', { folders: [sites] });
    const http = await serve(w);
    open = { w, http, sites, ask: await http.as('editor') };
    at(open);
    await w.product.work('both', options);
  });
  afterEach(() => open?.w.standIns.calm());
  afterAll(async () => {
    open?.http.close();
    await open?.w.close();
    if (open) rmSync(open.sites, { recursive: true, force: true });
  });
}

/** A blog at one of the stand-in's, or in a folder of that name, connected by a way. @returns its id */
export async function connectedBy(
  w: World,
  way: BlogWay,
  {
    site = 'kitchen',
    name,
    language = 'en',
    folder = {},
  }: { site?: string; name: string; language?: string; folder?: Partial<FolderSettings> },
): Promise<string> {
  const at = w.standIns.blog(site);
  const made = await createBlog(w.product.tools, {
    name,
    address: way === 'folder' ? 'https://notes.example' : at.address,
    way,
    endpoint: { micropub: at.endpoint, atom: at.atom, 'xml-rpc': at.rpc, hook: at.hook, folder: name }[way],
    settings: {
      ...(way === 'xml-rpc' ? { user: at.user, blogId: site } : {}),
      ...(way === 'folder' ? { folder: { ...FOLDER_AS_MADE, file: '{slug}', ...folder } } : {}),
    },
    secret: way === 'folder' ? '' : at.token,
    language,
    cadence: DAILY,
    timeLimitMs: 2_000,
  });
  if (made.kind !== 'made') throw new Error(made.problem);
  return made.id;
}

/** An article laid out of a Markdown text and live on a blog. */
export async function liveOn(
  { w, ask }: Pick<Sites, 'w' | 'ask'>,
  blog: string,
  { title, body }: { title: string; body: string },
): Promise<ArticleWhole> {
  const pipeline = await w.pipeline([title], (all) => [
    all[0]!,
    { ...k['lay out'].fresh('s2'), body, title, reads: 'Markdown' } as Step,
    { ...k.publish.fresh('s9'), when: 'at once', blog } as Step,
  ]);
  const [brief] = await w.take(pipeline);
  await w.settled([brief!], ['out']);
  const [row] = await w.product.ground.db.rows<{ id: string }>('SELECT id FROM article WHERE brief = ?', [brief]);
  return (await ask<ArticleWhole>('GET', `/articles/${row!.id}`)).body;
}

/** What readers get of an article at one of the stand-in's blogs, or in a folder. */
export function readThere(
  { w, sites }: Pick<Sites, 'w' | 'sites'>,
  { address }: Pick<ArticleWhole, 'address'>,
  folder: string | null,
): string {
  if (folder !== null) {
    const at = join(sites, folder);
    return readFileSync(join(at, readdirSync(at).find((one) => one.startsWith(address!.split('/').at(-1)!))!), 'utf8');
  }
  const posts = ['kitchen', 'journal'].flatMap((site) => w.standIns.received().posts(site));
  return posts.find((one) => one.address === address)!.html;
}
