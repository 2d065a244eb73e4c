import type { BlogWay, WaySettings } from '@grivo/contract';
import type { Effect, Result } from '../outcome/outcome.ts';

/** What a way to a blog may be able to do beyond creating posts. */
export type Capability =
  /** It keeps posts nobody reads yet. */
  | 'drafts'
  /** Its posts can be looked through for one. */
  | 'find'
  | 'update'
  | 'withdraw'
  /** It takes pictures as files of its own. */
  | 'media'
  /** A post names its categories. */
  | 'categories'
  /** It tells the categories it has. */
  | 'list categories'
  /** The lead picture is a property of the post, and no part of its text. */
  | 'lead picture'
  /** The description goes along. */
  | 'summary'
  /** The last part of the address is ours to say. */
  | 'address'
  /** A post says who wrote it. */
  | 'author'
  /** A post says its language. */
  | 'language'
  /** A post says the moment it went out. */
  | 'date'
  /** What is withdrawn is gone there, and not kept as a draft. */
  | 'removes'
  /** It keeps posts that wait for its own people to pass them. */
  | 'review'
  /** It shows posts to those alone who sign in there. */
  | 'private'
  /** It keeps a post until the moment it is dated for. */
  | 'dated ahead'
  /** It has pages that stand by themselves, outside its list of posts. */
  | 'pages'
  /** A post says whether readers may reply. */
  | 'replies'
  /** A post may have properties of the blog’s own. */
  | 'properties'
  /** A post says where it stood first. */
  | 'canonical'
  /** A post names its siblings in other languages. */
  | 'siblings'
  /** A post says what it is for machines that read pages (schema.org, as JSON-LD). */
  | 'structured data';

/** How a post begins on a blog, and who sees it. */
export type Begins = 'draft' | 'published' | 'review' | 'private';

/** A blog to post to. */
export interface BlogTarget {
  id: string;
  /** What people call it, and where they read it. */
  name: string;
  address: string;
  /** The way posts go there: the name of an adapter. */
  way: BlogWay;
  endpoint: string;
  mediaEndpoint: string | null;
  secret: Buffer | null;
  settings: WaySettings;
  timeLimitMs: number;
}

/** A post as it is to be. */
export interface Post {
  /** What it is found by, once it is there: another for each time it is created anew. */
  key: string;
  name: string;
  html: string;
  /** The same as Markdown. */
  markdown: string;
  summary: string;
  slug: string;
  categories: string[];
  language: string;
  /** Who it is by; null leaves what the blog says. */
  author: string | null;
  photo: { address: string; alternative: string } | null;
  /** An article among others, or a page that stands by itself. */
  shape: 'article' | 'page';
  /** Whether readers may reply; null leaves what the blog does. */
  replies: boolean | null;
  /** Properties of the blog’s own, by name. */
  properties: Readonly<Record<string, string>>;
  /** Where it stood first, when it stands elsewhere too. */
  canonical: string | null;
  /** The same in other languages, where it is live. */
  siblings: readonly { language: string; address: string }[];
  /** What it is, for machines (schema.org), but for where and when it is there. */
  structured: Readonly<Record<string, unknown>>;
}

/** A post that is an article like others and says nothing beyond its text. */
export const PLAIN = {
  shape: 'article',
  replies: null,
  properties: {},
  canonical: null,
  siblings: [],
  structured: {},
} as const satisfies Partial<Post>;

/** Where a post is: what the blog calls it, and the address readers find it at. */
export interface Placed {
  handle: string;
  address: string;
}

/** A post as the blog holds it. */
export interface PostThere extends Placed {
  /** Null where the blog does not tell. */
  status: 'draft' | 'published' | null;
  name: string;
  /** As the blog gives it back; null where it does not. */
  html: string | null;
  /** The text where it is kept as Markdown. */
  markdown?: string;
}

/** What a blog says of itself. */
export interface BlogSays {
  mediaEndpoint: string | null;
  /** What is to be kept of it for later calls. */
  settings?: WaySettings;
}

/**
 * What is asked of a blog, whatever it speaks. Who publishes asks for capabilities and never for a protocol. Calls that
 * change something say whether it is done, certainly not done, or not known; done again they change nothing more, but for
 * `create`, whose posts are found by their key.
 */
export interface BlogPort {
  can(blog: BlogTarget): ReadonlySet<Capability>;
  /** What the blog says of itself, to whoever has the secret. */
  config(blog: BlogTarget, signal: AbortSignal): Promise<Result<BlogSays>>;
  /** Sends a picture. @returns its address, to stand in posts */
  upload(
    blog: BlogTarget,
    file: { bytes: Buffer; mime: string; name: string },
    signal: AbortSignal,
  ): Promise<Effect<string>>;
  create(blog: BlogTarget, post: Post, status: Begins, signal: AbortSignal): Promise<Effect<Placed>>;
  /** @param published the moment readers see on it (ISO 8601) */
  turnLive(blog: BlogTarget, at: Placed, published: string, signal: AbortSignal): Promise<Effect<Placed>>;
  /** The post says what this one says; its address may change and comes back. */
  update(blog: BlogTarget, at: Placed, post: Post, signal: AbortSignal): Promise<Effect<Placed>>;
  /**
   * Whether readers find a post now who have no secret; asked after it was dated ahead. Absent where what readers see is
   * not made by what takes the posts.
   */
  isRead?(blog: BlogTarget, at: Placed, signal: AbortSignal): Promise<Result<boolean>>;
  withdraw(blog: BlogTarget, at: Placed, signal: AbortSignal): Promise<Effect<Placed>>;
  /** The post at a place; null when there is none. */
  read(blog: BlogTarget, at: Placed, signal: AbortSignal): Promise<Result<PostThere | null>>;
  /** Whether nobody reads the post any more. */
  isWithdrawn(blog: BlogTarget, at: Placed, signal: AbortSignal): Promise<Result<boolean>>;
  /**
   * Where the post with a key is, drafts included.
   * @param since when it was made at the earliest, in milliseconds
   * @returns null when there is surely none; `outcome-unfindable` when the blog shows too little to tell
   */
  find(blog: BlogTarget, key: string, since: number, signal: AbortSignal): Promise<Result<Placed | null>>;
  /** Puts a small text file where the blog shows it; absent where a person must do that. */
  show?(blog: BlogTarget, file: { name: string; text: string }): Promise<Result<void>>;
  /** Its settings were changed; absent where nothing there follows from them. */
  changed?(blog: BlogTarget): Promise<void>;
  /** The address of its feed, where that is known without reading its pages. */
  feed?(blog: BlogTarget): Promise<string | null>;
  /** The categories there are, where the way can list them. */
  categories(blog: BlogTarget, signal: AbortSignal): Promise<Result<string[]>>;
}

/** The ways there are, by name. */
export type BlogWays = (blog: Pick<BlogTarget, 'way'>) => BlogPort;

/** @throws when a blog goes a way there is no adapter for: it was kept by a newer version of the program */
export function waysOf(adapters: Readonly<Partial<Record<string, BlogPort>>>): BlogWays {
  return ({ way }) => {
    const port = adapters[way];
    if (!port) throw new Error(`there is no way to a blog called ‘${way}’`);
    return port;
  };
}
