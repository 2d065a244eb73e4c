import type { BlogWay } from '@grivo/contract';
import type { Capability } from '../blog.ts';

/** What a post can do and carry by every way there is. */
export const BY_EVERY_WAY = [
  'drafts',
  'find',
  'update',
  'withdraw',
  'media',
  'categories',
  'list categories',
  'date',
] as const satisfies readonly Capability[];

/** What ways are called, and what they are in a sentence. */
export const WAY_WORDS: Readonly<Record<BlogWay, { name: string; what: string }>> = {
  micropub: { name: 'Micropub', what: 'the Micropub standard of the W3C, with its media endpoint' },
  atom: { name: 'Atom Publishing Protocol', what: 'RFC 5023: a service document, entries and pictures' },
  'xml-rpc': { name: 'desk programs (XML-RPC)', what: 'the older MetaWeblog interface many servers keep' },
  folder: { name: 'a folder', what: 'Markdown or HTML files for a static site, on this server' },
  hook: { name: 'a signed hook', what: 'signed calls (Standard Webhooks) to a program of one’s own' },
};

/** What a capability is called in the table, and what posts lack without it. */
export const CARRIES: Readonly<Record<Capability, { says: string; lacking: string }>> = {
  drafts: { says: 'drafts', lacking: 'It keeps no drafts: posts are live at once.' },
  find: { says: 'found again after a broken call', lacking: 'A post whose call broke off cannot be looked for.' },
  update: { says: 'changed', lacking: 'A post cannot be changed once it is there.' },
  withdraw: { says: 'taken back', lacking: 'A post cannot be taken back.' },
  removes: {
    says: 'gone when taken back',
    lacking: 'What is taken back stays there as a draft, unseen by readers: the interface has no way to remove it.',
  },
  media: { says: 'pictures', lacking: 'It takes no pictures.' },
  'lead picture': {
    says: 'lead picture as its own property',
    lacking: 'The lead picture stands at the head of the text: posts have no place of their own for it.',
  },
  summary: { says: 'description', lacking: 'The description does not go along: posts have no place for it.' },
  address: { says: 'address chosen by us', lacking: 'The blog makes the address from the title itself.' },
  date: { says: 'moment it went out', lacking: 'The blog says itself when a post went out.' },
  categories: { says: 'categories', lacking: 'Posts have no categories.' },
  'list categories': { says: 'its categories listed', lacking: 'The categories of the blog cannot be asked for.' },
  author: { says: 'author', lacking: 'Who wrote it does not go along: posts are by whoever the blog says.' },
  language: { says: 'language', lacking: 'The language does not go along: it is that of the blog.' },
};

/** What posts by a way cannot carry, in sentences. */
export const lackingIn = (can: ReadonlySet<Capability>): string[] =>
  Object.entries(CARRIES)
    .filter(([name]) => !can.has(name as Capability))
    .map(([, { lacking }]) => lacking);

/** The table of ways and what each carries, as Markdown. */
export function waysTable(ways: Readonly<Record<BlogWay, ReadonlySet<Capability>>>): string {
  const names = Object.keys(WAY_WORDS) as BlogWay[];
  const head = `| A post is or carries | ${names.map((way) => WAY_WORDS[way].name).join(' | ')} |`;
  const rows = Object.entries(CARRIES).map(
    ([capability, { says }]) =>
      `| ${says} | ${names.map((way) => (ways[way].has(capability as Capability) ? 'yes' : 'no')).join(' | ')} |`,
  );
  return [head, `|${' --- |'.repeat(names.length + 1)}`, ...rows].join('\n');
}
