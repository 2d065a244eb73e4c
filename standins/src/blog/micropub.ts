import { createHash } from 'node:crypto';
import busboy from 'busboy';
import { type Request, Router } from 'express';
import type { Answer, Troubles } from '../control/trouble.ts';
import type { BlogSite, Post, Posts } from './posts.ts';

type Values = Record<string, unknown[]>;

/**
 * A Micropub endpoint (W3C Recommendation, 23 May 2017) with media endpoint: create and update by JSON, delete, and the
 * queries config, source and the list of posts.
 */
export function micropub(sites: readonly BlogSite[], posts: Posts, troubles: Troubles, origin: () => string): Router {
  const router = Router();
  const siteOf = (request: Request) => sites.find((site) => site.slug === request.params['blog']);
  const guarded = (act: (request: Request, site: BlogSite) => Promise<Answer> | Answer) =>
    troubles.around('blog', (request) => {
      const site = siteOf(request);
      if (!site) return { status: 404, body: { error: 'not_found' } };
      if (request.header('authorization') !== `Bearer ${site.token}`)
        return { status: 401, body: { error: 'unauthorized', error_description: 'the access token is not valid' } };
      return act(request, site);
    });
  router.get(
    '/blogs/:blog/micropub',
    guarded((request, site) => query(request, site, posts, origin())),
  );
  router.post(
    '/blogs/:blog/micropub',
    guarded((request, site) => post(request.body as Record<string, unknown>, site, posts, origin())),
  );
  router.post(
    '/blogs/:blog/media',
    guarded((request, site) => media(request, site, posts, origin())),
  );
  return router;
}

function query(request: Request, site: BlogSite, posts: Posts, origin: string): Answer {
  const { q, url, limit, after } = request.query as Record<string, string>;
  if (q === 'config')
    return { status: 200, body: { 'media-endpoint': `${origin}/blogs/${site.slug}/media`, 'syndicate-to': [] } };
  if (q === 'source' && url) {
    const found = posts.byAddress(site.slug, url);
    return found
      ? { status: 200, body: entryOf(found) }
      : { status: 400, body: { error: 'invalid_request', error_description: 'there is no post at that url' } };
  }
  if (q === 'source') {
    // Pages by the last address of the one before.
    const all = posts.all(site.slug);
    const from = after ? all.findIndex(({ address }) => address === after) + 1 : 0;
    const shown = all.slice(from, from + Math.min(100, Number(limit) || 20));
    const more = from + shown.length < all.length ? { after: shown.at(-1)!.address } : {};
    return { status: 200, body: { items: shown.map(entryOf), paging: more } };
  }
  return { status: 400, body: { error: 'invalid_request', error_description: 'unknown query' } };
}

function entryOf(post: Post): object {
  return {
    type: ['h-entry'],
    properties: {
      url: [post.address],
      name: [post.name],
      content: [{ html: post.html }],
      category: post.categories,
      'post-status': [post.status],
      published: [post.published],
    },
  };
}

function post(body: Record<string, unknown>, site: BlogSite, posts: Posts, origin: string): Answer {
  if (body['action'] === 'update') return update(body, site, posts);
  if (body['action'] === 'delete') {
    const address = String(body['url']);
    if (!posts.byAddress(site.slug, address)) return { status: 400, body: { error: 'invalid_request' } };
    posts.do({ act: 'update', at: new Date().toISOString(), blog: site.slug, address, change: { deleted: true } });
    return { status: 204, body: '' };
  }
  const properties = body['properties'] as Values | undefined;
  if (!Array.isArray(body['type']) || !properties)
    return { status: 400, body: { error: 'invalid_request', error_description: 'an entry needs type and properties' } };
  const name = first(properties, 'name');
  if (!name) return { status: 400, body: { error: 'invalid_request', error_description: 'a post needs a name here' } };
  const slug = posts.freeSlug(site.slug, slugify(first(properties, 'mp-slug') ?? name));
  const photo = properties['photo']?.[0];
  const content = properties['content']?.[0];
  const made: Post = {
    address: `${origin}/blogs/${site.slug}/${slug}`,
    slug,
    name,
    html:
      typeof content === 'object' && content !== null
        ? String((content as { html?: unknown }).html ?? '')
        : String(content ?? ''),
    summary: first(properties, 'summary') ?? '',
    categories: (properties['category'] ?? []).map(String),
    photo: photo
      ? typeof photo === 'string'
        ? { address: photo, alternative: '' }
        : {
            address: String((photo as { value: unknown }).value),
            alternative: String((photo as { alt?: unknown }).alt ?? ''),
          }
      : null,
    status: first(properties, 'post-status') === 'draft' ? 'draft' : 'published',
    published: first(properties, 'published') ?? new Date().toISOString(),
    deleted: false,
  };
  posts.do({ act: 'create', at: new Date().toISOString(), blog: site.slug, post: made });
  return { status: 201, headers: { location: made.address }, body: '' };
}

function update(body: Record<string, unknown>, site: BlogSite, posts: Posts): Answer {
  const address = String(body['url']);
  if (!posts.byAddress(site.slug, address))
    return { status: 400, body: { error: 'invalid_request', error_description: 'there is no post at that url' } };
  const replace = (body['replace'] ?? {}) as Values;
  const change: Partial<Post> = {};
  const status = first(replace, 'post-status');
  if (status === 'published' || status === 'draft') change.status = status;
  const published = first(replace, 'published');
  if (published) change.published = published;
  const name = first(replace, 'name');
  if (name) change.name = name;
  posts.do({ act: 'update', at: new Date().toISOString(), blog: site.slug, address, change });
  return { status: 204, body: '' };
}

function media(request: Request, site: BlogSite, posts: Posts, origin: string): Promise<Answer> {
  return new Promise((resolve, reject) => {
    const parts: Buffer[] = [];
    let mime = '';
    const form = busboy({ headers: request.headers, limits: { fileSize: 20_000_000, files: 1 } });
    form.on('file', (_name, stream, info) => {
      mime = info.mimeType;
      stream.on('data', (part: Buffer) => parts.push(part));
    });
    form.on('close', () => {
      const body = Buffer.concat(parts);
      if (body.length === 0)
        return resolve({ status: 400, body: { error: 'invalid_request', error_description: 'no file came' } });
      const name = `${createHash('sha256').update(body).digest('hex').slice(0, 16)}.${mime.split('/')[1] ?? 'bin'}`;
      const address = `${origin}/blogs/${site.slug}/media/${name}`;
      posts.do({
        act: 'media',
        at: new Date().toISOString(),
        blog: site.slug,
        address,
        mime,
        body: body.toString('base64'),
      });
      resolve({ status: 201, headers: { location: address }, body: '' });
    });
    form.on('error', reject);
    request.pipe(form);
  });
}

function first(properties: Values, name: string): string | null {
  const value = properties[name]?.[0];
  return typeof value === 'string' && value !== '' ? value : null;
}

function slugify(text: string): string {
  return (
    text
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-+|-+$/g, '')
      .slice(0, 100) || 'post'
  );
}
