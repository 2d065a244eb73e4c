import {
  BringPicture,
  BroughtPicture,
  CutPicture,
  Picture,
  PictureChange,
  Pictures,
  PicturesQuery,
  PictureWhole,
} from '@grivo/contract';
import { alikeness } from '../formats/pictures/look.ts';
import { fileAbout } from '../ground/files/repository.ts';
import { keepCut, keepUploaded, MOST_PICTURE_BYTES } from '../nouns/pictures/keep.ts';
import {
  changePicture,
  getPicture,
  listPictures,
  looksOfPictures,
  type PictureRow,
  removePicture,
  sumsOfPictures,
  usesOfPicture,
} from '../nouns/pictures/repository.ts';
import { notFound, problem } from './problem.ts';
import type { Product } from './product.ts';
import { type Route, route } from './route.ts';
import { changedMeanwhile, revFrom } from './tags.ts';

const SHOWN = 120;
/** From here on two pictures look nearly the same. */
const NEARLY = 0.9;
const MOST_ALIKE = 8;

/** A picture as it is answered. */
export const shownPicture = ({ look: _, made: __, ...picture }: PictureRow): Picture => picture;
const shown = shownPicture;

/** The library of pictures. */
export function pictureRoutes(product: Product): Route[] {
  return [...library(product), ...bringing(product), ...cutting(product), ...changing(product)];
}

async function must({ ground: { db } }: Product, file: string): Promise<PictureRow> {
  const picture = await getPicture(db, file);
  if (!picture) throw notFound('picture');
  return picture;
}

function library(product: Product): Route[] {
  const { db } = product.ground;
  return [
    route({
      method: 'get',
      path: '/pictures',
      says: 'Pictures of the library, newest first, with sums over all of them',
      role: 'proofreader',
      query: PicturesQuery,
      answer: Pictures,
      handle: async ({ query: { find, kind = null, unused, from } }) => {
        const [rows, sums] = await Promise.all([
          listPictures(db, { find, kind, unused, from, most: SHOWN + 1 }),
          sumsOfPictures(db),
        ]);
        return {
          pictures: rows.slice(0, SHOWN).map(shown),
          next: rows.length > SHOWN ? from + SHOWN : null,
          sums,
        };
      },
    }),
    route({
      method: 'get',
      path: '/pictures/{file}',
      says: 'A picture, the articles that have it, and others that look nearly the same',
      role: 'proofreader',
      answer: PictureWhole,
      handle: async ({ params }) => {
        const picture = await must(product, params['file']!);
        const looks = picture.look === null ? [] : await looksOfPictures(db);
        const alike = looks
          .filter(({ file }) => file !== picture.file)
          .map(({ look, ...one }) => ({ ...one, share: alikeness(look, picture.look!) }))
          .filter(({ share }) => share >= NEARLY)
          .sort((a, b) => b.share - a.share)
          .slice(0, MOST_ALIKE);
        return { picture: shown(picture), usedIn: await usesOfPicture(db, picture.file), alike };
      },
    }),
  ];
}

function bringing({ ground: { db } }: Product): Route[] {
  return [
    route({
      method: 'post',
      path: '/pictures',
      says: 'Keeps an uploaded picture in the library, at a size for the web',
      role: 'editor',
      body: BringPicture,
      answer: BroughtPicture,
      status: 200,
      handle: async ({ body: { file, words, credit } }) => {
        const about = await fileAbout(db, file);
        if (!about) throw notFound('file');
        if (about.bytes > MOST_PICTURE_BYTES)
          throw problem(
            422,
            'Too large',
            `It has ${Math.round(about.bytes / 1_000_000)} MB; a picture may have ${MOST_PICTURE_BYTES / 1_000_000}.`,
            'Save it smaller: 1,600 pixels wide are enough.',
          );
        const kept = await keepUploaded(db, file, { kind: 'own', words, credit, origin: '', cost: 0 });
        if (!kept.ok)
          throw problem(
            422,
            'No picture',
            `The file cannot be used: ${kept.problem}.`,
            'Choose a PNG, JPEG, WebP or AVIF.',
          );
        return { file: kept.file, isNew: kept.isNew };
      },
    }),
  ];
}

/** A picture cut to other sides. */
function cutting(product: Product): Route[] {
  return [
    route({
      method: 'post',
      path: '/pictures/{file}/cut',
      says: 'Cuts a picture to other sides; the one it is cut from stays',
      role: 'proofreader',
      body: CutPicture,
      answer: Picture,
      status: 200,
      handle: async ({ params, body: { ratio, keep } }) => {
        const [wide = 1, high = 1] = ratio.split(':').map(Number);
        const kept = await keepCut(product.ground.db, params['file']!, { wide, high, keep });
        if (!kept) throw notFound('picture');
        if (!kept.ok) throw problem(422, 'Not cut', `It cannot be cut: ${kept.problem}.`, 'Choose another picture.');
        return shown(await must(product, kept.file));
      },
    }),
  ];
}

/** What is said of a picture, and taking it out. */
function changing(product: Product): Route[] {
  const { db } = product.ground;
  return [
    route({
      method: 'patch',
      path: '/pictures/{file}',
      says: 'Changes what is said of a picture; articles that have it keep their own words',
      role: 'editor',
      body: PictureChange,
      answer: Picture,
      handle: async ({ params, body, request }) => {
        const now = await must(product, params['file']!);
        if (!(await changePicture(db, now.file, revFrom(request), body)))
          throw changedMeanwhile('picture', shown(await must(product, now.file)));
        return shown(await must(product, now.file));
      },
    }),
    route({
      method: 'delete',
      path: '/pictures/{file}',
      says: 'Takes a picture out of the library that no article has',
      role: 'editor',
      handle: async ({ params }) => {
        const { file, uses } = await must(product, params['file']!);
        if (!(await removePicture(db, file)))
          throw problem(
            409,
            'In use',
            `${uses === 1 ? 'One article has it' : `${uses} articles have it`}.`,
            'Give them another picture first.',
          );
      },
    }),
  ];
}
