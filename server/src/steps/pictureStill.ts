import type { StepContext } from '../engine/performer.ts';
import { keepPicture } from '../nouns/pictures/keep.ts';
import type { Tools } from '../ports/tools.ts';
import { type Found, figureOf, type PictureWanted } from './picture.ts';
import { stillOf } from './writing/source.ts';

const TIME_LIMIT_MS = 20_000;
const MOST_BYTES = 15_000_000;

/** The still of the video an article is made from, or the picture its product has. */
export async function stillPicture(tools: Tools, wanted: PictureWanted, { fields }: StepContext): Promise<Found> {
  const source = stillOf(fields);
  if (!source) return { kind: 'none' };
  const outcome = await tools.network.call({
    method: 'GET',
    address: source.picture,
    timeLimitMs: TIME_LIMIT_MS,
    maxBytes: MOST_BYTES,
  });
  if (outcome.kind !== 'reply' || outcome.reply.status !== 200) return { kind: 'none' };
  const german = wanted.document.language.startsWith('de');
  const words = `${german ? 'Standbild aus' : 'Still of'} ${german ? '„' : '“'}${source.title}${german ? '“' : '”'}`;
  const credit = source.by || (source.address === '' ? '' : new URL(source.address).host);
  const kept = await keepPicture(tools.ground.db, outcome.reply.body, {
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
