import { ListSwitch, Pings, PingsChange } from '@grivo/contract';
import { isThere } from '../ground/store/there.ts';
import { getBlog } from '../nouns/blogs/repository.ts';
import { changePings, pingsOf, switchList, tellAgain } from '../nouns/pings/repository.ts';
import { baseOf } from './base.ts';
import { notFound } from './problem.ts';
import type { Product } from './product.ts';
import { type Route, route } from './route.ts';

/** Whom the news of a blog are told to, and the list of our articles for other sites. */
export function pingRoutes(product: Product): Route[] {
  const { ground, secrets, tools } = product;
  const must = async (id: string) => {
    if (!(await isThere(ground.db, 'blog', id))) throw notFound('blog');
    return (await getBlog(ground.db, id))!;
  };
  return [
    route({
      method: 'get',
      path: '/blogs/{id}/pings',
      says: 'Whom the news of a blog are told to, and what came of it',
      role: 'owner',
      answer: Pings,
      handle: async ({ params, request }) => pingsOf(tools, await must(params['id']!), baseOf(product, request)),
    }),
    route({
      method: 'patch',
      path: '/blogs/{id}/pings',
      says: 'Says whom the news of a blog are told to; an empty address is nobody',
      role: 'owner',
      body: PingsChange,
      answer: Pings,
      handle: async ({ params, body, request }) => {
        const blog = await must(params['id']!);
        await changePings(tools, blog.id, body);
        return pingsOf(tools, blog, baseOf(product, request));
      },
    }),
    route({
      method: 'post',
      path: '/blogs/{id}/pings/again',
      says: 'Tells again what was refused',
      role: 'owner',
      answer: Pings,
      handle: async ({ params, request }) => {
        const blog = await must(params['id']!);
        await tellAgain(ground.db, blog.id);
        return pingsOf(tools, blog, baseOf(product, request));
      },
    }),
    route({
      method: 'put',
      path: '/blogs/{id}/list',
      says: 'Switches the addresses on or off at which other sites read the list of our articles',
      role: 'owner',
      body: ListSwitch,
      answer: Pings,
      handle: async ({ params, body, request }) => {
        const blog = await must(params['id']!);
        await switchList(ground.db, secrets, blog.id, body.on);
        return pingsOf(tools, blog, baseOf(product, request));
      },
    }),
  ];
}
