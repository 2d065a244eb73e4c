import type { Resolve } from '../inline.ts';

/** The page an article of ours has within Grivo. */
export const OWN = '/articles/';

/** Where things are while an article is edited: links to our own articles are written as the page they have here. */
export const insideOf: Resolve = { file: (digest) => digest, article: (id) => `${OWN}${id}` };
