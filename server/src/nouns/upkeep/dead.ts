import { LinkIndex } from '@grivo/core';
import type { Ground } from '../../ground/ground.ts';
import type { Sql } from '../../ground/store/database.ts';
import { addressesFor, asPages, hostOf } from '../links/addresses.ts';
import { linkIndexOf } from '../links/indexes.ts';
import { linkPages } from '../links/pages.ts';
import type { LinkState } from './look.ts';

/** How the links of a blog's live articles stand. */
export interface LinksStand {
  links: number;
  articles: number;
  answers: number;
  dead: number;
  moved: number;
  unsure: number;
  waiting: number;
  /** When one was looked at last (ISO 8601). */
  lookedAt: string | null;
}

export async function linksStand(sql: Sql, blog: string): Promise<LinksStand> {
  const rows = await sql.rows<{ state: LinkState; n: number; looked: Date | string | null }>(
    `SELECT l.state, COUNT(*) AS n, MAX(l.looked_at) AS looked FROM (SELECT DISTINCT address_digest FROM link_use WHERE blog = ?) u
     JOIN link_look l ON l.address_digest = u.address_digest GROUP BY l.state`,
    [blog],
  );
  const [sums] = await sql.rows<{ links: number; articles: number }>(
    'SELECT COUNT(*) AS links, COUNT(DISTINCT article) AS articles FROM link_use WHERE blog = ?',
    [blog],
  );
  const of = (state: LinkState) => Number(rows.find((row) => row.state === state)?.n ?? 0);
  const looked = rows.flatMap(({ looked: at }) => (at === null ? [] : [new Date(at).getTime()]));
  return {
    links: Number(sums!.links),
    articles: Number(sums!.articles),
    answers: of('answers'),
    dead: of('dead'),
    moved: of('moved'),
    unsure: of('unsure'),
    waiting: of('new'),
    lookedAt: looked.length === 0 ? null : new Date(Math.max(...looked)).toISOString(),
  };
}

export interface Replacement {
  address: string;
  /** Why it would do. */
  why: string;
}

/** A link that leads nowhere, or elsewhere for good, with what would take its place. */
export interface DeadLink {
  address: string;
  state: 'dead' | 'moved';
  reason: string;
  /** Since when (ISO 8601). */
  since: string;
  articles: { id: string; title: string; anchor: string }[];
  replacement: Replacement | null;
}

const MOST_SHOWN = 60;
const MOST_ARTICLES = 50;

export async function deadLinks(
  ground: Ground,
  blog: { id: string; address: string; language: string },
): Promise<DeadLink[]> {
  const { db } = ground;
  const rows = await db.rows<{
    address_digest: string;
    address: string;
    state: 'dead' | 'moved';
    reason: string;
    leads_to: string | null;
    since: Date | string | null;
  }>(
    `SELECT l.address_digest, l.address, l.state, l.reason, l.leads_to, l.since FROM (SELECT DISTINCT address_digest FROM link_use WHERE blog = ?) u
     JOIN link_look l ON l.address_digest = u.address_digest WHERE l.state IN ('dead', 'moved') ORDER BY l.state, l.since LIMIT ${MOST_SHOWN}`,
    [blog.id],
  );
  if (rows.length === 0) return [];
  const uses = await db.rows<{ address_digest: string; article: string; title: string; anchor: string }>(
    `SELECT u.address_digest, u.article, a.title, u.anchor FROM link_use u JOIN article a ON a.id = u.article
     WHERE u.blog = ? AND u.address_digest IN (?) ORDER BY u.article, u.n`,
    [blog.id, rows.map((row) => row.address_digest)],
  );
  const dead = new Set(rows.map(({ address }) => address));
  const finder = await Finder.of(ground, blog, dead);
  return rows.map(({ address_digest: digest, leads_to: leadsTo, since, ...row }) => {
    const all = uses.filter((use) => use.address_digest === digest);
    const once = [...new Map(all.map((use) => [use.article, use])).values()];
    return {
      ...row,
      since: new Date(since ?? 0).toISOString(),
      articles: once.slice(0, MOST_ARTICLES).map(({ article: id, title, anchor }) => ({ id, title, anchor })),
      replacement:
        leadsTo !== null
          ? { address: leadsTo, why: 'where it leads now' }
          : finder.find(row.address, row.reason, [...new Set(all.map(({ anchor }) => anchor))]),
    };
  });
}

/** Finds what would take the place of an address: the same page elsewhere, one of ours, one that is trusted. */
class Finder {
  private constructor(
    private readonly bySlug: ReadonlyMap<string, string>,
    private readonly own: LinkIndex,
    private readonly outside: LinkIndex,
    private readonly host: string | null,
    private readonly dead: ReadonlySet<string>,
  ) {}

  static async of(
    ground: Ground,
    { id, address, language }: { id: string; address: string; language: string },
    dead: ReadonlySet<string>,
  ): Promise<Finder> {
    const pages = (await linkPages(ground.db, id)).filter((page) => !dead.has(page.address));
    const bySlug = new Map<string, string>();
    const twice = new Set<string>();
    for (const page of pages) {
      const slug = slugOf(page.address);
      if (slug === null) continue;
      if (bySlug.has(slug)) twice.add(slug);
      bySlug.set(slug, page.address);
    }
    for (const slug of twice) bySlug.delete(slug);
    const trusted = asPages((await addressesFor(ground.db, id)).filter(({ kind }) => kind === 'outside'));
    return new Finder(
      bySlug,
      await linkIndexOf(ground, id, language),
      new LinkIndex(trusted, language),
      hostOf(address),
      dead,
    );
  }

  find(address: string, reason: string, anchors: readonly string[]): Replacement | null {
    if (reason.includes('the place on it')) return { address: address.split('#', 1)[0]!, why: 'the page itself' };
    const slug = slugOf(address);
    const same = slug === null ? undefined : this.bySlug.get(slug);
    if (same !== undefined && hostOf(address) === this.host)
      return { address: same, why: 'the same page, elsewhere now' };
    const indexes = hostOf(address) === this.host ? [this.own] : [this.outside, this.own];
    for (const index of indexes)
      for (const anchor of anchors)
        for (const { page } of index.fits(anchor))
          if (!this.dead.has(page.address)) return { address: page.address, why: `about the same: ${page.title}` };
    return null;
  }
}

/** The last part of an address's path, which mostly names the page. */
function slugOf(address: string): string | null {
  if (!URL.canParse(address)) return null;
  const last = new URL(address).pathname.replace(/\/$/, '').split('/').at(-1) ?? '';
  return last.length > 3 ? last.replace(/\.[a-z]{2,5}$/i, '').toLowerCase() : null;
}
