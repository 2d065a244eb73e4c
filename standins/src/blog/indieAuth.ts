import { createHash, randomBytes } from 'node:crypto';
import express, { type Request, Router } from 'express';
import type { Answer, Troubles } from '../ground/trouble.ts';
import type { BlogSite } from './posts.ts';

/** What its owner said yes to, until the program comes for its secret. */
interface Yes {
  blog: string;
  client: string;
  redirect: string;
  challenge: string;
  scope: string;
  until: number;
}

const TEN_MINUTES = 600_000;

/**
 * Where the owner of a blog approves programs (IndieAuth, with the metadata of section 4.1.1 and PKCE by S256). Whoever
 * opens the page is taken for the owner. A code is good once and for ten minutes; the secret it gives is the blog's own.
 */
export function indieAuth(sites: readonly BlogSite[], troubles: Troubles, origin: () => string): Router {
  const router = Router();
  const codes = new Map<string, Yes>();
  const form = express.urlencoded({ extended: false });
  const of = (act: (request: Request, site: BlogSite, home: string) => Answer) =>
    troubles.around('blog', (request) => {
      const site = sites.find(({ slug }) => slug === request.params['blog']);
      return site
        ? act(request, site, `${origin()}/blogs/${site.slug}/`)
        : { status: 404, type: 'text/plain', body: 'no such blog' };
    });
  router.get(
    '/blogs/:blog/auth/metadata',
    of((_request, _site, home) => ({
      status: 200,
      body: {
        issuer: home,
        authorization_endpoint: `${home}auth`,
        token_endpoint: `${home}auth/token`,
        code_challenge_methods_supported: ['S256'],
        response_types_supported: ['code'],
        grant_types_supported: ['authorization_code'],
        scopes_supported: ['create', 'update', 'delete', 'media'],
        authorization_response_iss_parameter_supported: true,
      },
    })),
  );
  router.get(
    '/blogs/:blog/auth',
    of((request, site) => asking(request.query as Record<string, string>, site)),
  );
  router.post(
    '/blogs/:blog/auth',
    form,
    of((request, site, home) => answered(codes, request.body as Record<string, string>, site, home)),
  );
  router.post(
    '/blogs/:blog/auth/token',
    form,
    of((request, site, home) => tokenFor(codes, request.body as Record<string, string>, site, home)),
  );
  return router;
}

type Said = Record<string, string>;

/** The owner says yes or no, and is led back to the program that asked. */
function answered(codes: Map<string, Yes>, said: Said, site: BlogSite, home: string): Answer {
  const wrong = problemIn(said);
  if (wrong) return { status: 400, type: 'text/plain', body: wrong };
  const back = new URL(said['redirect_uri']!);
  back.searchParams.set('state', said['state']!);
  back.searchParams.set('iss', home);
  if (said['answer'] === 'yes') {
    const code = randomBytes(18).toString('base64url');
    codes.set(code, {
      blog: site.slug,
      client: said['client_id']!,
      redirect: said['redirect_uri']!,
      challenge: said['code_challenge']!,
      scope: said['scope'] ?? '',
      until: Date.now() + TEN_MINUTES,
    });
    back.searchParams.set('code', code);
  } else back.searchParams.set('error', 'access_denied');
  return { status: 302, headers: { location: back.href }, type: 'text/plain', body: '' };
}

/** A code is given for the token of a blog, once. */
function tokenFor(codes: Map<string, Yes>, said: Said, site: BlogSite, home: string): Answer {
  const yes = codes.get(said['code'] ?? '');
  codes.delete(said['code'] ?? '');
  const challenge = createHash('sha256')
    .update(said['code_verifier'] ?? '')
    .digest('base64url');
  const fits =
    yes !== undefined &&
    yes.until > Date.now() &&
    yes.blog === site.slug &&
    yes.client === said['client_id'] &&
    yes.redirect === said['redirect_uri'] &&
    yes.challenge === challenge &&
    said['grant_type'] === 'authorization_code';
  if (!fits)
    return { status: 400, body: { error: 'invalid_grant', error_description: 'the code is not good (any more)' } };
  return { status: 200, body: { access_token: site.token, token_type: 'Bearer', scope: yes.scope, me: home } };
}

const NEEDED = ['client_id', 'redirect_uri', 'state', 'code_challenge'] as const;

/** What is wrong with what a program asks; null when it may be shown to the owner. */
function problemIn(said: Record<string, string>): string | null {
  const missing = NEEDED.find((name) => (said[name] ?? '') === '');
  if (missing) return `${missing} is missing`;
  if (said['response_type'] !== undefined && said['response_type'] !== 'code') return 'only codes are given';
  if (said['code_challenge_method'] !== 'S256') return 'the challenge must be by S256';
  const [client, redirect] = [said['client_id']!, said['redirect_uri']!];
  if (!URL.canParse(client) || !URL.canParse(redirect)) return 'client_id and redirect_uri must be addresses';
  return new URL(client).origin === new URL(redirect).origin ? null : 'the program would send you elsewhere';
}

const escaped = (text: string): string =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');

/** The page on which the owner says yes or no. */
function asking(said: Record<string, string>, site: BlogSite): Answer {
  const wrong = problemIn(said);
  if (wrong) return { status: 400, type: 'text/plain', body: wrong };
  const hidden = [...NEEDED, 'code_challenge_method', 'scope']
    .map((name) => `<input type="hidden" name="${name}" value="${escaped(said[name] ?? '')}">`)
    .join('');
  return {
    status: 200,
    type: 'text/html',
    body: `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><title>Approve · ${escaped(site.name)}</title><style>body{font:17px/1.6 Georgia,'DejaVu Serif',serif;max-width:34rem;margin:3rem auto;padding:0 1rem;color:#2b2622}button{font:inherit;padding:.4rem 1rem;margin-right:1rem}</style></head><body><h1>${escaped(site.name)}</h1><p>${escaped(new URL(said['client_id']!).host)} asks to do this on your blog: ${escaped((said['scope'] ?? '').split(' ').join(', ') || 'nothing')}.</p><form method="post">${hidden}<button name="answer" value="yes">Approve</button><button name="answer" value="no">Refuse</button></form></body></html>`,
  };
}
