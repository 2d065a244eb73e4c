import { alternativeFrom } from '@grivo/core';
import { chooseOwn } from '../nouns/pictures/choose.ts';
import type { Tools } from '../ports/tools.ts';
import { type Found, figureOf, type PictureWanted } from './picture.ts';

/** A picture of ours whose words fit the article. */
export async function ownPicture(tools: Tools, wanted: PictureWanted): Promise<Found> {
  const { document, title, subject, there } = wanted;
  const about = wanted.lead ? `${title} ${subject} ${document.keyPhrase}` : `${title} ${wanted.about}`;
  const chosen = await chooseOwn(tools.ground.db, about, document.language, there);
  if (!chosen) return { kind: 'none' };
  const { file, width, height, words, credit } = chosen;
  const alternative = alternativeFrom(words, title) ?? words;
  return { kind: 'picture', from: 'own', figure: figureOf(wanted, { file, width, height }, alternative, credit) };
}
