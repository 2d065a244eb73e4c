import type { Failure } from '@grivo/core';
import { z } from 'zod';
import type { Secrets } from '../config/secrets.ts';
import { type Call, formBody, type Network, type Reply } from '../network/network.ts';
import { bad, failureOf, good, jsonOf, type Result, refusalOf } from './port.ts';

/** A blog to post to, by the Micropub standard (W3C Recommendation, 23 May 2017) with its media endpoint. */
export interface BlogTarget {
  id: string;
  endpoint: string;
  mediaEndpoint: string | null;
  secret: Buffer | null;
  timeLimitMs: number;
}

export interface Entry {
  name: string;
  html: string;
  summary: string;
  slug: string;
  categories: string[];
  photo: { address: string; alternative: string } | null;
}

export interface RemotePost {
  address: string;
  status: 'draft' | 'published';
  name: string;
}

/** A call that changes something at the blog: done, certainly not done, or nobody knows. */
export type Effect<T> =
  | { kind: 'done'; value: T }
  | { kind: 'not done'; failure: Failure }
  | { kind: 'unknown'; failure: Failure };

const Config = z.object({ 'media-endpoint': z.string().optional() });
const Properties = z.object({
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

export class Micropub {
  constructor(private readonly ports: { network: Network; secrets: Secrets }) {}

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
    entry: Entry,
    status: 'draft' | 'published',
    signal: AbortSignal,
  ): Promise<Effect<string>> {
    const properties: Record<string, unknown[]> = {
      name: [entry.name],
      content: [{ html: entry.html }],
      summary: [entry.summary],
      category: entry.categories,
      'mp-slug': [entry.slug],
      'post-status': [status],
    };
    if (entry.photo) properties['photo'] = [{ value: entry.photo.address, alt: entry.photo.alternative }];
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

  async remove(blog: BlogTarget, address: string, signal: AbortSignal): Promise<Effect<string>> {
    return this.effect(blog, this.json(blog, { action: 'delete', url: address }, signal), 'delete', () => address);
  }

  /** One post as the blog holds it (section 3.7.2); null when it has none at this address. */
  async source(blog: BlogTarget, address: string, signal: AbortSignal): Promise<Result<RemotePost | null>> {
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
      const found = addresses.find((address) => URL.canParse(address) && new URL(address).pathname.includes(key));
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

function located(reply: Reply): string | null {
  const location = reply.headers['location'];
  return location ? new URL(location, reply.address).href : null;
}

/** Whether posts are listed newest first, the last of them older than a moment. */
function reachesBack(items: z.infer<typeof SourceList>['items'], since: number): boolean {
  const times = items.map(({ properties }) => Date.parse(properties.published?.[0] ?? ''));
  const ordered = times.every((time, i) => !Number.isNaN(time) && (i === 0 || time <= times[i - 1]!));
  return ordered && times.at(-1)! < since;
}

function postOf(properties: z.infer<typeof Properties>, address: string): RemotePost {
  return {
    address: properties.url?.[0] ?? address,
    status: properties['post-status']?.[0] === 'draft' ? 'draft' : 'published',
    name: properties.name?.[0] ?? '',
  };
}
