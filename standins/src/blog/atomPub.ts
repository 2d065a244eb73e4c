import { createHash } from 'node:crypto';
import express, { type Request, Router } from 'express';
import { XMLParser } from 'fast-xml-parser';
import type { Answer, Troubles } from '../ground/trouble.ts';
import { accessBy, type BlogSite, type Post, type Posts, slugify } from './posts.ts';

const ENTRY = 'application/atom+xml;type=entry;charset=utf-8';
const PER_PAGE = 20;

const parser = new XMLParser({
  ignoreAttributes: false,
  attributeNamePrefix: '@',
  textNodeName: '#',
  parseTagValue: false,
  parseAttributeValue: false,
  trimValues: false,
  removeNSPrefix: true,
  isArray: (name) => name === 'category' || name === 'entry',
});

/** Why a call is not let in; null where it is. */
function notLetIn(request: Request, site: BlogSite): Answer | null {
  const access = accessBy(site, secretIn(request, site));
  if (access === 'none' || access === 'expired')
    return {
      status: 401,
      headers: {
        'www-authenticate': `Bearer realm="${site.slug}", error="invalid_token", error_description="${access === 'none' ? 'unknown secret' : 'the token expired'}"`,
      },
      type: 'text/plain',
      body: access === 'none' ? 'Unknown secret' : 'The token expired',
    };
  return access === 'read' && request.method !== 'GET'
    ? { status: 403, type: 'text/plain', body: 'This token has read permission only' }
    : null;
}

/**
 * The Atom Publishing Protocol (RFC 5023): a service document with a collection of entries and one of pictures, entries
 * paged by when they were edited, changed only in the state they were read in where that is said (`If-Match`).
 */
export function atomPub(sites: readonly BlogSite[], posts: Posts, troubles: Troubles, origin: () => string): Router {
  const router = Router();
  const guarded = (act: (request: Request, site: BlogSite) => Answer) =>
    troubles.around('blog', (request) => {
      const site = sites.find(({ slug }) => slug === request.params['blog']);
      if (!site) return { status: 404, type: 'text/plain', body: 'no such blog' };
      return notLetIn(request, site) ?? act(request, site);
    });
  const raw = express.raw({ type: () => true, limit: '30mb' });
  const base = (site: BlogSite) => `${origin()}/blogs/${site.slug}/atom`;
  router.get(
    '/blogs/:blog/atom',
    guarded((_request, site) => service(site, posts, base(site))),
  );
  router.get(
    '/blogs/:blog/atom/entries',
    guarded((request, site) => collection(request, posts, base(site), site, false)),
  );
  router.get(
    '/blogs/:blog/atom/pages',
    guarded((request, site) => collection(request, posts, base(site), site, true)),
  );
  router.post(
    '/blogs/:blog/atom/entries',
    raw,
    guarded((request, site) => create(request, site, posts, base(site), origin())),
  );
  router.post(
    '/blogs/:blog/atom/pages',
    raw,
    guarded((request, site) => create(request, site, posts, base(site), origin(), true)),
  );
  router.get(
    '/blogs/:blog/atom/entries/:slug',
    guarded((request, site) => one(request, site, posts, base(site))),
  );
  router.put(
    '/blogs/:blog/atom/entries/:slug',
    raw,
    guarded((request, site) => change(request, site, posts, base(site))),
  );
  router.delete(
    '/blogs/:blog/atom/entries/:slug',
    guarded((request, site) => remove(request, site, posts)),
  );
  router.post(
    '/blogs/:blog/atom/pictures',
    raw,
    guarded((request, site) => picture(request, site, posts, base(site), origin())),
  );
  return router;
}

/** As a bearer token, or as a password of the owner. */
function secretIn(request: Request, site: BlogSite): string {
  const [scheme, given = ''] = (request.header('authorization') ?? '').split(' ');
  if (scheme?.toLowerCase() !== 'basic') return given;
  const [user, ...password] = Buffer.from(given, 'base64').toString('utf8').split(':');
  return user === site.user ? password.join(':') : '';
}

const escaped = (text: string): string =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');

function service(site: BlogSite, posts: Posts, base: string): Answer {
  const terms = posts.categories(site).map((term) => `<atom:category term="${escaped(term)}"/>`);
  return {
    status: 200,
    type: 'application/atomsvc+xml',
    body: `<?xml version="1.0" encoding="utf-8"?><service xmlns="http://www.w3.org/2007/app" xmlns:atom="http://www.w3.org/2005/Atom"><workspace><atom:title>${escaped(site.name)}</atom:title><collection href="${base}/entries"><atom:title>Posts</atom:title><accept>application/atom+xml;type=entry</accept><categories fixed="no">${terms.join('')}</categories></collection><collection href="${base}/pages"><atom:title>Pages</atom:title><accept>application/atom+xml;type=entry</accept></collection><collection href="${base}/pictures"><atom:title>Pictures</atom:title><accept>image/*</accept></collection></workspace></service>`,
  };
}

const etagOf = (post: Post): string =>
  `"${createHash('sha256').update(JSON.stringify(post)).digest('hex').slice(0, 16)}"`;

function entryXml(post: Post, base: string): string {
  const photo = post.photo ? `<link rel="enclosure" href="${escaped(post.photo.address)}"/>` : '';
  return `<entry xmlns="http://www.w3.org/2005/Atom" xmlns:app="http://www.w3.org/2007/app"><id>${escaped(post.address)}</id><title>${escaped(post.name)}</title><link rel="edit" href="${base}/entries/${post.slug}"/><link rel="alternate" type="text/html" href="${escaped(post.address)}"/>${photo}<updated>${post.published}</updated><published>${post.published}</published><app:edited>${post.published}</app:edited><author><name>${escaped(post.author ?? 'Ines')}</name></author>${post.summary === '' ? '' : `<summary>${escaped(post.summary)}</summary>`}${post.categories.map((term) => `<category term="${escaped(term)}"/>`).join('')}<content type="html">${escaped(post.html)}</content><app:control><app:draft>${post.status === 'draft' ? 'yes' : 'no'}</app:draft></app:control></entry>`;
}

function collection(request: Request, posts: Posts, base: string, site: BlogSite, pages: boolean): Answer {
  const all = posts.all(site.slug).filter((post) => (post.page === true) === pages);
  const at = `${base}/${pages ? 'pages' : 'entries'}`;
  const page = Math.max(1, Number(request.query['page']) || 1);
  const shown = all.slice((page - 1) * PER_PAGE, page * PER_PAGE);
  const next = page * PER_PAGE < all.length ? `<link rel="next" href="${at}?page=${page + 1}"/>` : '';
  return {
    status: 200,
    type: 'application/atom+xml;type=feed',
    body: `<?xml version="1.0" encoding="utf-8"?><feed xmlns="http://www.w3.org/2005/Atom"><id>${at}</id><title>${escaped(site.name)}</title><updated>${new Date().toISOString()}</updated><link rel="self" href="${at}"/>${next}${shown.map((post) => entryXml(post, base)).join('')}</feed>`,
  };
}

function one(request: Request, site: BlogSite, posts: Posts, base: string): Answer {
  const post = posts.bySlug(site.slug, String(request.params['slug']));
  return post ? entryAnswer(200, post, base) : { status: 404, type: 'text/plain', body: 'no such entry' };
}

const entryAnswer = (status: number, post: Post, base: string, headers: Record<string, string> = {}): Answer => ({
  status,
  type: ENTRY,
  headers: { etag: etagOf(post), ...headers },
  body: `<?xml version="1.0" encoding="utf-8"?>${entryXml(post, base)}`,
});

interface Parsed {
  title?: unknown;
  summary?: unknown;
  content?: unknown;
  published?: unknown;
  category?: { '@term'?: string }[];
  control?: { draft?: unknown };
  author?: { name?: unknown };
}

const textOf = (element: unknown): string =>
  String(
    typeof element === 'object' && element !== null ? ((element as { '#'?: unknown })['#'] ?? '') : (element ?? ''),
  );

function wordsIn(
  request: Request,
):
  | (Pick<Post, 'name' | 'html' | 'summary' | 'categories' | 'status' | 'author'> & { published: string | null })
  | null {
  const body = Buffer.isBuffer(request.body) ? request.body.toString('utf8') : '';
  const [entry] = (parser.parse(body) as { entry?: Parsed[] }).entry ?? [];
  if (!entry) return null;
  return {
    name: textOf(entry.title),
    html: textOf(entry.content),
    summary: textOf(entry.summary),
    categories: (entry.category ?? []).map((one) => one['@term'] ?? ''),
    status: textOf(entry.control?.draft).trim() === 'yes' ? 'draft' : 'published',
    published: textOf(entry.published) || null,
    ...(entry.author ? { author: textOf(entry.author.name) } : {}),
  };
}

function create(request: Request, site: BlogSite, posts: Posts, base: string, origin: string, page = false): Answer {
  if (!/^application\/atom\+xml/.test(request.header('content-type') ?? ''))
    return { status: 415, type: 'text/plain', body: 'entries only' };
  const words = wordsIn(request);
  if (!words || words.name === '') return { status: 400, type: 'text/plain', body: 'an entry needs a title' };
  const slug = posts.freeSlug(site.slug, slugify(decodeURIComponent(request.header('slug') ?? words.name)));
  const post: Post = {
    ...words,
    address: `${origin}/blogs/${site.slug}/${slug}`,
    slug,
    photo: null,
    page,
    published: words.published ?? new Date().toISOString(),
    deleted: false,
  };
  posts.do({ act: 'create', at: new Date().toISOString(), blog: site.slug, post });
  const at = `${base}/entries/${slug}`;
  return entryAnswer(201, post, base, { location: at, 'content-location': at });
}

function change(request: Request, site: BlogSite, posts: Posts, base: string): Answer {
  const post = posts.bySlug(site.slug, String(request.params['slug']));
  if (!post) return { status: 404, type: 'text/plain', body: 'no such entry' };
  const state = request.header('if-match');
  if (state !== undefined && state !== etagOf(post))
    return { status: 412, type: 'text/plain', body: 'it was changed since' };
  const words = wordsIn(request);
  if (!words) return { status: 400, type: 'text/plain', body: 'that is no entry' };
  const changed = { ...words, published: words.published ?? post.published };
  posts.do({ act: 'update', at: new Date().toISOString(), blog: site.slug, address: post.address, change: changed });
  return entryAnswer(200, { ...post, ...changed }, base);
}

function remove(request: Request, site: BlogSite, posts: Posts): Answer {
  const post = posts.bySlug(site.slug, String(request.params['slug']));
  if (!post) return { status: 404, type: 'text/plain', body: 'no such entry' };
  posts.do({
    act: 'update',
    at: new Date().toISOString(),
    blog: site.slug,
    address: post.address,
    change: { deleted: true },
  });
  return { status: 204, body: '' };
}

function picture(request: Request, site: BlogSite, posts: Posts, base: string, origin: string): Answer {
  const mime = request.header('content-type') ?? '';
  if (!mime.startsWith('image/')) return { status: 415, type: 'text/plain', body: 'pictures only' };
  const src = posts.keepMedia(site.slug, origin, mime, request.body as Buffer);
  const at = `${base}/pictures/${src.split('/').pop()}`;
  return {
    status: 201,
    type: ENTRY,
    headers: { location: at },
    body: `<?xml version="1.0" encoding="utf-8"?><entry xmlns="http://www.w3.org/2005/Atom"><id>${escaped(src)}</id><title>${escaped(request.header('slug') ?? 'picture')}</title><updated>${new Date().toISOString()}</updated><author><name>Ines</name></author><summary/><content type="${escaped(mime)}" src="${escaped(src)}"/><link rel="edit" href="${at}"/></entry>`,
  };
}
