import { type Request, Router } from 'express';
import { dayIn } from '../nouns/clicks/days.ts';
import { isOurs } from '../nouns/clicks/door.ts';
import { isPerson } from '../nouns/clicks/person.ts';
import { zoneOfPublication } from '../nouns/clicks/repository.ts';
import { ClickTally } from '../nouns/clicks/tally.ts';
import type { Product } from './product.ts';
import { strangers } from './publicLimits.ts';
import { escaped, publicPage } from './publicPage.ts';

const addressIn = ({ query }: Request): string => (typeof query['to'] === 'string' ? query['to'] : '');

/**
 * Counted links: whoever follows one is led on at once, to where it says itself. It leads nowhere unless it was made here,
 * and of who follows it nothing is kept: no cookie, no address, no time but the day.
 */
export function clickRoutes(product: Product): Router {
  const { ground, secrets } = product;
  const tally = new ClickTally(ground.db);
  product.onClose(() => void tally.write());
  const router = Router();
  router.get('/go/:by/:mark', (request, response, next) => {
    const by = String(request.params['by']);
    const address = addressIn(request);
    if (!isOurs(secrets, by, address, String(request.params['mark']))) return next();
    response
      .setHeader('cache-control', 'no-store')
      .setHeader('x-robots-tag', 'noindex, nofollow')
      // The site it leads to learns what it would have learned without us.
      .removeHeader('referrer-policy');
    response.redirect(302, address);
    if (!isPerson(request.method, request.headers)) return;
    const now = ground.desk.now();
    zoneOfPublication(ground.db, by).then(
      (zone) => zone !== null && tally.add({ by, address, day: dayIn(now, zone) }),
      (error: unknown) => ground.log.warn({ error }, 'a click is not counted'),
    );
  });
  router.get(/^\/go(?:\/|$)/, strangers(), (_request, response) => {
    response
      .status(404)
      .setHeader('x-robots-tag', 'noindex, nofollow')
      .type('html')
      .send(
        publicPage({
          language: 'en',
          title: 'This link leads nowhere',
          body: `<p>${escaped('It was not made here, or was changed on the way. Go back and look for another one.')}</p>`,
        }),
      );
  });
  return router;
}
