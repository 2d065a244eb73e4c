import { createHash } from 'node:crypto';
import { z } from 'zod';
import type { Reply } from '../../../ground/network/network.ts';
import { jsonOf } from '../../adapters/port.ts';
import { bad, type Effect, good, type Result } from '../../outcome/outcome.ts';
import { signatureOf } from '../../telling/hook.ts';
import type { Begins, BlogPort, BlogSays, BlogTarget, Capability, Placed, Post, PostThere } from '../blog.ts';
import { type Asked, BlogCalls, noSuchPost, unusable, type WayPorts } from './calls.ts';
import { BY_EVERY_WAY, keepsDates } from './carries.ts';

const CAN: ReadonlySet<Capability> = new Set<Capability>([
  ...BY_EVERY_WAY,
  'removes',
  'lead picture',
  'summary',
  'address',
  'author',
  'language',
  'review',
  'private',
  'pages',
  'replies',
  'properties',
  'canonical',
  'siblings',
  'structured data',
]);

/** What is asked of the receiver. `article.put` of a key that is there changes it: nothing is ever made twice. */
type Kind = 'article.put' | 'article.live' | 'article.withdraw' | 'article.ask' | 'picture.put' | 'about.ask';

const Answer = z.object({
  address: z.string().optional(),
  status: z.enum(['draft', 'review', 'private', 'published']).optional(),
  title: z.string().optional(),
  html: z.string().nullable().optional(),
});
const About = z.object({ pictures: z.boolean().optional(), categories: z.array(z.string()).optional() });

/**
 * Posting by a signed call to an address of one's own (Standard Webhooks, version 1): the whole article as HTML and as
 * Markdown. The receiver answers with the address at once, or with 202 and is asked for it later by the article's key.
 */
export class HookBlog implements BlogPort {
  private readonly calls: BlogCalls;

  constructor(private readonly ports: Omit<WayPorts, 'reader'>) {
    this.calls = new BlogCalls(ports);
  }

  can(blog: BlogTarget): ReadonlySet<Capability> {
    return new Set([...CAN, ...keepsDates(blog)]);
  }

  async isRead(blog: BlogTarget, { address }: Placed, signal: AbortSignal): Promise<Result<boolean>> {
    return this.calls.isRead(blog, address, signal);
  }

  /** Asks whether it takes pictures; one that knows no such question takes none. */
  async config(blog: BlogTarget, signal: AbortSignal): Promise<Result<BlogSays>> {
    const about = await this.ask(blog, 'about.ask', {}, About, signal);
    if (!about.ok) return about;
    return good({ mediaEndpoint: about.value?.pictures === false ? null : blog.endpoint });
  }

  async upload(
    blog: BlogTarget,
    { bytes, mime, name }: { bytes: Buffer; mime: string; name: string },
    signal: AbortSignal,
  ): Promise<Effect<string>> {
    const digest = createHash('sha256').update(bytes).digest('hex');
    const data = { digest, name, type: mime, base64: bytes.toString('base64') };
    return this.calls.change(blog, this.asked(blog, 'picture.put', digest, data), signal, {
      action: 'upload',
      read: (reply) => answered(reply, blog)?.address ?? null,
    });
  }

  async create(blog: BlogTarget, post: Post, status: Begins, signal: AbortSignal): Promise<Effect<Placed>> {
    return this.change(blog, 'article.put', post.key, { ...dataOf(post), status }, 'create', signal);
  }

  async turnLive(blog: BlogTarget, at: Placed, published: string, signal: AbortSignal): Promise<Effect<Placed>> {
    return this.change(blog, 'article.live', at.handle, { published }, 'turn live', signal, at.address);
  }

  async update(blog: BlogTarget, at: Placed, post: Post, signal: AbortSignal): Promise<Effect<Placed>> {
    const there = await this.there(blog, at, signal);
    if (!there.ok) return { kind: 'not done', failure: there.failure };
    const { value } = there;
    if (!value) return noSuchPost(blog);
    const data = { ...dataOf({ ...post, key: at.handle }), status: value.asSaid ?? 'published' };
    return this.change(blog, 'article.put', at.handle, data, 'update', signal, at.address);
  }

  async withdraw(blog: BlogTarget, at: Placed, signal: AbortSignal): Promise<Effect<Placed>> {
    return this.calls.change(blog, this.asked(blog, 'article.withdraw', at.handle, {}), signal, {
      action: 'withdraw',
      read: (reply) => (reply.status === 202 ? null : at),
    });
  }

  async read(blog: BlogTarget, at: Placed, signal: AbortSignal): Promise<Result<PostThere | null>> {
    return this.there(blog, at, signal);
  }

  /** A post as it is held, with its state in the receiver’s own words. */
  private async there(
    blog: BlogTarget,
    at: Placed,
    signal: AbortSignal,
  ): Promise<Result<(PostThere & { asSaid: Begins | null }) | null>> {
    const asked = await this.ask(blog, 'article.ask', { key: at.handle }, Answer, signal);
    if (!asked.ok || asked.value === null) return asked.ok ? good(null) : asked;
    const { address = at.address, status: asSaid = null, title = '', html = null } = asked.value;
    const status = asSaid === null ? null : asSaid === 'draft' || asSaid === 'review' ? 'draft' : 'published';
    return good({ handle: at.handle, address, status, name: title, html, asSaid });
  }

  async isWithdrawn(blog: BlogTarget, at: Placed, signal: AbortSignal): Promise<Result<boolean>> {
    const there = await this.read(blog, at, signal);
    return there.ok ? good(there.value === null) : there;
  }

  async find(blog: BlogTarget, key: string, _since: number, signal: AbortSignal): Promise<Result<Placed | null>> {
    const asked = await this.ask(blog, 'article.ask', { key }, Answer, signal);
    if (!asked.ok) return asked;
    return good(asked.value?.address ? { handle: key, address: asked.value.address } : null);
  }

  async categories(blog: BlogTarget, signal: AbortSignal): Promise<Result<string[]>> {
    const about = await this.ask(blog, 'about.ask', {}, About, signal);
    return about.ok ? good(about.value?.categories ?? []) : about;
  }

  private change(
    blog: BlogTarget,
    kind: Kind,
    key: string,
    data: object,
    action: string,
    signal: AbortSignal,
    known?: string,
  ): Promise<Effect<Placed>> {
    return this.calls.change(blog, this.asked(blog, kind, key, data), signal, {
      action,
      read: (reply) => {
        // Taken, and done later: whether it is, is asked for.
        if (reply.status === 202) return null;
        const address = answered(reply, blog)?.address ?? known;
        return address === undefined ? null : { handle: key, address };
      },
    });
  }

  /** Asks; 404 says that there is none, 202 that it is not known yet. */
  private async ask<T>(
    blog: BlogTarget,
    kind: Kind,
    data: object,
    shape: z.ZodType<T>,
    signal: AbortSignal,
  ): Promise<Result<T | null>> {
    const key = 'key' in data ? String(data.key) : 'about';
    const read = await this.calls.look<T | null>(blog, this.asked(blog, kind, key, data), signal, {
      read: (reply) => {
        if (reply.status === 202)
          return bad({ code: 'service-busy', service: blog.id, retryAfterMs: blog.timeLimitMs });
        const parsed = jsonOf(reply.body);
        const fit = parsed.ok ? shape.safeParse(parsed.value) : null;
        return fit?.success ? good(fit.data) : unusable(reply, blog, 'its answer is no JSON as it is agreed');
      },
    });
    if (read.ok || read.failure.code !== 'blog-refuses' || ![404, 410].includes(read.failure.status)) return read;
    return read.failure.mistake ? read : good(null);
  }

  private asked(blog: BlogTarget, kind: Kind, key: string, data: object): Asked {
    const at = Math.floor(this.ports.now() / 1_000);
    const body = JSON.stringify({ type: kind, timestamp: new Date(at * 1_000).toISOString(), data: { key, ...data } });
    // The same for the same act, so that a receiver tells a repeat.
    const id = `${kind}-${createHash('sha256')
      .update(`${kind}/${JSON.stringify(data)}/${key}`)
      .digest('hex')
      .slice(0, 24)}`;
    const secret = blog.secret ? secretOf(this.ports.secrets.open(blog.secret)) : null;
    return {
      method: 'POST',
      address: blog.endpoint,
      headers: {
        'content-type': 'application/json',
        accept: 'application/json',
        ...(secret ? signatureOf({ id, at, body }, secret) : {}),
      },
      body,
    };
  }
}

/** A secret as Standard Webhooks writes it (`whsec_` and base64), or any text. */
const secretOf = (text: string): Buffer =>
  text.startsWith('whsec_') ? Buffer.from(text.slice('whsec_'.length), 'base64') : Buffer.from(text, 'utf8');

function dataOf(post: Post) {
  const { key, name, html, markdown, summary, slug, categories, language, author, photo, ...sides } = post;
  return {
    key,
    title: name,
    ...(author === null ? {} : { author }),
    html,
    markdown,
    description: summary,
    slug,
    categories,
    language,
    picture: photo,
    ...sides,
  };
}

function answered(reply: Reply, blog: BlogTarget): { address?: string } | null {
  const parsed = jsonOf(reply.body);
  const fit = parsed.ok ? Answer.safeParse(parsed.value) : null;
  const said = fit?.success ? fit.data.address : undefined;
  const address = said ?? reply.headers['location'];
  return address && URL.canParse(address, blog.address)
    ? { address: new URL(address, blog.address).href }
    : fit?.success
      ? {}
      : null;
}
