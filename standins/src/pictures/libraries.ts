import { createHash } from 'node:crypto';
import { type Request, Router } from 'express';
import type { Answer, Troubles } from '../ground/trouble.ts';
import { stemsOf } from '../words/language.ts';
import { draw } from './draw.ts';

interface Library {
  slug: string;
  name: string;
  licence: { name: string; address: string };
  /** Whether whoever shows a picture owes its maker a mention. */
  owed: boolean;
  makers: readonly string[];
  /** What its pictures show. */
  shows: readonly string[];
}

/** Two libraries of made-up photographs: what stands in them is drawn, and nobody took them. */
export const LIBRARIES: readonly Library[] = [
  {
    slug: 'harbour-light',
    name: 'Harbour Light Pictures',
    licence: { name: 'Harbour Light free licence', address: 'https://harbour-light.example/licence' },
    owed: true,
    makers: ['Ada Wells', 'Tomas Reef', 'Noor Haddad'],
    shows: [
      'Shredded cabbage in a stoneware crock on a kitchen table',
      'A heap of coarse sea salt beside a kitchen scale',
      'A jar of pickled turnips with a lid and an airlock',
      'Beetroot and garlic on a wooden board, a knife beside them',
      'A glass of kombucha with bubbles rising in it',
      'A thermometer in a jar of brine on a window sill',
      'Cucumbers in a jar with dill and mustard seed',
      'An old bicycle wheel with its spokes against a wall',
      'A barrel in a cellar with hoops of iron',
      'Kimchi in a glass on a blue cloth',
      'A beehive in an orchard in spring',
      'An open book beside a pot of tea',
    ],
  },
  {
    slug: 'plain-view',
    name: 'Plain View',
    licence: { name: 'Plain View public dedication', address: 'https://plain-view.example/dedication' },
    owed: false,
    makers: ['Ines Boll', 'Sam Oyelaran'],
    shows: [
      'A stoneware crock with a water seal on a shelf',
      'Hands weighing salt on a kitchen scale for sauerkraut',
      'White cabbage cut in half on a board',
      'A jar with a lid and a rubber ring, seen from above',
      'Carrots and turnips in brine, in a row of jars',
      'A clock on a kitchen wall beside a window',
      'Kvass of beetroot in two bottles',
      'Ginger beer in a bottle with a swing top',
      'Miso in a tub under a cloth',
      'A cask in front of a barn',
      'Fiddle strings beside a peg and a saw',
      'A cellar with shelves full of jars',
    ],
  },
];

const MOST = 30;
const [WIDE, HIGH] = [1_200, 800];

const idOf = ({ slug }: Library, n: number): string =>
  createHash('sha256').update(`${slug} ${n}`).digest('hex').slice(0, 10);

/**
 * Libraries of pictures, as the small port for them is documented: a search by words, the file of a picture, the page it is
 * shown on.
 */
export function pictureLibraries(troubles: Troubles, origin: () => string): Router {
  const router = Router();
  for (const library of LIBRARIES) {
    const base = `/libraries/${library.slug}`;
    const all = library.shows.map((shows, n) => ({ id: idOf(library, n), n, shows, stems: new Set(stemsOf(shows)) }));
    router.get(
      `${base}/search`,
      troubles.around('libraries', (request: Request): Answer => {
        const words = [...new Set(stemsOf(String(request.query['words'] ?? '')))];
        const most = Math.min(MOST, Number(request.query['most'] ?? MOST) || MOST);
        const found = all
          .map((one) => ({ ...one, fits: words.filter((word) => one.stems.has(word)).length }))
          .filter(({ fits }) => fits > 0)
          .sort((a, b) => b.fits - a.fits || a.n - b.n)
          .slice(0, most);
        return {
          status: 200,
          body: {
            pictures: found.map(({ id, n, shows }) => ({
              id,
              shows,
              file: `${origin()}${base}/files/${id}`,
              page: `${origin()}${base}/pictures/${id}`,
              maker: library.makers[n % library.makers.length],
              licence: library.licence,
              owed: library.owed,
              width: WIDE,
              height: HIGH,
            })),
          },
        };
      }),
    );
    router.get(
      `${base}/files/:id`,
      troubles.around('libraries', async (request: Request): Promise<Answer> => {
        const found = all.find(({ id }) => id === request.params['id']);
        if (!found) return { status: 404, body: { error: 'there is no such picture' } };
        const { png } = await draw(found.shows, `${library.slug} ${found.n}`, WIDE, HIGH, found.n % 6);
        return { status: 200, type: 'image/png', body: png };
      }),
    );
    router.get(base, (_request, response) => {
      const entries = all.map(({ id, shows }) => `<li><a href="${base}/pictures/${id}">${shows}</a></li>`);
      response.type('html').send(page(library.name, `<p>${library.licence.name}.</p><ul>${entries.join('')}</ul>`));
    });
    router.get(`${base}/pictures/:id`, (request, response) => {
      const found = all.find(({ id }) => id === request.params['id']);
      if (!found) return void response.status(404).type('text').send('There is no such picture.');
      const by = `${library.makers[found.n % library.makers.length]}, ${library.name}. ${library.licence.name}.`;
      response
        .type('html')
        .send(page(found.shows, `<p>${by}</p><img src="${base}/files/${found.id}" alt="${found.shows}">`));
    });
  }
  return router;
}

const page = (title: string, body: string) =>
  `<!doctype html><html lang="en"><title>${title}</title><h1>${title}</h1>${body}</html>`;
