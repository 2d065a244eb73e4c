import { type ArticleDocument, asTheBlogHas, bestCategory, type StepOf, tagsOf } from '@grivo/core';
import type { Performer, StepContext, StepResult } from '../engine/performer.ts';
import { sealedNewest } from '../nouns/articles/edits.ts';
import { waitsForSlot } from '../nouns/articles/facts.ts';
import { ArticleField, field, missing } from '../nouns/articles/fields.ts';
import { readRevision } from '../nouns/articles/repository.ts';
import { blogTarget, getBlog } from '../nouns/blogs/repository.ts';
import { publishOn } from '../nouns/publishing/acts.ts';
import { beginAct, pinRevision } from '../nouns/publishing/editions.ts';
import { outWrites } from '../nouns/publishing/out.ts';
import { claimTurn, placeArticle } from '../nouns/publishing/placements.ts';
import { ensurePublication, type PublicationRow, placeOf } from '../nouns/publishing/publications.ts';
import { wakesFollowers } from '../nouns/schedules/followers.ts';
import type { Placed } from '../ports/blogs/blog.ts';
import type { Tools } from '../ports/tools.ts';
import { filled } from './asking.ts';

/** Publishes the article once its slot has come, exactly once; see {@link publishOn}. */
export function performPublish(tools: Tools): Performer<StepOf<'publish'>> {
  const { ground } = tools;
  return async (step, context) => {
    const given = field(context.fields, 'article', ArticleField);
    if (!given) return missing('article');
    if (context.brief.trial) {
      // What comes after may speak of the address; a trial has none.
      const publication = { would: step.as, blog: step.blog, when: step.when, address: '(its address)' };
      return { kind: 'done', fields: { publication } };
    }
    const article = await sealedNewest(ground.db, given);
    const blog = await blogTarget(ground.db, step.blog);
    if (!blog) return missing('blog');
    const known = await ensurePublication(ground, article.id, blog.id, step.as);
    if (known.state === 'live' || (known.state === 'draft' && step.as === 'draft'))
      return ended(tools, known, { at: placeOf(known)!, as: step.as, desk: known.out_desk, document: null });
    const begun = await beginAct(ground, known.id, 'publish', article.revision);
    if (begun.kind === 'not known yet') return { kind: 'later', inMs: blog.timeLimitMs };
    if (begun.kind === 'nothing there') return missing('blog');
    const { publication } = begun;
    const due = await turn(tools, step, publication, context);
    if (due.kind !== 'go') return due.result;
    const revision = await pinRevision(ground.db, publication, article.revision);
    const document = await readRevision(ground.db, revision);
    const names = await namesOf(tools, step, context, document);
    if (!names.ok) return names.result;
    const going = { as: step.as, document, categories: names.categories, author: names.author, desk: due.desk };
    const out = await publishOn(tools, context, blog, { ...publication, revision }, going);
    return out.kind === 'done' ? ended(tools, publication, { ...going, at: out.value }) : out;
  };
}

type Turn = { kind: 'go'; desk: number } | { kind: 'wait'; result: StepResult };

/** Waits for the slot and for the gap to the last post; 'at once' waits for neither. */
async function turn(
  tools: Tools,
  step: StepOf<'publish'>,
  publication: PublicationRow,
  context: StepContext,
): Promise<Turn> {
  const { ground } = tools;
  const now = ground.desk.now();
  if (step.when === 'at once') return { kind: 'go', desk: now };
  const due = await placeArticle(ground, publication.article, publication.blog);
  if (due === null)
    return { kind: 'wait', result: { kind: 'failed', failure: { code: 'no-slots', blog: publication.blog } } };
  if (due > now) {
    await waitsForSlot(ground.db, publication.article, publication.blog);
    return { kind: 'wait', result: { kind: 'at', desk: due, forSlot: true } };
  }
  if (publication.state === 'planned') {
    const later = await claimTurn(ground, publication.id, publication.blog, due);
    if (later !== null) return { kind: 'wait', result: { kind: 'at', desk: later, forSlot: true } };
  }
  return { kind: 'go', desk: context.run.forSlot ? Math.max(due, now) : now };
}

/**
 * What the post goes under, as the blog writes it: the category that fits best where that is wanted, else those chosen in the
 * step, and the article's own tags where they are wanted; and who it is by.
 */
async function namesOf(
  tools: Tools,
  step: StepOf<'publish'>,
  context: StepContext,
  document: ArticleDocument,
): Promise<{ ok: true; categories: string[]; author: string | null } | { ok: false; result: StepResult }> {
  const texts = { ...Object.fromEntries(step.categories.map((text, i) => [`${i}`, text])), author: step.author };
  const own = await filled(tools, texts, context);
  if (!own.ok) return own;
  const { author = '', ...chosen }: Record<string, string> = own.texts;
  const known = (await getBlog(tools.ground.db, step.blog))?.categories ?? null;
  const fitting = step.fit === 'best fit' ? bestCategory(known ?? [], document) : null;
  const under = fitting === null ? Object.values(chosen).map((text) => text.replace(/\s+/g, ' ').trim()) : [fitting];
  const all = [...under, ...(step.tags === 'its own' ? tagsOf(document) : [])].filter((name) => name !== '');
  return { ok: true, categories: asTheBlogHas(all, known, step.newOnes), author: author.trim() || null };
}

/** The end of the step, with everything that must become true together. */
async function ended(
  { ground }: Tools,
  publication: PublicationRow,
  out: {
    at: Placed;
    as: 'live' | 'draft';
    desk: number | null;
    document: ArticleDocument | null;
    author?: string | null;
  },
): Promise<StepResult> {
  const { blog } = publication;
  const { at: there, as } = out;
  const at = out.desk ?? publication.out_desk ?? ground.desk.now();
  return {
    kind: 'done',
    fields: { publication: { blog, address: there.address, as, at } },
    writes: [
      ...outWrites(ground, publication, { ...out, desk: at }),
      ...(as === 'live' ? await wakesFollowers(ground, blog) : []),
    ],
  };
}
