import { z } from 'zod';
import { formBody, type Reply } from '../../../ground/network/network.ts';
import { jsonOf } from '../../adapters/port.ts';
import { bad, type Effect, good, type Result } from '../../outcome/outcome.ts';
import type { Begins, BlogPort, BlogSays, BlogTarget, Capability, Placed, Post, PostThere } from '../blog.ts';
import { type Asked, BlogCalls, keyMistake, type Refusal, unusable, type WayPorts } from './calls.ts';
import { BY_EVERY_WAY, keepsDates } from './carries.ts';
import { addressHolds } from './mark.ts';

/** What every blog of this way can; where its pictures go it says itself. */
const CAN: ReadonlySet<Capability> = new Set<Capability>([
  ...BY_EVERY_WAY,
  'removes',
  'lead picture',
  'summary',
  'address',
]);

/**
 * What a blog says of itself (section 3.7.1), with extensions to the standard: the kinds of posts it takes and their
 * properties, places posts can go to, who may see them. How posts may begin is told as the values of `post-status`.
 */
const Config = z.object({
  'media-endpoint': z.string().optional(),
  'post-status': z.array(z.string()).optional().catch(undefined),
  visibility: z.array(z.string()).optional().catch(undefined),
  'post-types': z
    .array(z.object({ type: z.string().optional(), properties: z.array(z.string()).optional() }))
    .optional()
    .catch(undefined),
  destination: z
    .array(z.object({ uid: z.string(), name: z.string() }))
    .optional()
    .catch(undefined),
});
/** The value of `post-status` of what waits for the blog’s own people. */
const REVIEW = 'pending';
/** What a place for standing pages is called, in the languages of the shipped texts. */
const PAGES = /\b(?:pages?|seiten?)\b/i;
const Content = z.object({ html: z.string() });
const Properties = z.object({
  content: z.array(z.unknown()).optional(),
  url: z.array(z.string()).optional(),
  name: z.array(z.string()).optional(),
  'post-status': z.array(z.string()).optional(),
  published: z.array(z.string()).optional(),
});
const SourceList = z.object({
  items: z.array(z.object({ properties: Properties })),
  paging: z.object({ after: z.string().nullish() }).nullish(),
});

/** Posts of a page of the list, and pages looked through at most. */
const PAGE = 100;
const MOST_PAGES = 500;
const Categories = z.object({ categories: z.array(z.string()) });
const SourceOne = z.object({ properties: Properties });
const ErrorReply = z.object({ error: z.string().optional(), error_description: z.string().optional() });

/** Posting by the Micropub standard (W3C Recommendation, 23 May 2017) with its media endpoint. */
export class Micropub implements BlogPort {
  private readonly calls: BlogCalls;

  constructor(private readonly ports: Omit<WayPorts, 'reader'>) {
    this.calls = new BlogCalls(ports);
  }

  can(blog: BlogTarget): ReadonlySet<Capability> {
    const { told, pages } = blog.settings;
    const can = new Set([...CAN, ...keepsDates(blog)]);
    if (told?.review) can.add('review');
    if (told?.private) can.add('private');
    if (pages !== undefined) can.add('pages');
    if ((told?.properties.length ?? 0) > 0) can.add('properties');
    return can;
  }

  async isRead(blog: BlogTarget, { address }: Placed, signal: AbortSignal): Promise<Result<boolean>> {
    return this.calls.isRead(blog, address, signal);
  }

  /** What the blog says it can: where its media endpoint is, and what its posts may be. */
  async config(blog: BlogTarget, signal: AbortSignal): Promise<Result<BlogSays>> {
    const read = await this.query(blog, { q: 'config' }, Config, signal);
    if (!read.ok) return read;
    const says = read.value;
    const media = says['media-endpoint'] ?? '';
    const pages = says.destination?.find(({ name }) => PAGES.test(name))?.uid;
    const { pages: _, ...kept } = blog.settings;
    const article = says['post-types']?.find(({ type }) => type === 'article') ?? says['post-types']?.[0];
    return good({
      settings: {
        ...kept,
        ...(pages === undefined ? {} : { pages: pages.slice(0, 500) }),
        told: {
          review: says['post-status']?.includes(REVIEW) ?? false,
          private: says.visibility?.includes('private') ?? false,
          properties: (article?.properties ?? []).filter((name) => name.length <= 60).slice(0, 100),
        },
      },
      mediaEndpoint: media !== '' && URL.canParse(media, blog.endpoint) ? new URL(media, blog.endpoint).href : null,
    });
  }

  /** Sends a file to the media endpoint (section 3.6). Sending one twice leaves a copy and harms nothing. */
  async upload(
    blog: BlogTarget,
    file: { bytes: Buffer; mime: string; name: string },
    signal: AbortSignal,
  ): Promise<Effect<string>> {
    const form = new FormData();
    form.set('file', new Blob([new Uint8Array(file.bytes)], { type: file.mime }), file.name);
    const { body, type } = await formBody(form);
    const address = blog.mediaEndpoint ?? blog.endpoint;
    const asked = { method: 'POST' as const, address, headers: { 'content-type': type }, body };
    return this.effect(blog, asked, 'upload', located, signal);
  }

  /** Creates a post (section 3.3). The slug is asked for; the address the blog chose comes back. */
  async create(blog: BlogTarget, post: Post, status: Begins, signal: AbortSignal): Promise<Effect<Placed>> {
    const properties = {
      ...propertiesOf(post),
      'mp-slug': [post.slug],
      ...begins(status),
      ...(post.shape === 'page' && blog.settings.pages !== undefined
        ? { 'mp-destination': [blog.settings.pages] }
        : {}),
    };
    return this.effect(blog, json(blog, { type: ['h-entry'], properties }), 'create', placed, signal);
  }

  /** Turns a draft live, with the moment readers see on it (section 3.4). Doing so twice changes nothing more. */
  async turnLive(blog: BlogTarget, at: Placed, published: string, signal: AbortSignal): Promise<Effect<Placed>> {
    const replace = { 'post-status': ['published'], published: [published] };
    const asked = json(blog, { action: 'update', url: at.handle, replace });
    return this.effect(blog, asked, 'turn live', (reply) => placed(reply) ?? at, signal);
  }

  /** Says the post anew (section 3.4, `replace`); what it no longer has is taken out of it. */
  async update(blog: BlogTarget, at: Placed, post: Post, signal: AbortSignal): Promise<Effect<Placed>> {
    const replace = propertiesOf(post);
    const gone = ['category', 'photo'].filter((name) => !(name in replace));
    const update = { action: 'update', url: at.handle, replace, ...(gone.length > 0 ? { delete: gone } : {}) };
    return this.effect(blog, json(blog, update), 'update', (reply) => placed(reply) ?? at, signal);
  }

  /** Takes a post from the blog (section 3.5). */
  async withdraw(blog: BlogTarget, at: Placed, signal: AbortSignal): Promise<Effect<Placed>> {
    return this.effect(blog, json(blog, { action: 'delete', url: at.handle }), 'delete', () => at, signal);
  }

  /** One post as the blog holds it (section 3.7.2); null when it has none at this address. */
  async read(blog: BlogTarget, at: Placed, signal: AbortSignal): Promise<Result<PostThere | null>> {
    const read = await this.query(blog, { q: 'source', url: at.handle }, SourceOne, signal);
    if (read.ok) return good(postOf(read.value.properties, at.handle));
    const { failure } = read;
    return failure.code === 'blog-refuses' && !failure.mistake && [400, 404, 410].includes(failure.status)
      ? good(null)
      : read;
  }

  async isWithdrawn(blog: BlogTarget, at: Placed, signal: AbortSignal): Promise<Result<boolean>> {
    const there = await this.read(blog, at, signal);
    return there.ok ? good(there.value === null) : there;
  }

  /** The categories the blog uses (`q=category`, an extension registered to the standard). */
  async categories(blog: BlogTarget, signal: AbortSignal): Promise<Result<string[]>> {
    const read = await this.query(blog, { q: 'category' }, Categories, signal);
    return read.ok ? good(read.value.categories) : read;
  }

  /**
   * The post that holds a key in its address, drafts included, by the list of posts (an extension registered to the
   * standard) and its pages (`paging.after`).
   * @param since when it was made at the earliest, in milliseconds: a list that has no pages shows the newest, and what is
   *   not among those that are newer than that is not there
   * @returns null when there is surely none; `outcome-unfindable` when the blog shows too little to tell
   */
  async find(blog: BlogTarget, key: string, since: number, signal: AbortSignal): Promise<Result<Placed | null>> {
    const unfindable = bad({ code: 'outcome-unfindable', service: blog.id, action: 'create' });
    let after: string | null = null;
    for (let page = 0; page < MOST_PAGES; page++) {
      const query: Record<string, string> = { q: 'source', limit: String(PAGE), ...(after === null ? {} : { after }) };
      const read: Result<z.infer<typeof SourceList>> = await this.query(blog, query, SourceList, signal);
      if (!read.ok) return read;
      const { items, paging } = read.value;
      const addresses = items.flatMap(({ properties }) => properties.url?.[0] ?? []);
      const address = addresses.find((one) => addressHolds(one, key));
      if (address) return good({ handle: address, address });
      const next: string | null = paging?.after ?? null;
      if (next === null || next === after) {
        const whole = page > 0 || items.length < PAGE || (paging !== undefined && paging !== null);
        return whole || reachesBack(items, since) ? good(null) : unfindable;
      }
      after = next;
    }
    return unfindable;
  }

  private async query<T>(
    blog: BlogTarget,
    query: Record<string, string>,
    shape: z.ZodType<T>,
    signal: AbortSignal,
  ): Promise<Result<T>> {
    const address = new URL(blog.endpoint);
    for (const [name, value] of Object.entries(query)) address.searchParams.set(name, value);
    const headers = { accept: 'application/json', ...this.authorization(blog) };
    return this.calls.look(blog, { method: 'GET', address: address.href, headers }, signal, {
      refuses,
      read: (reply) => {
        const parsed = jsonOf(reply.body);
        const fit = parsed.ok ? shape.safeParse(parsed.value) : null;
        return fit?.success ? good(fit.data) : unusable(reply, blog, 'it does not answer as the standard says');
      },
    });
  }

  private effect<T>(
    blog: BlogTarget,
    asked: Asked,
    action: string,
    read: (reply: Reply) => T | null,
    signal: AbortSignal,
  ): Promise<Effect<T>> {
    const headers = { accept: 'application/json', ...asked.headers, ...this.authorization(blog) };
    return this.calls.change(blog, { ...asked, headers }, signal, { action, refuses, read });
  }

  private authorization(blog: BlogTarget): Record<string, string> {
    return blog.secret ? { authorization: `Bearer ${this.ports.secrets.open(blog.secret)}` } : {};
  }
}

/** What the codes of errors mean (section 3.8). */
function refuses(reply: Reply, { id: service }: BlogTarget): Refusal | null {
  if (reply.status < 400 || reply.status >= 500) return null;
  const parsed = jsonOf(reply.body);
  const said = parsed.ok ? ErrorReply.safeParse(parsed.value).data : undefined;
  if (!said?.error) return null;
  const { status } = reply;
  const words = said.error_description ?? said.error;
  const isKey = status === 401 || status === 403;
  if (isKey)
    return {
      failure: { code: 'key-refused', service, status, said: words, ...keyMistake(status, `${said.error} ${words}`) },
      acted: 'no',
    };
  return { failure: { code: 'blog-refuses', service, status, said: words }, acted: 'no' };
}

const json = (blog: BlogTarget, body: object): Asked => ({
  method: 'POST',
  address: blog.endpoint,
  headers: { 'content-type': 'application/json' },
  body: JSON.stringify(body),
});

/** How a post begins, and who sees it; what is private is read by those who sign in. */
function begins(status: Begins): Record<string, string[]> {
  if (status === 'private') return { 'post-status': ['published'], visibility: ['private'] };
  return { 'post-status': [status === 'review' ? REVIEW : status] };
}

/** What a post says, as properties of an entry (microformats2 h-entry). */
function propertiesOf(post: Post): Record<string, unknown[]> {
  return {
    ...Object.fromEntries(Object.entries(post.properties).map(([name, text]) => [name, [text]])),
    name: [post.name],
    content: [{ html: post.html }],
    summary: [post.summary],
    ...(post.categories.length > 0 ? { category: post.categories } : {}),
    ...(post.photo ? { photo: [{ value: post.photo.address, alt: post.photo.alternative }] } : {}),
  };
}

function located(reply: Reply): string | null {
  const location = reply.headers['location'];
  return location ? new URL(location, reply.address).href : null;
}

function placed(reply: Reply): Placed | null {
  const address = located(reply);
  return address === null ? null : { handle: address, address };
}

/** Whether posts are listed newest first, the last of them older than a moment. */
function reachesBack(items: z.infer<typeof SourceList>['items'], since: number): boolean {
  const times = items.map(({ properties }) => Date.parse(properties.published?.[0] ?? ''));
  const ordered = times.every((time, i) => !Number.isNaN(time) && (i === 0 || time <= times[i - 1]!));
  return ordered && times.at(-1)! < since;
}

function postOf(properties: z.infer<typeof Properties>, handle: string): PostThere {
  return {
    handle,
    address: properties.url?.[0] ?? handle,
    status: ['draft', REVIEW].includes(properties['post-status']?.[0] ?? '') ? 'draft' : 'published',
    name: properties.name?.[0] ?? '',
    html: Content.safeParse(properties.content?.[0]).data?.html ?? null,
  };
}
