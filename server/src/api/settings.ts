import { DeskClockSetting, NewBlog, NewSecret, NewService, SpendingLimit } from '@grivo/contract';
import { Router } from 'express';
import { createBlog } from '../blogs/create.ts';
import { limitStanding, setLimit } from '../money/limits.ts';
import type { Product } from '../product.ts';
import { changeSecret, createService } from '../services/repository.ts';
import { signedIn } from './access.ts';
import { bodyOf, notFound } from './problem.ts';

/** Services, blogs, secrets and the spending limit: for the owner. Secrets go in and never come out. */
export function settingsRoutes(product: Product): Router {
  const router = Router();
  const { ground, bell, secrets, tools } = product;
  const owner = signedIn(ground, 'owner');
  router.get('/services', async (_request, response) => {
    response.json({
      services: await ground.db.rows(
        'SELECT id, role, name, address, model, price, permits, secret IS NOT NULL AS hasSecret FROM service ORDER BY id',
      ),
    });
  });
  router.post('/services', owner, async (request, response) => {
    const id = await createService(ground, secrets, bodyOf(request, NewService));
    await tools.services.refresh();
    bell.ring({ kind: 'settings' });
    response.status(201).json({ id });
  });
  router.put('/services/:id/secret', owner, async (request, response) => {
    if ((await ground.db.rows('SELECT 1 FROM service WHERE id = ?', [request.params['id']])).length === 0)
      throw notFound('service');
    await changeSecret(ground, secrets, String(request.params['id']), bodyOf(request, NewSecret).secret);
    await tools.services.refresh();
    bell.ring({ kind: 'settings' });
    response.status(204).end();
  });
  router.post('/services/:id/test', owner, async (request, response) => {
    await tools.services.refresh();
    const service = tools.services.get(String(request.params['id']));
    if (!service) throw notFound('service');
    const port = { writer: tools.writer, illustrator: tools.illustrator, 'look-up': tools.lookUp }[service.role];
    response.json({ lines: await port.test(service) });
  });
  router.post('/blogs', owner, async (request, response) => {
    response.status(201).json({ id: await createBlog(product, bodyOf(request, NewBlog)) });
  });
  router.get('/limit', async (_request, response) => void response.json(await limitStanding(ground)));
  router.put('/desk-clock', owner, async (request, response) => {
    const { at, speed } = bodyOf(request, DeskClockSetting);
    await ground.desk.set(at === null ? ground.now() : Date.parse(at), speed);
    bell.ring({ kind: 'settings' });
    response.json({ now: new Date(ground.desk.now()).toISOString(), speed });
  });
  router.put('/limit', owner, async (request, response) => {
    await setLimit(ground, bodyOf(request, SpendingLimit).capMicros);
    response.json(await limitStanding(ground));
  });
  return router;
}
