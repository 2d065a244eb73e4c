import { createHash } from 'node:crypto';
import type { Journal } from '../ground/journal.ts';

/** A post as the blog keeps it: what the standard has and nothing more. */
export interface Post {
  address: string;
  slug: string;
  name: string;
  html: string;
  summary: string;
  categories: string[];
  photo: { address: string; alternative: string } | null;
  /** Pending is what the people of the blog have not passed yet. */
  status: 'draft' | 'pending' | 'published';
  published: string;
  /** Who it is by, where that was said. */
  author?: string;
  /** Read by those alone who sign in. */
  private?: boolean;
  /** Stands by itself, outside the list of posts. */
  page?: boolean;
  /** Whether readers may reply. */
  replies?: boolean;
  /** What else was said of it, by name. */
  more?: Record<string, string>;
  canonical?: string;
  siblings?: { language: string; address: string }[];
  deleted: boolean;
}

export interface OlderPost {
  slug: string;
  title: string;
  published: string;
  paragraphs: string[];
}

export interface BlogSite {
  slug: string;
  name: string;
  tagline: string;
  language: 'en' | 'de';
  token: string;
  /** Who signs in with the token as a password. */
  user: string;
  /** Categories it has before anything is posted. */
  categories: string[];
  older: OlderPost[];
}

/** What a secret lets its holder do; one ending in ‘-read’ may only read, one ending in ‘-old’ is over. */
export type Access = 'all' | 'read' | 'expired' | 'none';

export function accessBy({ token }: BlogSite, secret: string): Access {
  if (secret === token) return 'all';
  if (secret === `${token}-read`) return 'read';
  return secret === `${token}-old` ? 'expired' : 'none';
}

/** The last part of an address, as a blog makes one. */
export function slugify(text: string): string {
  return (
    text
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-+|-+$/g, '')
      .slice(0, 100) || 'post'
  );
}

/** What the blog did, in order; its posts are what these acts add up to. */
export type BlogAct =
  | { act: 'create'; at: string; blog: string; post: Post }
  | { act: 'update'; at: string; blog: string; address: string; change: Partial<Post> }
  /** By how much the clock of whoever posts there is ahead of ours. */
  /** Its owner puts a text file at its front. */
  | { act: 'text'; at: string; blog: string; name: string; text: string }
  /** From now on it shows posts whatever moment they are dated for. */
  | { act: 'heedless'; at: string; blog: string }
  | { act: 'clock'; at: string; blog: string; aheadMs: number }
  | { act: 'media'; at: string; blog: string; address: string; mime: string; body: string };

/** Clocks differ by so much and mean the same moment: calls say theirs in whole seconds. */
const CLOCKS_MS = 2_000;

export class Posts {
  private readonly byBlog = new Map<string, Map<string, Post>>();
  private readonly ahead = new Map<string, number>();
  private readonly heedless = new Set<string>();
  private readonly texts = new Map<string, string>();

  constructor(
    private readonly journal: Journal<BlogAct>,
    sites: readonly BlogSite[],
    address: (blog: string, slug: string) => string,
  ) {
    for (const site of sites) {
      const posts = new Map<string, Post>();
      for (const { slug, title, published, paragraphs } of site.older) {
        const html = paragraphs.map((paragraph) => `<p>${paragraph}</p>`).join('\n');
        posts.set(slug, {
          address: address(site.slug, slug),
          slug,
          name: title,
          html,
          summary: paragraphs[0] ?? '',
          categories: [],
          photo: null,
          status: 'published',
          published,
          deleted: false,
        });
      }
      this.byBlog.set(site.slug, posts);
    }
    for (const act of journal.entries) this.apply(act);
  }

  get acts(): readonly BlogAct[] {
    return this.journal.entries;
  }

  do(act: BlogAct): void {
    this.journal.add(act);
    this.apply(act);
  }

  /** What time it is for whoever posts on a blog, in milliseconds: their calls may say so (`Date`, RFC 9110). */
  now(blog: string): number {
    return Date.now() + (this.ahead.get(blog) ?? 0);
  }

  heard(blog: string, date: string | undefined): void {
    const said = Date.parse(date ?? '');
    if (Number.isNaN(said) || !this.byBlog.has(blog) || Math.abs(said - this.now(blog)) < CLOCKS_MS) return;
    this.do({ act: 'clock', at: new Date().toISOString(), blog, aheadMs: said - Date.now() });
  }

  /** A text file its owner put there. */
  textAt(blog: string, name: string): string | null {
    return this.texts.get(`${blog}/${name}`) ?? null;
  }

  /** Whether readers who do not sign in find a post now: it is passed, for all, and its moment has come. */
  isRead(blog: string, post: Post): boolean {
    const isDue = this.heedless.has(blog) || Date.parse(post.published) <= this.now(blog) + CLOCKS_MS;
    return post.status === 'published' && post.private !== true && isDue;
  }

  all(blog: string): Post[] {
    return [...(this.byBlog.get(blog)?.values() ?? [])]
      .filter((post) => !post.deleted)
      .sort((a, b) => (a.published < b.published ? 1 : -1));
  }

  bySlug(blog: string, slug: string): Post | null {
    const post = this.byBlog.get(blog)?.get(slug);
    return post && !post.deleted ? post : null;
  }

  byAddress(blog: string, address: string): Post | null {
    return this.all(blog).find((post) => post.address === address) ?? null;
  }

  deletedAt(blog: string, address: string): Post | null {
    return (
      [...(this.byBlog.get(blog)?.values() ?? [])].find((post) => post.deleted && post.address === address) ?? null
    );
  }

  /** Categories of a blog: those it began with, and those of its posts. */
  categories({ slug, categories }: Pick<BlogSite, 'slug' | 'categories'>): string[] {
    return [...new Set([...categories, ...this.all(slug).flatMap((post) => post.categories)])];
  }

  /** Keeps a picture, once by its content. @returns its address */
  keepMedia(blog: string, origin: string, mime: string, body: Buffer): string {
    const name = `${createHash('sha256').update(body).digest('hex').slice(0, 16)}.${mime.split('/')[1] ?? 'bin'}`;
    const address = `${origin}/blogs/${blog}/media/${name}`;
    this.do({ act: 'media', at: new Date().toISOString(), blog, address, mime, body: body.toString('base64') });
    return address;
  }

  freeSlug(blog: string, wanted: string): string {
    const posts = this.byBlog.get(blog)!;
    if (!posts.has(wanted)) return wanted;
    for (let n = 2; ; n++) if (!posts.has(`${wanted}-${n}`)) return `${wanted}-${n}`;
  }

  private apply(act: BlogAct): void {
    const posts = this.byBlog.get(act.blog);
    if (!posts) return;
    if (act.act === 'text') this.texts.set(`${act.blog}/${act.name}`, act.text);
    if (act.act === 'heedless') this.heedless.add(act.blog);
    if (act.act === 'clock') this.ahead.set(act.blog, act.aheadMs);
    if (act.act === 'create') posts.set(act.post.slug, act.post);
    if (act.act === 'update') {
      const post = [...posts.values()].find((p) => p.address === act.address);
      if (post) posts.set(post.slug, { ...post, ...act.change });
    }
  }
}
