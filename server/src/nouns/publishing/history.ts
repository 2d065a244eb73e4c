import type { BlogAct } from '@grivo/contract';
import type { Sql } from '../../ground/store/database.ts';
import { type Deed, keyOf } from './editions.ts';
import type { PublicationRow } from './publications.ts';

/** Acts that are told of a publication at most, the newest. */
const MOST = 24;

/** What each deed is to people; one that is only a part of another is none. */
const TOLD: Partial<Record<Deed, BlogAct['act']>> = {
  create: 'published',
  live: 'published',
  update: 'updated',
  withdraw: 'withdrawn',
};

/** What was done with an article on a blog, edition by edition, and what somebody else did there last that is not settled. */
export async function actsOn(sql: Sql, publication: PublicationRow): Promise<BlogAct[]> {
  const { edition, outside } = publication;
  const keys = new Map<string, { edition: number; act: BlogAct['act'] }>();
  for (let n = Math.max(1, edition - MOST); n <= edition; n++)
    for (const [deed, act] of Object.entries(TOLD))
      keys.set(keyOf(deed as Deed, { ...publication, edition: n }), { edition: n, act });
  const rows = await sql.rows<{ key_: string; at: string }>(
    "SELECT key_, DATE_FORMAT(ended_at, '%Y-%m-%dT%H:%i:%s.000Z') AS at FROM intent WHERE key_ IN (?) AND state = 'done'",
    [[...keys.keys()]],
  );
  // A post that is made and then turned live is published once.
  const each = new Map<string, BlogAct>();
  for (const { key_, at } of rows.sort((a, b) => (a.at < b.at ? -1 : 1))) {
    const { edition: n, act } = keys.get(key_)!;
    each.set(`${n} ${act}`, { act, at });
  }
  const acts = [...each.values()].sort((a, b) => (a.at < b.at ? -1 : 1)).slice(-MOST);
  return outside
    ? [...acts, { act: outside.kind === 'gone' ? 'removed there' : 'changed there', at: outside.at }]
    : acts;
}
