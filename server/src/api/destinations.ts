import { DestinationChange, Destinations, Made, NewDestination, TellDestination, TestLog, Told } from '@grivo/contract';
import { isThere } from '../ground/store/there.ts';
import { addressesOf, getArticle, readRevision } from '../nouns/articles/repository.ts';
import { getBrief } from '../nouns/briefs/list.ts';
import { articlePayload } from '../nouns/destinations/payload.ts';
import {
  changeDestination,
  createDestination,
  getDestination,
  keepTest,
  listDestinations,
} from '../nouns/destinations/repository.ts';
import { sample, tell } from '../nouns/destinations/tell.ts';
import { noteAct } from '../nouns/people/acts.ts';
import { actorOf } from './access.ts';
import { notFound, problem } from './problem.ts';
import type { Product } from './product.ts';
import { type Route, route } from './route.ts';
import { changedMeanwhile, revFrom } from './tags.ts';

/** What the routes share. */
function helpers({ ground, bell, tools }: Product) {
  const { db } = ground;
  const must = async (id: string) => {
    const destination = await getDestination(db, id);
    if (!destination) throw notFound('destination');
    return destination;
  };
  return { db, must, ground, bell, tools };
}

type Helpers = ReturnType<typeof helpers>;

/** Destinations: where things are told, kept once, tested with a sample, used by name. */
export function destinationRoutes(product: Product): Route[] {
  const shared = helpers(product);
  return [...listed(shared), ...telling(shared)];
}

/** Destinations: read, kept, changed, tested. */
function listed({ db, must, ground, bell }: Helpers) {
  return [
    route({
      method: 'get',
      path: '/destinations',
      says: 'Destinations, with what their last test tried',
      role: 'proofreader',
      answer: Destinations,
      handle: async () => ({ destinations: await listDestinations(db) }),
    }),
    route({
      method: 'post',
      path: '/destinations',
      says: 'Keeps a destination under a name',
      role: 'owner',
      body: NewDestination,
      answer: Made,
      status: 201,
      handle: async ({ body, person, request }) => {
        const id = await createDestination(ground, body);
        if (id === null)
          throw problem(
            409,
            'Name taken',
            `There is a destination ‘${body.name}’ already.`,
            'Choose another name, so that they can be told apart.',
          );
        await noteAct(ground, actorOf(person, request), 'destination connected', body.name);
        bell.ring({ kind: 'event' });
        return { id };
      },
    }),
    route({
      method: 'put',
      path: '/destinations/{id}',
      says: 'Gives a destination another address',
      role: 'owner',
      body: DestinationChange,
      answer: Destinations,
      handle: async ({ params, body, request }) => {
        const now = await must(params['id']!);
        if (!(await changeDestination(ground, now.id, revFrom(request), body)))
          throw changedMeanwhile('destination', await must(now.id));
        bell.ring({ kind: 'event' });
        return { destinations: await listDestinations(db) };
      },
    }),
  ];
}

/** Told a sample, or of an article. */
function telling({ db, must, ground, bell, tools }: Helpers) {
  return [
    route({
      method: 'post',
      path: '/destinations/{id}/test',
      says: 'Tells a destination a sample, and says what came of it',
      role: 'owner',
      answer: TestLog,
      status: 200,
      handle: async ({ params }) => {
        const destination = await must(params['id']!);
        const lines = [await tell(tools, destination, sample(ground.ids, destination.name))];
        await keepTest(ground, destination.id, lines);
        bell.ring({ kind: 'event' });
        return { lines };
      },
    }),
    route({
      method: 'post',
      path: '/articles/{id}/tell',
      says: 'Tells a destination of an article',
      role: 'editor',
      body: TellDestination,
      answer: Told,
      status: 200,
      handle: async ({ params, body }) => {
        const article = await getArticle(db, params['id']!);
        if (!article?.current || !(await isThere(db, 'brief', article.brief))) throw notFound('article');
        const destination = await must(body.destination);
        const [document, brief, addresses] = await Promise.all([
          readRevision(db, article.current),
          getBrief(db, article.brief),
          addressesOf(db, [article.id]),
        ]);
        const address = addresses.get(article.id);
        const about = { id: article.brief, subject: brief?.subject ?? '' };
        const line = await tell(
          tools,
          destination,
          {
            subject: document.title,
            text: [document.title, document.description, address ?? 'It is not out yet.'].filter(Boolean).join('\n'),
            payload: await articlePayload(db, { id: article.id, revision: article.current }, about),
            id: ground.ids(),
          },
          `Told ‘${destination.name}’ of ‘${document.title}’`,
        );
        return { line };
      },
    }),
  ];
}
