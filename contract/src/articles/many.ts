import { DEGREES } from '@grivo/core';
import { z } from 'zod';
import { Desk, Id } from '../id.ts';

/** Steps that hold for nothing but a look at the article; the others ask for something of their own at the brief. */
export const LOOKED_OVER: readonly string[] = [
  'hold',
  'check',
  'write',
  'link',
  'illustrate',
  'chart',
  'videos',
  'translate',
  'vary',
  'lay out',
  'title',
];

const Ids = z.array(Id).min(1, 'at least one article').max(500, 'at most 500 articles at once');

/** A writer takes some seconds over each. */
const PutAtOnce = Ids.max(20, 'at most 20 articles put in other words at once');

/** A person's word on several articles that wait for it. */
export const DecideArticles = z.discriminatedUnion('decide', [
  z.strictObject({ articles: Ids, decide: z.literal('pass') }),
  z.strictObject({ articles: Ids, decide: z.literal('set aside') }),
  z.strictObject({
    articles: Ids,
    decide: z.literal('send back'),
    note: z.string().trim().min(1, 'what is to be done differently').max(2_000),
  }),
]);
export type DecideArticles = z.infer<typeof DecideArticles>;

/**
 * One thing done to several articles: their newest text brought to their blogs, taken from them, the articles removed; each
 * put at the next slot from a moment on that is free on its blog; each put in other words; a label put on them or taken off.
 */
export const ManyArticles = z.discriminatedUnion('do', [
  z.strictObject({ articles: Ids, do: z.literal('update') }),
  z.strictObject({ articles: Ids, do: z.literal('withdraw') }),
  z.strictObject({ articles: Ids, do: z.literal('remove') }),
  z.strictObject({ articles: Ids, do: z.literal('move'), from: Desk }),
  z.strictObject({ articles: PutAtOnce, do: z.literal('put'), degree: z.enum(DEGREES) }),
  z.strictObject({ articles: Ids, do: z.literal('label'), label: Id, on: z.boolean() }),
]);
export type ManyArticles = z.infer<typeof ManyArticles>;

/** What putting several articles in other words will cost. */
export const PutPriced = z.strictObject({ articles: Ids, degree: z.enum(DEGREES) });

/** To how many it was done, and which were left as they are, each with the reason. */
export const DoneToArticles = z.object({
  done: z.int(),
  left: z.array(z.object({ id: Id, title: z.string(), why: z.string() })),
});
export type DoneToArticles = z.infer<typeof DoneToArticles>;

/** The forms several articles are saved in at once. */
export const ZIP_FORMS = ['Markdown', 'HTML', 'plain text', 'Word', 'PDF'] as const;
export const ArticlesZip = z.object({
  as: z.enum(ZIP_FORMS),
  /** Ids with commas between them. */
  articles: z
    .string()
    .transform((text) => text.split(','))
    .pipe(Ids),
});

/** A list of articles that a person kept by a name: which articles it has, as the words of its address. */
export const KeptList = z.object({ id: Id, name: z.string(), wanted: z.string() });
export type KeptList = z.infer<typeof KeptList>;
export const KeptLists = z.object({ lists: z.array(KeptList) });
export const NewKeptList = z.strictObject({
  name: z.string().trim().min(1, 'a name').max(120),
  wanted: z.string().max(1_000),
});
