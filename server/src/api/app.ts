import type { IncomingMessage, ServerResponse } from 'node:http';
import { Person } from '@grivo/contract';
import express, { type Express, Router } from 'express';
import helmet from 'helmet';
import { tooDeep } from '../ground/reading/json.ts';
import { EventFeed } from '../nouns/events/feed.ts';
import { isSecure, ownOriginOnly } from './access.ts';
import { approvalRoutes, CLIENT_PATH, clientAt } from './approvals.ts';
import { articleAnewRoutes } from './articleAnew.ts';
import { articleEditRoutes } from './articleEdits.ts';
import { articlePublicationRoutes } from './articlePublications.ts';
import { articleRoutes } from './articles.ts';
import { homeOf } from './base.ts';
import { blogRoutes } from './blogs.ts';
import { briefRoutes } from './briefs.ts';
import { cardRoutes } from './cards.ts';
import { clicksRoutes } from './clicks.ts';
import { commentRoutes } from './comments.ts';
import { openApi } from './description.ts';
import { deskRoutes, VERSION } from './desk.ts';
import { destinationRoutes } from './destinations.ts';
import { eventRoutes } from './events.ts';
import { holdRoutes } from './holds.ts';
import { intakeRoutes } from './intake.ts';
import { keepingRoutes } from './keeping.ts';
import { keyRoutes } from './keys.ts';
import { labelRoutes } from './labels.ts';
import { libraryRoutes } from './libraries.ts';
import { linkRoutes } from './links.ts';
import { pageRoutes } from './page.ts';
import { peopleRoutes } from './people.ts';
import { phraseRoutes } from './phrases.ts';
import { pictureRoutes } from './pictures.ts';
import { pingRoutes } from './pings.ts';
import { pipelineRoutes } from './pipelines.ts';
import { presenceRoutes } from './presence.ts';
import { answerProblems, notFound, problem } from './problem.ts';
import type { Product } from './product.ts';
import { proofingRoutes } from './proofing.ts';
import { proposedRoutes } from './proposed.ts';
import { publicDoor } from './publicDoor.ts';
import { redrawRoutes } from './redraw.ts';
import { mount, type Route, route } from './route.ts';
import { routineRoutes } from './routines.ts';
import { serviceRoutes } from './services.ts';
import { sessionRoutes } from './session.ts';
import { sourceRoutes } from './sources.ts';
import { styleRoutes } from './styles.ts';
import { Together } from './together.ts';

/** A year, as preload lists ask for. */
const HSTS_SECONDS = 31_536_000;

/** Everything the API does for people who are signed in. */
export function allRoutes(product: Product): Route[] {
  return [
    route({
      method: 'get',
      path: '/session',
      says: 'Who is signed in',
      role: 'proofreader',
      answer: Person,
      handle: async ({ person }) => person,
    }),
    ...deskRoutes(product),
    ...pipelineRoutes(product),
    ...routineRoutes(product),
    ...briefRoutes(product),
    ...holdRoutes(product),
    ...sourceRoutes(product),
    ...phraseRoutes(product),
    ...intakeRoutes(product),
    ...proofingRoutes(product),
    ...presenceRoutes(product),
    ...articleRoutes(product),
    ...articleAnewRoutes(product),
    ...articleEditRoutes(product),
    ...articlePublicationRoutes(product),
    ...commentRoutes(product),
    ...approvalRoutes(product),
    ...blogRoutes(product),
    ...pingRoutes(product),
    ...serviceRoutes(product),
    ...peopleRoutes(product),
    ...keyRoutes(product),
    ...keepingRoutes(product),
    ...labelRoutes(product),
    ...destinationRoutes(product),
    ...styleRoutes(product),
    ...proposedRoutes(product),
    ...linkRoutes(product),
    ...clicksRoutes(product),
    ...cardRoutes(product),
    ...libraryRoutes(product),
    ...pictureRoutes(product),
    ...redrawRoutes(product),
  ];
}

/** The description of the API. */
export const description = (routes: readonly Route[]) => openApi(routes, VERSION);

/** What browsers are told to keep out of the screens. */
const guarded = helmet({
  contentSecurityPolicy: {
    directives: {
      defaultSrc: ["'none'"],
      scriptSrc: [builtOnly],
      // Floating parts are placed by style attributes.
      styleSrc: ["'self'", "'unsafe-inline'"],
      imgSrc: ["'self'", 'data:'],
      mediaSrc: ["'self'", 'blob:'],
      connectSrc: ["'self'"],
      fontSrc: ["'self'"],
      workerSrc: [builtOnly],
      formAction: ["'self'"],
      frameAncestors: ["'none'"],
      baseUri: ["'none'"],
      upgradeInsecureRequests: null,
    },
  },
  strictTransportSecurity: false,
});

/** The API and the screens, as an Express application. */
export function app(product: Product): Express {
  const { ground } = product;
  const server = express();
  server.disable('x-powered-by');
  // Whose word is taken for where a request comes from, and whether it came by https.
  server.set('trust proxy', product.trustedProxies);
  server.use(guarded);
  server.use((request, response, next) => {
    // Only where it is reached by https: anywhere else it would shut people out of their own machine.
    if (isSecure(product, request)) response.setHeader('strict-transport-security', `max-age=${HSTS_SECONDS}`);
    next();
  });
  server.use(publicDoor(product));
  server.use(ownOriginOnly);
  server.use(express.json({ limit: '2mb', verify: shallow }));
  server.get('/api/health', (_request, response, next) => {
    ground.db
      .answers()
      .then(() => response.json({ well: true, deskNow: new Date(ground.desk.now()).toISOString() }))
      .catch(next);
  });
  // Blogs that are asked for an approval read who asks.
  server.get(CLIENT_PATH, (request, response) => void response.json(clientAt(homeOf(product, request))));
  server.use('/api', sessionRoutes(product));
  const routes = allRoutes(product);
  const router = Router();
  // A tag tells the rev a change is made from, not everything that is said beside it: nothing is answered from a store.
  router.use((_request, response, next) => {
    response.setHeader('cache-control', 'no-store');
    next();
  });
  const described = description(routes);
  router.get('/openapi.json', (_request, response) => void response.json(described));
  const feed = new EventFeed(ground, product.bell);
  product.onClose(() => feed.close());
  const together = new Together();
  eventRoutes(router, product, feed, together);
  mount(router, routes, product, together);
  server.use('/api', router);
  server.use('/api', (_request, _response, next) => next(notFound('address')));
  server.use(pageRoutes());
  server.use(answerProblems(ground.log));
  return server;
}

/** What lies too deep in itself is refused before it is read: whatever walks it afterwards would lose itself. */
function shallow(_request: IncomingMessage, _response: ServerResponse, body: Buffer): void {
  if (tooDeep(body.toString('latin1')))
    throw problem(400, 'Too deep', 'The JSON of the request is nested too deeply.', 'Send it with fewer levels.');
}

/**
 * Scripts come from the folder of built files and nowhere else of ours: what people upload is no script, whatever it says
 * of itself (CSP level 3, section 6.7.2.9: a path that ends with a slash holds for what is in it).
 */
function builtOnly(request: IncomingMessage): string {
  const { host = '' } = request.headers;
  return /^[\w.-]+(?::\d{1,5})?$/.test(host) ? `${host}/assets/` : "'none'";
}
