import { type Block, mayDraw, type StepOf } from '@grivo/core';
import type { Performer, StepContext } from '../engine/performer.ts';
import { missing } from '../nouns/articles/fields.ts';
import type { Tools } from '../ports/tools.ts';
import type { Found } from './lead.ts';
import { cardLead } from './leadCard.ts';
import { drawnLead } from './leadDrawn.ts';
import { libraryLead } from './leadLibrary.ts';
import { ownLead } from './leadOwn.ts';
import { stillLead } from './leadStill.ts';
import { type OwnArticle, ownArticle } from './ownArticle.ts';

type Step = StepOf<'illustrate'>;

const LEADS: Record<
  Step['lead'],
  (tools: Tools, step: Step, article: OwnArticle, context: StepContext) => Promise<Found>
> = {
  drawn: drawnLead,
  own: (tools, _, article, context) => ownLead(tools, article, context),
  still: (tools, _, article, context) => stillLead(tools, article, context),
  library: (tools, _, article, context) => libraryLead(tools, article, context),
  card: cardLead,
};

/** Puts a lead picture at the head of the article: of the kind the step asks for, else a drawn one where it may be. */
export function performIllustrate(tools: Tools): Performer<Step> {
  return async (step, context) => {
    const article = await ownArticle(tools, context);
    if (!article) return missing('article');
    let found = await LEADS[step.lead](tools, step, article, context);
    const why = found.kind === 'none' ? found.why : undefined;
    if (found.kind === 'none' && step.lead !== 'drawn' && mayDraw(step))
      found = await drawnLead(tools, step, article, context);
    if (found.kind === 'ended') return found.result;
    const { document } = article;
    const before = document.body.filter((block) => !(block.type === 'figure' && block.lead));
    const body: Block[] = found.kind === 'none' ? before : [found.lead, ...before];
    const { article: changed, writes } = await article.change({ ...document, body });
    const picture =
      found.kind === 'none'
        ? null
        : { file: found.lead.file, width: found.lead.width, height: found.lead.height, from: found.from };
    return { kind: 'done', fields: { article: changed, picture, ...(why ? { pictureSaid: why } : {}) }, writes };
  };
}
