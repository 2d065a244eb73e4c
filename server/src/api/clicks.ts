import { Clicks, ClicksQuery, CountClicks } from '@grivo/contract';
import { changeBlogWords } from '../nouns/blogs/change.ts';
import { getBlog } from '../nouns/blogs/repository.ts';
import { dayIn, daysUntil } from '../nouns/clicks/days.ts';
import { clicksOfBlog, DAYS } from '../nouns/clicks/repository.ts';
import { noteAct } from '../nouns/people/acts.ts';
import { anewLeft } from '../nouns/publishing/anew.ts';
import { actorOf } from './access.ts';
import { notFound, problem } from './problem.ts';
import type { Product } from './product.ts';
import { type Route, route } from './route.ts';

/** Whether links of a blog are counted, and how often which was followed. */
export function clicksRoutes({ ground, tools, bell }: Product): Route[] {
  const { db } = ground;
  const must = async (id: string) => {
    const blog = await getBlog(db, id);
    if (!blog) throw notFound('blog');
    return blog;
  };
  const read = async (id: string, article: string | null): Promise<Clicks> => {
    const { settings, cadence } = await must(id);
    const days = daysUntil(dayIn(ground.desk.now(), cadence.zone), DAYS);
    const clicks = await clicksOfBlog(db, { blog: id, article, since: days[0]! });
    const times = new Map(clicks.days.map((one) => [one.day, one.times]));
    return {
      counts: settings.counts ?? false,
      can: tools.publicUrl !== null,
      left: await anewLeft(ground, id),
      ...clicks,
      days: days.map((day) => ({ day, times: times.get(day) ?? 0 })),
    };
  };
  return [
    route({
      method: 'get',
      path: '/blogs/{id}/clicks',
      says: 'How often which link of a blog was followed in the last thirty days',
      role: 'editor',
      query: ClicksQuery,
      answer: Clicks,
      handle: ({ params, query }) => read(params['id']!, query.article ?? null),
    }),
    route({
      method: 'put',
      path: '/blogs/{id}/clicks',
      says: 'Has links that lead out of a blog counted, or has them all plain again; its posts are brought to it one by one',
      role: 'editor',
      body: CountClicks,
      answer: Clicks,
      handle: async ({ params, body, person, request }) => {
        const blog = await must(params['id']!);
        if (body.counts && tools.publicUrl === null) throw nothingToCountWith();
        if ((blog.settings.counts ?? false) !== body.counts) {
          await changeBlogWords(ground, blog.id, body);
          await noteAct(
            ground,
            actorOf(person, request),
            body.counts ? 'links counted' : 'links plain again',
            blog.name,
          );
          bell.ring({ kind: 'event' });
        }
        return read(blog.id, null);
      },
    }),
  ];
}

const nothingToCountWith = () =>
  problem(
    422,
    'Nothing to count with',
    'Counted links lead through this installation, and it is not known where readers reach it.',
    'Whoever runs it sets GRIVO_PUBLIC_URL.',
  );
