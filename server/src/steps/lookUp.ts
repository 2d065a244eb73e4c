import { carries, fillTemplate, type StepOf } from '@grivo/core';
import { readPage } from '../adapters/pages.ts';
import type { Performer } from '../engine/performer.ts';
import { storePage } from '../materials/repository.ts';
import { onSubject } from '../writing/selection.ts';
import { field, PassagesField } from './fields.ts';
import { serviceFor, type Tools } from './tools.ts';

/** Looks up pages on the subject, reads them, and keeps their passages. Pages that cannot be read are named and passed over. */
export function performLookUp(tools: Tools): Performer<StepOf<'look up'>> {
  return async (step, context) => {
    const found = serviceFor(tools, 'look-up');
    if (!found.ok) return found.result;
    const subject = fillTemplate(step.subject, context.fields);
    if (!subject.ok) return { kind: 'failed', failure: { code: 'field-missing', field: subject.problem } };
    const language = context.brief.document.language;
    const pages = await tools.lookUp.find(
      found.service,
      { subject: subject.text, pages: step.pages, language, country: step.country, since: step.since },
      context.signal,
    );
    if (!pages.ok) return { kind: 'failed', failure: pages.failure };
    const read = await Promise.all(
      pages.value.map(async ({ address }) => ({
        address,
        read: await readPage(tools, address, language, context.signal),
      })),
    );
    const passages = [];
    const unread: { address: string; reason: string }[] = [];
    for (const { address, read: page } of read) {
      if (page.ok) passages.push(...(await storePage(tools.ground.db, page.page, page.digest)));
      else unread.push({ address, reason: page.reason });
    }
    const fitting = onSubject(passages, subject.text);
    if (fitting.length === 0) return { kind: 'failed', failure: { code: 'nothing-found', subject: subject.text } };
    return {
      kind: 'done',
      fields: {
        passages: [
          ...new Set([...(field(context.fields, 'passages', PassagesField) ?? []), ...fitting.map(({ id }) => id)]),
        ],
        pages: [
          ...new Map(
            fitting.map(({ locator }) => [locator.address, { address: locator.address, title: locator.title }]),
          ).values(),
        ],
        unread,
        carriesWords: carries(fitting),
      },
    };
  };
}
