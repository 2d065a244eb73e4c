import { CommentDone, Comments, Made, NewComment } from '@grivo/contract';
import { getArticle } from '../nouns/articles/repository.ts';
import { addComment, commentsOf, setDone, takeBack } from '../nouns/comments/repository.ts';
import { notFound, problem } from './problem.ts';
import type { Product } from './product.ts';
import { type Route, route } from './route.ts';

/** What people say of an article at its paragraphs: said, done, taken back. */
export function commentRoutes({ ground, bell }: Product): Route[] {
  const { db } = ground;
  const must = async (id: string) => {
    const article = await getArticle(db, id);
    if (!article?.current) throw notFound('article');
    return article.id;
  };
  return [
    route({
      method: 'get',
      path: '/articles/{id}/comments',
      says: 'What people said of an article, at which of its blocks, in order',
      role: 'proofreader',
      answer: Comments,
      handle: async ({ params, person }) => ({ comments: await commentsOf(db, await must(params['id']!), person.id) }),
    }),
    route({
      method: 'post',
      path: '/articles/{id}/comments',
      says: 'Says something of an article at one of its blocks',
      role: 'proofreader',
      body: NewComment,
      answer: Made,
      status: 201,
      handle: async ({ params, body, person }) => {
        const id = await addComment(ground, { article: await must(params['id']!), person: person.id, ...body });
        bell.ring({ kind: 'event' });
        return { id };
      },
    }),
    route({
      method: 'put',
      path: '/articles/{id}/comments/{comment}',
      says: 'Says of a comment that it is done, or is not after all',
      role: 'proofreader',
      body: CommentDone,
      handle: async ({ params, body: { done } }) => {
        if (!(await setDone(ground, await must(params['id']!), params['comment']!, done))) throw notFound('comment');
        bell.ring({ kind: 'event' });
      },
    }),
    route({
      method: 'delete',
      path: '/articles/{id}/comments/{comment}',
      says: 'Takes back a comment of one’s own',
      role: 'proofreader',
      handle: async ({ params, person }) => {
        if (!(await takeBack(ground, await must(params['id']!), params['comment']!, person.id)))
          throw problem(
            403,
            'Not yours to do',
            'Only who said it takes a comment back.',
            'Say that it is done instead.',
          );
        bell.ring({ kind: 'event' });
      },
    }),
  ];
}
