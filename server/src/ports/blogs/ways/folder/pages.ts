import { type FolderLook, LOOK_AS_MADE } from '@grivo/contract';
import { escapeXml } from '../../../../formats/posting/xmlRpc.ts';

/** What is kept of each post of a folder, to find it again and to list it. */
export interface Kept {
  key: string;
  /** How it was written first, which it stays. */
  form: 'Markdown' | 'HTML';
  /** Path of the file in the folder. */
  file: string;
  address: string;
  title: string;
  summary: string;
  status: 'draft' | 'published';
  /** ISO 8601; null as long as nobody reads it. */
  published: string | null;
  updated: string;
  language: string;
  categories: string[];
  author: string | null;
  /** As it is read, for the feed. */
  html: string;
  // What posts written by earlier versions did not have.
  shape?: 'article' | 'page';
  canonical?: string | null;
  siblings?: readonly { language: string; address: string }[];
  structured?: Readonly<Record<string, unknown>>;
}

/** Where readers' browsers find how the pages look. */
export const STYLES = 'style.css';

/** How pages look: one file for all of them, so that a change of it is seen on all. */
export function styleOf(look: FolderLook): string {
  const { ground, letters, links, logo } = look;
  const asMade = (['ground', 'letters', 'links'] as const).every((name) => look[name] === LOOK_AS_MADE[name]);
  // What lies between ground and letters, as lines and small print.
  const [line, small] = [18, 70].map((share) => `color-mix(in srgb,${letters} ${share}%,${ground})`);
  return `:root{color-scheme:light${asMade ? ' dark' : ''}}body{font:1.0625rem/1.65 ui-serif,Georgia,'DejaVu Serif',serif;color:${letters};background:${ground};margin:0}
header,main,footer{max-width:42rem;margin:0 auto;padding:1.25rem}header{border-bottom:1px solid ${line}}header a{font-weight:700;color:inherit;text-decoration:none}
${logo === '' ? '' : `header a::before{content:"";display:inline-block;width:2.5rem;height:2.5rem;margin-inline-end:.75rem;vertical-align:middle;background:url("${logo}") center/contain no-repeat}\n`}h1{font-size:1.9rem;line-height:1.2;margin:1.2rem 0 .4rem}h2{font-size:1.3rem;margin-top:2rem}img{max-width:100%;height:auto}a{color:${links}}time,figcaption,footer{color:${small};font-size:.85rem}
figure{margin:1.5rem 0}table{border-collapse:collapse}td,th{border:1px solid ${line};padding:.3rem .6rem;text-align:start}blockquote{margin:1.5rem 0;padding-inline-start:1rem;border-inline-start:3px solid ${line}}
ul.posts{list-style:none;padding:0}ul.posts li{margin:1rem 0}
${asMade ? '@media(prefers-color-scheme:dark){body{color:#e9e4db;background:#191714}a{color:#e0a27f}header,td,th,blockquote{border-color:#3a352e}time,figcaption,footer{color:#a79d8d}}\n' : ''}`;
}

const rtl = /^(?:ar|fa|he|ur|yi|ps|sd|ug)\b/;

function frame(
  blog: { name: string; address: string; language: string },
  title: string,
  body: string,
  more = '',
): string {
  const dir = rtl.test(blog.language) ? ' dir="rtl"' : '';
  return `<!DOCTYPE html>
<html lang="${escapeXml(blog.language)}"${dir}>
<head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><title>${escapeXml(title)}</title>
<link rel="alternate" type="application/atom+xml" href="${escapeXml(under(blog.address, 'feed.atom'))}">${more}<link rel="stylesheet" href="${escapeXml(under(blog.address, STYLES))}"></head>
<body><header><a href="${escapeXml(under(blog.address, ''))}">${escapeXml(blog.name)}</a></header><main>${body}</main><footer>${escapeXml(blog.name)}</footer></body>
</html>
`;
}

export const under = (address: string, path: string): string => `${address.replace(/\/$/, '')}/${path}`;

const day = (iso: string, language: string): string =>
  new Intl.DateTimeFormat(language, { dateStyle: 'long', timeZone: 'UTC' }).format(new Date(iso));

/** A post as a whole page. */
export function pageOf(blog: { name: string; address: string }, post: Kept): string {
  const { language } = post;
  const at = post.published
    ? `<time datetime="${post.published}">${escapeXml(day(post.published, language))}</time>`
    : '';
  const siblings = (post.siblings ?? [])
    .map((one) => `<link rel="alternate" hreflang="${escapeXml(one.language)}" href="${escapeXml(one.address)}">`)
    .join('');
  const data = { ...post.structured, url: post.address, ...(post.published ? { datePublished: post.published } : {}) };
  // As HTML asks of data in a script: nothing in it ends the element.
  const structured = post.structured
    ? `<script type="application/ld+json">${JSON.stringify(data).replaceAll('<', '\\u003c')}</script>`
    : '';
  const about = `<meta name="description" content="${escapeXml(post.summary)}"><link rel="canonical" href="${escapeXml(post.canonical ?? post.address)}">${siblings}${structured}`;
  const by = post.author ? `<p class="p-author">${escapeXml(post.author)}</p>` : '';
  const body = `<article class="h-entry"><h1 class="p-name">${escapeXml(post.title)}</h1>${by}${at}<div class="e-content">\n<!-- text -->\n${post.html}\n<!-- end of text -->\n</div></article>`;
  return frame({ ...blog, language }, `${post.title} · ${blog.name}`, body, about);
}

/** The text of a post in its page; null when somebody took the lines away that it stands between. */
export function textIn(page: string): string | null {
  const [begin, end] = [page.indexOf('<!-- text -->\n'), page.lastIndexOf('\n<!-- end of text -->')];
  return begin < 0 || end < begin ? null : page.slice(begin + '<!-- text -->\n'.length, end);
}

/** What readers find at a moment, the newest first; what is dated ahead is not there yet. */
const ordered = (posts: readonly Kept[], now: string): Kept[] =>
  posts
    .filter(({ status, published }) => status === 'published' && (published ?? '') <= now)
    .sort((a, b) => (b.published ?? '').localeCompare(a.published ?? '') || a.key.localeCompare(b.key));

const IN_FEED = 20;

/** The front page, the feed (RFC 4287) and the sitemap (sitemaps.org 0.9) of a blog, by file. */
export function aroundPosts(
  blog: { name: string; address: string; language: string },
  posts: readonly Kept[],
  now: string,
): { [file: string]: string } {
  const all = ordered(posts, now);
  // Standing pages are in the map of the site, and in no list.
  const live = all.filter(({ shape }) => shape !== 'page');
  const rows = live.map(
    ({ address, title, published, summary, language }) =>
      `<li><a href="${escapeXml(address)}">${escapeXml(title)}</a> <time datetime="${published}">${escapeXml(day(published!, language))}</time><br>${escapeXml(summary)}</li>`,
  );
  const home = under(blog.address, '');
  const entries = live
    .slice(0, IN_FEED)
    .map(
      (post) =>
        `<entry><title>${escapeXml(post.title)}</title><id>${escapeXml(post.address)}</id><link href="${escapeXml(post.address)}"/><published>${post.published}</published><updated>${post.updated}</updated>${post.author ? `<author><name>${escapeXml(post.author)}</name></author>` : ''}<summary>${escapeXml(post.summary)}</summary>${post.categories.map((term) => `<category term="${escapeXml(term)}"/>`).join('')}<content type="html">${escapeXml(post.html)}</content></entry>`,
    );
  const updated = live.reduce(
    (newest, post) => (post.updated > newest ? post.updated : newest),
    '1970-01-01T00:00:00.000Z',
  );
  return {
    'index.html': frame(blog, blog.name, `<h1>${escapeXml(blog.name)}</h1><ul class="posts">${rows.join('\n')}</ul>`),
    'feed.atom': `<?xml version="1.0" encoding="UTF-8"?>\n<feed xmlns="http://www.w3.org/2005/Atom"><title>${escapeXml(blog.name)}</title><id>${escapeXml(home)}</id><link href="${escapeXml(home)}"/><link rel="self" href="${escapeXml(under(blog.address, 'feed.atom'))}"/><author><name>${escapeXml(blog.name)}</name></author><updated>${updated}</updated>${entries.join('\n')}</feed>\n`,
    'sitemap.xml': `<?xml version="1.0" encoding="UTF-8"?>\n<urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9"><url><loc>${escapeXml(home)}</loc></url>${all.map((post) => `<url><loc>${escapeXml(post.address)}</loc><lastmod>${post.updated}</lastmod></url>`).join('\n')}</urlset>\n`,
  };
}
