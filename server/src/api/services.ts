import {
  HookAddress,
  HookSecret,
  Made,
  NewSecret,
  NewService,
  ServiceChange,
  Services,
  TestLog,
} from '@grivo/contract';
import { tellChange } from '../ground/store/event.ts';
import { isThere } from '../ground/store/there.ts';
import { noteAct } from '../nouns/people/acts.ts';
import { changeSecret, changeService, createService, listServices, useService } from '../ports/services/repository.ts';
import { shownSecret } from '../ports/telling/hook.ts';
import { actorOf } from './access.ts';
import { notFound } from './problem.ts';
import type { Product } from './product.ts';
import { type Route, route } from './route.ts';
import { changedMeanwhile, revFrom } from './tags.ts';

/** What the routes share. */
function helpers(product: Product) {
  const { ground, bell, secrets, tools } = product;
  const { db } = ground;
  const all = () => listServices(db);
  const must = async (id: string) => {
    if (!(await isThere(db, 'service', id))) throw notFound('service');
    return id;
  };
  const changed = async (id: string) => {
    await tools.services.refresh();
    await tellChange(db, ground, 'service', id);
    bell.ring({ kind: 'settings' });
    bell.ring({ kind: 'event' });
  };
  return { ground, secrets, tools, db, all, must, changed, product };
}

type Helpers = ReturnType<typeof helpers>;

/** Services: for the owner. Secrets go in and never come out. */
export function serviceRoutes(product: Product): Route[] {
  const shared = helpers(product);
  return [...listed(shared), ...changing(shared), ...tested(shared)];
}

/** Services: read, connected, changed. */
function listed({ ground, secrets, all, changed, product }: Helpers) {
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
      shared: true,
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
  ];
}

/** Which is used, its key, its test. */
function changing({ ground, secrets, db, all, must, changed }: Helpers) {
  return [
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
        await useService(db, id);
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
  ];
}

/** A service tested. */
function tested({ tools, must }: Helpers) {
  return [
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
          'picture library': tools.pictureLibrary,
        }[service.role];
        return { lines: await port.test(service) };
      },
    }),
  ];
}
