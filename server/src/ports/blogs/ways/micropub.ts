import { z } from 'zod';
import type { Secrets } from '../../ground/config/secrets.ts';
import { type Call, formBody, type Network, type Reply } from '../../ground/network/network.ts';
import type { BlogPort, BlogTarget, Capability, Post, PostThere } from '../blogs/blog.ts';
import type { Effect } from '../outcome/outcome.ts';
import { bad, failureOf, good, jsonOf, type Result, refusalOf } from './port.ts';

/** What every blog of this way can; where its pictures go it says itself. */
const CAN: ReadonlySet<Capability> = new Set(['drafts', 'find', 'update', 'withdraw', 'media', 'categories']);

const Config = z.object({ 'media-endpoint': z.string().optional() });
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
const MOST_PAGES = 100;
const SourceOne = z.object({ properties: Properties });
const ErrorReply = z.object({ error: z.string().optional(), error_description: z.string().optional() });

/** Posting by the Micropub standard (W3C Recommendation, 23 May 2017) with its media endpoint. */
export class Micropub implements BlogPort {
  constructor(private readonly ports: { network: Network; secrets: Secrets }) {}

  can(): ReadonlySet<Capability> {
    return CAN;
  }

  /** What the blog says it can: the address of its media endpoint (section 3.7.1). */
  async config(blog: BlogTarget, signal: AbortSignal): Promise<Result<{ mediaEndpoint: string | null }>> {
    const read = await this.query(blog, { q: 'config' }, Config, signal);
    if (!read.ok) return read;
    const media = read.value['media-endpoint'] ?? '';
    return good({
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
    return this.effect(
      blog,
      {
        method: 'POST',
        address: blog.mediaEndpoint ?? blog.endpoint,
        headers: { 'content-type': type },
        body,
        timeLimitMs: blog.timeLimitMs,
        signal,
      },
      'upload',
      located,
    );
  }

  /** Creates a post (section 3.3). The slug is asked for; the address the blog chose comes back. */
  async create(
    blog: BlogTarget,
    post: Post,
    status: 'draft' | 'published',
    signal: AbortSignal,
  ): Promise<Effect<string>> {
    const properties = { ...propertiesOf(post), 'mp-slug': [post.slug], 'post-status': [status] };
    return this.effect(blog, this.json(blog, { type: ['h-entry'], properties }, signal), 'create', located);
  }

  /** Turns a draft live, with the moment readers see on it (section 3.4). Doing so twice changes nothing more. */
  async turnLive(blog: BlogTarget, address: string, published: string, signal: AbortSignal): Promise<Effect<string>> {
    const update = {
      action: 'update',
      url: address,
      replace: { 'post-status': ['published'], published: [published] },
    };
    return this.effect(
      blog,
      this.json(blog, update, signal),
      'turn live',
      (reply) => reply.headers['location'] ?? address,
    );
  }

  /** Says the post anew (section 3.4, `replace`); what it no longer has is taken out of it. */
  async update(blog: BlogTarget, address: string, post: Post, signal: AbortSignal): Promise<Effect<string>> {
    const replace = propertiesOf(post);
    const gone = ['category', 'photo'].filter((name) => !(name in replace));
    const update = { action: 'update', url: address, replace, ...(gone.length > 0 ? { delete: gone } : {}) };
    return this.effect(
      blog,
      this.json(blog, update, signal),
      'update',
      (reply) => reply.headers['location'] ?? address,
    );
  }

  /** Takes a post from the blog (section 3.5). */
  async withdraw(blog: BlogTarget, address: string, signal: AbortSignal): Promise<Effect<string>> {
    return this.effect(blog, this.json(blog, { action: 'delete', url: address }, signal), 'delete', () => address);
  }

  /** One post as the blog holds it (section 3.7.2); null when it has none at this address. */
  async read(blog: BlogTarget, address: string, signal: AbortSignal): Promise<Result<PostThere | null>> {
    const read = await this.query(blog, { q: 'source', url: address }, SourceOne, signal);
    if (read.ok) return good(postOf(read.value.properties, address));
    if (read.failure.code === 'blog-refuses' && [400, 404, 410].includes(read.failure.status)) return good(null);
    return read;
  }

  /**
   * The address of the post that holds a key in it, drafts included, by the list of posts (an extension registered to the
   * standard) and its pages (`paging.after`).
   * @param since when it was made at the earliest, in milliseconds: a list that has no pages shows the newest, and what is
   *   not among those that are newer than that is not there
   * @returns null when there is surely none; `outcome-unfindable` when the blog shows too little to tell
   */
  async find(blog: BlogTarget, key: string, since: number, signal: AbortSignal): Promise<Result<string | null>> {
    const unfindable = bad({ code: 'outcome-unfindable', service: blog.id, action: 'create' });
    let after: string | null = null;
    for (let page = 0; page < MOST_PAGES; page++) {
      const query: Record<string, string> = { q: 'source', limit: String(PAGE), ...(after === null ? {} : { after }) };
      const read: Result<z.infer<typeof SourceList>> = await this.query(blog, query, SourceList, signal);
      if (!read.ok) return read;
      const { items, paging } = read.value;
      const addresses = items.flatMap(({ properties }) => properties.url?.[0] ?? []);
      const found = addresses.find((address) => URL.canParse(address) && holds(new URL(address).pathname, key));
      if (found) return good(found);
      const next: string | null = paging?.after ?? null;
      if (next === null || next === after) {
        const whole = page > 0 || items.length < PAGE || (paging !== undefined && paging !== null);
        return whole || reachesBack(items, since) ? good(null) : unfindable;
      }
      after = next;
    }
    return unfindable;
  }

  private json(blog: BlogTarget, body: object, signal: AbortSignal): Call {
    return {
      method: 'POST',
      address: blog.endpoint,
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
      timeLimitMs: blog.timeLimitMs,
      signal,
    };
  }

  private async query<T>(
    blog: BlogTarget,
    query: Record<string, string>,
    shape: z.ZodType<T>,
    signal: AbortSignal,
  ): Promise<Result<T>> {
    const address = new URL(blog.endpoint);
    for (const [name, value] of Object.entries(query)) address.searchParams.set(name, value);
    const outcome = await this.ports.network.call({
      method: 'GET',
      address: address.href,
      headers: { accept: 'application/json', ...this.authorization(blog) },
      timeLimitMs: blog.timeLimitMs,
      signal,
    });
    if (outcome.kind === 'unknown')
      return bad({ code: 'service-unreachable', service: blog.id, detail: outcome.detail });
    if (outcome.kind !== 'reply') return bad(failureOf(outcome, blog.id, blog.endpoint, 'look').failure);
    const refusal = this.refusal(outcome.reply, blog.id);
    if (refusal) return bad(refusal.failure);
    const parsed = jsonOf(outcome.reply.body);
    const fit = parsed.ok ? shape.safeParse(parsed.value) : null;
    return fit?.success
      ? good(fit.data)
      : bad({ code: 'reply-unusable', service: blog.id, problem: 'it does not answer as the standard says' });
  }

  private async effect<T>(
    blog: BlogTarget,
    call: Call,
    action: string,
    value: (reply: Reply) => T | null,
  ): Promise<Effect<T>> {
    const outcome = await this.ports.network.call({
      ...call,
      redirects: 0,
      headers: { accept: 'application/json', ...call.headers, ...this.authorization(blog) },
    });
    if (outcome.kind !== 'reply') {
      const { failure, acted } = failureOf(outcome, blog.id, call.address, action);
      return acted === 'unknown' ? { kind: 'unknown', failure } : { kind: 'not done', failure };
    }
    const refusal = this.refusal(outcome.reply, blog.id);
    if (refusal)
      return refusal.acted === 'unknown'
        ? { kind: 'unknown', failure: { code: 'outcome-unknown', service: blog.id, action } }
        : { kind: 'not done', failure: refusal.failure };
    const made = value(outcome.reply);
    return made === null
      ? { kind: 'unknown', failure: { code: 'outcome-unknown', service: blog.id, action } }
      : { kind: 'done', value: made };
  }

  private refusal(reply: Reply, blog: string) {
    const refusal = refusalOf(reply, blog);
    if (refusal?.failure.code === 'service-broken' && refusal.acted === 'no') {
      const parsed = jsonOf(reply.body);
      const said = parsed.ok ? ErrorReply.safeParse(parsed.value).data : undefined;
      return {
        failure: {
          code: 'blog-refuses' as const,
          service: blog,
          status: reply.status,
          said: said?.error_description ?? said?.error ?? 'no reason given',
        },
        acted: 'no' as const,
      };
    }
    return refusal;
  }

  private authorization(blog: BlogTarget): Record<string, string> {
    return blog.secret ? { authorization: `Bearer ${this.ports.secrets.open(blog.secret)}` } : {};
  }
}

/** What a post says, as properties of an entry (microformats2 h-entry). */
function propertiesOf(post: Post): Record<string, unknown[]> {
  return {
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

/** Whether a key stands in an address, and not as the beginning of a longer one. */
function holds(path: string, key: string): boolean {
  const at = path.indexOf(key);
  return at >= 0 && !/[a-z0-9]/i.test(path[at + key.length] ?? '');
}

/** Whether posts are listed newest first, the last of them older than a moment. */
function reachesBack(items: z.infer<typeof SourceList>['items'], since: number): boolean {
  const times = items.map(({ properties }) => Date.parse(properties.published?.[0] ?? ''));
  const ordered = times.every((time, i) => !Number.isNaN(time) && (i === 0 || time <= times[i - 1]!));
  return ordered && times.at(-1)! < since;
}

function postOf(properties: z.infer<typeof Properties>, address: string): PostThere {
  return {
    address: properties.url?.[0] ?? address,
    status: properties['post-status']?.[0] === 'draft' ? 'draft' : 'published',
    name: properties.name?.[0] ?? '',
    html: Content.safeParse(properties.content?.[0]).data?.html ?? null,
  };
}
