import { join } from 'node:path';
import express, { Router } from 'express';
import type { Product } from '../product.ts';

/** The plain page: sign-in, briefs and articles. Three static files; everything it shows comes from the API. */
export function pageRoutes(_product: Product): Router {
  const router = Router();
  router.use(express.static(join(import.meta.dirname, 'plain'), { index: 'index.html', etag: true }));
  return router;
}
