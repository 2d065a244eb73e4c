import { Router } from 'express';
import type { Troubles } from '../ground/trouble.ts';
import { atomPub } from './atomPub.ts';
import { indieAuth } from './indieAuth.ts';
import { micropub } from './micropub.ts';
import type { BlogSite, Posts } from './posts.ts';
import { signedHook } from './signedHook.ts';
import { publicSite } from './site.ts';
import { xmlRpc } from './xmlRpc.ts';

type Parts = [sites: readonly BlogSite[], posts: Posts, troubles: Troubles, origin: () => string];

/** Where posts go whose bodies are read as they came: before anything reads them as JSON or as forms. */
export const postingByXml = (...parts: Parts): Router =>
  Router().use(atomPub(...parts), xmlRpc(...parts), signedHook(...parts));

/** Where posts go as JSON or as forms, and what readers see. */
export const blogSites = (...parts: Parts): Router => {
  const [sites, , troubles, origin] = parts;
  return Router().use(micropub(...parts), indieAuth(sites, troubles, origin), publicSite(...parts));
};

/** Where a blog is, where posts go by each way, and who signs in. */
export interface BlogAddresses {
  address: string;
  endpoint: string;
  atom: string;
  rpc: string;
  hook: string;
  token: string;
  user: string;
}

export function addressesOf(sites: readonly BlogSite[], slug: string, origin: string): BlogAddresses {
  const site = sites.find((blog) => blog.slug === slug);
  if (!site) throw new Error(`there is no blog ${slug}`);
  const at = `${origin}/blogs/${slug}`;
  const { token, user } = site;
  return {
    address: at,
    endpoint: `${at}/micropub`,
    atom: `${at}/atom`,
    rpc: `${at}/rpc`,
    hook: `${at}/hook`,
    token,
    user,
  };
}
