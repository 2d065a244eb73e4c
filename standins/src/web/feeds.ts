import { createHmac } from 'node:crypto';
import { Router } from 'express';
import type { Journal } from '../ground/journal.ts';
import type { Answer, Troubles } from '../ground/trouble.ts';
import { escaped } from './pages.ts';

/** A piece of news: what a feed lists and the page behind it. */
export interface NewsPiece {
  slug: string;
  title: string;
  /** Day it came out, as 2026-11-03. */
  day: string;
  author: string;
  paragraphs: string[];
}

/** A news site with its feed. */
export interface NewsSite {
  slug: string;
  name: string;
  form: 'rss' | 'rdf' | 'atom' | 'json';
  /** Whether it sends readers through a redirect that counts them. */
  wraps: boolean;
  pieces: readonly NewsPiece[];
}

/** A hub's subscriber. */
interface Subscription {
  topic: string;
  callback: string;
  secret: string;
}

/** News that were added while it runs, and who asked to be told of them. */
export type NewsAct =
  | { act: 'add'; site: string; piece: NewsPiece }
  | ({ act: 'subscribe' } & Subscription)
  | ({ act: 'unsubscribe' } & Pick<Subscription, 'topic' | 'callback'>);

export class News {
  constructor(
    readonly sites: readonly NewsSite[],
    private readonly journal: Journal<NewsAct>,
    private readonly origin: () => string,
  ) {}

  /** Pieces of a site, the newest first. */
  pieces(site: NewsSite): NewsPiece[] {
    const added = this.journal.entries.flatMap((act) =>
      act.act === 'add' && act.site === site.slug ? [act.piece] : [],
    );
    return [...site.pieces, ...added].sort((a, b) => (a.day < b.day ? 1 : a.day > b.day ? -1 : 0));
  }

  subscribers(): Subscription[] {
    const out = new Map<string, Subscription>();
    for (const act of this.journal.entries) {
      if (act.act === 'subscribe') out.set(`${act.topic} ${act.callback}`, act);
      if (act.act === 'unsubscribe') out.delete(`${act.topic} ${act.callback}`);
    }
    return [...out.values()];
  }

  take(act: NewsAct): void {
    this.journal.add(act);
  }

  address(site: NewsSite): string {
    return `${this.origin()}/news/${site.slug}/feed`;
  }

  /** Publishes a piece, and has the hub tell everybody who asked (WebSub, section 7). */
  async publish(site: string, piece: NewsPiece): Promise<number> {
    const on = this.sites.find(({ slug }) => slug === site);
    if (!on) throw new Error(`there is no site ${site}`);
    this.take({ act: 'add', site, piece });
    const body = bodyOf(on, this);
    let told = 0;
    for (const { topic, callback, secret } of this.subscribers()) {
      if (topic !== this.address(on)) continue;
      const answer = await fetch(callback, {
        method: 'POST',
        headers: {
          'content-type': TYPES[on.form],
          link: `<${topic}>; rel="self"`,
          ...(secret === ''
            ? {}
            : { 'x-hub-signature': `sha256=${createHmac('sha256', secret).update(body).digest('hex')}` }),
        },
        body,
      });
      if (answer.ok) told++;
    }
    return told;
  }
}

const TYPES = {
  rss: 'application/rss+xml',
  rdf: 'application/rdf+xml',
  atom: 'application/atom+xml',
  json: 'application/feed+json',
} as const;

const lead = (piece: NewsPiece): string => piece.paragraphs[0] ?? '';

function linkOf(site: NewsSite, piece: NewsPiece, news: News): string {
  const page = `${news.address(site).replace(/\/feed$/, '')}/${piece.slug}`;
  return site.wraps ? `${new URL(page).origin}/go?to=${encodeURIComponent(`${page}?utm_source=feed`)}` : page;
}

function rss(site: NewsSite, news: News, rdf: boolean): string {
  const home = news.address(site).replace(/\/feed$/, '/');
  const items = news.pieces(site).map((piece, n) => {
    // Slips as feeds of the world have: no date, no name, an ampersand that is bare, HTML escaped twice.
    const date = n % 11 === 4 ? '' : `<pubDate>${new Date(`${piece.day}T07:30:00Z`).toUTCString()}</pubDate>`;
    const guid = n % 7 === 3 ? '' : `<guid isPermaLink="false">${site.slug}-${piece.slug}</guid>`;
    const text = n % 5 === 2 ? escaped(`<p>${escaped(lead(piece))}</p>`) : `<![CDATA[<p>${lead(piece)}</p>]]>`;
    return `<item${rdf ? ` rdf:about="${escaped(linkOf(site, piece, news))}"` : ''}><title>${escaped(piece.title)}</title><link>${escaped(linkOf(site, piece, news))}</link>${guid}${rdf ? `<dc:date>${piece.day}T07:30:00Z</dc:date>` : date}<dc:creator>${escaped(piece.author)}</dc:creator><category>R&D</category><description>${text}</description></item>`;
  });
  const about = `<title>${escaped(site.name)}</title><link>${home}</link><description>News &nbsp;of the trade</description><language>en</language>`;
  return rdf
    ? `<?xml version="1.0"?><rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#" xmlns="http://purl.org/rss/1.0/" xmlns:dc="http://purl.org/dc/elements/1.1/"><channel rdf:about="${home}">${about}</channel>${items.join('\n')}</rdf:RDF>`
    : `<?xml version="1.0" encoding="UTF-8"?><rss version="2.0" xmlns:atom="http://www.w3.org/2005/Atom" xmlns:dc="http://purl.org/dc/elements/1.1/"><channel>${about}<atom:link rel="self" href="${news.address(site)}"/><atom:link rel="hub" href="${new URL(home).origin}/hub"/>${items.join('\n')}</channel></rss>`;
}

function atom(site: NewsSite, news: News): string {
  const entries = news
    .pieces(site)
    .map(
      (piece) =>
        `<entry><id>tag:${site.slug}.example,2026:${piece.slug}</id><title>${escaped(piece.title)}</title><link rel="alternate" href="${escaped(linkOf(site, piece, news))}"/><published>${piece.day}T09:00:00Z</published><updated>${piece.day}T09:00:00Z</updated><author><name>${escaped(piece.author)}</name></author><summary type="text">${escaped(lead(piece))}</summary></entry>`,
    );
  return `<?xml version="1.0"?><feed xmlns="http://www.w3.org/2005/Atom" xml:lang="en"><title>${escaped(site.name)}</title><id>tag:${site.slug}.example,2026:feed</id><updated>${news.pieces(site)[0]?.day ?? '2026-01-01'}T09:00:00Z</updated><link rel="self" href="${news.address(site)}"/>${entries.join('\n')}</feed>`;
}

function json(site: NewsSite, news: News): string {
  return JSON.stringify({
    version: 'https://jsonfeed.org/version/1.1',
    title: site.name,
    home_page_url: news.address(site).replace(/\/feed$/, '/'),
    feed_url: news.address(site),
    language: 'en',
    items: news.pieces(site).map((piece) => ({
      id: `${site.slug}-${piece.slug}`,
      url: linkOf(site, piece, news),
      title: piece.title,
      content_html: `<p>${escaped(lead(piece))}</p>`,
      date_published: `${piece.day}T09:00:00Z`,
      authors: [{ name: piece.author }],
    })),
  });
}

function bodyOf(site: NewsSite, news: News): string {
  switch (site.form) {
    case 'rss':
      return rss(site, news, false);
    case 'rdf':
      return rss(site, news, true);
    case 'atom':
      return atom(site, news);
    case 'json':
      return json(site, news);
  }
}

/** News sites: a front page that names the feed, pieces, the feed, the redirect that counts, and a hub. */
export function newsSites(news: News, troubles: Troubles): Router {
  const router = Router();
  const siteOf = (slug: unknown) => news.sites.find((site) => site.slug === slug);
  const gone = {
    status: 404,
    type: 'text/html',
    body: '<!doctype html><title>Not found</title><p>There is no such page.',
  };
  router.get(
    '/news/:site/feed',
    troubles.around('feeds', (request) => {
      const site = siteOf(request.params['site']);
      return site ? { status: 200, type: TYPES[site.form], body: Buffer.from(bodyOf(site, news)) } : gone;
    }),
  );
  router.get(
    '/news/:site/',
    troubles.around('web', (request) => {
      const site = siteOf(request.params['site']);
      if (!site) return gone;
      const list = news
        .pieces(site)
        .map((piece) => `<li><a href="/news/${site.slug}/${piece.slug}">${escaped(piece.title)}</a></li>`);
      return {
        status: 200,
        type: 'text/html',
        body: `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${escaped(site.name)}</title><link rel="alternate" type="${TYPES[site.form]}" href="/news/${site.slug}/feed"></head><body><h1>${escaped(site.name)}</h1><ul>${list.join('')}</ul></body></html>`,
      };
    }),
  );
  router.get(
    '/news/:site/:slug',
    troubles.around('web', (request) => {
      const site = siteOf(request.params['site']);
      const piece = site && news.pieces(site).find(({ slug }) => slug === request.params['slug']);
      if (!site || !piece) return gone;
      return {
        status: 200,
        type: 'text/html',
        body: `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${escaped(piece.title)} | ${escaped(site.name)}</title></head><body><header><a href="/news/${site.slug}/">${escaped(site.name)}</a><nav><a href="#">Subscribe</a> <a href="#">About</a></nav></header><main><article><h1>${escaped(piece.title)}</h1><p class="by">By ${escaped(piece.author)}, <time datetime="${piece.day}">${piece.day}</time></p>${piece.paragraphs.map((text) => `<p>${escaped(text)}</p>`).join('\n')}</article></main><footer><p>All rights reserved by ${escaped(site.name)}. Write to the desk with what you know.</p></footer></body></html>`,
      };
    }),
  );
  router.get(
    '/go',
    troubles.around('web', (request) => ({
      status: 302,
      headers: { location: String(request.query['to'] ?? '/') },
      type: 'text/plain',
      body: '',
    })),
  );
  router.post(
    '/hub',
    troubles.around('feeds', (request) => subscribing(news, request.body as Record<string, string>)),
  );
  return router;
}

/** A hub is asked for, or told to stop, what is new of a feed; the subscriber is asked whether it meant it before anything counts (WebSub, section 5.3). */
function subscribing(news: News, form: Record<string, string>): Answer {
  const topic = form['hub.topic'] ?? '';
  const callback = form['hub.callback'] ?? '';
  const mode = form['hub.mode'] === 'unsubscribe' ? 'unsubscribe' : 'subscribe';
  if (!news.sites.some((site) => news.address(site) === topic) || !URL.canParse(callback))
    return { status: 400, type: 'text/plain', body: 'no such topic' };
  const ask = new URL(callback);
  const challenge = `c${Math.abs([...callback].reduce((sum, letter) => (sum * 31 + letter.charCodeAt(0)) | 0, 7))}`;
  for (const [name, value] of [
    ['hub.mode', mode],
    ['hub.topic', topic],
    ['hub.challenge', challenge],
    ['hub.lease_seconds', '864000'],
  ] as const)
    ask.searchParams.set(name, value);
  const verify = async () => {
    const answer = await fetch(ask).catch(() => null);
    if (!answer?.ok || (await answer.text()) !== challenge) return;
    news.take(
      mode === 'subscribe'
        ? { act: 'subscribe', topic, callback, secret: form['hub.secret'] ?? '' }
        : { act: 'unsubscribe', topic, callback },
    );
  };
  setTimeout(() => void verify(), 20);
  return { status: 202, type: 'text/plain', body: '' };
}
