import type { ArticleWhole } from '@grivo/contract';
import { stepKinds as k, type ProcedureDocument, type Step } from '@grivo/core';
import type { Desk } from './desk.ts';

/** Makes articles that are laid out and illustrated as a step says. */
export function illustrating(desk: () => Desk) {
  let n = 0;
  /** The article and its lead picture; null without one. */
  return async function illustrated(
    subject: string,
    lead: object,
    before: readonly Step[] = [],
    request: object = {},
    laidOut: object = {},
    after: readonly Step[] = [],
  ) {
    n++;
    const { ask, w } = desk();
    const source = await ask<{ id: string }>('POST', '/sources', {
      name: `Typed ${n}`,
      settings: { kind: 'requests' },
    });
    await ask('POST', `/sources/${source.body.id}/requests`, { subject, notes: 'A peg is turned.', ...request });
    const document = {
      grivo: 1,
      language: 'en',
      steps: [
        { ...k.take.fresh('s1'), sources: [source.body.id], most: null },
        ...before,
        { ...k['lay out'].fresh('s2'), body: `Of ${subject} much is said.`, reads: 'plain text', ...laidOut },
        { ...k.illustrate.fresh('s3'), ...lead },
        ...after,
      ],
    } as ProcedureDocument;
    const made = await ask<{ id: string }>('POST', '/pipelines', { name: `Laid out ${n}`, document });
    const { briefs } = (await ask<{ briefs: string[] }>('POST', `/pipelines/${made.body.id}/take`, {})).body;
    await w.settled(briefs, ['out']);
    const [row] = await w.product.ground.db.rows<{ id: string }>('SELECT id FROM article WHERE brief = ?', briefs);
    const article = (await ask<ArticleWhole>('GET', `/articles/${row!.id}`)).body;
    const figure = article.document.body.find((block) => block.type === 'figure' && block.lead);
    return { article, lead: figure?.type === 'figure' ? figure : null };
  };
}
