import { type ArticleDocument, linkUses } from '@grivo/core';
import type { Database } from '../../ground/store/database.ts';
import { readRevision } from '../articles/repository.ts';
import { resolverFor } from '../articles/resolver.ts';
import { addressDigest, fillTerms } from '../links/pages.ts';

/** Publications whose links are noted in one go. */
const AT_ONCE = 40;
const LONGEST_ADDRESS = 1_000;
const LONGEST_ANCHOR = 200;

interface StaleRow {
  id: string;
  article: string;
  blog: string;
  state: string;
  revision: string | null;
  rev: number;
}

/** Hosts of addresses; what has none is never looked at. */
export const hostOfLink = (address: string): string | null =>
  /^https?:/i.test(address) && URL.canParse(address) ? new URL(address).host : null;

/**
 * Notes where the links of articles lead that went out, changed or were taken away since, and that those addresses are to be
 * looked at. What only a blog knows, an article of ours that is not out, is noted once it is.
 * @returns how many publications there were
 */
export async function noteUses(db: Database): Promise<number> {
  const stale = await db.rows<StaleRow>(
    `SELECT id, article, blog, state, revision, rev FROM publication WHERE links_stale = 1 LIMIT ${AT_ONCE}`,
  );
  for (const publication of stale) {
    const { state, revision } = publication;
    const document = state === 'live' && revision !== null ? await readRevision(db, revision) : null;
    const links = document ? await linksOut(db, document) : [];
    await db.transaction(async (sql) => {
      // Two who note at the same moment do it one after the other, and the second has nothing left to do.
      const [still] = await sql.rows<{ links_stale: number }>(
        'SELECT links_stale FROM publication WHERE id = ? FOR UPDATE',
        [publication.id],
      );
      if (still?.links_stale !== 1) return;
      await sql.run('DELETE FROM link_use WHERE publication = ?', [publication.id]);
      if (document) await fillTerms(sql, publication.blog, publication.article, document);
      if (links.length > 0) {
        await sql.run(
          'INSERT INTO link_use (publication, n, blog, article, address_digest, address, target, block, anchor) VALUES ?',
          [
            links.map(({ address, target, block, anchor }, n) => [
              publication.id,
              n,
              publication.blog,
              publication.article,
              addressDigest(address),
              address,
              target,
              block,
              anchor,
            ]),
          ],
        );
        await sql.run('INSERT IGNORE INTO link_look (address_digest, address, host, state, next_at) VALUES ?', [
          links.map(({ address }) => [addressDigest(address), address, hostOfLink(address), 'new', new Date(0)]),
        ]);
      }
      await sql.run('UPDATE publication SET links_stale = 0 WHERE id = ? AND rev = ?', [
        publication.id,
        publication.rev,
      ]);
    });
  }
  return stale.length;
}

async function linksOut(db: Database, document: ArticleDocument) {
  const resolve = await resolverFor(db, document, () => '');
  return linkUses(document).flatMap(({ block, target, anchor }) => {
    const address = target.to === 'address' ? target.address : resolve.article(target.article);
    if (!address || address.length > LONGEST_ADDRESS || hostOfLink(address) === null) return [];
    return [
      {
        address,
        block: block.slice(0, 60),
        anchor: anchor.slice(0, LONGEST_ANCHOR),
        target: target.to === 'article' ? target.article : null,
      },
    ];
  });
}
