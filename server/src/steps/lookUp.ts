import {
  carries,
  fittingOf,
  leastOf,
  nothingFound,
  type Outcome,
  oursAlready,
  type Passage,
  type StepOf,
} from '@grivo/core';
import type { Performer } from '../engine/performer.ts';
import { field, PassagesField } from '../nouns/articles/fields.ts';
import { type OnSubject, onSameSubject } from '../nouns/briefs/oneSubject.ts';
import { storePage } from '../nouns/materials/repository.ts';
import { readPage } from '../ports/adapters/pages.ts';
import type { Tools } from '../ports/tools.ts';
import { filled } from './asking.ts';
import { serviceFor } from './tools.ts';

/** Looks up pages on the subject, reads them, and keeps their passages. Pages that cannot be read are named and passed over. */
export function performLookUp(tools: Tools): Performer<StepOf<'look up'>> {
  return async (step, context) => {
    const found = serviceFor(tools, 'look-up', context);
    if (!found.ok) return found.result;
    const own = await filled(tools, { subject: step.subject }, context);
    if (!own.ok) return own.result;
    const language = context.brief.document.language;
    const pages = await tools.lookUp.find(
      found.service,
      { subject: own.texts.subject, pages: step.pages, language, country: step.country, since: step.since },
      context.signal,
    );
    if (!pages.ok) return { kind: 'failed', failure: pages.failure };
    const read = await Promise.all(
      pages.value.map(async ({ address }) => ({
        address,
        read: await readPage(tools, address, language, context.signal),
      })),
    );
    const passages: Passage[] = [];
    const unread: { address: string; reason: string }[] = [];
    for (const { address, read: page } of read) {
      if (page.ok) passages.push(...(await storePage(tools.ground.db, page.page, page.digest)));
      else unread.push({ address, reason: page.reason });
    }
    const held = heldAgainst(own.texts.subject, passages);
    const ours = step.ours ? await onSameSubject(tools.ground.db, context.brief, context.brief.document) : null;
    const enough = held.fitting.length >= leastOf(step) && held.answered;
    const lack = {
      subject: own.texts.subject,
      pages: held.found.length,
      fitting: held.fitting.length,
      lacking: held.lacking,
      unanswered: held.unanswered,
    };
    if (!enough && step.otherwise === 'stop it') return { kind: 'failed', failure: { code: 'nothing-found', ...lack } };
    if (ours && step.otherwise === 'stop it')
      return { kind: 'failed', failure: { code: 'ours-already', subject: ours.subject, title: ours.title } };
    // A person who lets it go on all the same has what was found.
    const used = enough ? held.fitting : held.found;
    const from = used.flatMap(({ passages }) => passages);
    const fields = {
      passages: [
        ...new Set([...(field(context.fields, 'passages', PassagesField) ?? []), ...from.map(({ id }) => id)]),
      ],
      pages: used.map(({ address, title }) => ({ address, title })),
      unread,
      carriesWords: carries(from),
      fitting: { pages: lack.fitting, of: lack.pages, lacking: lack.lacking, unanswered: lack.unanswered },
      ...(ours ? { ours } : {}),
    };
    if (enough && !ours) return { kind: 'done', fields };
    return step.otherwise === 'hold it for me'
      ? { kind: 'held', fields }
      : { kind: 'done', fields, outcome: ours ? asOurs(ours) : { kind: 'set aside', why: nothingFound(lack) } };
  };
}

/** Set aside for what else of ours is on the subject. */
const asOurs = (ours: OnSubject): Outcome => ({ kind: 'set aside', why: oursAlready(ours), code: 'ours-already' });

interface FoundPage {
  address: string;
  title: string;
  passages: Passage[];
}

/** Pages that were found, those of them that speak of the subject, and whether one answers it. */
function heldAgainst(
  subject: string,
  passages: readonly Passage[],
): { found: FoundPage[]; fitting: FoundPage[]; answered: boolean; lacking: string[]; unanswered: string[] } {
  const byAddress = new Map<string, FoundPage>();
  for (const passage of passages) {
    const { address, title } = passage.locator;
    const page = byAddress.get(address) ?? { address, title, passages: [] };
    page.passages.push(passage);
    byAddress.set(address, page);
  }
  const found = [...byAddress.values()];
  const { fits, answers, lacking, unanswered } = fittingOf(
    subject,
    found.map(({ title, passages: own }) => ({
      title,
      paragraphs: own.map(({ text }) => text),
      language: own[0]!.language,
    })),
  );
  return {
    found,
    fitting: found.filter((_, i) => fits[i]),
    answered: answers.some(Boolean),
    lacking,
    unanswered,
  };
}
