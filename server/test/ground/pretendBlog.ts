import type { BlogPort, BlogTarget, Capability, Post, PostThere } from '../../src/ports/blogs/blog.ts';
import { type Effect, good, type Result } from '../../src/ports/outcome/outcome.ts';

/** What comes of a call: well, refused, or its answer lost with the deed done before, after a while, or never. */
export type Luck = 'well' | 'refused' | 'lost, done' | 'lost, done late' | 'lost, not done';

interface Kept extends PostThere {
  slug: string;
}

/** A blog in memory whose luck is told beforehand, and which remembers all that was done to it. */
export class PretendBlog implements BlogPort {
  readonly posts = new Map<string, Kept>();
  /** Slugs of all posts it ever made: one twice is an article published twice. */
  readonly made: string[] = [];
  readonly luck: Luck[] = [];
  private late: (() => void)[] = [];
  private n = 0;

  constructor(
    private readonly name: string,
    private readonly abilities: readonly Capability[],
  ) {}

  can(): ReadonlySet<Capability> {
    return new Set(this.abilities);
  }

  /** What was on its way arrives; after that nothing sent before can still happen. */
  timePasses(): void {
    for (const act of this.late.splice(0)) act();
  }

  async config(): Promise<Result<{ mediaEndpoint: string | null }>> {
    return good({ mediaEndpoint: null });
  }

  async upload(): Promise<Effect<string>> {
    return this.deed('upload', () => `https://${this.name}.example/p/${++this.n}`);
  }

  async create(_: BlogTarget, post: Post, status: 'draft' | 'published'): Promise<Effect<string>> {
    return this.deed('create', () => {
      const address = `https://${this.name}.example/${post.slug}${this.made.includes(post.slug) ? `-${++this.n}` : ''}`;
      this.made.push(post.slug);
      this.posts.set(address, { address, status, name: post.name, html: post.html, slug: post.slug });
      return address;
    });
  }

  async turnLive(_: BlogTarget, address: string): Promise<Effect<string>> {
    return this.change('turn live', address, { status: 'published' });
  }

  async update(_: BlogTarget, address: string, { name, html }: Post): Promise<Effect<string>> {
    return this.change('update', address, { name, html });
  }

  async withdraw(_: BlogTarget, address: string): Promise<Effect<string>> {
    return this.deed('withdraw', () => {
      this.posts.delete(address);
      return address;
    });
  }

  async read(_: BlogTarget, address: string): Promise<Result<PostThere | null>> {
    return good(this.posts.get(address) ?? null);
  }

  async find(_: BlogTarget, key: string): Promise<Result<string | null>> {
    return good([...this.posts.values()].find(({ slug }) => slug.endsWith(`-${key}`))?.address ?? null);
  }

  private change(action: string, address: string, to: Partial<Kept>): Effect<string> {
    if (!this.posts.has(address))
      return { kind: 'not done', failure: { code: 'blog-refuses', service: this.name, status: 404, said: 'no post' } };
    return this.deed(action, () => {
      const post = this.posts.get(address);
      if (post) this.posts.set(address, { ...post, ...to });
      return address;
    });
  }

  private deed(action: string, act: () => string): Effect<string> {
    const unknown: Effect<string> = {
      kind: 'unknown',
      failure: { code: 'outcome-unknown', service: this.name, action },
    };
    switch (this.luck.shift() ?? 'well') {
      case 'well':
        return { kind: 'done', value: act() };
      case 'refused':
        return {
          kind: 'not done',
          failure: { code: 'blog-refuses', service: this.name, status: 422, said: 'not now' },
        };
      case 'lost, done':
        act();
        return unknown;
      case 'lost, done late':
        this.late.push(act);
        return unknown;
      case 'lost, not done':
        return unknown;
    }
  }
}
