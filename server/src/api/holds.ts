import { ByLabel, Decision, HeldText, Holds } from '@grivo/contract';
import { Procedures } from '../engine/briefState.ts';
import { isThere } from '../ground/store/there.ts';
import { type Decided, decide, heldRuns, heldText } from '../nouns/briefs/holds.ts';
import { notFound, problem } from './problem.ts';
import type { Product } from './product.ts';
import { type Route, route } from './route.ts';

/** What waits for a person, and the person's word. */
export function holdRoutes({ ground, bell, serviceFor, tools }: Product): Route[] {
  const procedures = new Procedures();
  return [
    route({
      method: 'get',
      path: '/holds',
      shared: true,
      says: 'Every step that waits for a person, with what it proposes',
      role: 'proofreader',
      query: ByLabel,
      answer: Holds,
      handle: async ({ query: { label } }) => ({ holds: await heldRuns(ground.db, null, label) }),
    }),
    route({
      method: 'get',
      path: '/briefs/{id}/holds',
      says: 'What of a brief waits for a person',
      role: 'proofreader',
      answer: Holds,
      handle: async ({ params }) => ({ holds: await heldRuns(ground.db, params['id']!) }),
    }),
    route({
      method: 'get',
      path: '/briefs/{id}/holds/{run}/text',
      says: 'The article a held step speaks of, as Markdown to be edited and given back with ‘pass’',
      role: 'proofreader',
      answer: HeldText,
      handle: async ({ params }) => {
        const held = await heldText(ground.db, procedures, params['id']!, params['run']!);
        if (held === 'gone') throw notFound('held step');
        return { text: held?.text ?? null, language: held?.document.language ?? null };
      },
    }),
    route({
      method: 'post',
      path: '/briefs/{id}/holds/{run}',
      says: 'Passes a held step, changed or as it is, sends it back with a note, or sets it aside',
      role: 'proofreader',
      body: Decision,
      handle: async ({ params, body, person }) => {
        if (!(await isThere(ground.db, 'brief', params['id']!))) throw notFound('brief');
        const done = await decide(
          tools,
          procedures,
          { brief: params['id']!, run: params['run']!, person: person.id, decision: body },
          serviceFor,
        );
        if (done.kind !== 'decided') throw notDecided(done);
        for (const lane of done.lanes) bell.ring({ kind: 'lane', lane });
        bell.ring({ kind: 'admit' });
        bell.ring({ kind: 'event' });
      },
    }),
  ];
}

/** Why a decision was not taken. */
function notDecided(done: Exclude<Decided, { kind: 'decided' }>) {
  return done.kind === 'gone'
    ? problem(
        409,
        'Not held any more',
        'Somebody else has decided, or the brief has gone on.',
        'Look at the brief again.',
      )
    : problem(
        422,
        'Cannot be taken over',
        `‘${done.place}’: ${done.problem}.`,
        done.mend ?? 'Change it and pass it again.',
        [{ place: `change.${done.place}`, problem: done.problem }],
      );
}
