import busboy from 'busboy';
import { type Request, Router } from 'express';
import type { Answer, Troubles } from '../ground/trouble.ts';
import { accessBy, type BlogSite, type Post, type Posts, slugify } from './posts.ts';

type Values = Record<string, unknown[]>;

/**
 * A Micropub endpoint (W3C Recommendation, 23 May 2017) with media endpoint: create by JSON or as a form, update with
 * replace, add and delete, delete and undelete by either, and the queries config, syndicate-to, source (whole or by
 * properties) and the list of posts.
 */
export function micropub(sites: readonly BlogSite[], posts: Posts, troubles: Troubles, origin: () => string): Router {
  const router = Router();
  const siteOf = (request: Request) => sites.find((site) => site.slug === request.params['blog']);
  const guarded = (act: (request: Request, site: BlogSite) => Promise<Answer> | Answer) =>
    troubles.around('blog', (request) => {
      const site = siteOf(request);
      if (!site) return { status: 404, body: { error: 'not_found' } };
      const body = request.body as { access_token?: unknown } | undefined;
      const token = (request.header('authorization') ?? `Bearer ${String(body?.access_token ?? '')}`).slice(7);
      const access = accessBy(site, token);
      if (access === 'none' || access === 'expired')
        return {
          status: 401,
          body: {
            error: access === 'none' ? 'unauthorized' : 'invalid_token',
            error_description: `the access token ${access === 'none' ? 'is not valid' : 'has expired'}`,
          },
        };
      if (access === 'read' && request.method === 'POST')
        return {
          status: 403,
          body: { error: 'insufficient_scope', error_description: 'the token lacks the scope create' },
        };
      return act(request, site);
    });
  router.get(
    '/blogs/:blog/micropub',
    guarded((request, site) => query(request, site, posts, origin())),
  );
  router.post(
    '/blogs/:blog/micropub',
    guarded((request, site) => post(asJson(request.body as Record<string, unknown>), site, posts, origin())),
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
    return {
      status: 200,
      body: {
        'media-endpoint': `${origin}/blogs/${site.slug}/media`,
        'syndicate-to': [],
        'post-status': ['published', 'draft', 'pending'],
        visibility: ['public', 'private'],
        destination: [
          { uid: 'posts', name: 'Posts' },
          { uid: 'pages', name: 'Pages' },
        ],
        'post-types': [
          {
            type: 'article',
            name: 'Article',
            properties: ['name', 'content', 'summary', 'category', 'photo', 'reading-time', 'season'],
          },
        ],
      },
    };
  if (q === 'category') return { status: 200, body: { categories: posts.categories(site) } };
  if (q === 'syndicate-to') return { status: 200, body: { 'syndicate-to': [] } };
  if (q === 'source' && url) {
    const found = posts.byAddress(site.slug, url);
    if (!found) return refusal('there is no post at that url');
    const asked = request.query['properties[]'] ?? request.query['properties'];
    if (asked === undefined) return { status: 200, body: entryOf(found) };
    const names = [asked].flat().map(String);
    const properties = entryOf(found).properties as Values;
    return {
      status: 200,
      body: {
        properties: Object.fromEntries(names.flatMap((name) => (properties[name] ? [[name, properties[name]]] : []))),
      },
    };
  }
  if (q === 'source') {
    // Pages by the last address of the one before.
    const all = posts.all(site.slug);
    const from = after ? all.findIndex(({ address }) => address === after) + 1 : 0;
    const shown = all.slice(from, from + Math.min(100, Number(limit) || 20));
    const more = from + shown.length < all.length ? { after: shown.at(-1)!.address } : {};
    return { status: 200, body: { items: shown.map(entryOf), paging: more } };
  }
  return refusal('unknown query');
}

const refusal = (error_description: string): Answer => ({
  status: 400,
  body: { error: 'invalid_request', error_description },
});

function entryOf(post: Post): { type: string[]; properties: Values } {
  return {
    type: ['h-entry'],
    properties: {
      url: [post.address],
      ...(post.name === '' ? {} : { name: [post.name] }),
      content: [{ html: post.html }],
      ...(post.summary === '' ? {} : { summary: [post.summary] }),
      ...(post.categories.length === 0 ? {} : { category: post.categories }),
      ...(post.photo ? { photo: [photoValue(post.photo)] } : {}),
      'post-status': [post.status],
      ...(post.private ? { visibility: ['private'] } : {}),
      ...Object.fromEntries(Object.entries(post.more ?? {}).map(([name, text]) => [name, [text]])),
      published: [post.published],
    },
  };
}

const photoValue = ({ address, alternative }: NonNullable<Post['photo']>): unknown =>
  alternative === '' ? address : { value: address, alt: alternative };

/** A form (section 3.2) as the JSON it stands for: `h` as the type, `name[]` and `name` as values. */
function asJson(body: Record<string, unknown>): Record<string, unknown> {
  if (body['properties'] || body['type'] || body['replace'] || body['add'] || body['delete']) return body;
  if (typeof body['action'] === 'string') return body;
  if (typeof body['h'] !== 'string') return body;
  const properties: Values = {};
  for (const [key, value] of Object.entries(body)) {
    if (key === 'h' || key === 'access_token') continue;
    const name = key.replace(/\[\]$/, '');
    properties[name] = [...(properties[name] ?? []), ...[value].flat()];
  }
  return { type: [`h-${body['h']}`], properties };
}

function post(body: Record<string, unknown>, site: BlogSite, posts: Posts, origin: string): Answer {
  const address = String(body['url']);
  switch (body['action']) {
    case 'update':
      return update(body, address, site, posts);
    case 'delete':
    case 'undelete': {
      const deleted = body['action'] === 'delete';
      const found = deleted ? posts.byAddress(site.slug, address) : posts.deletedAt(site.slug, address);
      if (!found) return refusal(`there is no ${deleted ? '' : 'deleted '}post at that url`);
      posts.do({ act: 'update', at: new Date().toISOString(), blog: site.slug, address, change: { deleted } });
      return { status: 204, body: '' };
    }
    case undefined:
      return create(body, site, posts, origin);
    default:
      return refusal(`there is no action ${String(body['action'])}`);
  }
}

function create(body: Record<string, unknown>, site: BlogSite, posts: Posts, origin: string): Answer {
  const properties = body['properties'] as Values | undefined;
  if (!Array.isArray(body['type']) || !properties) return refusal('an entry needs type and properties');
  const problem = unfit(properties);
  if (problem) return refusal(problem);
  const name = first(properties, 'name') ?? '';
  const html = htmlOf(properties['content']?.[0]);
  if (name === '' && html === '') return refusal('a post needs a name or content');
  const slug = posts.freeSlug(
    site.slug,
    slugify(first(properties, 'mp-slug') ?? (name || html.replace(/<[^<>]*>/g, ' ').slice(0, 60))),
  );
  const made: Post = {
    address: `${origin}/blogs/${site.slug}/${slug}`,
    slug,
    name,
    html,
    summary: first(properties, 'summary') ?? '',
    categories: (properties['category'] ?? []).map(String),
    photo: photoOf(properties['photo']?.[0]),
    status: statusIn(properties),
    private: first(properties, 'visibility') === 'private',
    page: first(properties, 'mp-destination') === 'pages',
    more: moreIn(properties),
    published: first(properties, 'published') ?? new Date().toISOString(),
    deleted: false,
  };
  posts.do({ act: 'create', at: new Date().toISOString(), blog: site.slug, post: made });
  return { status: 201, headers: { location: made.address }, body: '' };
}

/** What keeps properties from being understood: each is a list of values (section 3.3.2). */
function unfit(properties: unknown): string | null {
  if (typeof properties !== 'object' || properties === null || Array.isArray(properties))
    return 'properties are no object';
  const wrong = Object.entries(properties).find(([, values]) => !Array.isArray(values));
  return wrong ? `the values of ${wrong[0]} are no list` : null;
}

function statusIn(properties: Values): Post['status'] {
  const status = first(properties, 'post-status');
  return status === 'draft' || status === 'pending' ? status : 'published';
}

/** The properties of its own that the blog tells of. */
const moreIn = (properties: Values): Record<string, string> =>
  Object.fromEntries(
    ['reading-time', 'season'].flatMap((name) => {
      const text = first(properties, name);
      return text === null ? [] : [[name, text]];
    }),
  );

/** Content as HTML: what is plain text is shown as the text it is (section 3.3.2). */
function htmlOf(content: unknown): string {
  if (typeof content === 'object' && content !== null) return String((content as { html?: unknown }).html ?? '');
  return String(content ?? '')
    .replaceAll('&', '&amp;')
    .replaceAll('<', '&lt;')
    .replaceAll('>', '&gt;');
}

function photoOf(photo: unknown): Post['photo'] {
  if (!photo) return null;
  if (typeof photo === 'string') return { address: photo, alternative: '' };
  const { value, alt } = photo as { value: unknown; alt?: unknown };
  return { address: String(value), alternative: String(alt ?? '') };
}

/** Changes to a post (section 3.4): values in the place of others, values besides, values or whole properties taken away. */
function update(body: Record<string, unknown>, address: string, site: BlogSite, posts: Posts): Answer {
  const found = posts.byAddress(site.slug, address);
  if (!found) return refusal('there is no post at that url');
  const { replace = {}, add = {}, delete: taken = {} } = body as Record<'replace' | 'add' | 'delete', unknown>;
  const problem = unfit(replace) ?? unfit(add) ?? (Array.isArray(taken) ? null : unfit(taken));
  if (problem) return refusal(problem);
  const values: Values = { ...entryOf(found).properties, ...(replace as Values) };
  for (const [name, more] of Object.entries(add as Values)) values[name] = [...(values[name] ?? []), ...more];
  if (Array.isArray(taken)) for (const name of taken) delete values[String(name)];
  else
    for (const [name, gone] of Object.entries(taken as Values)) {
      const said = gone.map((value) => JSON.stringify(value));
      values[name] = (values[name] ?? []).filter((value) => !said.includes(JSON.stringify(value)));
    }
  const change: Partial<Post> = {
    name: first(values, 'name') ?? '',
    html: htmlOf(values['content']?.[0]),
    summary: first(values, 'summary') ?? '',
    categories: (values['category'] ?? []).map(String),
    photo: photoOf(values['photo']?.[0]),
    published: first(values, 'published') ?? found.published,
    status: statusIn(values),
    private: first(values, 'visibility') === 'private',
    more: moreIn(values),
  };
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
      resolve({ status: 201, headers: { location: posts.keepMedia(site.slug, origin, mime, body) }, body: '' });
    });
    form.on('error', reject);
    request.pipe(form);
  });
}

function first(properties: Values, name: string): string | null {
  const value = properties[name]?.[0];
  return typeof value === 'string' && value !== '' ? value : null;
}
