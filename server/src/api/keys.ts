import { AccessKeys, KeyMade, NewKey } from '@grivo/contract';
import { listKeys, makeKey, revokeKey } from '../nouns/keys/repository.ts';
import { noteAct } from '../nouns/people/acts.ts';
import { actorOf } from './access.ts';
import { tellSessions } from './events.ts';
import { notFound } from './problem.ts';
import type { Product } from './product.ts';
import { type Route, route } from './route.ts';

/** Keys by which other programs use the API. */
export function keyRoutes(product: Product): Route[] {
  const { ground } = product;
  return [
    route({
      method: 'get',
      path: '/keys',
      says: 'Keys of other programs, revoked ones too',
      role: 'owner',
      answer: AccessKeys,
      handle: async () => ({ keys: await listKeys(ground.db) }),
    }),
    route({
      method: 'post',
      path: '/keys',
      says: 'Makes a key; it is shown this once',
      role: 'owner',
      body: NewKey,
      answer: KeyMade,
      status: 201,
      // The key is shown this once: the answer is not kept for a repeat.
      secret: 'once',
      handle: async ({ body, person, request }) => {
        const made = await makeKey(ground, person.id, body);
        await noteAct(ground, actorOf(person, request), 'key made', body.name);
        return made;
      },
    }),
    route({
      method: 'delete',
      path: '/keys/{id}',
      says: 'Revokes a key at once',
      role: 'owner',
      handle: async ({ params, person, request }) => {
        if (!(await revokeKey(ground.db, params['id']!))) throw notFound('key');
        const key = (await listKeys(ground.db)).find(({ id }) => id === params['id']);
        await noteAct(ground, actorOf(person, request), 'key revoked', key?.name ?? '');
        await tellSessions(product, person.id);
      },
    }),
  ];
}
