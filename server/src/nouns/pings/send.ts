import type { PingKind } from '@grivo/contract';
import type { Network } from '../../ground/network/network.ts';
import type { Sql } from '../../ground/store/database.ts';
import { type Pinged, tellHub, tellSearch } from '../../ports/pings/pings.ts';
import type { Tools } from '../../ports/tools.ts';
import { codeAt, type PingsRow } from './repository.ts';

interface DueRow {
  publication: string;
  kind: PingKind;
  blog: string;
  address: string;
  tries: number;
}

/** As many addresses as one message of IndexNow takes at most are a hundred times these. */
const AT_ONCE = 100;
/** Minutes until it is tried again, by how often it was; after the last it is for a person. */
const AGAIN_MINUTES = [1, 5, 30, 120, 720];
const CLAIM_MINUTES = 2;

/**
 * Tells search engines and hubs what is new on blogs, some at a time. What comes of it changes nothing about what is out:
 * it has its own standing, and is tried again on its own.
 */
export async function sendPings({ ground, network }: Pick<Tools, 'ground' | 'network'>): Promise<number> {
  const { db } = ground;
  const due = await db.rows<DueRow>(
    `SELECT publication, kind, blog, address, tries FROM ping WHERE state = 'due' AND due_at <= UTC_TIMESTAMP(3) ORDER BY due_at LIMIT ${AT_ONCE}`,
  );
  const groups = new Map<string, DueRow[]>();
  for (const row of due) groups.set(`${row.blog} ${row.kind}`, [...(groups.get(`${row.blog} ${row.kind}`) ?? []), row]);
  for (const rows of groups.values()) {
    const { blog, kind } = rows[0]!;
    const ids = rows.map(({ publication }) => publication);
    // Whoever is first tells; told twice, nothing is worse.
    await db.run(
      `UPDATE ping SET due_at = UTC_TIMESTAMP(3) + INTERVAL ${CLAIM_MINUTES} MINUTE WHERE state = 'due' AND kind = ? AND publication IN (?)`,
      [kind, ids],
    );
    const [to] = await db.rows<PingsRow & { home: string }>(
      'SELECT s.*, b.address AS home FROM blog_pings s JOIN blog b ON b.id = s.blog WHERE s.blog = ?',
      [blog],
    );
    const pinged = to
      ? await tell(network, kind, to, rows)
      : ({ kind: 'no', said: 'nobody is told any more' } as const);
    await keep(db, { kind, ids, tries: Math.min(...rows.map((row) => row.tries)) }, pinged);
  }
  // What was told long ago is of no more use.
  if (due.length > 0)
    await db.run("DELETE FROM ping WHERE state = 'told' AND due_at < UTC_TIMESTAMP(3) - INTERVAL 90 DAY LIMIT 200");
  return due.length;
}

/** Keeps what came of telling; what became new again meanwhile is told again. */
async function keep(
  sql: Sql,
  { kind, ids, tries }: { kind: PingKind; ids: readonly string[]; tries: number },
  pinged: Pinged,
): Promise<void> {
  const [state, set] =
    pinged.kind === 'told'
      ? ['told', 'told_at = UTC_TIMESTAMP(3)']
      : pinged.kind === 'no' || AGAIN_MINUTES[tries] === undefined
        ? ['refused', 'told_at = told_at']
        : ['due', 'tries = tries + 1'];
  const waitS =
    pinged.kind === 'later' && state === 'due'
      ? Math.max(AGAIN_MINUTES[tries]! * 60, Math.ceil((pinged.afterMs ?? 0) / 1_000))
      : 0;
  await sql.run(
    `UPDATE ping SET state = ?, said = ?, ${set}, due_at = UTC_TIMESTAMP(3) + INTERVAL ? SECOND WHERE kind = ? AND publication IN (?) AND state = 'due' AND due_at > UTC_TIMESTAMP(3)`,
    [state, pinged.kind === 'told' ? '' : pinged.said.slice(0, 300), waitS, kind, ids],
  );
}

function tell(
  network: Network,
  kind: PingKind,
  { search, code, hub, feed, home }: PingsRow & { home: string },
  rows: readonly DueRow[],
): Promise<Pinged> | Pinged {
  if (kind === 'hub') return hub === '' ? { kind: 'no', said: 'no hub is named' } : tellHub(network, { hub, feed });
  const at = codeAt(home, code);
  const { host } = new URL(at);
  const addresses = rows.flatMap(({ address }) =>
    URL.canParse(address) && new URL(address).host === host ? [address] : [],
  );
  if (search === '' || addresses.length === 0)
    return { kind: 'no', said: search === '' ? 'no search engine is named' : `the post is not read at ${host}` };
  return tellSearch(network, { search, code, codeAt: at, addresses });
}
