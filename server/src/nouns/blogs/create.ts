import type { CadenceRule } from '@grivo/core';
import type { Sql } from '../../ground/store/database.ts';
import type { Tools } from '../../ports/tools.ts';
import { readLinkIndex } from '../links/read.ts';
import { blogNames } from './repository.ts';

/** The way posts go to a blog that is connected by its endpoint. */
const WAY = 'micropub';

export interface NewBlog {
  name: string;
  address: string;
  endpoint: string;
  secret: string;
  language: string;
  cadence: CadenceRule;
  timeLimitMs: number;
}

/**
 * Connects a blog: asks where it takes pictures, and reads its pages for links. Neither need succeed for it to be kept. A blog that is
 * connected already keeps its name, its cadence and all that was published there, and gets the new secret.
 */
export async function createBlog(tools: Tools, blog: NewBlog): Promise<{ id: string; joined: boolean }> {
  const { ground, secrets } = tools;
  const { endpoint, timeLimitMs } = blog;
  const secret = secrets.seal(blog.secret.trim());
  const config = await tools
    .blogs({ way: WAY })
    .config(
      { id: ground.ids(), way: WAY, endpoint, mediaEndpoint: null, secret, timeLimitMs },
      AbortSignal.timeout(timeLimitMs),
    );
  const media = config.ok ? config.value.mediaEndpoint : null;
  const { id, joined } = await ground.db.transaction(async (sql) => {
    const rows = await sql.rows<{ id: string; endpoint: string }>('SELECT id, endpoint FROM blog FOR UPDATE');
    const known = rows.find((row) => sameAddress(row.endpoint, endpoint));
    if (known) {
      await sql.run(
        'UPDATE blog SET secret = ?, media_endpoint = COALESCE(?, media_endpoint), archived = 0, rev = rev + 1 WHERE id = ?',
        [secret, media, known.id],
      );
      return { id: known.id, joined: true };
    }
    const id = ground.ids();
    await sql.run(
      'INSERT INTO blog (id, name, address, endpoint, media_endpoint, secret, language, time_limit_ms, cadence) VALUES (?)',
      [
        [
          id,
          await freeName(sql, blog.name),
          blog.address,
          endpoint,
          media,
          secret,
          blog.language,
          timeLimitMs,
          JSON.stringify(blog.cadence),
        ],
      ],
    );
    return { id, joined: false };
  });
  await readLinkIndex(ground.db, tools, { id, address: blog.address }, AbortSignal.timeout(60_000));
  return { id, joined };
}

/** Addresses that lead to the same: but for a stroke at the end and the case of the host. */
export function sameAddress(a: string, b: string): boolean {
  const plain = (address: string) => new URL(address).href.replace(/\/$/, '');
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
