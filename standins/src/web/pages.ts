import { Router } from 'express';
import type { Troubles } from '../ground/trouble.ts';
import { nearBest, searchIndex } from './search.ts';

/** A page of the small web. Paragraphs are parted by blank lines in the material. */
export interface WebPage {
  site: string;
  slug: string;
  title: string;
  language: 'en' | 'de';
  date: string;
  countries: string[];
  paragraphs: string[];
}

/** A page with less than this share of the best page's score speaks of something else. */
const LEAST_SHARE = 0.3;

/** A small web of pages that can be read at `/pages/site/slug` and looked up by subject at `/look-up`. */
export function smallWeb(pages: readonly WebPage[], troubles: Troubles): Router {
  const router = Router();
  const byPath = new Map(pages.map((page) => [`/pages/${page.site}/${page.slug}`, page]));
  router.get(
    '/pages/:site/feed.xml',
    troubles.around('feeds', (request) => {
      const own = pages.filter(({ site }) => site === request.params['site']);
      return own.length > 0
        ? { status: 200, type: 'application/rss+xml', body: Buffer.from(feedOf(own)) }
        : { status: 404, type: 'text/plain', body: 'There is no such site.' };
    }),
  );
  router.get(
    '/pages/:site/:slug',
    troubles.around('web', (request) => {
      const page = byPath.get(request.path);
      return page
        ? { status: 200, type: 'text/html', body: html(page, pages) }
        : { status: 404, type: 'text/html', body: '<!doctype html><title>Not found</title><p>There is no such page.' };
    }),
  );
  const search = searchIndex(pages);
  router.get(
    '/look-up',
    troubles.around('look-up', (request) => {
      const { q = '', n = '5', language, country, since } = request.query as Record<string, string>;
      const found = nearBest(search(q), LEAST_SHARE)
        .filter(
          ({ page }) =>
            (!language || page.language === language) &&
            (!country || page.countries.length === 0 || page.countries.includes(country)) &&
            (!since || page.date >= since),
        )
        .slice(0, Math.min(50, Number(n) || 5));
      return {
        status: 200,
        body: {
          pages: found.map(({ page }) => ({
            address: `/pages/${page.site}/${page.slug}`,
            title: page.title,
            date: page.date,
          })),
        },
      };
    }),
  );
  return router;
}

/** The pages of a site as a feed (RSS 2.0), the newest first. */
function feedOf(pages: readonly WebPage[]): string {
  const items = [...pages]
    .sort((a, b) => b.date.localeCompare(a.date))
    .map(
      (page) =>
        `<item><title>${escaped(page.title)}</title><link>${page.slug}</link><pubDate>${new Date(`${page.date}T08:00:00Z`).toUTCString()}</pubDate><description>${escaped(page.paragraphs[0] ?? '')}</description></item>`,
    );
  return `<?xml version="1.0" encoding="UTF-8"?><rss version="2.0"><channel><title>${escaped(pages[0]!.site)}</title><language>${pages[0]!.language}</language>${items.join('')}</channel></rss>`;
}

export function escaped(text: string): string {
  return text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;');
}

function html(page: WebPage, pages: readonly WebPage[]): string {
  const others = pages.filter((other) => other.site === page.site && other !== page).slice(0, 6);
  return `<!doctype html><html lang="${page.language}"><head><meta charset="utf-8"><title>${escaped(page.title)} · ${page.site}</title><link rel="alternate" type="application/rss+xml" href="feed.xml"></head><body>
<header><a href="/">${page.site}</a><nav><a href="#">Guides</a> <a href="#">About</a> <a href="#">Newsletter</a></nav></header>
<main><article><h1>${escaped(page.title)}</h1><time datetime="${page.date}">${page.date}</time>
${page.paragraphs.map((paragraph) => `<p>${escaped(paragraph)}</p>`).join('\n')}
</article></main>
<aside><h2>More</h2><ul>${others.map((other) => `<li><a href="${other.slug}">${escaped(other.title)}</a></li>`).join('')}</ul></aside>
<footer><p>All rights reserved. Sign up for our newsletter to hear from us once a month.</p></footer></body></html>`;
}
