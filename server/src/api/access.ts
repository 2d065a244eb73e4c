import { parse } from 'cookie';
import type { NextFunction, Request, RequestHandler, Response } from 'express';
import type { Ground } from '../engine/outside.ts';
import { holderOf, isCovered, type KeyHolder } from '../keys/repository.ts';
import type { Role } from '../people/entity.ts';
import { personOf, type SignedIn } from '../people/sessions.ts';
import { problem } from './problem.ts';

export const COOKIE = 'grivo_session';

const RANK: Record<Role, number> = { proofreader: 1, editor: 2, owner: 3 };

export function tokenOf(request: Request): string | null {
  return parse(request.headers.cookie ?? '')[COOKIE] ?? null;
}

/** The person a request comes from; set by `signedIn`. */
export function personFrom(response: Response): SignedIn {
  return response.locals['person'] as SignedIn;
}

/** Who a request comes from: a person by the session, or a program by its key. */
function whoCalls(ground: Ground, request: Request): Promise<SignedIn | KeyHolder | null> {
  const key = /^Bearer\s+(\S+)$/i.exec(request.headers.authorization ?? '')?.[1];
  if (key !== undefined) return holderOf(ground, key);
  const token = tokenOf(request);
  return token ? personOf(ground, token) : Promise.resolve(null);
}

/** Lets through those who are signed in with at least this role. */
export function signedIn(ground: Ground, least: Role): RequestHandler {
  return (request: Request, response: Response, next: NextFunction) => {
    whoCalls(ground, request)
      .then((person) => {
        if (person && 'scope' in person && !isCovered(person.scope, request.method, request.path))
          throw problem(
            403,
            'Not allowed',
            `The key is for ‘${person.scope}’, which this is not.`,
            'Ask an owner for a key of another scope.',
          );
        if (!person)
          throw problem(
            401,
            'Not signed in',
            'You are not signed in, or were away for too long.',
            'Sign in again; nothing you had saved is lost.',
          );
        if (RANK[person.role] < RANK[least])
          throw problem(
            403,
            'Not allowed',
            `This needs the role ‘${least}’.`,
            'Ask an owner to do it or to give you the role.',
          );
        response.locals['person'] = person;
        next();
      })
      .catch(next);
  };
}

/** Refuses changes that come from another site's page (the Origin header, RFC 6454). */
export function ownOriginOnly(request: Request, _response: Response, next: NextFunction): void {
  const { origin, host } = request.headers;
  const changes = request.method !== 'GET' && request.method !== 'HEAD';
  if (changes && origin !== undefined && (!URL.canParse(origin) || new URL(origin).host !== host)) {
    next(problem(403, 'Wrong origin', 'The request comes from another site.', 'Use Grivo from its own address.'));
    return;
  }
  next();
}
