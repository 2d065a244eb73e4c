import {
  HookAddress,
  HookSecret,
  Made,
  NewSecret,
  NewService,
  type Service,
  ServiceChange,
  Services,
  TestLog,
} from '@grivo/contract';
import { noteAct } from '../people/acts.ts';
import type { Product } from '../product.ts';
import { changeSecret, changeService, createService } from '../services/repository.ts';
import { shownSecret } from '../telling/hook.ts';
import { actorOf } from './access.ts';
import { notFound } from './problem.ts';
import { type Route, route } from './route.ts';
import { changedMeanwhile, revFrom } from './tags.ts';

/** Services: for the owner. Secrets go in and never come out. */
export function serviceRoutes(product: Product): Route[] {
  const { ground, bell, secrets, tools } = product;
  const { db } = ground;
  const all = async (): Promise<Service[]> => {
    const rows = await db.rows<Omit<Service, 'used'> & { standard: number }>(
      'SELECT id, role, name, address, model, price, permits, calls_a_minute AS callsAMinute, secret IS NOT NULL AS hasSecret, standard, rev FROM service ORDER BY standard DESC, id',
    );
    // Of each role the first: the one that was chosen, else the oldest.
    const used = new Map([...rows].reverse().map(({ role, id }) => [role, id]));
    return rows
      .map(({ standard: _, ...row }) => ({
        ...row,
        hasSecret: Boolean(row.hasSecret),
        used: used.get(row.role) === row.id,
      }))
      .sort((a, b) => (a.id < b.id ? -1 : 1));
  };
  const must = async (id: string) => {
    if ((await db.rows('SELECT 1 FROM service WHERE id = ?', [id])).length === 0) throw notFound('service');
    return id;
  };
  const changed = async (id: string) => {
    await tools.services.refresh();
    await db.run("INSERT INTO event (id, noun, noun_id) VALUES (?, 'service', ?)", [ground.ids(), id]);
    bell.ring({ kind: 'settings' });
    bell.ring({ kind: 'event' });
  };
  return [
    route({
      method: 'post',
      path: '/hook-secret',
      says: 'The secret that signs calls to hooks of one origin, to be given to the receiver',
      role: 'owner',
      body: HookAddress,
      answer: HookSecret,
      status: 200,
      secret: 'again',
      handle: async ({ body: { address } }) => {
        const { origin } = new URL(address);
        return { origin, secret: shownSecret(product.secrets.derive(`hook ${origin}`)) };
      },
    }),
    route({
      method: 'get',
      path: '/services',
      says: 'Writers, illustrators and look-ups, with their prices',
      role: 'proofreader',
      answer: Services,
      handle: async () => ({ services: await all() }),
    }),
    route({
      method: 'post',
      path: '/services',
      says: 'Connects a service',
      role: 'owner',
      body: NewService,
      answer: Made,
      status: 201,
      handle: async ({ body, person, request }) => {
        const id = await createService(ground, secrets, body);
        await noteAct(ground, actorOf(person, request), 'service connected', body.name);
        await changed(id);
        return { id };
      },
    }),
    route({
      method: 'put',
      path: '/services/{id}',
      says: 'Changes name, model, price, permits, pace or time limit of a service',
      role: 'owner',
      body: ServiceChange,
      answer: Services,
      handle: async ({ params, body, request }) => {
        const id = await must(params['id']!);
        if (!(await changeService(ground, id, revFrom(request), body)))
          throw changedMeanwhile(
            'service',
            (await all()).find((service) => service.id === id),
          );
        await changed(id);
        return { services: await all() };
      },
    }),
    route({
      method: 'post',
      path: '/services/{id}/use',
      says: 'Makes a service the one of its role that steps use',
      role: 'owner',
      answer: Services,
      status: 200,
      handle: async ({ params }) => {
        const id = await must(params['id']!);
        await db.run(
          'UPDATE service s JOIN service o ON o.role = s.role SET s.standard = (s.id = ?), s.rev = s.rev + 1 WHERE o.id = ?',
          [id, id],
        );
        await changed(id);
        return { services: await all() };
      },
    }),
    route({
      method: 'put',
      path: '/services/{id}/secret',
      says: 'Gives a service a new key',
      role: 'owner',
      body: NewSecret,
      handle: async ({ params, body, person, request }) => {
        const id = await must(params['id']!);
        await changeSecret(ground, secrets, id, body.secret);
        const about = (await all()).find((service) => service.id === id)?.name ?? '';
        await noteAct(ground, actorOf(person, request), 'service key changed', about);
        await changed(id);
      },
    }),
    route({
      method: 'post',
      path: '/services/{id}/test',
      says: 'Tests a service and says what was tried',
      role: 'owner',
      answer: TestLog,
      handle: async ({ params }) => {
        await tools.services.refresh();
        const service = tools.services.get(await must(params['id']!));
        if (!service) throw notFound('service');
        const port = {
          writer: tools.writer,
          illustrator: tools.illustrator,
          'look-up': tools.lookUp,
          'video host': tools.videoHost,
          'keyword service': tools.keywordFigures,
          transcriber: tools.transcriber,
        }[service.role];
        return { lines: await port.test(service) };
      },
    }),
  ];
}
