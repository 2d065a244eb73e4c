import type { BlogPort, BlogTarget, Capability, Placed, Post, PostThere } from '../../src/ports/blogs/blog.ts';
import { type Effect, good, type Result } from '../../src/ports/outcome/outcome.ts';

/** What comes of a call: well, refused, or its answer lost with the deed done before, after a while, or never. */
export type Luck = 'well' | 'refused' | 'lost, done' | 'lost, done late' | 'lost, not done';

interface Kept extends PostThere {
  slug: string;
  /** The moment readers see on it. */
  published?: string;
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

  async create(_: BlogTarget, post: Post, status: 'draft' | 'published'): Promise<Effect<Placed>> {
    return this.deed('create', () => {
      const address = `https://${this.name}.example/${post.slug}${this.made.includes(post.slug) ? `-${++this.n}` : ''}`;
      this.made.push(post.slug);
      this.posts.set(address, { handle: address, address, status, name: post.name, html: post.html, slug: post.slug });
      return { handle: address, address };
    });
  }

  async turnLive(_: BlogTarget, at: Placed, published: string): Promise<Effect<Placed>> {
    return this.change('turn live', at, { status: 'published', published });
  }

  async update(_: BlogTarget, at: Placed, { name, html }: Post): Promise<Effect<Placed>> {
    return this.change('update', at, { name, html });
  }

  async withdraw(_: BlogTarget, at: Placed): Promise<Effect<Placed>> {
    return this.deed('withdraw', () => {
      this.posts.delete(at.handle);
      return at;
    });
  }

  async read(_: BlogTarget, at: Placed): Promise<Result<PostThere | null>> {
    return good(this.posts.get(at.handle) ?? null);
  }

  async isWithdrawn(_: BlogTarget, at: Placed): Promise<Result<boolean>> {
    return good(!this.posts.has(at.handle));
  }

  async categories(): Promise<Result<string[]>> {
    return good([]);
  }

  async find(_: BlogTarget, key: string): Promise<Result<Placed | null>> {
    return good([...this.posts.values()].find(({ slug }) => slug.endsWith(`-${key}`)) ?? null);
  }

  private change(action: string, at: Placed, to: Partial<Kept>): Effect<Placed> {
    const { address } = at;
    if (!this.posts.has(address))
      return { kind: 'not done', failure: { code: 'blog-refuses', service: this.name, status: 404, said: 'no post' } };
    return this.deed(action, () => {
      const post = this.posts.get(address);
      if (post) this.posts.set(address, { ...post, ...to });
      return at;
    });
  }

  private deed<T>(action: string, act: () => T): Effect<T> {
    const unknown: Effect<T> = {
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
