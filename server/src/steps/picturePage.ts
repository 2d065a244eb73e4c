import type { StepOf } from '@grivo/core';
import sharp from 'sharp';
import type { StepContext } from '../engine/performer.ts';
import { keepPicture } from '../nouns/pictures/keep.ts';
import type { Tools } from '../ports/tools.ts';
import { type Found, figureOf, type PictureWanted } from './picture.ts';
import { sourceOf } from './writing/source.ts';

/** How little a picture may vary, in bits a dot, before it is taken for an empty page (Shannon 1948). */
const LEAST_ENTROPY = 0.05;

/** A picture of a page as a browser shows it: of the one an article is made from, or of one a field names. */
export async function pagePicture(
  { camera, ground }: Tools,
  { named }: StepOf<'illustrate'>,
  wanted: PictureWanted,
  { fields, signal }: StepContext,
): Promise<Found> {
  if (!camera) return { kind: 'none', why: 'There is no browser on this machine, so no page can be pictured.' };
  const given = named === '' ? sourceOf(fields)?.address : fields[named];
  const address = typeof given === 'string' ? given.trim() : '';
  if (address === '')
    return { kind: 'none', why: named === '' ? 'It is made from no page.' : `${named} has no address.` };
  const shot = await camera.picture(address, signal);
  if (!shot.ok) return { kind: 'none', why: `${address.slice(0, 200)} cannot be pictured: ${shot.why}.` };
  if ((await sharp(shot.png).stats()).entropy < LEAST_ENTROPY)
    return { kind: 'none', why: `${address.slice(0, 200)} shows nothing but one colour.` };
  const { host } = new URL(shot.address);
  const words = wanted.document.language.startsWith('de')
    ? `Die Seite „${shot.title || host}“ auf ${host}`
    : `The page “${shot.title || host}” at ${host}`;
  const about = { kind: 'still' as const, words, credit: host, origin: shot.address, cost: 0 };
  const kept = await keepPicture(ground.db, shot.png, about);
  if (!kept.ok) return { kind: 'none', why: `${address.slice(0, 200)}: ${kept.problem}.` };
  if (wanted.there.has(kept.file)) return { kind: 'none' };
  return { kind: 'picture', from: 'page', figure: figureOf(wanted, kept, words, host, shot.address) };
}
