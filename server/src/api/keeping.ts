import { Hangs, KeptNoun, KeptWords } from '@grivo/contract';
import type { Sql } from '../ground/store/database.ts';
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

/** The name of what is kept. @throws where it is not there */
async function nameAt(db: Sql, of: KeptNoun, id: string): Promise<string> {
  const name = await nameOf(db, of, id);
  if (name === null) throw notFound(nounOf(of));
  return name;
}

/** Tells all programs that something that is kept has changed. */
async function told({ tools, bell }: Pick<Product, 'tools' | 'bell'>, of: KeptNoun): Promise<void> {
  if (of === 'services') await tools.services.refresh();
  bell.ring({ kind: 'settings' });
  bell.ring({ kind: 'event' });
}

/** Renaming, putting away and removing, for every noun alike, after saying what hangs on it. */
export function keepingRoutes(product: Product): Route[] {
  return KeptNoun.options.flatMap((of) => [...lookedAt(product, of), ...removed(product, of)]);
}

/** What hangs on one, and its words. */
function lookedAt(product: Product, of: KeptNoun): Route[] {
  const { ground } = product;
  return [
    route({
      method: 'get',
      path: `/${of}/{id}/hangs`,
      says: `What hangs on a ${nounOf(of)}, to be looked at before it is removed`,
      role: ROLE[of],
      answer: Hangs,
      handle: async ({ params }) => ({
        name: await nameAt(ground.db, of, params['id']!),
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
        await nameAt(ground.db, of, id);
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
        await told(product, of);
      },
    }),
  ];
}

function removed(product: Product, of: KeptNoun): Route[] {
  const { ground } = product;
  return [
    route({
      method: 'delete',
      path: `/${of}/{id}`,
      says: `Removes a ${nounOf(of)} on which nothing hangs`,
      role: ROLE[of],
      handle: async ({ params, person, request }) => {
        const id = params['id']!;
        const name = await nameAt(ground.db, of, id);
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
        await told(product, of);
      },
    }),
  ];
}
