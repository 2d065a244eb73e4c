import express, { type Request, Router } from 'express';
import { XMLParser } from 'fast-xml-parser';
import type { Answer, Troubles } from '../ground/trouble.ts';
import { accessBy, type BlogSite, type Post, type Posts, slugify } from './posts.ts';

type Given = string | number | boolean | Date | Buffer | Given[] | { [name: string]: Given };

/** A fault by its code and words. */
class Fault extends Error {
  constructor(
    readonly code: number,
    readonly says: string,
  ) {
    super(says);
  }
}

const parser = new XMLParser({
  ignoreAttributes: true,
  parseTagValue: false,
  trimValues: false,
  processEntities: true,
  isArray: (name) => name === 'param' || name === 'member' || name === 'value',
});

/**
 * The interface for desk programs (MetaWeblog over XML-RPC, specification of 15 June 1999), and its description (Really
 * Simple Discovery 1.0). A post's id is its slug; what a post does not name is taken away by an edit.
 */
export function xmlRpc(sites: readonly BlogSite[], posts: Posts, troubles: Troubles, origin: () => string): Router {
  const router = Router();
  const siteOf = (request: Request) => sites.find((site) => site.slug === request.params['blog']);
  router.get('/blogs/:blog/rsd.xml', (request, response) => {
    const site = siteOf(request);
    if (!site) return void response.status(404).end();
    response
      .type('application/rsd+xml')
      .send(
        `<?xml version="1.0"?><rsd version="1.0" xmlns="http://archipelago.phrasewise.com/rsd"><service><engineName>Stand-in blog</engineName><homePageLink>${origin()}/blogs/${site.slug}/</homePageLink><apis><api name="MetaWeblog" preferred="true" apiLink="${origin()}/blogs/${site.slug}/rpc" blogID="${site.slug}"/></apis></service></rsd>`,
      );
  });
  router.get('/blogs/:blog/rpc', (_request, response) => {
    response.status(405).set('allow', 'POST').type('text/plain').send('XML-RPC server accepts POST requests only.');
  });
  router.post(
    '/blogs/:blog/rpc',
    express.text({ type: () => true, limit: '30mb' }),
    troubles.around('blog', (request): Answer => {
      const site = siteOf(request);
      if (!site) return { status: 404, body: '' };
      try {
        const { method, params } = calledIn(String(request.body));
        return answer(`<params><param>${valueXml(act(method, params, site, posts, origin()))}</param></params>`);
      } catch (error) {
        if (!(error instanceof Fault)) throw error;
        return answer(`<fault>${valueXml({ faultCode: error.code, faultString: error.says })}</fault>`);
      }
    }),
  );
  return router;
}

const answer = (body: string): Answer => ({
  status: 200,
  type: 'text/xml',
  body: `<?xml version="1.0"?>\n<methodResponse>${body}</methodResponse>`,
});

function calledIn(text: string): { method: string; params: Given[] } {
  const read = parser.parse(text) as {
    methodCall?: { methodName?: string; params?: { param?: { value: unknown[] }[] } };
  };
  const call = read.methodCall;
  if (typeof call?.methodName !== 'string') throw new Fault(-32_700, 'parse error. not well formed');
  return { method: call.methodName, params: (call.params?.param ?? []).map(({ value }) => given(value[0])) };
}

function given(value: unknown): Given {
  if (typeof value !== 'object' || value === null) return String(value ?? '');
  const typed = value as Record<string, unknown>;
  if ('string' in typed) return String(typed['string']);
  if ('int' in typed || 'i4' in typed) return Number(typed['int'] ?? typed['i4']);
  if ('boolean' in typed) return String(typed['boolean']).trim() === '1';
  if ('dateTime.iso8601' in typed) {
    const [, y, m, d, time] = /^(\d{4})(\d\d)(\d\d)T(\d\d:\d\d:\d\d)Z?$/.exec(String(typed['dateTime.iso8601'])) ?? [];
    return new Date(`${y}-${m}-${d}T${time}Z`);
  }
  if ('base64' in typed) return Buffer.from(String(typed['base64']), 'base64');
  if ('array' in typed) {
    const data = (typed['array'] as { data?: { value?: unknown[] } | string }).data;
    return typeof data === 'object' ? (data.value ?? []).map(given) : [];
  }
  if ('struct' in typed) {
    const struct = typed['struct'] as { member?: { name: string; value: unknown[] }[] } | string;
    const members = typeof struct === 'object' ? (struct.member ?? []) : [];
    return Object.fromEntries(members.map(({ name, value }) => [name, given(value[0])]));
  }
  return '';
}

const escaped = (text: string): string => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;');

function valueXml(value: Given): string {
  if (typeof value === 'string') return `<value><string>${escaped(value)}</string></value>`;
  if (typeof value === 'number') return `<value><int>${value}</int></value>`;
  if (typeof value === 'boolean') return `<value><boolean>${value ? 1 : 0}</boolean></value>`;
  if (value instanceof Date)
    return `<value><dateTime.iso8601>${value.toISOString().slice(0, 19).replaceAll('-', '')}</dateTime.iso8601></value>`;
  if (Buffer.isBuffer(value)) return `<value><base64>${value.toString('base64')}</base64></value>`;
  if (Array.isArray(value)) return `<value><array><data>${value.map(valueXml).join('')}</data></array></value>`;
  const members = Object.entries(value).map(
    ([name, one]) => `<member><name>${escaped(name)}</name>${valueXml(one)}</member>`,
  );
  return `<value><struct>${members.join('')}</struct></value>`;
}

function act(method: string, params: Given[], site: BlogSite, posts: Posts, origin: string): Given {
  const [first, user, password, ...rest] = params;
  if (!method.startsWith('metaWeblog.'))
    throw new Fault(-32_601, `server error. requested method ${method} does not exist.`);
  const access = accessBy(site, String(password));
  if (String(user) !== site.user || access === 'none') throw new Fault(403, 'Incorrect user name or password.');
  if (access === 'expired') throw new Fault(403, 'This password has expired.');
  const may = () => {
    if (access === 'read') throw new Fault(401, 'You are not allowed to publish posts on this blog.');
  };
  const id = String(first);
  switch (method) {
    case 'metaWeblog.newPost':
      may();
      if (id !== site.slug) throw new Fault(404, 'There is no such blog.');
      return create(rest[0] as Record<string, Given>, rest[1] === true, site, posts, origin);
    case 'metaWeblog.editPost':
      may();
      return edit(id, rest[0] as Record<string, Given>, rest[1] === true, site, posts);
    case 'metaWeblog.getPost':
      return itemOf(found(id, site, posts));
    case 'metaWeblog.getRecentPosts':
      return posts.all(site.slug).slice(0, Number(rest[0])).map(itemOf);
    case 'metaWeblog.getCategories':
      return posts.categories(site).map((description) => ({
        description,
        htmlUrl: `${origin}/blogs/${site.slug}/`,
        rssUrl: `${origin}/blogs/${site.slug}/feed.atom`,
      }));
    case 'metaWeblog.newMediaObject': {
      may();
      const { type = '', bits = '' } = rest[0] as Record<string, Given>;
      if (!Buffer.isBuffer(bits) || bits.length === 0) throw new Fault(500, 'Could not write file.');
      return { url: posts.keepMedia(site.slug, origin, String(type), bits) };
    }
    default:
      throw new Fault(-32_601, `server error. requested method ${method} does not exist.`);
  }
}

function found(id: string, site: BlogSite, posts: Posts): Post {
  const post = posts.bySlug(site.slug, id);
  if (!post) throw new Fault(404, 'Sorry, no such post.');
  return post;
}

const words = (item: Record<string, Given>) => ({
  name: String(item['title'] ?? ''),
  html: String(item['description'] ?? ''),
  categories: Array.isArray(item['categories']) ? item['categories'].map(String) : [],
});

function create(item: Record<string, Given>, publish: boolean, site: BlogSite, posts: Posts, origin: string): string {
  const said = words(item);
  if (said.name === '' && said.html === '') throw new Fault(500, 'Content, title and excerpt are empty.');
  const slug = posts.freeSlug(site.slug, slugify(said.name || 'post'));
  const post: Post = {
    address: `${origin}/blogs/${site.slug}/${slug}`,
    slug,
    ...said,
    summary: '',
    photo: null,
    status: publish ? 'published' : 'draft',
    published: new Date().toISOString(),
    deleted: false,
  };
  posts.do({ act: 'create', at: new Date().toISOString(), blog: site.slug, post });
  return slug;
}

function edit(id: string, item: Record<string, Given>, publish: boolean, site: BlogSite, posts: Posts): boolean {
  const { address, published } = found(id, site, posts);
  const at = item['dateCreated'];
  const change: Partial<Post> = {
    ...words(item),
    status: publish ? 'published' : 'draft',
    published: at instanceof Date ? at.toISOString() : published,
  };
  posts.do({ act: 'update', at: new Date().toISOString(), blog: site.slug, address, change });
  return true;
}

const itemOf = (post: Post): Record<string, Given> => ({
  postid: post.slug,
  title: post.name,
  description: post.html,
  link: post.address,
  permaLink: post.address,
  categories: post.categories,
  dateCreated: new Date(post.published),
});
