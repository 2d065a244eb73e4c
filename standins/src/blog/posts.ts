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
  status: 'draft' | 'published';
  published: string;
  /** Who it is by, where that was said. */
  author?: string;
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
  | { act: 'media'; at: string; blog: string; address: string; mime: string; body: string };

export class Posts {
  private readonly byBlog = new Map<string, Map<string, Post>>();

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
    if (act.act === 'create') posts.set(act.post.slug, act.post);
    if (act.act === 'update') {
      const post = [...posts.values()].find((p) => p.address === act.address);
      if (post) posts.set(post.slug, { ...post, ...act.change });
    }
  }
}
