import { mkdir } from 'node:fs/promises';
import { type BlogWay, FOLDER_AS_MADE, type WaySettings } from '@grivo/contract';
import type { CadenceRule } from '@grivo/core';
import type { Sql } from '../../ground/store/database.ts';
import { folderAmong } from '../../ports/blogs/ways/folder/files.ts';
import type { Tools } from '../../ports/tools.ts';
import { readAtFirst } from '../links/read.ts';
import { blogNames } from './repository.ts';

export interface NewBlog {
  name: string;
  address: string;
  way?: BlogWay;
  endpoint: string;
  settings?: WaySettings;
  secret: string;
  language: string;
  cadence: CadenceRule;
  timeLimitMs: number;
}

export type MadeBlogOr =
  | { kind: 'made'; id: string; joined: boolean }
  /** What is entered cannot be used. */
  | { kind: 'unfit'; place: string; problem: string; mend: string };

/**
 * Connects a blog: asks where it takes pictures, and reads its pages for links. Neither need succeed for it to be kept. A blog that is
 * connected already keeps its name, its cadence and all that was published there, and gets the new secret.
 */
export async function createBlog(tools: Tools, blog: NewBlog): Promise<MadeBlogOr> {
  const { ground, secrets } = tools;
  const { way = 'micropub', timeLimitMs } = blog;
  const at = await endpointOf(tools, way, blog);
  if (typeof at !== 'string') return at;
  const settings = {
    ...blog.settings,
    ...(way === 'folder' ? { folder: blog.settings?.folder ?? FOLDER_AS_MADE } : {}),
  };
  const secret = blog.secret.trim() === '' ? null : secrets.seal(blog.secret.trim());
  const { name, address } = blog;
  const target = {
    id: ground.ids(),
    name,
    address,
    way,
    endpoint: at,
    mediaEndpoint: null,
    secret,
    settings,
    timeLimitMs,
  };
  const config = await tools.blogs(target).config(target, AbortSignal.timeout(timeLimitMs));
  const media = config.ok ? config.value.mediaEndpoint : null;
  const kept = JSON.stringify((config.ok ? config.value.settings : null) ?? settings);
  const { id, joined } = await ground.db.transaction((sql) =>
    joinedOrPut(sql, ground.ids(), { blog, way, endpoint: at, settings, kept, media, secret }),
  );
  if (way !== 'folder') await readAtFirst(ground.db, tools, { id, address, language: blog.language });
  return { kind: 'made', id, joined };
}

interface BlogToKeep {
  blog: NewBlog;
  way: string;
  endpoint: string;
  settings: WaySettings;
  /** Its settings as they are kept, with what it told of itself. */
  kept: string;
  media: string | null;
  secret: Buffer | null;
}

/** Keeps a blog, or brings the one that is at its address already up to date. */
async function joinedOrPut(
  sql: Sql,
  id: string,
  { blog, way, endpoint: at, settings, kept, media, secret }: BlogToKeep,
): Promise<{ id: string; joined: boolean }> {
  const rows = await sql.rows<{ id: string; way: string; endpoint: string; settings: WaySettings }>(
    'SELECT id, way, endpoint, settings FROM blog FOR UPDATE',
  );
  const known = rows.find(
    (row) =>
      row.way === way && sameAddress(row.endpoint, at) && (row.settings.blogId ?? '') === (settings.blogId ?? ''),
  );
  if (known) {
    await sql.run(
      'UPDATE blog SET secret = ?, settings = JSON_MERGE_PATCH(settings, ?), media_endpoint = COALESCE(?, media_endpoint), archived = 0, rev = rev + 1 WHERE id = ?',
      [secret, kept, media, known.id],
    );
    return { id: known.id, joined: true };
  }
  await sql.run(
    'INSERT INTO blog (id, name, address, way, endpoint, settings, media_endpoint, secret, language, time_limit_ms, cadence) VALUES (?)',
    [
      [
        id,
        await freeName(sql, blog.name),
        blog.address,
        way,
        at,
        kept,
        media,
        secret,
        blog.language,
        blog.timeLimitMs,
        JSON.stringify(blog.cadence),
      ],
    ],
  );
  return { id, joined: false };
}

/** Where posts go: an address, or for a folder its path below one of those the installation allows. */
async function endpointOf(
  { folders }: Tools,
  way: BlogWay,
  { endpoint, secret }: Pick<NewBlog, 'endpoint' | 'secret'>,
): Promise<string | Extract<MadeBlogOr, { kind: 'unfit' }>> {
  if (way !== 'folder') {
    if (secret.trim() === '')
      return {
        kind: 'unfit',
        place: 'secret',
        problem: 'A blog by this way needs a secret.',
        mend: 'Paste the one the blog gave.',
      };
    if (URL.canParse(endpoint) && /^https?:$/.test(new URL(endpoint).protocol)) return endpoint;
    return {
      kind: 'unfit',
      place: 'endpoint',
      problem: `‘${endpoint}’ is no web address.`,
      mend: 'Enter it whole, as https://blog.example/posts.',
    };
  }
  if (folders.length === 0)
    return {
      kind: 'unfit',
      place: 'endpoint',
      problem: 'This installation allows no folders.',
      mend: 'Whoever runs Grivo names those that may be written to in GRIVO_FOLDERS and starts it again.',
    };
  const path = folderAmong(endpoint, folders);
  if (path === null)
    return {
      kind: 'unfit',
      place: 'endpoint',
      problem: `‘${endpoint}’ lies below none of the folders this installation allows.`,
      mend: `Enter a path below ${folders.join(' or ')}.`,
    };
  try {
    await mkdir(path, { recursive: true });
  } catch (error) {
    const { code } = error as NodeJS.ErrnoException;
    return {
      kind: 'unfit',
      place: 'endpoint',
      problem: `The folder cannot be made there (${code}).`,
      mend: 'Let the user Grivo runs as write there, or choose another one.',
    };
  }
  return path;
}

/** Addresses that lead to the same: but for a stroke at the end and the case of the host. */
export function sameAddress(a: string, b: string): boolean {
  const plain = (address: string) => (URL.canParse(address) ? new URL(address).href : address).replace(/\/$/, '');
  return plain(a) === plain(b);
}

/** A name no other blog has: names are chosen from. */
async function freeName(sql: Sql, wanted: string): Promise<string> {
  const taken = new Set((await blogNames(sql)).map(({ name }) => name.toLowerCase()));
  for (let n = 1; ; n++) {
    const name = n === 1 ? wanted : `${wanted.slice(0, 110)} (${n})`;
    if (!taken.has(name.toLowerCase())) return name;
  }
}
