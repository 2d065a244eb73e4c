import {
  Acts,
  Before,
  Made,
  NewPassword,
  NewPerson,
  OwnPassword,
  People,
  Person,
  PersonChange,
  Sessions,
} from '@grivo/contract';
import type { Request } from 'express';
import { errnoOf } from '../ground/store/database.ts';
import { listActs, noteAct } from '../nouns/people/acts.ts';
import { weakPassword } from '../nouns/people/passwords.ts';
import {
  addPerson,
  changePassword,
  changePerson,
  isPassword,
  listPeople,
  personById,
  removePerson,
} from '../nouns/people/repository.ts';
import { endSessions, type SignedIn, sessionsOf } from '../nouns/people/sessions.ts';
import { actorOf, tokenOf } from './access.ts';
import { tellSessions } from './events.ts';
import { notFound, problem } from './problem.ts';
import type { Product } from './product.ts';
import { type Route, route } from './route.ts';

/** What the routes share. */
function helpers(product: Product) {
  const { ground } = product;
  const { db } = ground;
  const must = async (id: string) => {
    const person = await personById(db, id);
    if (!person) throw notFound('person');
    return person;
  };
  /** A session is a person's own affair: no program acts on it by a key. */
  const inPerson = (person: SignedIn, request: Request) => {
    const token = tokenOf(product, request);
    if ('scope' in person || token === null)
      throw problem(403, 'Not allowed', 'A key cannot do this.', 'Sign in and do it yourself.');
    return token;
  };
  const goodPassword = async (password: string, person: { name: string; email: string }, place: string) => {
    const weak = await weakPassword(password, person);
    if (weak !== null)
      throw problem(422, 'Password too weak', `The password cannot be used: ${weak}.`, 'Choose another one.', [
        { place, problem: weak },
      ]);
  };
  const oneOwner = () =>
    problem(409, 'The last owner', 'Nobody would be left as owner.', 'Make another person an owner first.');
  return { ground, db, must, inPerson, goodPassword, oneOwner, product };
}

type Helpers = ReturnType<typeof helpers>;

/** People, their passwords and sessions, and what was done to them. */
export function peopleRoutes(product: Product): Route[] {
  const shared = helpers(product);
  return [...people(shared), ...oneOfThem(shared), ...own(shared)];
}

/** Who works here: added, changed, taken out. */
function people({ ground, db, must, goodPassword, oneOwner, product }: Helpers) {
  return [
    route({
      method: 'get',
      path: '/people',
      says: 'Who works here',
      role: 'owner',
      answer: People,
      handle: async () => ({ people: await listPeople(db) }),
    }),
    route({
      method: 'post',
      path: '/people',
      says: 'Adds a person',
      role: 'owner',
      body: NewPerson,
      answer: Made,
      status: 201,
      handle: async ({ body, person, request }) => {
        await goodPassword(body.password, body, 'password');
        try {
          const id = await addPerson(ground, body);
          await noteAct(ground, actorOf(person, request), 'person added', `${body.name}, ${body.email}, ${body.role}`);
          return { id };
        } catch (error) {
          if (errnoOf(error) !== 1062) throw error;
          throw problem(409, 'There already', `${body.email} is among the people already.`, 'Use another address.');
        }
      },
    }),
    route({
      method: 'put',
      path: '/people/{id}',
      says: 'Gives a person another name or role; a new role holds at once',
      role: 'owner',
      body: PersonChange,
      answer: Person,
      handle: async ({ params, body, person, request }) => {
        const { id, name, role } = await must(params['id']!);
        if (!(await changePerson(ground, id, body))) throw oneOwner();
        const said = [
          ...(body.name !== undefined && body.name !== name ? [`now called ${body.name}`] : []),
          ...(body.role !== undefined && body.role !== role ? [`${role} to ${body.role}`] : []),
        ];
        await noteAct(ground, actorOf(person, request), 'person changed', [name, ...said].join(', '));
        await tellSessions(product, id);
        const { password_hash: _, ...now } = await must(id);
        return now;
      },
    }),
  ];
}

/** What is done to one of them. */
function oneOfThem({ ground, db, must, goodPassword, oneOwner, product }: Helpers) {
  return [
    route({
      method: 'delete',
      path: '/people/{id}',
      says: 'Takes a person out: sessions and keys end at once; what they made stays under their name',
      role: 'owner',
      handle: async ({ params, person, request }) => {
        const { id, name, email } = await must(params['id']!);
        if (!(await removePerson(ground, id))) throw oneOwner();
        await noteAct(ground, actorOf(person, request), 'person removed', `${name}, ${email}`);
        await tellSessions(product, id);
      },
    }),
    route({
      method: 'put',
      path: '/people/{id}/password',
      says: 'Sets a new password for a person who lost theirs; their sessions end',
      role: 'owner',
      body: NewPassword,
      handle: async ({ params, body, person, request }) => {
        const { id, name, email } = await must(params['id']!);
        await goodPassword(body.next, { name, email }, 'next');
        await changePassword(ground, id, body.next, null);
        await noteAct(ground, actorOf(person, request), 'password set', name);
        await tellSessions(product, id);
      },
    }),
    route({
      method: 'delete',
      path: '/people/{id}/sessions',
      says: 'Ends all sessions of a person',
      role: 'owner',
      handle: async ({ params, person, request }) => {
        const { id, name } = await must(params['id']!);
        await endSessions(db, id, { allBut: null });
        await noteAct(ground, actorOf(person, request), 'sessions ended', name);
        await tellSessions(product, id);
      },
    }),
    route({
      method: 'get',
      path: '/acts',
      says: 'What people did to people, sessions, keys and secrets, newest first',
      role: 'owner',
      query: Before,
      answer: Acts,
      handle: async ({ query }) => ({ acts: await listActs(db, query.before, query.limit) }),
    }),
  ];
}

/** One’s own password and sessions. */
function own({ ground, db, must, inPerson, goodPassword, product }: Helpers) {
  return [
    route({
      method: 'put',
      path: '/session/password',
      says: 'Changes one’s own password; all other sessions end',
      role: 'proofreader',
      body: OwnPassword,
      handle: async ({ body, person, request }) => {
        const token = inPerson(person, request);
        const own = await must(person.id);
        if (!(await isPassword(own, body.now)))
          throw problem(422, 'Wrong password', 'That is not your current password.', 'Type it again.', [
            { place: 'now', problem: 'it is not the current one' },
          ]);
        await goodPassword(body.next, own, 'next');
        await changePassword(ground, own.id, body.next, token);
        await noteAct(ground, actorOf(person, request), 'password changed', own.name);
        await tellSessions(product, own.id);
      },
    }),
    route({
      method: 'get',
      path: '/session/all',
      says: 'Where one is signed in',
      role: 'proofreader',
      answer: Sessions,
      handle: async ({ person, request }) => ({
        sessions: await sessionsOf(db, person.id, inPerson(person, request)),
      }),
    }),
    route({
      method: 'delete',
      path: '/session/all/{id}',
      says: 'Ends one of one’s own sessions',
      role: 'proofreader',
      handle: async ({ params, person, request }) => {
        inPerson(person, request);
        if ((await endSessions(db, person.id, { id: params['id']! })) === 0) throw notFound('session');
        await noteAct(ground, actorOf(person, request), 'session ended', person.name);
        await tellSessions(product, person.id);
      },
    }),
    route({
      method: 'delete',
      path: '/session/others',
      says: 'Ends all of one’s own sessions but this one',
      role: 'proofreader',
      handle: async ({ person, request }) => {
        await endSessions(db, person.id, { allBut: inPerson(person, request) });
        await noteAct(ground, actorOf(person, request), 'sessions ended', person.name);
        await tellSessions(product, person.id);
      },
    }),
  ];
}
