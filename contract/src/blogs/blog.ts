import { CadenceRule } from '@grivo/core';
import { z } from 'zod';
import { Address, Desk, Id, Language, Made, Name, Note, TestLine } from '../id.ts';
import { ByLabel, Carried } from '../labels/label.ts';

export const NewBlog = z.strictObject({
  name: Name,
  address: Address,
  endpoint: Address,
  secret: z.string().trim().min(1, 'a secret').max(1_000),
  language: Language,
  cadence: CadenceRule,
  /** How long the blog may take to act on a call. */
  timeLimitMs: z.int().min(1_000).max(120_000).default(15_000),
});

/** The blog that was connected; `joined` when it was connected already and got the new secret. */
export const MadeBlog = Made.extend({ joined: z.boolean(), lines: z.array(TestLine) });

/** Where a blog takes posts, found from its address. */
export const FindEndpoint = z.strictObject({ address: Address });
export const FoundEndpoint = z.object({
  address: z.string(),
  name: z.string().nullable(),
  endpoint: z.string().nullable(),
  language: z.string().nullable(),
});

export const BlogChange = z
  .strictObject({
    name: Name,
    cadence: CadenceRule,
    language: Language,
    timeLimitMs: z.int().min(1_000).max(120_000),
    note: Note,
    archived: z.boolean(),
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
  endpoint: z.string(),
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
