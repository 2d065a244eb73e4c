import type { PublicationSettings } from '@grivo/contract';
import type { Failure } from '@grivo/core';
import { feedsAt } from '../../../formats/feeds/find.ts';
import { plainAddress } from '../../../formats/videos/channel.ts';
import type { Sql } from '../../../ground/store/database.ts';
import type { LookPorts } from '../../../ports/tools.ts';
import type { Found, SourceReader } from '../kind.ts';
import { asFound } from './feed.ts';

const MOST = 5_000;

/**
 * What went out on our blogs, so that something can follow it. What was made from this very source, at whatever remove,
 * never comes in by it: else an article would follow itself for ever.
 */
export const publications: SourceReader<'publications'> = {
  async look(ports, source, signal) {
    const { settings } = source;
    if (settings.of === 'what we published') {
      const found = await publishedBy(ports.ground.db, source.id, settings.blogs);
      return { ok: true, entries: inOne(found), ended: { whole: false, partly: null } };
    }
    return postsOf(ports, source, signal);
  },
};

async function* inOne(found: Found[]): AsyncGenerator<Found[]> {
  yield found;
}

interface PublishedRow {
  id: string;
  address: string;
  out_desk: number | null;
  article: string;
  title: string;
  language: string;
  blog: string;
  name: string;
}

/** Publications that come of a source: what its items became, and what became of those. */
const COME_OF = `WITH RECURSIVE own (publication, address, n) AS (
    SELECT p.id, p.address, 1 FROM item i JOIN brief_item bi ON bi.item = i.id JOIN article a ON a.brief = bi.brief JOIN publication p ON p.article = a.id WHERE i.source = ?
    UNION
    SELECT p.id, p.address, own.n + 1 FROM own JOIN source s ON s.kind = 'publications' JOIN item i ON i.source = s.id AND JSON_VALUE(i.fields, '$.link') = own.address JOIN brief_item bi ON bi.item = i.id
      JOIN article a ON a.brief = bi.brief JOIN publication p ON p.article = a.id WHERE own.n < 5
  ) SELECT DISTINCT publication, address FROM own`;

async function comeOf(sql: Sql, source: string): Promise<{ ids: Set<string>; addresses: Set<string> }> {
  const rows = await sql.rows<{ publication: string; address: string | null }>(COME_OF, [source]);
  return {
    ids: new Set(rows.map(({ publication }) => publication)),
    addresses: new Set(rows.flatMap(({ address }) => (address === null ? [] : [plainAddress(address)]))),
  };
}

async function publishedBy(sql: Sql, source: string, blogs: readonly string[]): Promise<Found[]> {
  const { ids } = await comeOf(sql, source);
  const rows = await sql.rows<PublishedRow>(
    `SELECT p.id, p.address, p.out_desk, a.id AS article, a.title, a.language, p.blog, b.name FROM publication p JOIN article a ON a.id = p.article JOIN blog b ON b.id = p.blog
     WHERE p.state = 'live' AND p.address IS NOT NULL${blogs.length > 0 ? ' AND p.blog IN (?)' : ''} ORDER BY p.out_desk DESC, p.id DESC LIMIT ${MOST}`,
    blogs.length > 0 ? [blogs] : [],
  );
  return rows
    .filter(({ id }) => !ids.has(id))
    .reverse()
    .map(
      (row): Found => ({
        identity: `publication ${row.id}`,
        subject: row.title,
        content: '',
        fields: () => ({
          link: row.address,
          title: row.title,
          about: row.name,
          publication: { id: row.id, article: row.article, blog: row.blog, language: row.language },
        }),
        publishedDesk: row.out_desk === null ? null : Number(row.out_desk),
        leftOut: null,
      }),
    );
}

async function postsOf(
  ports: LookPorts,
  source: { id: string; settings: PublicationSettings },
  signal: AbortSignal,
): ReturnType<SourceReader<'publications'>['look']> {
  const { db } = ports.ground;
  const { blogs } = source.settings;
  const rows = await db.rows<{ id: string; name: string; address: string }>(
    `SELECT id, name, address FROM blog${blogs.length > 0 ? ' WHERE id IN (?)' : ''}`,
    blogs.length > 0 ? [blogs] : [],
  );
  const { addresses } = await comeOf(db, source.id);
  const found: Found[] = [];
  const broken: string[] = [];
  for (const blog of rows) {
    const at = await feedsAt(ports, blog.address, signal, {
      name: blog.name,
      settings: { unwrap: [], shortest: 0 },
    });
    if (!at.ok) broken.push(`${blog.name}: ${at.reason}`);
    else
      for (const feed of at.feeds)
        for (const one of feed.found) if (!addresses.has(one.identity)) found.push(asFound(one));
  }
  const failure: Failure = {
    code: 'source-unreadable',
    source: source.id,
    reason: broken.join('; ') || 'there is no blog',
    mend: 'Connect a blog, or give its feed as a source of its own.',
  };
  if (broken.length === rows.length) return { ok: false, failure };
  return { ok: true, entries: inOne(found), ended: { whole: false, partly: broken.length > 0 ? failure : null } };
}
