import { BeHere, WhoIsHere } from '@grivo/contract';
import { tellChange } from '../ground/store/event.ts';
import { getArticle } from '../nouns/articles/repository.ts';
import { beHere, leave } from '../nouns/presence/repository.ts';
import { notFound } from './problem.ts';
import type { Product } from './product.ts';
import { type Route, route } from './route.ts';

/** Who has an article open at the same time. */
export function presenceRoutes({ ground, bell }: Product): Route[] {
  const { db } = ground;
  /** The others read it again at once. */
  const tell = async (article: string) => {
    await tellChange(db, ground, 'presence', article);
    bell.ring({ kind: 'event' });
  };
  return [
    route({
      method: 'post',
      path: '/articles/{id}/here',
      says: 'Says that somebody has an article open and where they are in it, or has left it; who else has it open',
      role: 'proofreader',
      body: BeHere,
      answer: WhoIsHere,
      status: 200,
      handle: async ({ params, body: { page, block, editing, leaves }, person }) => {
        const article = await getArticle(db, params['id']!);
        if (!article) throw notFound('article');
        if (leaves) {
          if (await leave(db, article.id, page)) await tell(article.id);
          return { others: [] };
        }
        const { others, isNews } = await beHere(db, { article: article.id, page, person: person.id, block, editing });
        if (isNews) await tell(article.id);
        return { others };
      },
    }),
  ];
}
