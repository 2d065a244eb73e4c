import { DOUBTS, HouseStyleDocument, LISTED_MEASURES, OUT_AS } from '@grivo/core';
import { z } from 'zod';
import { ArticleDocumentSchema } from '../article/document.ts';
import { Desk, Id, Language, Micros } from '../id.ts';
import { Carried } from '../labels/label.ts';

/** A draft lies on its blog, and no reader sees it. */
export const ArticleStanding = z.enum(['in work', 'ready', 'draft', 'out', 'withdrawn', 'set aside']);
/** Which articles are wanted; all that is said must hold. */
export const ArticlesWanted = z.object({
  /** Held and stopped are those of its brief. */
  standing: z.enum([...ArticleStanding.options, 'held', 'stopped']).optional(),
  blog: Id.optional(),
  pipeline: Id.optional(),
  /** A source of which an item is in it. */
  source: Id.optional(),
  /** What it cost at least, in millionths. */
  cost: z.coerce.number().int().min(1).max(1_000_000_000_000).optional(),
  label: Id.optional(),
  language: Language.optional(),
  /** Of those that are out, the ones of so many days; what comes is there all the same. */
  days: z.coerce.number().int().min(1).max(3_650).optional(),
  /** A measure that is out of its range, or any of them. */
  mark: z.enum(['any', ...LISTED_MEASURES]).optional(),
  /** Words that stand in it; in quotation marks in their order, after a minus not at all. */
  q: z.string().max(200).optional(),
  /** Words of its title. */
  title: z.string().max(200).optional(),
});
export type ArticlesWanted = z.infer<typeof ArticlesWanted>;

/** What comes by its slot, then drafts, then what is out, the last first; or the newest first; or what fits the words best. */
export const ArticlesOrder = z.enum(['slot', 'newest', 'fit']);
export const ArticlesQuery = ArticlesWanted.extend({
  order: ArticlesOrder.default('newest'),
  /** Where the page before ended, as it said itself. */
  before: z
    .string()
    .regex(/^[0-9a-z.-]{1,60}$/, 'the end of a page as its answer names it')
    .optional(),
  limit: z.coerce.number().int().min(1).max(500).default(100),
});

/** The articles beside one, in the list as it is filtered; null at its ends. */
export const NeighboursQuery = ArticlesWanted;
export const Neighbours = z.object({ newer: Id.nullable(), older: Id.nullable() });

export const Article = z.object({
  id: Id,
  brief: Id,
  blog: Id.nullable(),
  title: z.string(),
  words: z.int(),
  /** Held and stopped are its brief's: it is in work as long as that is neither. */
  standing: z.enum([...ArticleStanding.options, 'held', 'stopped']),
  language: z.string(),
  address: z.string().nullable(),
  outDesk: Desk.nullable(),
  dueDesk: Desk.nullable(),
  micros: Micros,
  /** The measures that lie outside their range; null until they were looked at. */
  outOfRange: z
    .array(
      z.object({ name: z.enum(LISTED_MEASURES), value: z.number(), unit: z.string(), side: z.enum(['under', 'over']) }),
    )
    .nullable(),
});
export type Article = z.infer<typeof Article>;
/** A page of a list; `next` is asked for as `before`, and null at the end. */
export const Articles = z.object({ articles: z.array(Article), next: z.string().nullable() });

/** How many articles there are; each is counted up to 10,000, and there are more where it is one more. */
export const ArticlesCounted = z.object({ shown: z.int(), all: z.int(), held: z.int() });

/** A passage an article rests on, with the page it is from. */
export const Evidence = z.object({
  id: z.string(),
  text: z.string(),
  title: z.string(),
  /** Where it stands there, as 'page 3' or '01:48'. */
  place: z.string(),
  /** Leads to that place; empty where it is nowhere on the web. */
  address: z.string(),
});
export type Evidence = z.infer<typeof Evidence>;

/** One figure about an article with the range it should lie in, either end open. */
export const Measure = z.object({
  name: z.string(),
  value: z.number(),
  least: z.number().nullable(),
  most: z.number().nullable(),
  unit: z.string(),
  says: z.string(),
  /** The block it speaks of first, where it is of one. */
  place: z.string().nullable(),
});
export type Measure = z.infer<typeof Measure>;

/** An article on one blog. */
export const PublicationLine = z.object({
  id: Id,
  blog: Id,
  blogName: z.string(),
  state: z.enum(['planned', 'creating', 'draft', 'live', 'withdrawn']),
  address: z.string().nullable(),
  outDesk: Desk.nullable(),
  /** Who sees it there: all readers, nobody yet, nobody until the blog’s own people passed it, or those who sign in. */
  as: z.enum(OUT_AS),
  /** The moment it is dated for, while the blog keeps it until then. */
  datedDesk: Desk.nullable(),
  /** Whether the blog shows the newest revision; null where it shows none. */
  newest: z.boolean().nullable(),
  /** What is under way there and not known to be done yet; null when nothing is. */
  underWay: z.enum(['publish', 'update', 'withdraw']).nullable(),
  /** What somebody else made of it there, and when that was seen; null when it is as we sent it. */
  outside: z.object({ kind: z.enum(['changed', 'gone']), at: z.string() }).nullable(),
  can: z.array(z.enum(['update', 'withdraw'])),
});
export type PublicationLine = z.infer<typeof PublicationLine>;

export const ArticleWhole = Article.extend({
  document: ArticleDocumentSchema,
  html: z.string(),
  passages: z.array(Evidence),
  measures: z.array(Measure),
  /** What its blocks say and what they rest on does not, with the words as they stand there. */
  doubts: z.array(z.object({ block: z.string(), kind: z.enum(DOUBTS), words: z.string() })),
  /** The house style it keeps to, and the parts of it that the page holds it against; null for none. */
  house: z.object({ id: Id, name: z.string(), document: HouseStyleDocument }).nullable(),
  /** Which line of its brief it is of: empty for the main one, else the path of the branch or turn it was made in. */
  line: z.string(),
  /** The revision shown; what is changed is changed from it. */
  revision: Id,
  /** Why it cannot be changed just now; null when it can. */
  busy: z.string().nullable(),
  /** The labels it carries itself. */
  labels: Carried,
  /** Where it is, or was, on blogs. */
  publications: z.array(PublicationLine),
  rev: z.int(),
});
export type ArticleWhole = z.infer<typeof ArticleWhole>;

export const ArticleCopy = z.object({ as: z.enum(['Word', 'PDF', 'HTML page']) });
export const ArticleAs = z.object({ as: z.enum(['markdown', 'html', 'plain', 'json']) });
