import { PLACINGS } from '@grivo/core';
import { z } from 'zod';
import { Id } from '../id.ts';

const address = z.url({ protocol: /^https?$/, error: 'a web address as https://shop.example/lids' }).max(1_000);
const moment = z.string();

/** Words that are linked wherever articles say them. */
const ruleFields = {
  /** The blog it holds for; null for every blog. */
  blog: Id.nullable(),
  words: z.string().trim().min(1, 'the words to link').max(120),
  address,
  /** Links an article has by it, at most. */
  most: z.int().min(1).max(20),
  placing: z.enum(PLACINGS),
  /** Words of an article before its first link. */
  after: z.int().min(0).max(10_000),
  forms: z.boolean(),
  anyCase: z.boolean(),
  sponsored: z.boolean(),
};
export const RuleFields = z.strictObject(ruleFields);
export type RuleFields = z.infer<typeof RuleFields>;

export const Rule = z.object({ ...ruleFields, id: Id, rev: z.int(), placed: z.int() });
export type Rule = z.infer<typeof Rule>;
export const RulesQuery = z.object({
  find: z.string().max(120).default(''),
  from: z.coerce.number().int().min(0).max(100_000).default(0),
});
export const Rules = z.object({ rules: z.array(Rule), total: z.int(), found: z.int(), next: z.int().nullable() });
export type Rules = z.infer<typeof Rules>;

/** A file of rules: a line a rule, the first line names the columns. */
export const RulesFile = z.strictObject({ text: z.string().min(1).max(1_900_000), everyBlog: z.boolean() });
export const RulesRead = z.object({
  added: z.int(),
  /** Of those there were already. */
  known: z.int(),
  unread: z.array(z.object({ line: z.int(), why: z.string() })),
});
export type RulesRead = z.infer<typeof RulesRead>;
export const Ids = z.strictObject({ ids: z.array(Id).min(1).max(1_000) });

/** An article of the blog with the links rules give it, and the words they left alone. */
export const RulesTried = z.object({
  article: Id,
  title: z.string(),
  /** Its texts in order, in pieces. */
  texts: z.array(
    z.object({
      kind: z.enum(['heading', 'quotation', 'text']),
      parts: z.array(z.object({ text: z.string(), placed: z.boolean() })),
      notes: z.array(z.object({ words: z.string(), says: z.string(), placed: z.boolean() })),
    }),
  ),
  placed: z.int(),
  alone: z.int(),
});
export type RulesTried = z.infer<typeof RulesTried>;
export const TryQuery = z.object({ article: Id.optional() });

const kept = {
  blog: Id.nullable(),
  address,
  goodFor: z.string().trim().min(1, 'what it is good for').max(300),
};
export const KeptAddressFields = z.strictObject(kept);
export const NewKeptAddress = z.strictObject({ ...kept, kind: z.enum(['own', 'outside']) });
export const KeptAddressLine = z.object({
  ...kept,
  id: Id,
  kind: z.enum(['own', 'outside']),
  rev: z.int(),
  /** Links to it in live articles of the blog. */
  links: z.int(),
});
export type KeptAddressLine = z.infer<typeof KeptAddressLine>;

/** A link that leads nowhere, or elsewhere for good. */
export const DeadLinkLine = z.object({
  address: z.string(),
  state: z.enum(['dead', 'moved']),
  reason: z.string(),
  since: moment,
  articles: z.array(z.object({ id: Id, title: z.string(), anchor: z.string() })),
  replacement: z.object({ address: z.string(), why: z.string() }).nullable(),
});
export type DeadLinkLine = z.infer<typeof DeadLinkLine>;

export const ForwardLine = z.object({
  article: Id,
  title: z.string(),
  from: z.array(
    z.object({ article: Id, title: z.string(), block: z.string(), anchor: z.string(), sentence: z.string() }),
  ),
});
export type ForwardLine = z.infer<typeof ForwardLine>;

/** The links of a blog: how they stand, where they are dead, what is kept for linking. */
export const BlogLinks = z.object({
  stand: z.object({
    links: z.int(),
    articles: z.int(),
    answers: z.int(),
    dead: z.int(),
    moved: z.int(),
    unsure: z.int(),
    waiting: z.int(),
    lookedAt: moment.nullable(),
  }),
  dead: z.array(DeadLinkLine),
  addresses: z.array(KeptAddressLine),
});
export type BlogLinks = z.infer<typeof BlogLinks>;
export const Forwards = z.object({ to: z.array(ForwardLine) });
export type Forwards = z.infer<typeof Forwards>;

export const LookedAgain = z.object({ links: z.int() });
export const MendLink = z.strictObject({ from: z.string().min(1).max(1_000), to: address.nullable() });
export const LinkForward = z.strictObject({
  article: Id,
  block: z.string().min(1).max(60),
  anchor: z.string().min(1).max(200),
  to: Id,
});
export const MendedLinks = z.object({
  articles: z.int(),
  updated: z.int(),
  left: z.array(z.object({ article: Id, title: z.string(), why: z.string() })),
});
export type MendedLinks = z.infer<typeof MendedLinks>;

export const PagesQuery = z.object({ find: z.string().max(200).default(''), after: z.string().max(20).default('') });
export const Pages = z.object({
  pages: z.array(
    z.object({ id: z.string(), address: z.string(), title: z.string(), isOurs: z.boolean(), isBarred: z.boolean() }),
  ),
  total: z.int(),
  next: z.string().nullable(),
});
export type Pages = z.infer<typeof Pages>;
export const BarPage = z.strictObject({ page: z.string().length(64), barred: z.boolean() });

/** Where words of an article could lead. */
/** Words that are to lead somewhere; or a whole text, for pages that are about the same whatever words they have. */
export const LinkOffersQuery = z.object({
  words: z.string().trim().min(2).max(1_000),
  near: z.literal('yes').optional(),
});
export const LinkOffers = z.object({
  offers: z.array(
    z.object({
      to: z.union([
        z.object({ to: z.literal('address'), address: z.string() }),
        z.object({ to: z.literal('article'), article: Id }),
      ]),
      title: z.string(),
      at: z.string(),
    }),
  ),
});
export type LinkOffers = z.infer<typeof LinkOffers>;
