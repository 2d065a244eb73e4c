import { DOUBTS, HouseStyleDocument } from '@grivo/core';
import { z } from 'zod';
import { ArticleDocumentSchema } from '../article/document.ts';
import { Before, Desk, Id, Micros } from '../id.ts';

/** A draft lies on its blog, and no reader sees it. */
export const ArticleStanding = z.enum(['in work', 'ready', 'draft', 'out', 'withdrawn', 'set aside']);
export const ArticlesQuery = Before.extend({
  /** Held and stopped are those of its brief. */
  standing: z.enum([...ArticleStanding.options, 'held', 'stopped']).optional(),
  blog: Id.optional(),
  label: Id.optional(),
  q: z.string().max(200).optional(),
});

/** The articles beside one, in the list as it is filtered; null at its ends. */
export const NeighboursQuery = ArticlesQuery.omit({ before: true, limit: true });
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
});
export type Article = z.infer<typeof Article>;
export const Articles = z.object({ articles: z.array(Article) });

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
  /** Where it is, or was, on blogs. */
  publications: z.array(PublicationLine),
  rev: z.int(),
});
export type ArticleWhole = z.infer<typeof ArticleWhole>;

export const ArticleCopy = z.object({ as: z.enum(['Word', 'PDF']) });
export const ArticleAs = z.object({ as: z.enum(['markdown', 'html', 'plain', 'json']) });
