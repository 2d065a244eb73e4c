import { CadenceRule } from '@grivo/core';
import { z } from 'zod';
import { Address, Desk, Id, Language, Made, Name, Note, TestLine } from '../id.ts';
import { ByLabel, Carried } from '../labels/label.ts';

/** The ways posts can go to a blog. */
export const BlogWay = z.enum(['micropub', 'atom', 'xml-rpc', 'folder', 'hook']);
export type BlogWay = z.infer<typeof BlogWay>;

const within = (text: string) =>
  !/[\\\0]/.test(text) && text.split('/').every((part) => part !== '..' && part !== '.' && !part.startsWith('.'));

/** What a post says at its head. */
export const HEAD_LINES = [
  'title',
  'description',
  'date',
  'draft',
  'author',
  'categories',
  'picture',
  'pictureText',
  'language',
  'key',
  'replies',
  'canonical',
  'siblings',
] as const;
export type HeadLine = (typeof HEAD_LINES)[number];

const Colour = z.string().regex(/^#[0-9a-f]{6}$/, 'a colour as #2f5a5d');

/** How pages made beside posts, and posts that are pages, look. */
export const FolderLook = z.object({
  /** The file of a logo in the folder; none where it is empty. */
  logo: z
    .string()
    .trim()
    .max(200)
    .refine((text) => !text.startsWith('/') && within(text), 'a path within the folder')
    .refine((text) => !/["'()\\\s]/.test(text), 'a path without spaces, quotes and brackets'),
  /** Colours of the ground, of letters and of links; dark ones by night where they are as they were made. */
  ground: Colour,
  letters: Colour,
  links: Colour,
});
export type FolderLook = z.infer<typeof FolderLook>;
export const LOOK_AS_MADE: FolderLook = { logo: '', ground: '#fdfcfa', letters: '#22201d', links: '#7a3312' };

/** How a folder blog is written. */
export const FolderSettings = z.object({
  /** Where posts lie in the folder; {slug}, {date}, {year} and {month} stand for the post's own. */
  file: z
    .string()
    .trim()
    .min(1)
    .max(200)
    .regex(/\{slug\}/, 'a pattern with {slug} in it, so that no two posts are one file')
    .refine((text) => !text.startsWith('/') && within(text), 'a path within the folder')
    .refine(
      (text) => !/\{(?!slug\}|date\}|year\}|month\})/.test(text),
      'only {slug}, {date}, {year} and {month} in braces',
    ),
  /** Where readers find a post, after the address of the blog. */
  link: z
    .string()
    .trim()
    .max(200)
    .regex(/\{slug\}/, 'a pattern with {slug} in it'),
  form: z.enum(['Markdown', 'HTML']),
  /** How what is said of a post stands at its head. */
  head: z.enum(['YAML', 'TOML', 'JSON']),
  /** Where pictures lie in the folder. */
  pictures: z
    .string()
    .trim()
    .min(1)
    .max(200)
    .refine((text) => !text.startsWith('/') && within(text), 'a path within the folder'),
  /** Whether a front page, a feed and a sitemap are kept beside the posts. */
  pages: z.boolean(),
  /** What the lines at the head are called; what has no name is left out. */
  names: z.partialRecord(
    z.enum(HEAD_LINES),
    z
      .string()
      .trim()
      .max(60)
      .regex(/^[A-Za-z_][\w-]*$|^$/, 'a name of letters, digits and _'),
  ),
  look: FolderLook.optional(),
  /** Whether every act is committed, where the folder is a working tree of git; and pushed where it has a remote. */
  commits: z.boolean(),
});
export type FolderSettings = z.infer<typeof FolderSettings>;

/** How a folder is written where nothing else is said. */
export const FOLDER_AS_MADE: FolderSettings = {
  file: '{date}-{slug}.md',
  link: '{slug}',
  form: 'Markdown',
  head: 'YAML',
  pictures: 'pictures',
  pages: false,
  names: {
    title: 'title',
    description: 'description',
    date: 'date',
    draft: 'draft',
    author: 'author',
    categories: 'categories',
    picture: 'picture',
    pictureText: 'picture_text',
    language: 'language',
    key: 'key',
    replies: 'replies',
    canonical: 'canonical',
    siblings: 'siblings',
  },
  commits: false,
};

const CallsAtOnce = z.int().min(1).max(20);

/** What a way needs beyond an address and a secret. */
export const WaySettings = z
  .object({
    /** Who signs in, where the secret is a password. */
    user: z.string().trim().max(200),
    /** Which of several blogs at the endpoint. */
    blogId: z.string().trim().max(200),
    /** Where posts are added (Atom), as its service document says. */
    collection: Address,
    /** Where standing pages are added, where the blog has a place of their own for them. */
    pages: z.string().max(500),
    /** What the blog said its posts may be or carry besides what every blog of its way takes. */
    told: z.object({
      /** It keeps posts until its own people passed them. */
      review: z.boolean(),
      /** It shows posts to those alone who sign in there. */
      private: z.boolean(),
      /** Names of properties its posts may have. */
      properties: z.array(z.string().max(60)).max(100),
    }),
    /** Whether posts are found again by their key: tried with the last test. */
    findable: z.boolean(),
    /** What becomes of changes made here to articles that are out: brought there by a person, by itself when small, or always. */
    updates: z.enum(['asked', 'small', 'all']),
    /** Whether pictures go there in one width or in several. */
    pictures: z.enum(['one', 'several']),
    /** Whether links that lead out of our blogs are counted. */
    counts: z.boolean(),
    /** How many calls each worker makes to it at the same time. */
    callsAtOnce: CallsAtOnce,
    /** False once it was seen to show a post before the moment it was dated for. */
    keepsDates: z.boolean(),
    folder: FolderSettings,
  })
  .partial();
export type WaySettings = z.infer<typeof WaySettings>;

export const NewBlog = z.strictObject({
  name: Name,
  address: Address,
  way: BlogWay.default('micropub'),
  /** Where posts go; for a folder, its path below one of those the installation allows. */
  endpoint: z.string().trim().min(1).max(500),
  settings: WaySettings.default({}),
  /** A folder needs none. */
  secret: z.string().max(1_000).default(''),
  language: Language,
  cadence: CadenceRule,
  /** How long the blog may take to act on a call. */
  timeLimitMs: z.int().min(1_000).max(120_000).default(15_000),
});

/** Folders blogs may be written to below. */
export const Folders = z.object({ folders: z.array(z.string()) });

/** The blog that was connected; `joined` when it was connected already and got the new secret. */
export const MadeBlog = Made.extend({ joined: z.boolean(), lines: z.array(TestLine) });

/** An approval to be begun: of a blog that is to be connected, or of one that is and needs a new secret. */
export const NewApproval = z.union([
  z.strictObject({ address: Address, cadence: CadenceRule }),
  z.strictObject({ blog: Id }),
]);
export type NewApproval = z.infer<typeof NewApproval>;
/** Where the owner of the blog approves. */
export const ApprovalBegun = z.object({ address: z.string() });
/** What the owner came back with. */
export const ApprovalEnd = z.strictObject({
  state: z.string().min(1).max(200),
  code: z.string().max(4_000).default(''),
  error: z.string().max(500).default(''),
  iss: z.string().max(2_000).nullable().default(null),
});

/** A new secret, and the user name it belongs to where the way signs in with one. */
export const NewBlogSecret = z.strictObject({
  secret: z.string().min(1, 'a secret').max(1_000),
  user: z.string().trim().max(200).optional(),
});

/** Where a blog takes posts, found from its address. */
export const FindEndpoint = z.strictObject({ address: Address });
export const FoundWay = z.object({ way: BlogWay, endpoint: z.string(), settings: WaySettings });
export type FoundWay = z.infer<typeof FoundWay>;
export const FoundEndpoint = z.object({
  address: z.string(),
  name: z.string().nullable(),
  language: z.string().nullable(),
  /** The ways posts can go there, the fullest first. */
  ways: z.array(FoundWay),
  /** Whether its owner can approve programs there, instead of pasting a secret. */
  approves: z.boolean(),
  /** What was found otherwise than it was entered, in sentences. */
  notes: z.array(z.string()),
});
export type FoundEndpoint = z.infer<typeof FoundEndpoint>;

export const BlogChange = z
  .strictObject({
    name: Name,
    cadence: CadenceRule,
    language: Language,
    timeLimitMs: z.int().min(1_000).max(120_000),
    note: Note,
    archived: z.boolean(),
    /** The house style its articles keep to; null for none. */
    style: Id.nullable(),
    /** Where readers find it. */
    address: Address,
    /** How a folder is written from now on; what is written stays as it is. */
    folder: FolderSettings.partial(),
    /** What becomes of changes made here to articles that are out. */
    updates: z.enum(['asked', 'small', 'all']),
    /** Whether pictures go there in one width or in several, those of posts that are out too. */
    pictures: z.enum(['one', 'several']),
    callsAtOnce: CallsAtOnce,
    /** Whether finished articles take the slots of the new cadence; else they keep the moments they have. */
    move: z.boolean(),
  })
  .partial();

/** Words of a blog changed by themselves: of its cadence those that are named, whatever others say meanwhile. */
export const BlogWords = BlogChange.extend({
  // Without its default: pauses that are not named stay.
  cadence: CadenceRule.extend({ pauses: CadenceRule.shape.pauses.unwrap() }).partial(),
}).partial();
export type BlogWords = z.infer<typeof BlogWords>;

/** What finished articles would do by the cadence there is now. */
export const BlogMoves = z.object({
  moves: z.array(z.object({ article: Id, title: z.string(), from: Desk, to: Desk })),
});
export type BlogMoves = z.infer<typeof BlogMoves>;
export const ChangedBlog = z.object({ blogs: z.array(z.lazy(() => Blog)), ...BlogMoves.shape });

export const Blog = z.object({
  id: Id,
  name: z.string(),
  address: z.string(),
  way: BlogWay,
  endpoint: z.string(),
  settings: WaySettings,
  /** Categories it told of; null where it was not asked, or does not tell. */
  categories: z.array(z.string()).nullable(),
  /** What posts by this way cannot be or carry, by capability, each with the reason. */
  lacks: z.record(z.string(), z.string()),
  mediaEndpoint: z.string().nullable(),
  language: z.string(),
  cadence: CadenceRule,
  cadenceSentence: z.string(),
  timeLimitMs: z.int(),
  pages: z.int(),
  out: z.int(),
  /** What its last test tried; null before the first. */
  test: z.object({ atDesk: Desk, lines: z.array(TestLine) }).nullable(),
  archived: z.boolean(),
  labels: Carried,
  note: z.string(),
  /** The house style its articles keep to. */
  style: Id.nullable(),
  rev: z.int(),
});
export type Blog = z.infer<typeof Blog>;
export const Blogs = z.object({ blogs: z.array(Blog) });

/** How a slot stands; `planned` is one nobody fills yet. */
export const SlotStanding = z.enum(['out', 'draft', 'ready', 'held', 'stopped', 'in work', 'planned']);
export type SlotStanding = z.infer<typeof SlotStanding>;

export const Slot = z.object({
  at: Desk,
  standing: SlotStanding,
  article: Id.nullable(),
  brief: Id.nullable(),
  title: z.string().nullable(),
  /** Put here by a person. */
  pinned: z.boolean(),
  /** Only foreseen: the article takes its slot when it is finished. */
  foreseen: z.boolean(),
  /** Rules of the cadence this breaks, in words. */
  faults: z.array(z.string()),
});
export type Slot = z.infer<typeof Slot>;

export const BlogSlots = z.object({
  blog: Id,
  name: z.string(),
  zone: z.string(),
  slots: z.array(Slot),
  /** First slot nobody fills within the weeks looked at; null when all are. */
  dryFrom: Desk.nullable(),
  /** Finished or begun articles ahead. */
  ahead: z.int(),
  cadenceSentence: z.string(),
  cadenceRev: z.int(),
});
export type BlogSlots = z.infer<typeof BlogSlots>;

export const SlotsQuery = ByLabel.extend({
  from: z.coerce.number().int().optional(),
  days: z.coerce.number().int().min(1).max(92).default(7),
});
export const Slots = z.object({ now: Desk, speed: z.number(), from: Desk, to: Desk, blogs: z.array(BlogSlots) });
export type Slots = z.infer<typeof Slots>;

/** Puts an article at a moment; `force` says that broken rules are meant. */
export const MoveArticle = z.strictObject({ blog: Id, at: Desk, force: z.boolean().default(false) });
