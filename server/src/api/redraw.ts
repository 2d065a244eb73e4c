import { Redrawn, RedrawPicture, RedrawPrice } from '@grivo/contract';
import { pressedWords } from '@grivo/core';
import { getArticle, readRevision } from '../nouns/articles/repository.ts';
import { madeBy } from '../nouns/articles/revisions.ts';
import { namer } from '../nouns/incidents/words.ts';
import { getPicture } from '../nouns/pictures/repository.ts';
import { styleOfBrief } from '../nouns/styles/meant.ts';
import { redraw } from '../steps/redraw.ts';
import { shownPicture } from './pictures.ts';
import { notFound, problem } from './problem.ts';
import type { Product } from './product.ts';
import { type Route, route } from './route.ts';

/** The longest an illustrator is waited for, in milliseconds. */
const LONGEST_MS = 120_000;

/** Pictures of articles drawn anew with a note, beside what they are: nothing of the article is changed by it. */
export function redrawRoutes({ ground, tools }: Product): Route[] {
  const { db, ids } = ground;
  const service = () => {
    const found = tools.services.standard('illustrator');
    if (!found)
      throw problem(409, 'No illustrator', 'There is no illustrator to ask.', 'An owner connects one in the settings.');
    return found;
  };
  return [
    route({
      method: 'get',
      path: '/redraw/price',
      says: 'What a drawing costs',
      role: 'proofreader',
      answer: RedrawPrice,
      handle: async () => ({ micros: service().price.microsPerPicture }),
    }),
    route({
      method: 'post',
      path: '/articles/{id}/redraw',
      says: 'Has a picture of an article drawn anew with a note; the article stays as it is until that is kept',
      role: 'editor',
      body: RedrawPicture,
      answer: Redrawn,
      status: 200,
      handle: async ({ params, body: { shows, note, again } }) => {
        const article = await getArticle(db, params['id']!);
        if (!article?.current) throw notFound('article');
        const document = await readRevision(db, article.current);
        const manner = (await styleOfBrief(db, article.brief))?.document.pictures ?? '';
        const drawn = await redraw(
          tools,
          service(),
          { document, shows, note, manner },
          {
            stepRun: (await madeBy(db, article.id)) ?? ids(),
            draw: again,
            signal: AbortSignal.timeout(LONGEST_MS),
          },
        );
        if (!drawn.ok) {
          const { sentence, mend } = pressedWords(drawn.failure, await namer(db));
          throw problem(502, 'Not drawn', sentence, mend);
        }
        const picture = await getPicture(db, drawn.value.file);
        if (!picture) throw notFound('picture');
        return { picture: shownPicture(picture), micros: drawn.value.micros };
      },
    }),
  ];
}
