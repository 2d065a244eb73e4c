import { type AtomEntry, type Collection, type EntryWords, newEntry } from '../../../formats/posting/atomEntry.ts';
import type { Reply } from '../../../ground/network/network.ts';
import { bad, type Effect, good, type Result } from '../../outcome/outcome.ts';
import type { Begins, BlogPort, BlogSays, BlogTarget, Capability, Placed, Post, PostThere } from '../blog.ts';
import { type Asked, BlogCalls, noSuchPost, unusable, type WayPorts } from './calls.ts';
import { BY_EVERY_WAY, keepsDates } from './carries.ts';
import { addressHolds, holds, marked, pictured, unmarked } from './mark.ts';

const CAN: ReadonlySet<Capability> = new Set<Capability>([
  ...BY_EVERY_WAY,
  'removes',
  'summary',
  'address',
  'author',
  'language',
]);

const ENTRY = 'application/atom+xml;type=entry';
const MOST_PAGES = 1_000;
/** What a collection of standing pages is called, in the languages of the shipped texts. */
const PAGES = /\b(?:pages|seiten)\b/i;

/** An entry with the state it was read in, so that only that one is changed. */
interface Held {
  bytes: Buffer;
  entry: AtomEntry;
  etag: string | null;
}

/**
 * Posting by the Atom Publishing Protocol (RFC 5023): the service document says where entries and pictures are added; an
 * entry is changed where its edit link leads, and only in the state it was read in (`If-Match`); `app:draft` keeps it from
 * readers. The last part of the address is asked for by `Slug`; where that is not kept to, the key at the end of the text
 * finds the entry.
 */
export class AtomBlog implements BlogPort {
  private readonly calls: BlogCalls;

  constructor(private readonly ports: WayPorts) {
    this.calls = new BlogCalls(ports);
  }

  can(blog: BlogTarget): ReadonlySet<Capability> {
    return new Set<Capability>([
      ...CAN,
      ...keepsDates(blog),
      ...(blog.settings.pages === undefined ? [] : ['pages' as const]),
    ]);
  }

  async isRead(blog: BlogTarget, { address }: Placed, signal: AbortSignal): Promise<Result<boolean>> {
    return this.calls.isRead(blog, address, signal);
  }

  /** Where entries and pictures are added, by the service document (section 8). */
  async config(blog: BlogTarget, signal: AbortSignal): Promise<Result<BlogSays>> {
    const read = await this.service(blog, signal);
    if (!read.ok) return read;
    const takes = read.value.filter(takesEntries);
    const entries = takes.find(({ title }) => !PAGES.test(title)) ?? takes[0];
    if (!entries)
      return bad({ code: 'reply-unusable', service: blog.id, problem: 'it has no collection that takes articles' });
    const pages = read.value.find((one) => takesEntries(one) && one !== entries && PAGES.test(one.title));
    const { pages: _, ...kept } = blog.settings;
    const media = read.value.find(({ accept }) => accept.some((one) => /^image\/|^\*\/\*/.test(one)));
    return good({
      mediaEndpoint: media?.address ?? null,
      settings: { ...kept, collection: entries.address, ...(pages ? { pages: pages.address } : {}) },
    });
  }

  /** Adds a picture as a media entry (section 9.6); where it is shown from is told by its entry. */
  async upload(
    blog: BlogTarget,
    { bytes, mime, name }: { bytes: Buffer; mime: string; name: string },
    signal: AbortSignal,
  ): Promise<Effect<string>> {
    const address = blog.mediaEndpoint;
    if (address === null)
      return { kind: 'not done', failure: { code: 'blog-cannot', service: blog.id, what: 'media' } };
    const headers = { 'content-type': mime, slug: slugHeader(name), ...this.authorizationFor(blog, address) };
    const made = await this.calls.change(blog, { method: 'POST', address, headers, body: bytes }, signal, {
      action: 'upload',
      read: async (reply) => mediaSource(reply) ?? reply.headers['location'] ?? null,
    });
    return made;
  }

  async create(blog: BlogTarget, post: Post, status: Begins, signal: AbortSignal): Promise<Effect<Placed>> {
    const { collection, pages } = blog.settings;
    const address = post.shape === 'page' && pages !== undefined ? pages : collection;
    if (!address) {
      const says = await this.config(blog, signal);
      if (!says.ok) return { kind: 'not done', failure: says.failure };
      return this.create({ ...blog, settings: says.value.settings ?? {} }, post, status, signal);
    }
    const body = newEntry({
      id: `urn:grivo:${post.key}`,
      author: post.author ?? blog.name,
      language: post.language,
      ...wordsIn(post, this.now()),
      draft: status !== 'published',
    });
    const headers = {
      'content-type': `${ENTRY};charset=utf-8`,
      slug: slugHeader(post.slug),
      ...this.authorizationFor(blog, address),
    };
    return this.calls.change(blog, { method: 'POST', address, headers, body }, signal, {
      action: 'create',
      read: async (reply) => {
        const handle = locatedAt(reply);
        if (handle === null) return null;
        // The entry comes back with the answer, or is asked for.
        const entry = (await this.entryIn(reply, handle)) ?? (await this.held(blog, handle, signal))?.entry;
        return { handle, address: entry?.alternate ?? handle };
      },
    });
  }

  async turnLive(blog: BlogTarget, at: Placed, published: string, signal: AbortSignal): Promise<Effect<Placed>> {
    return this.put(blog, at, { draft: false, published, updated: this.now() }, 'turn live', signal);
  }

  async update(blog: BlogTarget, at: Placed, post: Post, signal: AbortSignal): Promise<Effect<Placed>> {
    return this.put(blog, at, wordsIn(post, this.now()), 'update', signal);
  }

  /** Takes an entry away (section 9.4). */
  async withdraw(blog: BlogTarget, at: Placed, signal: AbortSignal): Promise<Effect<Placed>> {
    const asked: Asked = { method: 'DELETE', address: at.handle, headers: this.authorizationFor(blog, at.handle) };
    return this.calls.change(blog, asked, signal, { action: 'withdraw', read: () => at });
  }

  async read(blog: BlogTarget, at: Placed, signal: AbortSignal): Promise<Result<PostThere | null>> {
    const read = await this.hold(blog, at.handle, signal);
    if (!read.ok || read.value === null) return read.ok ? good(null) : read;
    const { entry } = read.value;
    return good({
      handle: at.handle,
      address: entry.alternate ?? at.address,
      status: entry.draft ? 'draft' : 'published',
      name: entry.title,
      html: entry.html === null ? null : unmarked(entry.html),
    });
  }

  async isWithdrawn(blog: BlogTarget, at: Placed, signal: AbortSignal): Promise<Result<boolean>> {
    const read = await this.hold(blog, at.handle, signal);
    return read.ok ? good(read.value === null) : read;
  }

  /** Looks through the collection, the last changed first (section 10), as far back as the post can be. */
  async find(blog: BlogTarget, key: string, since: number, signal: AbortSignal): Promise<Result<Placed | null>> {
    let { collection, pages } = blog.settings;
    if (collection === undefined) {
      const says = await this.config(blog, signal);
      if (!says.ok) return says;
      ({ collection, pages } = says.value.settings ?? {});
    }
    for (const address of [collection, pages]) {
      const found = address === undefined ? good(null) : await this.findIn(blog, address, { key, since }, signal);
      if (!found.ok || found.value !== null) return found;
    }
    return good(null);
  }

  private async findIn(
    blog: BlogTarget,
    first: string,
    { key, since }: { key: string; since: number },
    signal: AbortSignal,
  ): Promise<Result<Placed | null>> {
    let next: string | null = first;
    for (let page = 0; page < MOST_PAGES && next !== null; page++) {
      const address: string = next;
      const read = await this.page(blog, address, signal);
      if (!read.ok) return read;
      const { entries } = read.value;
      const found = entries.find((entry) => isKeyed(entry, key));
      const handle = found?.edit ?? found?.alternate;
      if (found && handle) return good({ handle, address: found.alternate ?? handle });
      if (reachesBack(entries, since)) return good(null);
      next = read.value.next === address ? null : read.value.next;
    }
    return next === null ? good(null) : bad({ code: 'outcome-unfindable', service: blog.id, action: 'create' });
  }

  /** The terms its service document names for entries, in it or in documents of their own (section 7). */
  async categories(blog: BlogTarget, signal: AbortSignal): Promise<Result<string[]>> {
    const read = await this.service(blog, signal);
    if (!read.ok) return read;
    const collection = read.value.find(takesEntries);
    const terms = [...(collection?.categories ?? [])];
    for (const address of collection?.categoriesAt.slice(0, 5) ?? []) {
      const asked: Asked = { method: 'GET', address, headers: this.authorizationFor(blog, address) };
      const more = await this.calls.look(blog, asked, signal, {
        read: async (reply) => {
          const listed = await this.ports.reader.read('categories', { bytes: reply.body });
          return good(listed.ok ? listed.value : []);
        },
      });
      if (!more.ok) return more;
      terms.push(...more.value);
    }
    return good([...new Set(terms)]);
  }

  /** Changes an entry in the state it is in; when somebody changed it at the same moment, in the state it is in then. */
  private async put(
    blog: BlogTarget,
    at: Placed,
    words: EntryWords,
    action: string,
    signal: AbortSignal,
    again = true,
  ): Promise<Effect<Placed>> {
    const read = await this.hold(blog, at.handle, signal);
    if (!read.ok) return { kind: 'not done', failure: read.failure };
    if (!read.value) return noSuchPost(blog);
    const { bytes, etag, entry } = read.value;
    const changed = await this.ports.reader.read('changedEntry', { bytes, words });
    if (!changed.ok || changed.value === null)
      return {
        kind: 'not done',
        failure: { code: 'reply-unusable', service: blog.id, problem: 'its entry cannot be read' },
      };
    const headers = {
      'content-type': `${ENTRY};charset=utf-8`,
      ...(etag ? { 'if-match': etag } : {}),
      ...this.authorizationFor(blog, at.handle),
    };
    const asked: Asked = { method: 'PUT', address: at.handle, headers, body: changed.value };
    const done = await this.calls.change(blog, asked, signal, {
      action,
      read: async (reply) => ({
        handle: at.handle,
        address: (await this.entryIn(reply, at.handle))?.alternate ?? entry.alternate ?? at.address,
      }),
    });
    const overtaken = done.kind === 'not done' && done.failure.code === 'blog-refuses' && done.failure.status === 412;
    return overtaken && again ? this.put(blog, at, words, action, signal, false) : done;
  }

  private async held(blog: BlogTarget, handle: string, signal: AbortSignal): Promise<Held | null> {
    const read = await this.hold(blog, handle, signal);
    return read.ok ? read.value : null;
  }

  private async hold(blog: BlogTarget, address: string, signal: AbortSignal): Promise<Result<Held | null>> {
    const headers = { accept: ENTRY, ...this.authorizationFor(blog, address) };
    const read = await this.calls.look<Held | null>(blog, { method: 'GET', address, headers }, signal, {
      read: async (reply) => {
        const entry = await this.entryIn(reply, address);
        return entry
          ? good({ bytes: reply.body, entry, etag: reply.headers['etag'] ?? null })
          : unusable(reply, blog, 'its entry cannot be read');
      },
    });
    if (read.ok) return read;
    const { failure } = read;
    return failure.code === 'blog-refuses' && [404, 410].includes(failure.status) ? good(null) : read;
  }

  private async entryIn(reply: Reply, address: string): Promise<AtomEntry | null> {
    if (reply.body.length === 0) return null;
    const read = await this.ports.reader.read('posting', { bytes: reply.body, address, as: 'entry' });
    return read.ok ? read.value.entry : null;
  }

  private page(blog: BlogTarget, address: string, signal: AbortSignal) {
    const headers = { accept: 'application/atom+xml', ...this.authorizationFor(blog, address) };
    return this.calls.look(blog, { method: 'GET', address, headers }, signal, {
      read: async (reply) => {
        const read = await this.ports.reader.read('posting', { bytes: reply.body, address, as: 'page' });
        return read.ok && read.value.page
          ? good(read.value.page)
          : unusable(reply, blog, 'its list of posts cannot be read');
      },
    });
  }

  private service(blog: BlogTarget, signal: AbortSignal): Promise<Result<Collection[]>> {
    const headers = { accept: 'application/atomsvc+xml', ...this.authorization(blog) };
    return this.calls.look(blog, { method: 'GET', address: blog.endpoint, headers }, signal, {
      read: async (reply) => {
        const read = await this.ports.reader.read('posting', {
          bytes: reply.body,
          address: reply.address,
          as: 'service',
        });
        return read.ok && read.value.service
          ? good(read.value.service)
          : unusable(reply, blog, 'it is no service document of the Atom Publishing Protocol');
      },
    });
  }

  private now(): string {
    return new Date(this.ports.now()).toISOString();
  }

  private authorization(blog: BlogTarget): Record<string, string> {
    if (!blog.secret) return {};
    const secret = this.ports.secrets.open(blog.secret);
    const { user = '' } = blog.settings;
    return {
      authorization: user === '' ? `Bearer ${secret}` : `Basic ${Buffer.from(`${user}:${secret}`).toString('base64')}`,
    };
  }

  /** The secret is for the blog's own server, and for no other its answers may name. */
  private authorizationFor(blog: BlogTarget, address: string): Record<string, string> {
    const isOurs = URL.canParse(address) && new URL(address).origin === new URL(blog.endpoint).origin;
    return isOurs ? this.authorization(blog) : {};
  }
}

const takesEntries = ({ accept }: Collection): boolean =>
  // Without a word it takes entries (section 8.3.4).
  accept.length === 0 || accept.some((one) => one.replaceAll(' ', '').startsWith('application/atom+xml'));

function wordsIn(post: Post, updated: string) {
  return {
    title: post.name,
    html: marked({ html: pictured(post), key: post.key }),
    summary: post.summary,
    categories: post.categories,
    updated,
  };
}

/** A slug as a header says it: whatever is not plain is percent-encoded (section 9.7). */
const slugHeader = (text: string): string => encodeURIComponent(text).replaceAll('%20', ' ');

function locatedAt(reply: Reply): string | null {
  const location = reply.headers['location'];
  return location && URL.canParse(location, reply.address) ? new URL(location, reply.address).href : null;
}

/** Where a picture is shown from: the content of its media link entry. */
function mediaSource(reply: Reply): string | null {
  const src = /<(?:[a-z]+:)?content\b[^>]{0,500}\bsrc\s*=\s*["']([^"'<>]{1,1000})["']/i.exec(
    reply.body.toString('utf8', 0, 20_000),
  )?.[1];
  const plain = src?.replaceAll('&amp;', '&');
  return plain && URL.canParse(plain, reply.address) ? new URL(plain, reply.address).href : null;
}

const isKeyed = (entry: AtomEntry, key: string): boolean =>
  [entry.alternate, entry.edit].some((address) => address !== null && addressHolds(address, key)) ||
  holds((entry.html ?? '').slice(-200), key);

function reachesBack(entries: readonly AtomEntry[], since: number): boolean {
  const times = entries.map(({ edited }) => Date.parse(edited ?? ''));
  if (times.length === 0 || times.some((time) => Number.isNaN(time))) return false;
  return times.every((time, i) => i === 0 || time <= times[i - 1]!) && times.at(-1)! < since;
}
