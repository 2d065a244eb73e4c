import { existsSync } from 'node:fs';
import { join } from 'node:path';
import express, { type NextFunction, type Request, type Response, Router } from 'express';

const BUILT = join(import.meta.dirname, '../../../web/dist');

/** The screens: built files, and for every other address the one page that draws them. */
export function pageRoutes(folder = BUILT): Router {
  const router = Router();
  router.use('/assets', express.static(join(folder, 'assets'), { immutable: true, maxAge: '365d', index: false }));
  router.use(express.static(folder, { index: false, maxAge: 0 }));
  router.use((request: Request, response: Response, next: NextFunction) => {
    if (request.method !== 'GET' || !request.accepts('html')) return next();
    const page = join(folder, 'index.html');
    if (!existsSync(page))
      return void response
        .status(503)
        .type('text/plain')
        .send('The screens are not built yet. Build them with: npm run build');
    response.setHeader('cache-control', 'no-cache');
    response.sendFile(page);
  });
  return router;
}
