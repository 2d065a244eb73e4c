import { LabelOn, Labels, Made, NewLabel } from '@grivo/contract';
import { isThere } from '../ground/store/there.ts';
import { createLabel, listLabels, putLabel } from '../nouns/labels/repository.ts';
import { notFound, problem } from './problem.ts';
import type { Product } from './product.ts';
import { type Route, route } from './route.ts';

/** Labels of clients and themes, and what carries them. */
export function labelRoutes({ ground, bell }: Product): Route[] {
  return [
    route({
      method: 'get',
      path: '/labels',
      shared: true,
      says: 'Labels, with how much carries each',
      role: 'proofreader',
      answer: Labels,
      handle: async () => ({ labels: await listLabels(ground.db) }),
    }),
    route({
      method: 'post',
      path: '/labels',
      says: 'Makes a label',
      role: 'editor',
      body: NewLabel,
      answer: Made,
      status: 201,
      handle: async ({ body: { name } }) => {
        const id = await createLabel(ground, name);
        if (id === null)
          throw problem(
            409,
            'Name taken',
            `There is a label ‘${name}’ already.`,
            'Use that one, or choose another name.',
          );
        bell.ring({ kind: 'event' });
        return { id };
      },
    }),
    route({
      method: 'post',
      path: '/labels/{id}/on',
      says: 'Puts a label on a blog, a source, a pipeline, a house style or an article, or takes it off',
      role: 'editor',
      body: LabelOn,
      handle: async ({ params, body }) => {
        if (!(await isThere(ground.db, 'label', params['id']!))) throw notFound('label');
        const table = body.noun === 'style' ? 'house_style' : body.noun;
        if (!(await isThere(ground.db, table, body.id)))
          throw notFound(body.noun === 'style' ? 'house style' : body.noun);
        await putLabel(ground, params['id']!, body);
        bell.ring({ kind: 'event' });
      },
    }),
  ];
}
