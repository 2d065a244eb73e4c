import { Hangs, KeptNoun, KeptWords } from '@grivo/contract';
import { HANGS } from '../nouns/keeping/hangs.ts';
import { keepWords, nameOf, nounOf, removeKept } from '../nouns/keeping/keep.ts';
import { noteAct } from '../nouns/people/acts.ts';
import { actorOf } from './access.ts';
import { notFound, problem } from './problem.ts';
import type { Product } from './product.ts';
import { type Route, route } from './route.ts';

/** Who may rename and remove: connections are the owner's. */
const ROLE: Record<KeptNoun, 'owner' | 'editor'> = {
  pipelines: 'editor',
  sources: 'editor',
  routines: 'editor',
  blogs: 'owner',
  services: 'owner',
  labels: 'editor',
  destinations: 'owner',
  styles: 'editor',
};

/** What is noted of the removal of a connection. */
const GONE: Partial<Record<KeptNoun, Parameters<typeof noteAct>[2]>> = {
  blogs: 'blog removed',
  services: 'service removed',
  destinations: 'destination removed',
};

/** Renaming, putting away and removing, for every noun alike, after saying what hangs on it. */
export function keepingRoutes({ ground, bell, tools }: Product): Route[] {
  const must = async (of: KeptNoun, id: string) => {
    const name = await nameOf(ground.db, of, id);
    if (name === null) throw notFound(nounOf(of));
    return name;
  };
  const told = async (of: KeptNoun) => {
    if (of === 'services') await tools.services.refresh();
    bell.ring({ kind: 'settings' });
    bell.ring({ kind: 'event' });
  };
  return KeptNoun.options.flatMap((of) => [
    route({
      method: 'get',
      path: `/${of}/{id}/hangs`,
      says: `What hangs on a ${nounOf(of)}, to be looked at before it is removed`,
      role: ROLE[of],
      answer: Hangs,
      handle: async ({ params }) => ({
        name: await must(of, params['id']!),
        ...(await HANGS[of](ground.db, params['id']!)),
      }),
    }),
    route({
      method: 'patch',
      path: `/${of}/{id}/words`,
      says: `Renames a ${nounOf(of)}, notes a line about it, puts it away or takes it up again`,
      role: ROLE[of],
      body: KeptWords,
      handle: async ({ params, body }) => {
        const id = params['id']!;
        await must(of, id);
        const kept = await keepWords(ground, of, id, body);
        if (!kept.ok && kept.why === 'name taken')
          throw problem(
            409,
            'Name taken',
            `There is a ${nounOf(of)} ‘${body.name}’ already.`,
            'Choose another name, so that they can be told apart.',
          );
        if (!kept.ok)
          throw problem(
            422,
            'Cannot be changed',
            `A ${nounOf(of)} has no ‘${kept.word}’ to be changed.`,
            'Leave it out.',
          );
        await told(of);
      },
    }),
    route({
      method: 'delete',
      path: `/${of}/{id}`,
      says: `Removes a ${nounOf(of)} on which nothing hangs`,
      role: ROLE[of],
      handle: async ({ params, person, request }) => {
        const id = params['id']!;
        const name = await must(of, id);
        const unless = await removeKept(ground, of, id);
        if (unless.length > 0)
          throw problem(
            409,
            'Something hangs on it',
            `‘${name}’ cannot be removed. ${unless.join(' ')}`,
            'Do that first, then remove it.',
            unless.map((one) => ({ place: 'it', problem: one })),
          );
        if (ROLE[of] === 'owner') await noteAct(ground, actorOf(person, request), GONE[of] ?? 'service removed', name);
        await told(of);
      },
    }),
  ]);
}
