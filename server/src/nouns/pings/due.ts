import type { PingKind } from '@grivo/contract';
import type { Write } from '../../ground/store/write.ts';

const WANTED: Record<PingKind, string> = { search: "s.search <> ''", hub: "s.hub <> '' AND s.feed <> ''" };

/** Something of a blog is new, changed or gone at an address: whoever is to be told of it is told soon, whatever else happens. */
export function dueWrites({ id, blog }: { id: string; blog: string }, address: string | null): Write[] {
  if (address === null) return [];
  return (Object.keys(WANTED) as PingKind[]).map((kind) => ({
    text: `INSERT INTO ping (publication, kind, blog, address, state, due_at)
      SELECT ?, ?, s.blog, ?, 'due', UTC_TIMESTAMP(3) FROM blog_pings s WHERE s.blog = ? AND ${WANTED[kind]}
      ON DUPLICATE KEY UPDATE address = VALUES(address), state = 'due', tries = 0, due_at = VALUES(due_at), said = ''`,
    parameters: [id, kind, address, blog],
  }));
}
