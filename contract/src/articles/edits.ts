import { DOUBTS } from '@grivo/core';
import { z } from 'zod';
import { ArticleDocumentSchema } from '../article/document.ts';
import { Id, Micros } from '../id.ts';

/** An article somebody writes themselves. */
export const OwnArticle = z.strictObject({
  blog: Id,
  title: z.string().trim().min(1, 'a title').max(300),
  /** Markdown; it is changed on the page afterwards. */
  text: z.string().trim().min(1, 'a first sentence').max(400_000),
});

/** What a person made of an article. */
export const ArticleEdit = z.strictObject({
  /** The revision it was made from. */
  base: Id,
  document: ArticleDocumentSchema,
  /** Names the page it was typed on; what is typed there in a row is one revision. */
  sitting: z.string().regex(/^[\w-]{1,40}$/),
});

/** Letters a text that is edited may have. */
const MOST_TEXT = 400_000;

/** What the body of an article can be edited as. */
export const EditableAs = z.enum(['markdown', 'html']);
export type EditableAs = z.infer<typeof EditableAs>;

/** The body of an article as a text to be edited. */
export const EditableText = z.object({ revision: Id, text: z.string(), language: z.string() });

/** The same as somebody edited it. */
export const TextEdit = ArticleEdit.omit({ document: true }).extend({
  as: EditableAs.default('markdown'),
  text: z.string().max(MOST_TEXT, `a text of at most ${MOST_TEXT.toLocaleString('en-GB')} characters`),
});

/** The article as it was kept. */
export const ArticleSaved = z.object({ revision: Id, document: ArticleDocumentSchema });
export type ArticleSaved = z.infer<typeof ArticleSaved>;

export const RevisionLine = z.object({
  id: Id,
  at: z.union([z.string(), z.date()]),
  words: z.int(),
  /** Who made it; null when a step did. */
  person: z.string().nullable(),
  /** The kind of step that made it, or at which a person did. */
  step: z.string().nullable(),
  current: z.boolean(),
  /** Names of the blogs that show it. */
  on: z.array(z.string()),
});
export type RevisionLine = z.infer<typeof RevisionLine>;
export const Revisions = z.object({ revisions: z.array(RevisionLine) });

/** What an article was made from, for measures and evidence. */
export const ArticleSources = z.object({
  sources: z.array(z.object({ id: z.string(), text: z.string(), language: z.string().optional() })),
  /** What it is measured against beside them: articles of ours that say the same, and addresses that lead nowhere. */
  beside: z.object({
    own: z.array(z.object({ title: z.string(), text: z.string() })),
    most: z.object({ sources: z.number().nullable(), own: z.number().nullable() }),
    dead: z.array(z.string()),
  }),
});

const asked = {
  /** What is to be otherwise. */
  note: z.string().trim().min(1, 'what is to be otherwise').max(1_000),
  /** How often it was asked before with the same note: each time something else may come. */
  again: z.int().min(0).max(20).default(0),
};

/** A part of an article to be written anew. */
export const WriteAnew = z.strictObject({
  /** The article as it is typed now. */
  document: ArticleDocumentSchema,
  /** The blocks that are written anew, one behind the other. */
  blocks: z.array(z.string()).min(1).max(60),
  /** Of one paragraph only these letters of its text, from and up to; all of it where this is null. */
  letters: z
    .strictObject({ from: z.int().min(0), to: z.int().min(1) })
    .nullable()
    .default(null),
  ...asked,
});
/** Other titles for an article, as somebody wants them. */
export const TitleAnew = z.strictObject({ document: ArticleDocumentSchema, ...asked });
export const TitlesAnew = z.object({ titles: z.array(z.string()).min(1), micros: Micros });
export const WrittenAnew = z.object({
  blocks: ArticleDocumentSchema.shape.body,
  /** What of it the sources do not say. */
  doubts: z.array(z.object({ block: z.string(), kind: z.enum(DOUBTS), words: z.string() })),
  micros: Micros,
});
export type WrittenAnew = z.infer<typeof WrittenAnew>;
/** What is written of a part so far. */
export const AnewPiece = z.object({ text: z.string() });
/** The titles written so far, the last of them perhaps cut. */
export const TitlesPiece = z.object({ titles: z.array(z.string()) });
/** About what it costs, before it is asked for. */
export const AnewPrice = z.object({ micros: Micros });

/** What is asked of an article on a blog. */
export const PublicationAct = z.strictObject({
  act: z.enum(['publish', 'update', 'withdraw']),
  /** The revision that is to be there. */
  revision: Id,
});
/** An article is to go out on a further blog. */
export const PublishElsewhere = z.strictObject({
  blog: Id,
  /** Whether readers see it at once, or nobody yet. */
  as: z.enum(['live', 'draft']).default('live'),
  revision: Id,
});
/** What became of it: done, or not known yet, and looked at again by itself. */
export const PublicationActed = z.object({ done: z.boolean() });

const Words = z.object({ stands: z.enum(['both', 'before', 'after']), text: z.string() });

/** A post as it stands on a blog beside what was sent. */
/** Something that was done with an article on a blog: by us, or by somebody there. */
export const BlogAct = z.object({
  act: z.enum(['published', 'updated', 'withdrawn', 'changed there', 'removed there']),
  at: z.string(),
});
export type BlogAct = z.infer<typeof BlogAct>;

export const OutsideShown = z.object({
  kind: z.enum(['same', 'changed', 'gone']),
  /** Names what was seen; what is chosen is chosen of that. */
  digest: z.string(),
  /** The two titles, where they differ. */
  title: z.object({ ours: z.string(), theirs: z.string() }).nullable(),
  places: z.array(
    z.discriminatedUnion('changed', [
      z.object({ changed: z.literal(false), blocks: z.array(z.string()) }),
      z.object({
        changed: z.literal(true),
        blocks: z.array(z.string()),
        words: z.array(Words),
        put: ArticleDocumentSchema.shape.body,
        others: z.int(),
      }),
    ]),
  ),
  /** The text as it was sent. */
  document: ArticleDocumentSchema,
  /** Whether it was changed here since it was sent. */
  newer: z.boolean(),
  /** What was done with it there so far, oldest first. */
  acts: z.array(BlogAct),
});
export type OutsideShown = z.infer<typeof OutsideShown>;

/** What becomes of what was changed on a blog. */
export const SettleOutside = z.strictObject({
  digest: z.string().max(64),
  title: z.enum(['theirs', 'ours']).default('ours'),
  /** One for each changed place, in order. */
  choices: z.array(z.enum(['theirs', 'ours', 'both'])).max(5_000),
});

/** Posts of a blog somebody changed there. */
/** Articles that are out on a blog and were changed here since. */
export const BehindList = z.object({
  posts: z.array(z.object({ publication: Id, article: Id, title: z.string() })),
});

export const OutsideList = z.object({
  posts: z.array(
    z.object({ publication: Id, article: Id, title: z.string(), kind: z.enum(['changed', 'gone']), at: z.string() }),
  ),
});
