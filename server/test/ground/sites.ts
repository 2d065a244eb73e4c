import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type BlogWay, FOLDER_AS_MADE, type FolderSettings } from '@grivo/contract';
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
