import { AccessKeys, KeyMade, NewKey } from '@grivo/contract';
import { listKeys, makeKey, revokeKey } from '../keys/repository.ts';
import type { Product } from '../product.ts';
import { notFound } from './problem.ts';
import { type Route, route } from './route.ts';

/** Keys by which other programs use the API. */
export function keyRoutes({ ground }: Product): Route[] {
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
      handle: async ({ body, person }) => makeKey(ground, person.id, body),
    }),
    route({
      method: 'delete',
      path: '/keys/{id}',
      says: 'Revokes a key at once',
      role: 'owner',
      handle: async ({ params }) => {
        if (!(await revokeKey(ground.db, params['id']!))) throw notFound('key');
      },
    }),
  ];
}
