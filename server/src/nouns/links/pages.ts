import { createHash } from 'node:crypto';
import { type ArticleDocument, articleText, type LinkPage, termsOfPage } from '@grivo/core';
import type { Sql } from '../../ground/store/database.ts';
import type { Write } from '../../ground/store/write.ts';

/** Titles and addresses of pages; longer ones are cut. */
const LONGEST_TITLE = 500;
const LONGEST_ADDRESS = 1_000;

/** What an address is found by. */
export const addressDigest = (address: string): string => createHash('sha256').update(address).digest('hex');

export interface SeenPage {
  address: string;
  title: string;
  article: string | null;
  language: string | null;
  /** Null where its text was not read. */
  terms: ReadonlyMap<string, number> | null;
}

/** Stems with two digits each: a page is known by eighty of them. */
const kept = (terms: SeenPage['terms']): string | null =>
  terms && JSON.stringify([...terms].map(([stem, weight]) => [stem, Math.round(weight * 100) / 100]));

/** What an article is about, as a page others are linked to. */
export function termsOfArticle(document: ArticleDocument, text: string): Map<string, number> {
  const headings = document.body.flatMap((block) => (block.type === 'heading' ? [block.text] : []));
  return termsOfPage({ title: document.title, headings, text }, document.language);
}

const COLUMNS = 'blog, address_digest, address, title, article, language, terms, read_at';
const ON_KNOWN =
  'ON DUPLICATE KEY UPDATE title = VALUES(title), article = COALESCE(VALUES(article), article), language = VALUES(language), terms = VALUES(terms), read_at = VALUES(read_at), seen_at = UTC_TIMESTAMP(3)';

const valuesOf = (blog: string, page: SeenPage) => [
  blog,
  addressDigest(page.address),
  page.address.slice(0, LONGEST_ADDRESS),
  page.title.slice(0, LONGEST_TITLE),
  page.article,
  page.language,
  kept(page.terms),
];

/** Keeps a page of a blog, or what is new of it. */
export function pageWrite(blog: string, page: SeenPage): Write {
  return {
    text: `INSERT INTO link_page (${COLUMNS}) VALUES (?, ?, ?, ?, ?, ?, ?, UTC_TIMESTAMP(3)) ${ON_KNOWN}`,
    parameters: valuesOf(blog, page),
  };
}

/** What an article that went out before its words were kept is about. */
export async function fillTerms(sql: Sql, blog: string, article: string, document: ArticleDocument): Promise<void> {
  await sql.run(
    'UPDATE link_page SET terms = ?, language = ?, read_at = UTC_TIMESTAMP(3), seen_at = UTC_TIMESTAMP(3) WHERE article = ? AND blog = ? AND terms IS NULL',
    [kept(termsOfArticle(document, articleText(document))), document.language, article, blog],
  );
}

export async function rememberPages(sql: Sql, blog: string, pages: readonly SeenPage[]): Promise<void> {
  for (const page of pages) {
    const { text, parameters } = pageWrite(blog, page);
    await sql.run(text, parameters);
  }
}

interface PageRow {
  address: string;
  title: string;
  article: string | null;
  language: string | null;
  terms: [string, number][] | null;
}

/** The pages of a blog that articles may link to, newest first: those nobody barred. */
export async function linkPages(sql: Sql, blog: string): Promise<LinkPage[]> {
  const rows = await sql.rows<PageRow>(
    'SELECT address, title, article, language, terms FROM link_page WHERE blog = ? AND barred = 0 ORDER BY seen_at DESC, address_digest',
    [blog],
  );
  return rows.map(({ article, terms, ...page }) => ({
    ...page,
    ...(article === null ? {} : { article }),
    ...(terms === null ? {} : { terms: new Map(terms) }),
  }));
}

/** What tells whether the pages of a blog are those they were. */
export async function pagesStamp(sql: Sql, blog: string): Promise<string> {
  const [row] = await sql.rows<{ n: number; barred: number; seen: Date | string | null }>(
    'SELECT COUNT(*) AS n, COALESCE(SUM(barred), 0) AS barred, MAX(seen_at) AS seen FROM link_page WHERE blog = ?',
    [blog],
  );
  return `${row!.n} ${row!.barred} ${row!.seen === null ? '' : new Date(row!.seen).getTime()}`;
}

export interface PageLine {
  id: string;
  address: string;
  title: string;
  /** The article it is, where it is one of ours. */
  article: string | null;
  isOurs: boolean;
  isBarred: boolean;
}

/** Pages of a blog by their titles, those that hold some words. */
export async function pagesShown(
  sql: Sql,
  blog: string,
  { find, after, most }: { find: string; after: string; most: number },
): Promise<{ pages: PageLine[]; next: string | null; total: number }> {
  const like = `%${find.trim().replace(/[\\%_]/g, '\\$&')}%`;
  const rows = await sql.rows<{ id: string; address: string; title: string; article: string | null; barred: number }>(
    `SELECT address_digest AS id, address, title, article, barred FROM link_page
     WHERE blog = ? AND (title LIKE ? OR address LIKE ?) ORDER BY title, address_digest LIMIT ? OFFSET ?`,
    [blog, like, like, most + 1, Number(after) || 0],
  );
  const [{ n } = { n: 0 }] = await sql.rows<{ n: number }>('SELECT COUNT(*) AS n FROM link_page WHERE blog = ?', [
    blog,
  ]);
  const pages = rows
    .slice(0, most)
    .map(({ article, barred, ...page }) => ({ ...page, article, isOurs: article !== null, isBarred: barred !== 0 }));
  return { pages, next: rows.length > most ? String((Number(after) || 0) + most) : null, total: Number(n) };
}

/** Says that nothing is linked to a page any more, or that it may be again. @returns whether there is such a page */
export async function barPage(sql: Sql, blog: string, id: string, barred: boolean): Promise<boolean> {
  return (
    (await sql.run(
      'UPDATE link_page SET barred = ?, seen_at = UTC_TIMESTAMP(3) WHERE blog = ? AND address_digest = ?',
      [Number(barred), blog, id],
    )) > 0
  );
}
