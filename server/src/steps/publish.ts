import {
  type ArticleDocument,
  asTheBlogHas,
  bestCategory,
  type OutAs,
  propertyIn,
  type StepOf,
  tagsOf,
} from '@grivo/core';
import type { Performer, StepContext, StepResult } from '../engine/performer.ts';
import { sealedNewest } from '../nouns/articles/edits.ts';
import { waitsForSlot } from '../nouns/articles/facts.ts';
import { ArticleField, field, missing } from '../nouns/articles/fields.ts';
import { readRevision } from '../nouns/articles/repository.ts';
import { blogTarget, getBlog, neverAhead } from '../nouns/blogs/repository.ts';
import { authorInTurn } from '../nouns/publishing/authors.ts';
import { beginAct, pinRevision } from '../nouns/publishing/editions.ts';
import { dateOn, type Going, publishOn } from '../nouns/publishing/going.ts';
import { outWrites } from '../nouns/publishing/out.ts';
import { claimTurn, placeArticle } from '../nouns/publishing/placements.ts';
import {
  type Carried,
  ensurePublication,
  isOut,
  type PublicationRow,
  placeOf,
} from '../nouns/publishing/publications.ts';
import { wakesFollowers } from '../nouns/schedules/followers.ts';
import type { BlogTarget, Placed } from '../ports/blogs/blog.ts';
import type { Tools } from '../ports/tools.ts';
import { filled } from './asking.ts';
import { blogOf } from './whichBlog.ts';

/** Posts for a blog that are got ready at the same time: of many that are due, not all a little but a few wholly. */
const READY_AT_ONCE = 12;

/** Publishes the article once its slot has come, exactly once; see {@link publishOn}. */
export function performPublish(tools: Tools): Performer<StepOf<'publish'>> {
  return (step, context) =>
    context.brief.trial
      ? published(tools, step, context)
      : tools.posting.do(`posts for ${step.blog}`, READY_AT_ONCE, () => published(tools, step, context));
}

async function published(tools: Tools, step: StepOf<'publish'>, context: StepContext): Promise<StepResult> {
  const { ground } = tools;
  // Given up while it waited: nothing was done yet.
  if (context.signal.aborted) return { kind: 'later', inMs: 0 };
  const given = field(context.fields, 'article', ArticleField);
  if (!given) return missing('article');
  const { language } = await readRevision(ground.db, given.revision);
  const meant = await blogOf(tools, step, context, language);
  if (!meant.ok) return meant.result;
  if (context.brief.trial) {
    // What comes after may speak of the address; a trial has none.
    const publication = { would: step.as, blog: meant.id, when: step.when, address: '(its address)' };
    return { kind: 'done', fields: { publication } };
  }
  const article = await sealedNewest(ground.db, given);
  const blog = await blogTarget(ground.db, meant.id);
  if (!blog) return missing('blog');
  const known = await ensurePublication(ground, article.id, blog.id, step.as);
  if (isOut({ state: known.state, as_: step.as }))
    return ended(tools, known, { at: placeOf(known)!, as: step.as, desk: known.out_desk, document: null });
  const begun = await beginAct(ground, known.id, 'publish', article.revision);
  if (begun.kind === 'not known yet') return { kind: 'later', inMs: blog.timeLimitMs };
  if (begun.kind === 'nothing there') return missing('blog');
  const { publication } = begun;
  const due = await turn(tools, step, publication, context, blog);
  if (due.kind === 'wait') return due.result;
  const revision = await pinRevision(ground.db, publication, article.revision);
  const document = await readRevision(ground.db, revision);
  const names = await namesOf(tools, step, context, { document, publication });
  if (!names.ok) return names.result;
  const { categories, author, carried } = names;
  const going = { as: step.as, document, categories, author, carried, desk: due.desk };
  return goesOut(tools, context, blog, { ...publication, revision }, { ...going, isAhead: due.kind === 'ahead' });
}

/** Hands it to the blog: dated ahead, where the blog keeps it until its moment, or for readers now. */
async function goesOut(
  tools: Tools,
  context: StepContext,
  blog: BlogTarget,
  publication: PublicationRow,
  { isAhead, ...going }: Going & { isAhead: boolean },
): Promise<StepResult> {
  const { ground } = tools;
  if (isAhead) {
    const ahead = await dateOn(tools, context, blog, publication, going);
    if (ahead.kind !== 'done') return ahead;
    if (!ahead.isReadAlready) return { kind: 'at', desk: going.desk, forSlot: true };
    // It is out before its time: from now on articles wait here for their slots.
    await neverAhead(ground, blog.id);
    going.desk = ground.desk.now();
  }
  const out = await publishOn(tools, context, blog, publication, going);
  return out.kind === 'done'
    ? ended(tools, publication, { ...going, at: out.value, recorded: out.recorded === true })
    : out;
}

type Turn =
  | { kind: 'go'; desk: number }
  /** The blog keeps it until that moment. */
  | { kind: 'ahead'; desk: number }
  | { kind: 'wait'; result: StepResult };

/** Waits for the slot and for the gap to the last post; 'at once' waits for neither. */
async function turn(
  tools: Tools,
  step: StepOf<'publish'>,
  publication: PublicationRow,
  context: StepContext,
  blog: BlogTarget,
): Promise<Turn> {
  const { ground } = tools;
  const now = ground.desk.now();
  if (step.when === 'at once') return { kind: 'go', desk: now };
  const due = await placeArticle(ground, publication.article, publication.blog);
  if (due === null)
    return { kind: 'wait', result: { kind: 'failed', failure: { code: 'no-slots', blog: publication.blog } } };
  if (due > now) {
    await waitsForSlot(ground.db, publication.article, publication.blog);
    const isKept = publication.dated_desk !== null && Number(publication.dated_desk) === due;
    if (step.when === 'dated ahead' && !isKept && tools.blogs(blog).can(blog).has('dated ahead'))
      return { kind: 'ahead', desk: due };
    return { kind: 'wait', result: { kind: 'at', desk: due, forSlot: true } };
  }
  // What the blog kept until its moment went out at it.
  if (publication.dated_desk !== null) return { kind: 'go', desk: due };
  if (publication.state === 'planned') {
    const later = await claimTurn(ground, publication.id, publication.blog, due);
    if (later !== null) return { kind: 'wait', result: { kind: 'at', desk: later, forSlot: true } };
  }
  return { kind: 'go', desk: context.run.forSlot ? Math.max(due, now) : now };
}

type NamesOf =
  | { ok: true; categories: string[]; author: string | null; carried: Carried }
  | { ok: false; result: StepResult };

/**
 * What the post goes under, as the blog writes it: the category that fits best where that is wanted, else those chosen in the
 * step, and the article's own tags where they are wanted; who it is by; and what else it says.
 */
async function namesOf(
  tools: Tools,
  step: StepOf<'publish'>,
  context: StepContext,
  { document, publication }: { document: ArticleDocument; publication: PublicationRow },
): Promise<NamesOf> {
  const own = await filled(tools, listed(step.categories), context);
  if (!own.ok) return own;
  const about = await filled(tools, { author: step.author }, context);
  if (!about.ok) return about;
  const said = await filled(tools, listed(step.properties), context);
  if (!said.ok) return said;
  const known = (await getBlog(tools.ground.db, publication.blog))?.categories ?? null;
  const fitting = step.fit === 'best fit' ? bestCategory(known ?? [], document) : null;
  const under = fitting === null ? Object.values(own.texts).map((text) => text.replace(/\s+/g, ' ').trim()) : [fitting];
  const all = [...under, ...(step.tags === 'its own' ? tagsOf(document) : [])].filter((name) => name !== '');
  const properties = Object.values(said.texts).flatMap((text) => propertyIn(text) ?? []);
  const fixed = about.texts.author.trim();
  return {
    ok: true,
    categories: asTheBlogHas(all, known, step.newOnes),
    author: fixed !== '' ? fixed : await authorInTurn(tools.ground.db, publication, step.authors),
    carried: {
      shape: step.shape,
      replies: step.replies === 'as the blog does' ? null : step.replies === 'on',
      properties: Object.fromEntries(properties.map(({ name, text }) => [name, text])),
    },
  };
}

const listed = (texts: readonly string[]): Record<string, string> =>
  Object.fromEntries(texts.map((text, i) => [`${i}`, text]));

/** The end of the step, with everything that must become true together. */
async function ended(
  { ground }: Tools,
  publication: PublicationRow,
  out: {
    at: Placed;
    as: OutAs;
    desk: number | null;
    document: ArticleDocument | null;
    author?: string | null;
    carried?: Carried | null;
    /** Whether that it is out is recorded already. */
    recorded?: boolean;
  },
): Promise<StepResult> {
  const { blog } = publication;
  const { at: there, as, recorded = false } = out;
  const at = out.desk ?? publication.out_desk ?? ground.desk.now();
  return {
    kind: 'done',
    fields: { publication: { blog, address: there.address, as, at } },
    writes: [
      ...(recorded ? [] : outWrites(ground, publication, { ...out, desk: at })),
      ...(as === 'live' ? await wakesFollowers(ground, blog) : []),
    ],
  };
}
