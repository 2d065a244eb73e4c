import { createHash } from 'node:crypto';
import type { LinkPage } from '@grivo/core';
import type { Sql } from '../../ground/store/database.ts';

/** The pages of a blog that articles may link to, newest first; 5,000 are plenty to choose from. */
export async function linkPages(sql: Sql, blog: string): Promise<LinkPage[]> {
  const rows = await sql.rows<{ address: string; title: string; article: string | null }>(
    'SELECT address, title, article FROM link_page WHERE blog = ? ORDER BY seen_at DESC LIMIT 5000',
    [blog],
  );
  return rows.map(({ address, title, article }) => ({ address, title, ...(article === null ? {} : { article }) }));
}

export interface SeenPage {
  address: string;
  title: string;
  article: string | null;
}

export async function rememberPages(sql: Sql, blog: string, pages: readonly SeenPage[]): Promise<void> {
  if (pages.length === 0) return;
  await sql.run(
    'INSERT INTO link_page (blog, address_digest, address, title, article) VALUES ? ON DUPLICATE KEY UPDATE title = VALUES(title), article = COALESCE(VALUES(article), article), seen_at = UTC_TIMESTAMP(3)',
    [
      pages.map(({ address, title, article }) => [
        blog,
        createHash('sha256').update(address).digest('hex'),
        address.slice(0, 1_000),
        title.slice(0, 500),
        article,
      ]),
    ],
  );
}
