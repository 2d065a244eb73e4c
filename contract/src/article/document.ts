import { ARTICLE_FORMAT, type ArticleDocument, type Block, type BlockType, LanguageTag } from '@grivo/core';
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
const size = z.enum(['small', 'medium', 'full']).optional();
const side = z.enum(['left', 'middle', 'right']).optional();
const common = {
  id: z.string().min(1),
  evidence: z
    .array(z.strictObject({ passage: z.string(), quote: z.string().optional(), digest: z.string() }))
    .optional(),
  vouched: z
    .array(
      z.strictObject({
        words: z.string().min(1).max(1_000),
        reason: z.string().trim().min(1, 'a reason').max(300),
        by: z.string().max(200),
      }),
    )
    .max(50)
    .optional(),
};

/** What each kind of block holds. */
const BLOCKS = {
  heading: { level: z.union([z.literal(2), z.literal(3), z.literal(4)]), text: z.string() },
  paragraph: { content },
  list: { ordered: z.boolean(), items: z.array(content) },
  table: { caption: content.optional(), head: z.array(content), rows: z.array(z.array(content)) },
  figure: {
    file: z.string().regex(/^[0-9a-f]{64}$/),
    width: z.int().positive(),
    height: z.int().positive(),
    alternative: z.string(),
    caption: content.optional(),
    credit: content.optional(),
    link: linkTarget.optional(),
    size,
    side,
    lead: z.boolean(),
  },
  quote: { content, credit: content.optional() },
  video: {
    address: z.string(),
    title: z.string(),
    player: z.string().optional(),
    film: z.string().optional(),
    still: z.string().optional(),
    picture: z.strictObject({ file: z.string(), width: z.int(), height: z.int() }).optional(),
  },
  chart: {
    form: z.enum(['bar', 'line', 'dots']),
    labels: z.array(z.string()),
    series: z.array(z.strictObject({ name: z.string(), values: z.array(z.number()) })),
    caption: content.optional(),
    alternative: z.string(),
  },
  'key points': { items: z.array(content) },
  'question and answer': { question: z.string(), answer: content },
  'call to action': { content, button: z.string(), link: linkTarget, size, side },
  closing: { content },
  'standing text': { content },
  disclosure: { content },
  fold: { words: z.string() },
  'related articles': { heading: z.string(), items: z.array(content) },
  "owner's markup": { markup: z.string() },
  contents: {},
  placeholder: { wants: z.enum(['picture', 'video', 'table', 'chart', 'text']), says: z.string() },
} satisfies Record<BlockType, z.ZodRawShape>;

type OneBlock = z.ZodObject<{ type: z.ZodLiteral<BlockType> }>;
const [first, ...others] = Object.entries(BLOCKS).map(([type, shape]) =>
  z.strictObject({ ...common, type: z.literal(type as BlockType), ...shape }),
) as unknown as [OneBlock, ...OneBlock[]];
const block = z.discriminatedUnion('type', [first, ...others]);

/** An article in one revision, as the database and the wire hold it. */
export const ArticleDocumentSchema = z.strictObject({
  format: z.literal(ARTICLE_FORMAT),
  title: z.string(),
  titleChoices: z.array(z.string()),
  slug: z.string(),
  description: z.string(),
  keyPhrase: z.string(),
  keywords: z.array(z.string()),
  hashtags: z.array(z.string()),
  language: LanguageTag,
  body: z.array(block as unknown as z.ZodType<Block>),
  replaced: z
    .array(
      z.strictObject({ block: z.string(), from: z.string(), to: z.string(), before: z.string(), after: z.string() }),
    )
    .optional(),
}) satisfies z.ZodType<ArticleDocument>;
