import { BringFound, FoundPictures, FoundPicturesQuery, Picture } from '@grivo/contract';
import { pressedWords } from '@grivo/core';
import { thumbOf } from '../formats/pictures/drawing.ts';
import { getPicture, originsUsed } from '../nouns/pictures/repository.ts';
import type { LibraryPicture } from '../ports/adapters/pictureLibrary.ts';
import type { ServiceRow } from '../ports/services/entity.ts';
import { bring } from '../steps/pictureLibrary.ts';
import { shownPicture } from './pictures.ts';
import { notFound, problem } from './problem.ts';
import type { Product } from './product.ts';
import { type Route, route } from './route.ts';

/** Pictures shown of each library. */
const SHOWN = 8;
const THUMB = 240;
const LONGEST_MS = 20_000;

/** Picture libraries, searched by hand before an article or in it. */
export function libraryRoutes(product: Product): Route[] {
  const {
    ground: { db },
    tools,
  } = product;
  const shown = async (library: ServiceRow, picture: LibraryPicture, used: ReadonlySet<string>) => {
    const brought = await tools.pictureLibrary.bring(library, picture, AbortSignal.timeout(LONGEST_MS));
    const thumb = brought.ok ? await thumbOf(brought.value, THUMB) : null;
    const { id, shows, credit, page, file } = picture;
    return thumb === null ? [] : [{ id, shows, credit, thumb, isUsed: used.has(page ?? file) }];
  };
  return [
    route({
      method: 'get',
      path: '/libraries/pictures',
      says: 'Pictures of the picture libraries that fit some words; nothing is kept',
      role: 'editor',
      query: FoundPicturesQuery,
      answer: FoundPictures,
      handle: async ({ query: { words, language } }) => ({
        libraries: await Promise.all(
          librariesOf(product).map(async (library) => {
            const { id, name } = library;
            const found = await tools.pictureLibrary.find(library, words, language, AbortSignal.timeout(LONGEST_MS));
            if (!found.ok) return { id, name, pictures: [], problem: pressedWords(found.failure, () => name).sentence };
            const some = found.value.slice(0, SHOWN);
            const used = await originsUsed(
              db,
              some.map(({ page, file }) => page ?? file),
            );
            const pictures = (await Promise.all(some.map((one) => shown(library, one, used)))).flat();
            return { id, name, pictures, problem: null };
          }),
        ),
      }),
    }),
    ...bringing(product),
  ];
}

const librariesOf = ({ tools }: Product): ServiceRow[] => tools.services.filling('picture library');

/** A picture brought in. */
function bringing(product: Product): Route[] {
  const {
    ground: { db },
    tools,
  } = product;
  return [
    route({
      method: 'post',
      path: '/libraries/{id}/pictures',
      says: 'Brings a picture of a picture library into ours, with its credit',
      role: 'editor',
      body: BringFound,
      answer: Picture,
      status: 200,
      handle: async ({ params, body: { words, language, picture: id } }) => {
        const library = librariesOf(product).find((one) => one.id === params['id']);
        if (!library) throw notFound('picture library');
        // What is brought is what the library says of it now, not what somebody sent.
        const found = await tools.pictureLibrary.find(library, words, language, AbortSignal.timeout(LONGEST_MS));
        if (!found.ok) {
          const { sentence, mend } = pressedWords(found.failure, () => library.name);
          throw problem(502, 'Not brought', sentence, mend);
        }
        const picture = found.value.find((one) => one.id === id);
        if (!picture) throw notFound('picture');
        const brought = await bring(tools, library, picture, AbortSignal.timeout(LONGEST_MS));
        if (!brought.ok)
          throw problem(
            502,
            'Not brought',
            `It cannot be brought: ${brought.why}`,
            'Choose another, or try again later.',
          );
        const kept = await getPicture(db, brought.file);
        if (!kept) throw notFound('picture');
        return shownPicture(kept);
      },
    }),
  ];
}
