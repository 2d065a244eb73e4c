import { parse } from 'cookie';
import type { NextFunction, Request, RequestHandler, Response } from 'express';
import { holderOf, isCovered, type KeyHolder } from '../nouns/keys/repository.ts';
import type { Actor } from '../nouns/people/acts.ts';
import type { Role } from '../nouns/people/entity.ts';
import { personOf, type SignedIn } from '../nouns/people/sessions.ts';
import { problem } from './problem.ts';
import type { Product } from './product.ts';

/**
 * The name of the session's cookie. Behind https it is bound to this very host and never sent in the clear (RFC 6265bis,
 * section 4.1.3.2).
 */
export function cookieName(secure: boolean): string {
  return secure ? '__Host-grivo_session' : 'grivo_session';
}

/** Whether a request came by https, by a trusted proxy's word or because that is how this installation is reached. */
export function isSecure({ tools }: Product, request: Request): boolean {
  if (request.secure) return true;
  const { publicUrl } = tools;
  return (
    publicUrl !== null && publicUrl.startsWith('https:') && new URL(publicUrl).host === (request.headers.host ?? '')
  );
}

const RANK: Record<Role, number> = { proofreader: 1, editor: 2, owner: 3 };

export function tokenOf(product: Product, request: Request): string | null {
  return parse(request.headers.cookie ?? '')[cookieName(isSecure(product, request))] ?? null;
}

/** Who does something, and from where, for the record. */
export function actorOf(person: SignedIn, request: Request): Actor {
  return { id: person.id, name: person.name, from: request.ip ?? '' };
}

/** What browsers say when they ask by themselves while nobody is at the desk. */
export const UNATTENDED = 'x-grivo-unattended';

/** The person a request comes from; set by `signedIn`. */
export function personFrom(response: Response): SignedIn {
  return response.locals['person'] as SignedIn;
}

/**
 * Who a request comes from: a person by the session, or a program by its key.
 * @param used whether it counts as a use of the session
 */
export function whoCalls(
  product: Product,
  request: Request,
  used = request.headers[UNATTENDED] === undefined,
): Promise<SignedIn | KeyHolder | null> {
  const { ground } = product;
  const key = /^Bearer\s+(\S+)$/i.exec(request.headers.authorization ?? '')?.[1];
  if (key !== undefined) return holderOf(ground, key);
  const token = tokenOf(product, request);
  return token ? personOf(ground, token, used) : Promise.resolve(null);
}

/** Lets through those who are signed in with at least this role. */
export function signedIn(product: Product, least: Role): RequestHandler {
  return (request: Request, response: Response, next: NextFunction) => {
    whoCalls(product, request)
      .then((person) => {
        if (person && 'scope' in person && !isCovered(person.scope, request.method, request.path))
          throw problem(
            403,
            'Not allowed',
            `This key may only ‘${person.scope}’.`,
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
