import type { BlogWay } from '@grivo/contract';

/** How posts go to a blog, as it is said of one. */
export const BY_WAY: Readonly<Record<BlogWay, string>> = {
  micropub: 'by Micropub',
  atom: 'by the Atom Publishing Protocol',
  'xml-rpc': 'by the interface for desk programs',
  folder: 'as files in a folder',
  hook: 'by signed calls to a program',
};

/** A way, or the one the blog itself names. */
export type WayChosen = BlogWay | 'found';

export const WAYS: readonly { value: WayChosen; says: string; does: string }[] = [
  {
    value: 'found',
    says: 'in the way the blog itself names',
    does: 'looked for on its front page; right for nearly every blog',
  },
  { value: 'micropub', says: BY_WAY.micropub, does: 'the W3C standard, with a secret the blog makes' },
  { value: 'atom', says: BY_WAY.atom, does: 'with a secret, or with a user name and a password' },
  {
    value: 'xml-rpc',
    says: BY_WAY['xml-rpc'],
    does: 'the older one many servers keep (MetaWeblog), with a user name and a password',
  },
  { value: 'folder', says: BY_WAY.folder, does: 'Markdown or HTML for a static site, on this server' },
  { value: 'hook', says: BY_WAY.hook, does: 'the whole article as JSON, to a program of your own' },
];
