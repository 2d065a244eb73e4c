import { EMPTY_ARTICLE, lineOf, type StepOf, slugOf, tidy } from '@grivo/core';
import type { Performer } from '../engine/performer.ts';
import { missing } from '../nouns/articles/fields.ts';
import { addRevision, ensureArticle } from '../nouns/articles/repository.ts';
import type { Tools } from '../ports/tools.ts';
import { filled } from './asking.ts';
import { fetchedParts } from './laidOutParts.ts';

/** Makes a finished text into the article, as it stands: nothing is written; its pictures and videos are fetched. */
export function performLayOut(tools: Tools): Performer<StepOf<'lay out'>> {
  return async (step, context) => {
    const own = await filled(tools, { body: step.body, title: step.title }, context);
    if (!own.ok) return own.result;
    const read = await tools.reader.read('laidOut', { text: own.texts.body, reads: step.reads });
    if (!read.ok || read.value === null)
      return {
        kind: 'failed',
        failure: {
          code: 'page-unreadable',
          address: 'the text',
          reason: read.ok ? 'its parts lie too deep in each other' : read.problem,
        },
      };
    const { body, left } = await fetchedParts(tools, context, read.value.parts);
    if (body.length === 0) return missing('body');
    const notTaken = [...read.value.left, ...left];
    const { language } = context.brief.document;
    const title = own.texts.title.replace(/\s+/g, ' ').trim();
    const { article: document, notes } = tidy(
      {
        ...EMPTY_ARTICLE,
        language,
        title,
        titleChoices: title === '' ? [] : [title],
        slug: slugOf(title),
        keyPhrase: context.brief.subject,
        body,
      },
      { repeats: 'kept' },
    );
    const id = await ensureArticle(
      tools.ground,
      context.brief,
      lineOf(context.brief.nodes, context.run.path),
      language,
    );
    const { revision, words, writes } = await addRevision(tools.ground, id, null, context.run.id, document);
    return {
      kind: 'done',
      fields: {
        article: { id, revision, words },
        title,
        tidied: notes,
        ...(notTaken.length > 0 ? { notTaken } : {}),
      },
      writes,
    };
  };
}
