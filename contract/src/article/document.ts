import type { ArticleDocument, Block } from '@grivo/core';
import { z } from 'zod';

const linkTarget = z.discriminatedUnion('to', [
  z.strictObject({ to: z.literal('address'), address: z.string(), sponsored: z.boolean().optional() }),
  z.strictObject({ to: z.literal('article'), article: z.string() }),
]);
const inline = z.strictObject({
  text: z.string(),
  marks: z.array(z.enum(['strong', 'emphasis', 'code'])).optional(),
  link: linkTarget.optional(),
});
const content = z.array(inline);
const common = {
  id: z.string().min(1),
  evidence: z
    .array(z.strictObject({ passage: z.string(), quote: z.string().optional(), digest: z.string() }))
    .optional(),
};

const block = z.discriminatedUnion('type', [
  z.strictObject({
    ...common,
    type: z.literal('heading'),
    level: z.union([z.literal(2), z.literal(3), z.literal(4)]),
    text: z.string(),
  }),
  z.strictObject({ ...common, type: z.literal('paragraph'), content }),
  z.strictObject({ ...common, type: z.literal('list'), ordered: z.boolean(), items: z.array(content) }),
  z.strictObject({
    ...common,
    type: z.literal('table'),
    caption: z.string().optional(),
    head: z.array(z.string()),
    rows: z.array(z.array(z.string())),
  }),
  z.strictObject({
    ...common,
    type: z.literal('figure'),
    file: z.string().regex(/^[0-9a-f]{64}$/),
    width: z.int().positive(),
    height: z.int().positive(),
    alternative: z.string(),
    caption: z.string().optional(),
    credit: z.string().optional(),
    lead: z.boolean(),
  }),
  z.strictObject({ ...common, type: z.literal('quote'), text: z.string(), attribution: z.string().optional() }),
  z.strictObject({
    ...common,
    type: z.literal('video'),
    address: z.string(),
    title: z.string(),
    player: z.string().optional(),
    film: z.string().optional(),
    still: z.string().optional(),
  }),
  z.strictObject({
    ...common,
    type: z.literal('chart'),
    form: z.enum(['bar', 'line']),
    labels: z.array(z.string()),
    series: z.array(z.strictObject({ name: z.string(), values: z.array(z.number()) })),
    alternative: z.string(),
  }),
  z.strictObject({ ...common, type: z.literal('key points'), items: z.array(z.string()) }),
  z.strictObject({ ...common, type: z.literal('question and answer'), question: z.string(), answer: content }),
  z.strictObject({
    ...common,
    type: z.literal('call to action'),
    text: z.string(),
    button: z.string(),
    address: z.string(),
  }),
  z.strictObject({ ...common, type: z.literal('standing text'), content }),
  z.strictObject({ ...common, type: z.literal("owner's markup"), markup: z.string() }),
  z.strictObject({ ...common, type: z.literal('contents') }),
]);

/** An article in one revision, as the database and the wire hold it. */
export const ArticleDocumentSchema = z.strictObject({
  title: z.string(),
  titleChoices: z.array(z.string()),
  slug: z.string(),
  description: z.string(),
  keyPhrase: z.string(),
  keywords: z.array(z.string()),
  hashtags: z.array(z.string()),
  language: z.string().length(2),
  body: z.array(block as unknown as z.ZodType<Block>),
}) satisfies z.ZodType<ArticleDocument>;
