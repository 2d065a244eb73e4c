import { alternativeFrom, contentStems, wordsOf } from '@grivo/core';
import type { StepContext } from '../engine/performer.ts';

import { keepPicture } from '../nouns/pictures/keep.ts';
import { originsUsed } from '../nouns/pictures/repository.ts';
import type { LibraryPicture } from '../ports/adapters/pictureLibrary.ts';
import type { ServiceRow } from '../ports/services/entity.ts';
import type { Tools } from '../ports/tools.ts';
import { type Found, figureOf, type PictureWanted } from './picture.ts';

/** Pictures that are tried before there is none. */
const TRIED = 6;
/** Share of the words of a subject that a picture must show. */
const LEAST_FIT = 1 / 3;

interface Candidate {
  library: ServiceRow;
  picture: LibraryPicture;
  /** Share of the words of the subject it shows. */
  fits: number;
}

/**
 * The picture of all libraries that fits best; of those that fit alike, the one of the library whose turn it is. One that is down
 * is passed over, and so is a picture that is ours already: it stands in another article, or was brought in for one.
 */
export async function libraryPicture(tools: Tools, wanted: PictureWanted, context: StepContext): Promise<Found> {
  const libraries = tools.services.filling('picture library');
  if (libraries.length === 0)
    return { kind: 'ended', result: { kind: 'failed', failure: { code: 'no-service', role: 'picture library' } } };
  const { document, subject } = wanted;
  const begin = turnOf(context.brief.id, libraries.length);
  const whys: string[] = [];
  const all: Candidate[] = [];
  for (const library of [...libraries.slice(begin), ...libraries.slice(0, begin)]) {
    const looked = await tools.pictureLibrary.find(library, subject, document.language, context.signal);
    if (!looked.ok) whys.push(`${library.name}: ${wordsOf(looked.failure, () => library.name).sentence}`);
    else all.push(...fittingOf(library, looked.value, subject, document.language));
  }
  const fitting = await unused(
    tools,
    all.sort((one, other) => other.fits - one.fits),
  );
  if (fitting.length === 0)
    whys.push(all.length === 0 ? 'No library has a picture that fits.' : 'All pictures that fit are ours already.');
  for (const { library, picture } of fitting.slice(0, TRIED)) {
    const brought = await bring(tools, library, picture, context.signal);
    const { shows, credit, page } = picture;
    const alternative = alternativeFrom(shows, wanted.title) ?? shows;
    if (brought.ok)
      return { kind: 'picture', from: 'library', figure: figureOf(wanted, brought, alternative, credit, page) };
    whys.push(`${library.name}: ${brought.why}`);
  }
  return { kind: 'none', why: whys.join(' ') };
}

/** Whose turn it is: briefs are made one after the other, so their numbers are evenly spread. */
const turnOf = (brief: string, many: number): number =>
  [...brief].reduce((sum, letter) => (sum * 31 + letter.charCodeAt(0)) % 1_000_003, 7) % many;

/** Pictures that show enough of what the subject says. */
function fittingOf(
  library: ServiceRow,
  pictures: readonly LibraryPicture[],
  subject: string,
  language: string,
): Candidate[] {
  const words = new Set(contentStems(subject, language));
  const fit = ({ shows }: LibraryPicture) =>
    new Set(contentStems(shows, language).filter((stem) => words.has(stem))).size / Math.max(1, words.size);
  return pictures.map((picture) => ({ library, picture, fits: fit(picture) })).filter(({ fits }) => fits >= LEAST_FIT);
}

const placeOf = ({ page, file }: LibraryPicture): string => page ?? file;

async function unused({ ground }: Tools, candidates: readonly Candidate[]): Promise<Candidate[]> {
  const used = await originsUsed(
    ground.db,
    candidates.map(({ picture }) => placeOf(picture)),
  );
  return candidates.filter(({ picture }) => !used.has(placeOf(picture)));
}

/** Brings a picture of a library into ours. */
export async function bring(
  { ground, pictureLibrary }: Pick<Tools, 'ground' | 'pictureLibrary'>,
  library: ServiceRow,
  picture: LibraryPicture,
  signal: AbortSignal,
): Promise<{ ok: true; file: string; width: number; height: number } | { ok: false; why: string }> {
  const brought = await pictureLibrary.bring(library, picture, signal);
  if (!brought.ok) return { ok: false, why: wordsOf(brought.failure, () => library.name).sentence };
  const kept = await keepPicture(ground.db, brought.value, {
    kind: 'library',
    words: picture.shows,
    credit: picture.credit,
    origin: placeOf(picture),
    cost: 0,
  });
  return kept.ok ? kept : { ok: false, why: kept.problem };
}
