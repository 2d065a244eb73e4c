import { alternativeFor, alternativeFrom, languageName, type StepOf } from '@grivo/core';
import type { StepContext } from '../engine/performer.ts';
import { keepPicture } from '../nouns/pictures/keep.ts';
import type { Tools } from '../ports/tools.ts';
import { instructed, subjectOf, withNote } from './asking.ts';
import { styleFor } from './inStyle.ts';
import { type Found, leadOf } from './lead.ts';
import type { OwnArticle } from './ownArticle.ts';
import { askerOf, serviceFor } from './tools.ts';
import { fenced } from './writing/fences.ts';
import { picturePrompt } from './writing/prompts.ts';

/** One the illustrator draws. */
export async function drawnLead(
  tools: Tools,
  step: StepOf<'illustrate'>,
  { document }: OwnArticle,
  context: StepContext,
): Promise<Found> {
  const found = serviceFor(tools, 'illustrator', context);
  if (!found.ok) return { kind: 'ended', result: found.result };
  const own = await instructed(tools, { instruction: step.instruction }, context);
  if (!own.ok) return { kind: 'ended', result: own.result };
  const asked = picturePrompt({
    title: document.title,
    subject: subjectOf(context),
    manner: step.manner || ((await styleFor(tools, context, step))?.document.pictures ?? ''),
    language: languageName(document.language),
    instruction: withNote(own.texts.instruction, context),
  });
  const { material: prompt } = fenced(tools.secrets, { instructions: '', material: asked });
  const drew = await tools.illustrator.draw(found.service, prompt, askerOf(tools, context));
  if (!drew.ok) return { kind: 'ended', result: { kind: 'failed', failure: drew.failure } };
  context.spent(drew.value.micros);
  const alternative =
    alternativeFrom(drew.value.shows, document.title) ?? alternativeFor(document.title, document.language);
  const kept = await keepPicture(tools.ground.db, drew.value.bytes, {
    kind: 'drawn',
    words: alternative,
    credit: '',
    origin: found.service.name,
    cost: drew.value.micros,
  });
  if (!kept.ok)
    return {
      kind: 'ended',
      result: {
        kind: 'failed',
        failure: { code: 'reply-unusable', service: found.service.id, problem: kept.problem },
      },
    };
  return { kind: 'picture', from: 'drawn', lead: leadOf(kept, alternative, '') };
}
