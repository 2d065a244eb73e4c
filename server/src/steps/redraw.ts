import { type ArticleDocument, alternativeFrom, languageName, type Micros } from '@grivo/core';
import { keepPicture } from '../nouns/pictures/keep.ts';
import type { Result } from '../ports/outcome/outcome.ts';
import type { ServiceRow } from '../ports/services/entity.ts';
import type { Tools } from '../ports/tools.ts';
import { fenced } from './writing/fences.ts';
import { picturePrompt } from './writing/prompts.ts';

export interface Redraw {
  document: Pick<ArticleDocument, 'title' | 'keyPhrase' | 'language'>;
  /** What the picture shows as it is. */
  shows: string;
  /** What is to be otherwise. */
  note: string;
  manner: string;
}

/**
 * Has a picture of an article drawn anew with a note, and keeps what comes in the library; the article stays as it is.
 * @returns the file of the new picture
 */
export async function redraw(
  tools: Tools,
  service: ServiceRow,
  { document, shows, note, manner }: Redraw,
  asker: { stepRun: string; draw: number; signal: AbortSignal },
): Promise<Result<{ file: string; micros: Micros }>> {
  const subject = document.keyPhrase || document.title;
  const asked = picturePrompt({
    title: document.title,
    subject: shows === '' ? subject : `${subject}. The picture before this one showed: ${shows}`,
    manner,
    language: languageName(document.language),
    instruction: note,
  });
  const { material: prompt } = fenced(tools.secrets, { instructions: '', material: asked });
  const drew = await tools.illustrator.draw(service, prompt, { holder: tools.holder(), ...asker });
  if (!drew.ok) return drew;
  const { bytes, shows: says, micros } = drew.value;
  const kept = await keepPicture(tools.ground.db, bytes, {
    kind: 'drawn',
    words: alternativeFrom(says, document.title) ?? shows,
    credit: '',
    origin: service.name,
    cost: micros,
  });
  return kept.ok
    ? { ok: true, value: { file: kept.file, micros } }
    : { ok: false, failure: { code: 'reply-unusable', service: service.id, problem: kept.problem } };
}
