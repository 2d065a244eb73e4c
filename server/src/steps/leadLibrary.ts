import { alternativeFrom, contentStems, wordsOf } from '@grivo/core';
import type { StepContext } from '../engine/performer.ts';

import { keepPicture } from '../nouns/pictures/keep.ts';
import { originsUsed } from '../nouns/pictures/repository.ts';
import type { LibraryPicture } from '../ports/adapters/pictureLibrary.ts';
import type { ServiceRow } from '../ports/services/entity.ts';
import type { Tools } from '../ports/tools.ts';
import { subjectOf } from './asking.ts';
import { type Found, leadOf } from './lead.ts';
import type { OwnArticle } from './ownArticle.ts';

/** Pictures of a library that are tried before the next library is asked. */
const TRIED = 4;

/**
 * A picture of one of the libraries: each begins in turn, and where one is down or has none that fits, the next is asked. One
 * that stands in another article already is passed over.
 */
export async function libraryLead(tools: Tools, article: OwnArticle, context: StepContext): Promise<Found> {
  const libraries = tools.services.filling('picture library');
  if (libraries.length === 0)
    return { kind: 'ended', result: { kind: 'failed', failure: { code: 'no-service', role: 'picture library' } } };
  const begin = turnOf(context.brief.id, libraries.length);
  const whys: string[] = [];
  for (let n = 0; n < libraries.length; n++) {
    const library = libraries[(begin + n) % libraries.length]!;
    const found = await from(tools, library, article, context);
    if (typeof found !== 'string') return found;
    whys.push(`${library.name}: ${found}`);
  }
  return { kind: 'none', why: whys.join(' ') };
}

/** Whose turn it is: briefs are made one after the other, so their numbers are evenly spread. */
const turnOf = (brief: string, many: number): number =>
  [...brief].reduce((sum, letter) => (sum * 31 + letter.charCodeAt(0)) % 1_000_003, 7) % many;

async function from(
  tools: Tools,
  library: ServiceRow,
  { document }: OwnArticle,
  context: StepContext,
): Promise<Found | string> {
  const subject = subjectOf(context);
  const looked = await tools.pictureLibrary.find(library, subject, document.language, context.signal);
  if (!looked.ok) return wordsOf(looked.failure, () => library.name).sentence;
  const fitting = await unused(tools, fittingOf(looked.value, `${subject} ${document.keyPhrase}`, document.language));
  if (fitting.length === 0)
    return looked.value.length === 0 ? 'it has no picture of this.' : 'none that fits is still unused.';
  let last = '';
  for (const picture of fitting.slice(0, TRIED)) {
    const brought = await bring(tools, library, picture, context.signal);
    if (!brought.ok) {
      last = brought.why;
      continue;
    }
    const lead = leadOf(brought, alternativeFrom(picture.shows, document.title) ?? picture.shows, picture.credit);
    const { page } = picture;
    return {
      kind: 'picture',
      from: 'library',
      lead:
        page === null || !lead.credit
          ? lead
          : { ...lead, credit: [{ text: picture.credit, link: { to: 'address', address: page } }] },
    };
  }
  return last;
}

/** Pictures that have a word of the subject in what they show, those with most of them first. */
function fittingOf(pictures: readonly LibraryPicture[], about: string, language: string): LibraryPicture[] {
  const words = new Set(contentStems(about, language));
  const shared = ({ shows }: LibraryPicture) =>
    new Set(contentStems(shows, language).filter((stem) => words.has(stem))).size;
  return pictures
    .map((picture) => ({ picture, fits: shared(picture) }))
    .filter(({ fits }) => fits > 0)
    .sort((a, b) => b.fits - a.fits)
    .map(({ picture }) => picture);
}

async function unused({ ground }: Tools, pictures: readonly LibraryPicture[]): Promise<LibraryPicture[]> {
  const used = await originsUsed(
    ground.db,
    pictures.map((one) => one.page ?? one.file),
  );
  return pictures.filter((one) => !used.has(one.page ?? one.file));
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
    origin: picture.page ?? picture.file,
    cost: 0,
  });
  return kept.ok ? kept : { ok: false, why: kept.problem };
}
