import { type Request, Router } from 'express';
import type { Answer, Troubles } from '../ground/trouble.ts';
import type { BlogSite, Post, Posts } from './posts.ts';

/** The public side of a blog: front page, posts, sitemap, Atom feed, pictures. Drafts show only with the owner's token. */
export function publicSite(sites: readonly BlogSite[], posts: Posts, troubles: Troubles, origin: () => string): Router {
  const router = Router();
  const page = (act: (request: Request, site: BlogSite) => Answer) =>
    troubles.around('web', (request) => {
      const site = sites.find((s) => s.slug === request.params['blog']);
      return site ? act(request, site) : missing();
    });
  const open = (site: BlogSite) => posts.all(site.slug).filter((post) => posts.isRead(site.slug, post));
  const live = (site: BlogSite) => open(site).filter((post) => post.page !== true);
  const home = (site: BlogSite) => `${origin()}/blogs/${site.slug}/`;
  router.get(
    '/blogs/:blog',
    page((_request, site) => htmlAnswer(frame(site, site.name, frontPage(site, live(site))))),
  );
  router.get(
    '/blogs/:blog/sitemap.xml',
    page((_request, site) => ({
      status: 200,
      type: 'application/xml',
      body: sitemap([home(site), ...open(site).map((post) => post.address)]),
    })),
  );
  router.get(
    '/blogs/:blog/feed.atom',
    page((_request, site) => ({
      status: 200,
      type: 'application/atom+xml',
      body: atom(site, home(site), live(site).slice(0, 20)),
    })),
  );
  router.get(
    '/blogs/:blog/media/:name',
    page((request, site) => picture(`${origin()}/blogs/${site.slug}/media/${request.params['name']}`, posts)),
  );
  router.get(
    '/blogs/:blog/:slug',
    page((request, site) => {
      const text = posts.textAt(site.slug, String(request.params['slug']));
      if (text !== null) return { status: 200, type: 'text/plain', body: text };
      const post = posts.bySlug(site.slug, String(request.params['slug']));
      const owner = request.query['preview'] === site.token;
      if (!post || !(posts.isRead(site.slug, post) || owner)) return missing();
      return htmlAnswer(frame(site, `${titleOf(post)} · ${site.name}`, article(site, post), relations(post)));
    }),
  );
  return router;
}

function picture(address: string, posts: Posts): Answer {
  const found = posts.acts.find((act) => act.act === 'media' && act.address === address);
  return found?.act === 'media'
    ? { status: 200, type: found.mime, body: Buffer.from(found.body, 'base64') }
    : missing();
}

function missing(): Answer {
  return htmlAnswer(
    '<!doctype html><html lang="en"><head><meta charset="utf-8"><title>Not found</title></head><body><h1>Not found</h1></body></html>',
    404,
  );
}

function htmlAnswer(body: string, status = 200): Answer {
  return { status, type: 'text/html', body };
}

function escaped(text: string): string {
  return text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;');
}

function relations({ address, canonical, siblings = [] }: Post): string {
  const others = siblings.map(
    (one) => `<link rel="alternate" hreflang="${escaped(one.language)}" href="${escaped(one.address)}">`,
  );
  return `<link rel="canonical" href="${escaped(canonical ?? address)}">${others.join('')}`;
}

function frame(site: BlogSite, title: string, body: string, relations = ''): string {
  return `<!doctype html><html lang="${site.language}"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><title>${escaped(title)}</title>
<link rel="alternate" type="application/atom+xml" href="/blogs/${site.slug}/feed.atom"><link rel="micropub" href="/blogs/${site.slug}/micropub"><link rel="indieauth-metadata" href="/blogs/${site.slug}/auth/metadata"><link rel="service" type="application/atomsvc+xml" href="/blogs/${site.slug}/atom"><link rel="EditURI" type="application/rsd+xml" href="/blogs/${site.slug}/rsd.xml">${relations}<style>${STYLE}</style></head>
<body><header class="site"><a href="/blogs/${site.slug}">${escaped(site.name)}</a><span>${escaped(site.tagline)}</span></header><main>${body}</main><footer class="site">${escaped(site.name)}</footer></body></html>`;
}

const STYLE = `body{font:18px/1.65 Georgia,'DejaVu Serif',serif;color:#2b2622;background:#fffdf9;margin:0}header.site,footer.site,main{max-width:44rem;margin:0 auto;padding:1.2rem}
header.site{display:flex;gap:1rem;align-items:baseline;border-bottom:1px solid #e5dccd}header.site a{font-weight:bold;color:inherit;text-decoration:none;font-size:1.25rem}header.site span{color:#8a7f70;font-size:.85rem}
h1{font-size:2rem;line-height:1.2}h2{margin-top:2.2rem;font-size:1.35rem}img{max-width:100%;height:auto}a{color:#8a3b1e}time{color:#8a7f70;font-size:.85rem}
.key-points{background:#f6efe2;padding:1rem 1rem 1rem 2.2rem}nav ol{color:#8a7f70}footer.site{border-top:1px solid #e5dccd;margin-top:3rem;color:#8a7f70;font-size:.85rem}li.post{margin:.7rem 0}ul.posts{list-style:none;padding:0}`;

function day(site: BlogSite, iso: string): string {
  return new Date(iso).toLocaleDateString(site.language === 'de' ? 'de-DE' : 'en-GB', {
    day: 'numeric',
    month: 'long',
    year: 'numeric',
    timeZone: 'UTC',
  });
}

function frontPage(site: BlogSite, posts: readonly Post[]): string {
  const rows = posts.map(
    (post) =>
      `<li class="post"><a href="${post.address}">${escaped(titleOf(post))}</a> <time datetime="${post.published}">${day(site, post.published)}</time></li>`,
  );
  return `<h1>${escaped(site.name)}</h1><ul class="posts">${rows.join('')}</ul>`;
}

/** A note has no name; it is called by when it was posted. */
const titleOf = (post: Post): string => post.name || `Note of ${post.published.slice(0, 10)}`;

function article(site: BlogSite, post: Post): string {
  const lead = post.photo
    ? `<figure class="lead"><img src="${escaped(post.photo.address)}" alt="${escaped(post.photo.alternative)}"></figure>`
    : '';
  const replies = post.replies === false ? '<p class="replies">Replies are closed.</p>' : '';
  return `<article class="h-entry">${post.name === '' ? '' : `<h1 class="p-name">${escaped(post.name)}</h1>`}<time class="dt-published" datetime="${post.published}">${day(site, post.published)}</time>${lead}<div class="e-content">${post.html}</div>${replies}</article>`;
}

function sitemap(addresses: readonly string[]): string {
  return `<?xml version="1.0" encoding="UTF-8"?>\n<urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">${addresses.map((address) => `<url><loc>${escaped(address)}</loc></url>`).join('')}</urlset>`;
}

function atom(site: BlogSite, home: string, posts: readonly Post[]): string {
  const entries = posts.map(
    (post) =>
      `<entry><title>${escaped(titleOf(post))}</title><id>${post.address}</id><link href="${post.address}"/><updated>${post.published}</updated><summary>${escaped(post.summary)}</summary><content type="html">${escaped(post.html)}</content></entry>`,
  );
  return `<?xml version="1.0" encoding="UTF-8"?>\n<feed xmlns="http://www.w3.org/2005/Atom"><title>${escaped(site.name)}</title><id>${home}</id><link href="${home}"/><link rel="self" href="${home}feed.atom"/><author><name>${escaped(site.name)}</name></author><updated>${posts[0]?.published ?? '2024-01-01T00:00:00Z'}</updated>${entries.join('')}</feed>`;
}
