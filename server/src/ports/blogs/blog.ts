import type { Effect, Result } from '../outcome/outcome.ts';

/** What a way to a blog may be able to do beyond creating posts. */
export type Capability = 'drafts' | 'find' | 'update' | 'withdraw' | 'media' | 'categories';

/** A blog to post to. */
export interface BlogTarget {
  id: string;
  /** The way posts go there: the name of an adapter. */
  way: string;
  endpoint: string;
  mediaEndpoint: string | null;
  secret: Buffer | null;
  timeLimitMs: number;
}

/** A post as it is to be. */
export interface Post {
  name: string;
  html: string;
  summary: string;
  slug: string;
  categories: string[];
  photo: { address: string; alternative: string } | null;
}

/** A post as the blog holds it. */
export interface PostThere {
  address: string;
  status: 'draft' | 'published';
  name: string;
  /** As the blog gives it back; null where it does not. */
  html: string | null;
}

/**
 * What is asked of a blog, whatever it speaks. Who publishes asks for capabilities and never for a protocol. Calls that
 * change something say whether it is done, certainly not done, or not known; done again they change nothing more, but for
 * `create`, whose posts are found by the key in their slug.
 */
export interface BlogPort {
  can(blog: BlogTarget): ReadonlySet<Capability>;
  /** What the blog says of itself. */
  config(blog: BlogTarget, signal: AbortSignal): Promise<Result<{ mediaEndpoint: string | null }>>;
  upload(
    blog: BlogTarget,
    file: { bytes: Buffer; mime: string; name: string },
    signal: AbortSignal,
  ): Promise<Effect<string>>;
  create(blog: BlogTarget, post: Post, status: 'draft' | 'published', signal: AbortSignal): Promise<Effect<string>>;
  /** @param published the moment readers see on it (ISO 8601) */
  turnLive(blog: BlogTarget, address: string, published: string, signal: AbortSignal): Promise<Effect<string>>;
  /** The post says what this one says; its address may change and comes back. */
  update(blog: BlogTarget, address: string, post: Post, signal: AbortSignal): Promise<Effect<string>>;
  withdraw(blog: BlogTarget, address: string, signal: AbortSignal): Promise<Effect<string>>;
  /** The post at an address; null when there is none. */
  read(blog: BlogTarget, address: string, signal: AbortSignal): Promise<Result<PostThere | null>>;
  /**
   * The address of the post that holds a key in its address, drafts included.
   * @param since when it was made at the earliest, in milliseconds
   * @returns null when there is surely none; `outcome-unfindable` when the blog shows too little to tell
   */
  find(blog: BlogTarget, key: string, since: number, signal: AbortSignal): Promise<Result<string | null>>;
}

/** The ways there are, by name. */
export type BlogWays = (blog: Pick<BlogTarget, 'way'>) => BlogPort;

/** @throws when a blog goes a way there is no adapter for: it was kept by a newer version of the program */
export function waysOf(adapters: Readonly<Record<string, BlogPort>>): BlogWays {
  return ({ way }) => {
    const port = adapters[way];
    if (!port) throw new Error(`there is no way to a blog called ‘${way}’`);
    return port;
  };
}
