import type { StepOf } from '@grivo/core';
import type { StepContext } from '../engine/performer.ts';
import { keepPicture } from '../nouns/pictures/keep.ts';
import type { Tools } from '../ports/tools.ts';
import { fetchedPicture } from './fetchedPicture.ts';
import { type Found, figureOf, type PictureWanted } from './picture.ts';
import { sourceOf, stillOf } from './writing/source.ts';

/** The still of the video an article is made from, a moment of its film, or the picture its product has. */
export async function stillPicture(
  tools: Tools,
  { second }: StepOf<'illustrate'>,
  wanted: PictureWanted,
  { fields, signal }: StepContext,
): Promise<Found> {
  if (second !== null) return momentPicture(tools, second, wanted, { fields, signal });
  const source = stillOf(fields);
  if (!source) return { kind: 'none' };
  const bytes = await fetchedPicture(tools, source.picture, signal);
  if (typeof bytes === 'string') return { kind: 'none' };
  return keptStill(tools, bytes, wanted, source, '');
}

/** A moment of the film an article is made from, where its host gives the film itself. */
async function momentPicture(
  tools: Tools,
  second: number,
  wanted: PictureWanted,
  { fields, signal }: Pick<StepContext, 'fields' | 'signal'>,
): Promise<Found> {
  const source = sourceOf(fields);
  const none = (why: string): Found => ({ kind: 'none', why });
  if (!source?.film) return none(source ? 'Its host gives no film, only a still.' : 'It is made from no film.');
  if (!tools.camera) return none('There is no browser on this machine, so no film can be opened.');
  const shot = await tools.camera.moment(source.film, second, signal);
  if (!shot.ok) return none(`The film cannot be opened at ${clockOf(second)}: ${shot.why}.`);
  return keptStill(
    tools,
    shot.png,
    wanted,
    source,
    ` ${wanted.document.language.startsWith('de') ? 'bei' : 'at'} ${clockOf(second)}`,
  );
}

const clockOf = (second: number): string => `${Math.floor(second / 60)}:${String(second % 60).padStart(2, '0')}`;

async function keptStill(
  tools: Tools,
  bytes: Buffer,
  wanted: PictureWanted,
  source: { title: string; by: string; address: string },
  at: string,
): Promise<Found> {
  const german = wanted.document.language.startsWith('de');
  const words = `${german ? 'Standbild aus' : 'Still of'} ${german ? '„' : '“'}${source.title}${german ? '“' : '”'}${at}`;
  const credit = source.by || (source.address === '' ? '' : new URL(source.address).host);
  const kept = await keepPicture(tools.ground.db, bytes, {
    kind: 'still',
    words,
    credit,
    origin: source.address,
    cost: 0,
  });
  if (!kept.ok) return { kind: 'none' };
  // There is one of it.
  if (wanted.there.has(kept.file)) return { kind: 'none' };
  return { kind: 'picture', from: 'still', figure: figureOf(wanted, kept, words, credit, source.address) };
}
