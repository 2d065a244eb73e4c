import { Router } from 'express';
import type { Product } from './product.ts';
import { clickRoutes } from './publicClicks.ts';
import { hookRoutes } from './publicHooks.ts';
import { listedRoutes } from './publicListed.ts';
import { sharedRoutes } from './publicShared.ts';

/**
 * The public door: every address that needs no sign-in, and nothing else. It knows no cookies and no sessions, each address
 * is found by a secret in it, and has limits of its own; what is read here is shown and never run.
 */
export function publicDoor(product: Product): Router {
  const door = Router();
  // Nobody is signed in here, whatever is sent along.
  door.use(['/hooks', '/pushed', '/read', '/listed', '/go'], (request, _response, next) => {
    delete request.headers.cookie;
    delete request.headers.authorization;
    next();
  });
  return door.use(hookRoutes(product), sharedRoutes(product), listedRoutes(product), clickRoutes(product));
}
