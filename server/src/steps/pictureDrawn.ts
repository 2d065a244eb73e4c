import { alternativeApart, alternativeFor, alternativeFrom, languageName, type StepOf } from '@grivo/core';
import type { StepContext } from '../engine/performer.ts';
import type { Database } from '../ground/store/database.ts';
import { keepPicture } from '../nouns/pictures/keep.ts';
import { changePicture, getPicture, isSaidOfAnother } from '../nouns/pictures/repository.ts';
import type { Tools } from '../ports/tools.ts';
import { instructed, withNote } from './asking.ts';
import { styleFor } from './inStyle.ts';
import { type Found, figureOf, type PictureWanted } from './picture.ts';
import { askerOf, serviceFor } from './tools.ts';
import { fenced } from './writing/fences.ts';
import { picturePrompt } from './writing/prompts.ts';

/** Letters of what is said at its place that the illustrator is told. */
const MOST_SAID = 600;

/** One the illustrator draws. */
export async function drawnPicture(
  tools: Tools,
  step: StepOf<'illustrate'>,
  wanted: PictureWanted,
  context: StepContext,
): Promise<Found> {
  const { document, title, subject, about } = wanted;
  const found = serviceFor(tools, 'illustrator', context);
  if (!found.ok) return { kind: 'ended', result: found.result };
  const own = await instructed(tools, { instruction: step.instruction }, context);
  if (!own.ok) return { kind: 'ended', result: own.result };
  const asked = picturePrompt({
    title,
    subject: about === '' ? subject : `${subject}. ${about.slice(0, MOST_SAID)}`,
    manner: step.manner || ((await styleFor(tools, context, step))?.document.pictures ?? ''),
    language: languageName(document.language),
    instruction: withNote(own.texts.instruction, context),
  });
  const { material: prompt } = fenced(tools.secrets, { instructions: '', material: asked });
  const drew = await tools.illustrator.draw(found.service, prompt, askerOf(tools, context));
  if (!drew.ok) return { kind: 'ended', result: { kind: 'failed', failure: drew.failure } };
  context.spent(drew.value.micros);
  const said = alternativeFrom(drew.value.shows, title) ?? alternativeFor(title, document.language);
  const kept = await keepPicture(tools.ground.db, drew.value.bytes, {
    kind: 'drawn',
    words: said,
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
  const purpose = wanted.lead ? document.keyPhrase || subject : title;
  const alternative = await toldApart(tools.ground.db, kept, said, purpose, document.language);
  return { kind: 'picture', from: 'drawn', figure: figureOf(wanted, kept, alternative, '') };
}

/** What is said of a picture by its maker, told apart from others that say the same. */
async function toldApart(
  db: Database,
  { file, isNew }: { file: string; isNew: boolean },
  said: string,
  subject: string,
  language: string,
): Promise<string> {
  const picture = await getPicture(db, file);
  if (!picture) return said;
  // The same drawing again: told apart as it was before.
  if (!isNew) return picture.words.startsWith(`${said.replace(/[.!]$/, '')}; `) ? picture.words : said;
  if (!(await isSaidOfAnother(db, said, file))) return said;
  const words = alternativeApart(said, subject, language);
  await changePicture(db, file, picture.rev, { words, credit: picture.credit });
  return words;
}
