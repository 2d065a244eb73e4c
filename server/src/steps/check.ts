import { articleWords, type StepOf } from '@grivo/core';
import { readRevision } from '../articles/repository.ts';
import type { Performer } from '../engine/performer.ts';
import { ArticleField, field, missing } from './fields.ts';
import type { Tools } from './tools.ts';

/** Checks the article's length; one outside goes back to be written again, then is set aside. */
export function performCheck(tools: Tools): Performer<StepOf<'check'>> {
  return async (step, context) => {
    const article = field(context.fields, 'article', ArticleField);
    if (!article) return missing('article');
    const words = articleWords(await readRevision(tools.ground.db, article.revision));
    const fits = words >= step.words.from && words <= step.words.to;
    const check = { words, from: step.words.from, to: step.words.to, fits };
    if (fits) return { kind: 'done', fields: { check } };
    const standing = {
      text: "UPDATE article SET standing = 'set aside', rev = rev + 1 WHERE id = ?",
      parameters: [article.id],
    };
    const write = context.brief.document.steps.filter((other) => other.kind === 'write').at(-1);
    const times = context.brief.runs.filter((run) => run.opens && run.path === write?.id).length;
    if (step.again > times) return { kind: 'done', fields: { check }, outcome: { kind: 'again', most: step.again } };
    return { kind: 'done', fields: { check }, outcome: { kind: 'set aside' }, writes: [standing] };
  };
}
