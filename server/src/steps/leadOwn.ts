import { alternativeFrom } from '@grivo/core';
import type { StepContext } from '../engine/performer.ts';
import { chooseOwn } from '../nouns/pictures/choose.ts';
import type { Tools } from '../ports/tools.ts';
import { subjectOf } from './asking.ts';
import { type Found, leadOf } from './lead.ts';
import type { OwnArticle } from './ownArticle.ts';

/** A picture of ours whose words fit the article. */
export async function ownLead(tools: Tools, { document }: OwnArticle, context: StepContext): Promise<Found> {
  const about = `${document.title} ${subjectOf(context)} ${document.keyPhrase}`;
  const chosen = await chooseOwn(tools.ground.db, about, document.language);
  if (!chosen) return { kind: 'none' };
  const { file, width, height, words, credit } = chosen;
  const alternative = alternativeFrom(words, document.title) ?? words;
  return { kind: 'picture', from: 'own', lead: leadOf({ file, width, height }, alternative, credit) };
}
