import { createHash } from 'node:crypto';
import { constants } from 'node:fs';
import { access } from 'node:fs/promises';
import { extname, join } from 'node:path';
import { LOOK_AS_MADE } from '@grivo/contract';
import { bad, type Effect, good, type Result } from '../../../outcome/outcome.ts';
import type { Begins, BlogPort, BlogSays, BlogTarget, Capability, Placed, Post, PostThere } from '../../blog.ts';
import { BY_EVERY_WAY } from '../carries.ts';
import { Files, FolderTrouble, OWN } from './files.ts';
import { commit } from './git.ts';
import { bodyOf, headOf, markdownFile } from './head.ts';
import { KeptPosts } from './kept.ts';
import { FolderLocks } from './lock.ts';
import { aroundPosts, type Kept, pageOf, STYLES, styleOf, textIn, under } from './pages.ts';
import { keptFile, keptIn, keptOf, placeOf, plain, postFile, postIn, settingsOf, waiting } from './records.ts';

const CAN: ReadonlySet<Capability> = new Set<Capability>([
  ...BY_EVERY_WAY,
  'removes',
  'lead picture',
  'summary',
  'address',
  'author',
  'language',
  'pages',
  'replies',
  'properties',
  'canonical',
  'siblings',
]);

/** What of it stays out of git: what only this installation needs, and what nobody is to read yet. */
const IGNORED = join(OWN, '.gitignore');
const NOT_KEPT = ['lock', '*.part', '*.post.json', 'drafts/'];
const isOwnAlone = (file: string): boolean => file.endsWith('.post.json') || file.startsWith(join(OWN, 'drafts'));

/** What is made around the posts is made once nothing was done for so long. */
const AROUND_AFTER_MS = 150;
/** While something is done all the time, it is made after so many times as long as it takes: a small part of the work. */
const AROUND_SHARE = 16;
/** Where a folder really lies is looked up again after so long. */
const KNOWN_MS = 500;

/** What is still to be made around the posts of a folder. */
interface Around {
  /** As it was at the last act. */
  blog: BlogTarget;
  /** When the first act and the last one was that it does not know of. */
  first: number;
  last: number;
  made: Promise<void>;
}

/**
 * Writing to a folder of Markdown or HTML for a static site: a file a post, pictures beside them, and in `.grivo` what
 * Grivo wrote, a file a post too, so that nothing has to be read whole. Every file is written whole or not at all. A post
 * nobody reads yet says so at its head, or as a page waits in `.grivo`.
 */
export class FolderBlog implements BlogPort {
  private readonly around = new Map<string, Around>();
  private readonly known = new Map<string, { files: Files; since: number }>();
  private readonly kept = new KeptPosts();
  private readonly locks = new FolderLocks();
  /** How long it took last to make what is around the posts. */
  private tookMs = 0;

  /** @param ports the folders that may be written below, as absolute paths, and wall time in milliseconds */
  constructor(private readonly ports: { folders: readonly string[]; now: () => number }) {}

  /** A site made of Markdown leaves out what is dated ahead; a page of HTML is there for readers from when it is written. */
  can(blog: BlogTarget): ReadonlySet<Capability> {
    const { form } = settingsOf(blog);
    return new Set<Capability>([...CAN, form === 'HTML' ? 'structured data' : 'dated ahead']);
  }

  async config(blog: BlogTarget): Promise<Result<BlogSays>> {
    // Whoever asks wants to know how it is now.
    this.known.delete(blog.endpoint);
    return this.reading(blog, async (files) => {
      await access(files.folder, constants.W_OK).catch(() => {
        throw new FolderTrouble('the folder must not be written to', 'folder read-only');
      });
      return { mediaEndpoint: join(files.folder, settingsOf(blog).pictures) };
    });
  }

  /** A picture by its content: the same one is one file. */
  async upload(blog: BlogTarget, file: { bytes: Buffer; mime: string; name: string }): Promise<Effect<string>> {
    return this.writing(blog, 'upload', async (files) => {
      const digest = createHash('sha256').update(file.bytes).digest('hex').slice(0, 10);
      const end = extname(file.name) || `.${file.mime.split('/')[1] ?? 'bin'}`;
      const name = `${plain(file.name.slice(0, file.name.length - extname(file.name).length))}-${digest}${end}`;
      const path = `${settingsOf(blog).pictures}/${name}`;
      await files.write(path, file.bytes);
      return { value: under(blog.address, path), written: [path], says: `Picture ${name}` };
    });
  }

  async create(blog: BlogTarget, post: Post, begins: Begins): Promise<Effect<Placed>> {
    const status = begins === 'published' ? 'published' : 'draft';
    return this.writing(blog, 'create', async (files) => {
      const now = new Date(this.ports.now()).toISOString();
      const known = await keptIn(files, post.key);
      const kept = keptOf(blog, post, { now, status, published: status === 'published' ? now : null }, known);
      const written = await this.put(blog, files, post, kept, known);
      return { value: placeOf(kept), written, says: `${status === 'draft' ? 'Draft' : 'Publish'}: ${post.name}` };
    });
  }

  async turnLive(blog: BlogTarget, at: Placed, published: string): Promise<Effect<Placed>> {
    return this.writing(blog, 'turn live', async (files) => {
      const [kept, post] = [await keptIn(files, at.handle), await postIn(files, at.handle)];
      if (kept?.status === 'published') return { value: placeOf(kept), written: [], says: '' };
      if (!kept || !post) throw new FolderTrouble('there is no such post', null);
      const live: Kept = { ...kept, status: 'published', published, updated: new Date(this.ports.now()).toISOString() };
      const written = await this.put(blog, files, post, live, kept);
      if (kept.form === 'HTML') await files.remove(waiting(kept));
      return { value: placeOf(live), written, says: `Publish: ${kept.title}` };
    });
  }

  /** The file stays where it is, whatever the post is called now: its address is known to readers. */
  async update(blog: BlogTarget, at: Placed, post: Post): Promise<Effect<Placed>> {
    return this.writing(blog, 'update', async (files) => {
      const known = await keptIn(files, at.handle);
      if (!known) throw new FolderTrouble('there is no such post', null);
      const now = new Date(this.ports.now()).toISOString();
      const author = post.author ?? known.author;
      const kept = keptOf(blog, { ...post, author, key: at.handle }, { now, ...known }, known);
      const written = await this.put(blog, files, { ...post, author, key: at.handle }, kept, known);
      return { value: placeOf(kept), written, says: `Change: ${post.name}` };
    });
  }

  async withdraw(blog: BlogTarget, at: Placed): Promise<Effect<Placed>> {
    return this.writing(blog, 'withdraw', async (files) => {
      const kept = await keptIn(files, at.handle);
      if (!kept) return { value: at, written: [], says: '' };
      for (const file of [kept.file, waiting(kept), keptFile(at.handle), postFile(at.handle)]) await files.remove(file);
      this.soonAround(blog, files.folder);
      return {
        value: placeOf(kept),
        written: [kept.file, keptFile(at.handle), postFile(at.handle)],
        says: `Withdraw: ${kept.title}`,
      };
    });
  }

  async read(blog: BlogTarget, at: Placed): Promise<Result<PostThere | null>> {
    return this.reading(blog, async (files) => {
      const kept = await keptIn(files, at.handle);
      if (!kept) return null;
      const isPage = kept.form === 'HTML';
      const text = (await files.read(isPage && kept.status === 'draft' ? waiting(kept) : kept.file))?.toString('utf8');
      if (text === undefined) return null;
      const { status, title } = kept;
      const there = { ...placeOf(kept), status, name: title };
      return isPage ? { ...there, html: textIn(text) } : { ...there, html: null, markdown: bodyOf(text) };
    });
  }

  async isWithdrawn(blog: BlogTarget, at: Placed): Promise<Result<boolean>> {
    return this.reading(blog, async (files) => (await keptIn(files, at.handle)) === null);
  }

  async find(blog: BlogTarget, key: string): Promise<Result<Placed | null>> {
    return this.reading(blog, async (files) => {
      const kept = await keptIn(files, key);
      return kept ? placeOf(kept) : null;
    });
  }

  /** Those its posts have. */
  async categories(blog: BlogTarget): Promise<Result<string[]>> {
    return this.reading(blog, async (files) =>
      [...new Set((await this.kept.all(files)).flatMap(({ categories }) => categories))].sort(),
    );
  }

  async show(blog: BlogTarget, { name, text }: { name: string; text: string }): Promise<Result<void>> {
    return this.reading(blog, (files) =>
      files.alone(() => files.write(plain(name.replace(/\.txt$/, '')).concat('.txt'), text)),
    );
  }

  /** Pages look as is said now, those written before too; made around the posts only where there is nothing yet. */
  async changed(blog: BlogTarget): Promise<void> {
    await this.writing(blog, 'look', async (files) => {
      const settings = settingsOf(blog);
      const look = settings.form === 'HTML' || settings.pages;
      if (look) await files.write(STYLES, lookOf(blog));
      this.soonAround(blog, files.folder);
      return { value: null, written: look ? [STYLES] : [], says: 'Look of the pages' };
    });
  }

  async feed(blog: BlogTarget): Promise<string | null> {
    return settingsOf(blog).pages ? under(blog.address, 'feed.atom') : null;
  }

  /** Waits for what is still to be made around the posts. */
  async settled(): Promise<void> {
    while (this.around.size > 0) for (const { made } of this.around.values()) await made;
    await this.locks.settled();
  }

  private async put(blog: BlogTarget, files: Files, post: Post, kept: Kept, known: Kept | null): Promise<string[]> {
    const settings = settingsOf(blog);
    const draft = kept.status === 'draft';
    const file = kept.form === 'HTML' && draft ? waiting(kept) : kept.file;
    const text =
      kept.form === 'HTML'
        ? pageOf(blog, kept)
        : markdownFile(headOf(post, { draft, date: kept.published }), post.markdown, settings, post.properties);
    await files.writeAll([
      [file, text],
      // What turns it live later needs all of it, what is live nothing more than what lists it.
      ...(draft ? [[postFile(kept.key), JSON.stringify(post)] as const] : []),
      [keptFile(kept.key), JSON.stringify(kept)],
    ]);
    if (!draft && known) await files.remove(postFile(kept.key));
    // Where a front page is made, the look is made with it.
    const look = kept.form === 'HTML' && !settings.pages ? await this.firstLook(blog, files) : [];
    this.soonAround(blog, files.folder);
    return [file, keptFile(kept.key), ...look];
  }

  /** Only where pages have no look yet: who changes it writes it, and nobody who read the blog before that writes over it. */
  private async firstLook(blog: BlogTarget, files: Files): Promise<string[]> {
    if ((await files.read(STYLES)) !== null) return [];
    await files.write(STYLES, lookOf(blog));
    return [STYLES];
  }

  /** Makes the front page, the feed and the sitemap once several acts are over. */
  private soonAround(blog: BlogTarget, folder: string): void {
    if (!settingsOf(blog).pages) return;
    const now = performance.now();
    const around = this.around.get(folder);
    if (around) Object.assign(around, { blog, last: now });
    else {
      const begins: Around = { blog, first: now, last: now, made: Promise.resolve() };
      this.around.set(folder, begins);
      begins.made = this.makeSoon(folder, begins);
    }
  }

  private async makeSoon(folder: string, around: Around): Promise<void> {
    for (;;) {
      const due = Math.min(
        around.last + AROUND_AFTER_MS,
        around.first + Math.max(AROUND_AFTER_MS, AROUND_SHARE * this.tookMs),
      );
      const wait = due - performance.now();
      if (wait > 0) {
        await new Promise((then) => setTimeout(then, wait));
        continue;
      }
      const begun = performance.now();
      await this.makeAround(around.blog).catch(() => undefined);
      this.tookMs = performance.now() - begun;
      // What was done meanwhile may have come too late to be read.
      if (around.last < begun) break;
      around.first = begun;
      // Acts waited while it was made: they have their turn before it is quiet.
      around.last = performance.now();
    }
    this.around.delete(folder);
  }

  private async makeAround(blog: BlogTarget): Promise<void> {
    const files = await this.filesOf(blog);
    await files.alone(async () => {
      const posts = await this.kept.all(files);
      const language = posts[0]?.language ?? 'en';
      const now = new Date(this.ports.now()).toISOString();
      const of = { name: blog.name, address: blog.address, language };
      const around = aroundPosts(of, posts, now);
      for (const [file, text] of Object.entries(around)) await files.write(file, text);
      const written = [...Object.keys(around), ...(await this.firstLook(blog, files))];
      if (settingsOf(blog).commits) await commit(files.folder, written, 'Front page, feed and sitemap');
    });
  }

  private async filesOf({ endpoint }: BlogTarget): Promise<Files> {
    const known = this.known.get(endpoint);
    if (known && performance.now() - known.since < KNOWN_MS) return known.files;
    const files = new Files(endpoint, this.ports.folders, this.locks);
    await files.check();
    this.known.set(endpoint, { files, since: performance.now() });
    return files;
  }

  private async reading<T>(blog: BlogTarget, act: (files: Files) => Promise<T>): Promise<Result<T>> {
    try {
      const files = await this.filesOf(blog);
      return good(await act(files));
    } catch (error) {
      this.known.delete(blog.endpoint);
      return bad(failureOf(error, blog));
    }
  }

  private async writing<T>(
    blog: BlogTarget,
    action: string,
    act: (files: Files) => Promise<{ value: T; written: string[]; says: string }>,
  ): Promise<Effect<T>> {
    try {
      const files = await this.filesOf(blog);
      const { value } = await files.alone(async () => {
        if (settingsOf(blog).commits && !(await files.read(IGNORED)))
          await files.write(IGNORED, `${NOT_KEPT.join('\n')}\n`);
        const done = await act(files);
        const written = done.written.filter((file) => !isOwnAlone(file));
        if (settingsOf(blog).commits && written.length > 0)
          await commit(files.folder, [...written, IGNORED], done.says || action);
        return done;
      });
      return { kind: 'done', value };
    } catch (error) {
      this.known.delete(blog.endpoint);
      return { kind: 'not done', failure: failureOf(error, blog) };
    }
  }
}

const lookOf = (blog: BlogTarget): string => styleOf(settingsOf(blog).look ?? LOOK_AS_MADE);

function failureOf(error: unknown, { id: service }: BlogTarget) {
  if (!(error instanceof FolderTrouble)) throw error;
  const { problem, mistake } = error;
  return { code: 'blog-refuses' as const, service, status: 0, said: problem, ...(mistake ? { mistake } : {}) };
}
