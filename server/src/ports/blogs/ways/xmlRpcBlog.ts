import type { BlogMistake } from '@grivo/core';
import { type Given, isStruct, methodCall, type Value } from '../../../formats/posting/xmlRpc.ts';
import type { Reply } from '../../../ground/network/network.ts';
import { bad, type Effect, good, type Result } from '../../outcome/outcome.ts';
import type { Begins, BlogPort, BlogSays, BlogTarget, Capability, Placed, Post, PostThere } from '../blog.ts';
import { type Asked, BlogCalls, noSuchPost, unusable, type WayPorts } from './calls.ts';
import { BY_EVERY_WAY, keepsDates } from './carries.ts';
import { addressHolds, holds, marked, pictured, unmarked } from './mark.ts';

/** What servers of this kind can: the post says no address, no language and no description. */
const CAN: ReadonlySet<Capability> = new Set<Capability>([...BY_EVERY_WAY]);

/** How many of the newest posts are asked for, one after the other, when one is looked for. */
const RECENT = [100, 1_000, 10_000];

/** A method that answered, or the fault it answered with. */
type Called = { kind: 'value'; value: Given } | { kind: 'fault'; code: number; said: string };

/**
 * Posting by the XML-RPC interface desk programs use (MetaWeblog: newPost, editPost, getPost, getRecentPosts,
 * getCategories, newMediaObject; members of a post named as elements of an RSS 2.0 item). A post is withdrawn by an edit
 * that no longer publishes it. The interface names no address, so a post is found by its key: as `guid`, and at the end of
 * its text, where readers do not see it.
 */
export class XmlRpcBlog implements BlogPort {
  private readonly calls: BlogCalls;

  constructor(private readonly ports: WayPorts) {
    this.calls = new BlogCalls(ports);
  }

  can(blog: BlogTarget): ReadonlySet<Capability> {
    return new Set([...CAN, ...keepsDates(blog)]);
  }

  /** Signs in, by asking for the categories. */
  async config(blog: BlogTarget, signal: AbortSignal): Promise<Result<BlogSays>> {
    const read = await this.look(blog, 'metaWeblog.getCategories', this.blogLogin(blog), signal);
    return read.ok ? good({ mediaEndpoint: blog.endpoint }) : read;
  }

  async upload(
    blog: BlogTarget,
    { bytes, mime, name }: { bytes: Buffer; mime: string; name: string },
    signal: AbortSignal,
  ): Promise<Effect<string>> {
    const file = { name, type: mime, bits: bytes };
    return this.change(blog, 'metaWeblog.newMediaObject', [...this.blogLogin(blog), file], 'upload', signal, (value) =>
      isStruct(value) && typeof value['url'] === 'string' && URL.canParse(value['url'], blog.endpoint)
        ? new URL(value['url'], blog.endpoint).href
        : null,
    );
  }

  async create(blog: BlogTarget, post: Post, status: Begins, signal: AbortSignal): Promise<Effect<Placed>> {
    const params = [...this.blogLogin(blog), itemOf(post), status === 'published'];
    const made = await this.change(blog, 'metaWeblog.newPost', params, 'create', signal, (value) =>
      typeof value === 'string' || typeof value === 'number' ? String(value) : null,
    );
    return made.kind === 'done' ? { kind: 'done', value: await this.placed(blog, made.value, null, signal) } : made;
  }

  async turnLive(blog: BlogTarget, at: Placed, published: string, signal: AbortSignal): Promise<Effect<Placed>> {
    const there = await this.item(blog, at.handle, signal);
    if (!there.ok) return { kind: 'not done', failure: there.failure };
    if (!there.value) return noSuchPost(blog);
    const item = { ...sentBack(there.value), dateCreated: new Date(published) };
    return this.edit(blog, at, item, true, 'turn live', signal);
  }

  /** Says the post anew; one nobody reads yet stays one. */
  async update(blog: BlogTarget, at: Placed, post: Post, signal: AbortSignal): Promise<Effect<Placed>> {
    const there = await this.read(blog, at, signal);
    if (!there.ok) return { kind: 'not done', failure: there.failure };
    if (!there.value) return noSuchPost(blog);
    return this.edit(blog, at, itemOf(post), there.value.status !== 'draft', 'update', signal);
  }

  async withdraw(blog: BlogTarget, at: Placed, signal: AbortSignal): Promise<Effect<Placed>> {
    const there = await this.item(blog, at.handle, signal);
    if (!there.ok) return { kind: 'not done', failure: there.failure };
    if (!there.value) return noSuchPost(blog);
    return this.edit(blog, at, sentBack(there.value), false, 'withdraw', signal);
  }

  async read(blog: BlogTarget, at: Placed, signal: AbortSignal): Promise<Result<PostThere | null>> {
    const there = await this.item(blog, at.handle, signal);
    if (!there.ok) return there;
    if (!there.value) return good(null);
    const address = addressOf(there.value, blog) ?? at.address;
    // Where nobody knows its page, nobody can look whether readers find it.
    const isKnown = address !== nowhere(blog, at.handle);
    const open = isKnown ? await this.calls.isRead(blog, address, signal) : good(null);
    if (!open.ok) return open;
    const { title = '', description = null } = there.value;
    return good({
      handle: at.handle,
      address,
      status: open.value === null ? null : open.value ? 'published' : 'draft',
      name: String(title),
      html: description === null ? null : unmarked(String(description)),
    });
  }

  async isWithdrawn(blog: BlogTarget, at: Placed, signal: AbortSignal): Promise<Result<boolean>> {
    const there = await this.read(blog, at, signal);
    return there.ok ? good(there.value === null || there.value.status === 'draft') : there;
  }

  async find(blog: BlogTarget, key: string, since: number, signal: AbortSignal): Promise<Result<Placed | null>> {
    for (const most of RECENT) {
      const read = await this.look(blog, 'metaWeblog.getRecentPosts', [...this.blogLogin(blog), most], signal);
      if (!read.ok) return read;
      const items = Array.isArray(read.value) ? read.value.filter(isStruct) : [];
      const found = items.find((item) => isKeyed(item, key, blog));
      if (found) {
        const handle = String(found['postid'] ?? '');
        return good({ handle, address: addressOf(found, blog) ?? nowhere(blog, handle) });
      }
      if (items.length < most || reachesBack(items, since)) return good(null);
    }
    return bad({ code: 'outcome-unfindable', service: blog.id, action: 'create' });
  }

  async categories(blog: BlogTarget, signal: AbortSignal): Promise<Result<string[]>> {
    const read = await this.look(blog, 'metaWeblog.getCategories', this.blogLogin(blog), signal);
    if (!read.ok) return read;
    // A list of them, or one by name.
    const all = Array.isArray(read.value) ? read.value : isStruct(read.value) ? Object.values(read.value) : [];
    const names = isStruct(read.value) ? Object.keys(read.value) : [];
    return good(
      all
        .flatMap((one, i) => (isStruct(one) ? String(one['description'] ?? names[i] ?? '') : []))
        .filter((name) => name !== ''),
    );
  }

  /** Where a post is, as far as the server tells it; asked twice, since the post is there whatever comes of asking. */
  private async placed(blog: BlogTarget, handle: string, known: string | null, signal: AbortSignal): Promise<Placed> {
    for (let tries = 0; tries < 2; tries++) {
      const there = await this.item(blog, handle, signal);
      if (there.ok) {
        const address = there.value && addressOf(there.value, blog);
        return { handle, address: address ?? known ?? nowhere(blog, handle) };
      }
    }
    return { handle, address: known ?? nowhere(blog, handle) };
  }

  private async item(
    blog: BlogTarget,
    handle: string,
    signal: AbortSignal,
  ): Promise<Result<{ [name: string]: Given } | null>> {
    const read = await this.look(blog, 'metaWeblog.getPost', [handle, ...this.login(blog)], signal);
    if (read.ok) return good(isStruct(read.value) ? read.value : null);
    const { failure } = read;
    return failure.code === 'blog-refuses' && isMissing(failure.status, failure.said) ? good(null) : read;
  }

  private async edit(
    blog: BlogTarget,
    at: Placed,
    item: Record<string, Value>,
    publish: boolean,
    action: string,
    signal: AbortSignal,
  ): Promise<Effect<Placed>> {
    const params = [at.handle, ...this.login(blog), item, publish];
    const done = await this.change(blog, 'metaWeblog.editPost', params, action, signal, () => true);
    return done.kind === 'done'
      ? { kind: 'done', value: await this.placed(blog, at.handle, at.address, signal) }
      : done;
  }

  async isRead(blog: BlogTarget, { address, handle }: Placed, signal: AbortSignal): Promise<Result<boolean>> {
    return address === nowhere(blog, handle) ? good(false) : this.calls.isRead(blog, address, signal);
  }

  private login(blog: BlogTarget): string[] {
    return [blog.settings.user ?? '', blog.secret ? this.ports.secrets.open(blog.secret) : ''];
  }

  private blogLogin(blog: BlogTarget): string[] {
    return [blog.settings.blogId ?? '1', ...this.login(blog)];
  }

  private async look(blog: BlogTarget, method: string, params: Value[], signal: AbortSignal): Promise<Result<Given>> {
    return this.calls.look(blog, asked(blog, method, params), signal, {
      read: async (reply) => {
        const called = await this.called(reply);
        if (!called) return unusable(reply, blog, 'it does not answer as XML-RPC');
        return called.kind === 'value' ? good(called.value) : bad(refusedBy(blog, called));
      },
    });
  }

  private async change<T>(
    blog: BlogTarget,
    method: string,
    params: Value[],
    action: string,
    signal: AbortSignal,
    take: (value: Given) => T | null,
  ): Promise<Effect<T>> {
    let fault: Extract<Called, { kind: 'fault' }> | null = null;
    const done = await this.calls.change(blog, asked(blog, method, params), signal, {
      action,
      read: async (reply) => {
        const called = await this.called(reply);
        if (called?.kind === 'fault') fault = called;
        return called?.kind === 'value' ? take(called.value) : null;
      },
    });
    // A fault is an answer: what was asked was not done.
    return fault ? { kind: 'not done', failure: refusedBy(blog, fault) } : done;
  }

  private async called(reply: Reply): Promise<Called | null> {
    const read = await this.ports.reader.read('methodResponse', { bytes: reply.body });
    return read.ok && read.value.kind !== 'unreadable' ? read.value : null;
  }
}

const asked = (blog: BlogTarget, method: string, params: Value[]): Asked => ({
  method: 'POST',
  address: blog.endpoint,
  headers: { 'content-type': 'text/xml; charset=utf-8', accept: 'text/xml' },
  body: methodCall(method, params),
});

/** A post as an item; the key stands where servers keep what they do not know, in one of two places at least. */
function itemOf(post: Post): Record<string, Value> {
  return {
    title: post.name,
    description: marked({ html: pictured(post), key: post.key }),
    categories: post.categories,
    guid: post.key,
  };
}

/** An item as it came, to be sent again: servers take away what an edit does not name. */
function sentBack(item: { [name: string]: Given }): Record<string, Value> {
  const kept: Record<string, Value> = {};
  for (const name of ['title', 'description', 'guid', 'author', 'comments'] as const) {
    const value = item[name];
    if (typeof value === 'string') kept[name] = value;
  }
  if (Array.isArray(item['categories'])) kept['categories'] = item['categories'].map(String);
  return kept;
}

function addressOf(item: { [name: string]: Given }, blog: BlogTarget): string | null {
  for (const name of ['permaLink', 'link'] as const) {
    const address = item[name];
    if (typeof address === 'string' && address !== '' && URL.canParse(address, blog.address))
      return new URL(address, blog.address).href;
  }
  return null;
}

/** Of a post whose address the server does not tell. */
const nowhere = (blog: BlogTarget, handle: string): string =>
  `${blog.address.replace(/\/$/, '')}/#${encodeURIComponent(handle)}`;

function isKeyed(item: { [name: string]: Given }, key: string, blog: BlogTarget): boolean {
  const address = addressOf(item, blog);
  return (
    holds(String(item['guid'] ?? ''), key) ||
    holds(String(item['description'] ?? '').slice(-200), key) ||
    (address !== null && addressHolds(address, key))
  );
}

/** Whether items are listed newest first, the last of them older than a moment. */
function reachesBack(items: readonly { [name: string]: Given }[], since: number): boolean {
  const times = items.map((item) => Date.parse(String(item['dateCreated'] ?? '')));
  return times.every((time, i) => !Number.isNaN(time) && (i === 0 || time <= times[i - 1]!)) && times.at(-1)! < since;
}

/** Whether a fault says that there is no such post. */
const isMissing = (code: number, said: string): boolean =>
  code === 404 ||
  /(?:no such|not found|unknown|invalid|does not exist).*(?:post|entry|id)|(?:post|entry).*(?:not found|does not exist|no such)/i.test(
    said,
  );

/**
 * What a fault means. There are no codes all servers keep to: those of the Specification for Fault Code Interoperability
 * (-32700 to -32300), those of HTTP, and words.
 */
function refusedBy({ id: service }: BlogTarget, { code, said }: { code: number; said: string }) {
  const words = said.replace(/\s+/g, ' ').trim().slice(0, 300) || 'no reason given';
  const refused = (mistake?: BlogMistake) => ({
    code: 'blog-refuses' as const,
    service,
    status: code,
    said: words,
    ...(mistake ? { mistake } : {}),
  });
  if (
    code === -32601 ||
    /not (?:supported|implemented)|no such method|unknown method|disabled|switched off/i.test(said)
  )
    return refused('too old');
  if (/expired/i.test(said))
    return { code: 'key-refused' as const, service, status: code, said: words, mistake: 'secret expired' as const };
  if (code === 401 || /password|user ?name|log ?in|log ?on|credentials/i.test(said))
    return { code: 'key-refused' as const, service, status: code, said: words, mistake: 'wrong user' as const };
  if (code === 403 || /permission|not allowed|may not|rights?\b/i.test(said))
    return { code: 'key-refused' as const, service, status: code, said: words, mistake: 'may only read' as const };
  if (/file|upload|image|picture|media|type|too large/i.test(said) && !isMissing(code, said))
    return refused('pictures refused');
  return refused();
}
