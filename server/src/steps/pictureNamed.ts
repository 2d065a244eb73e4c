import { alternativeFrom, type StepOf } from '@grivo/core';
import type { StepContext } from '../engine/performer.ts';
import { keepPicture } from '../nouns/pictures/keep.ts';
import type { Tools } from '../ports/tools.ts';
import { subjectOf } from './asking.ts';
import { fetchedPicture } from './fetchedPicture.ts';
import { type Found, figureOf, type PictureWanted } from './picture.ts';

/** Addresses of a field that are tried for one place. */
const MOST_TRIED = 10;

/**
 * The next of the pictures a field names that is not in the article yet: a column with an address, several of them parted
 * by spaces, commas or lines, or a list. One that cannot be had is passed over, and it is said why.
 */
export async function namedPicture(
  tools: Tools,
  { named }: StepOf<'illustrate'>,
  wanted: PictureWanted,
  context: StepContext,
): Promise<Found> {
  const addresses = addressesIn(context.fields[named]);
  if (addresses.length === 0) return { kind: 'none', why: `‘${named}’ names no picture.` };
  const whys: string[] = [];
  for (const address of addresses.slice(0, MOST_TRIED)) {
    const bytes = await fetchedPicture(tools, address, context.signal);
    if (typeof bytes === 'string') {
      whys.push(`${address}: ${bytes}.`);
      continue;
    }
    const said = wordsIn(address);
    const words = alternativeFrom(said, wanted.title) ?? alternativeFrom(subjectOf(context), wanted.title) ?? said;
    const about = { kind: 'still' as const, words, credit: '', origin: address, cost: 0 };
    const kept = await keepPicture(tools.ground.db, bytes, about);
    if (!kept.ok) whys.push(`${address}: ${kept.problem}.`);
    else if (!wanted.there.has(kept.file))
      return { kind: 'picture', from: 'named', figure: figureOf(wanted, kept, words, '') };
  }
  return { kind: 'none', ...(whys.length > 0 ? { why: whys.join(' ') } : {}) };
}

/** Addresses of the web in a value, in its order, each once. */
export function addressesIn(value: unknown): string[] {
  const texts = (Array.isArray(value) ? value : [value]).filter((one) => typeof one === 'string');
  const all = texts.flatMap((text) => text.split(/[\s,;|]+/)).filter((one) => /^https?:\/\//i.test(one));
  return [...new Set(all.filter((one) => URL.canParse(one)))];
}

/** What a picture is called by its file: `glass-weight_2.jpg` is a glass weight. */
export function wordsIn(address: string): string {
  const name = new URL(address).pathname.split('/').at(-1) ?? '';
  const bare = name.replace(/\.[a-z0-9]{2,5}$/i, '').replace(/[-_+.]+|%20/g, ' ');
  return bare
    .replace(/\b\d+\b/g, '')
    .replace(/\s+/g, ' ')
    .trim();
}
