import type { BlogWay } from '@grivo/contract';
import type { BlogTarget, BlogWays, Capability } from '../blog.ts';

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
  'dated ahead': {
    says: 'kept until the moment it is dated for',
    lacking: 'It does not keep posts until a later date: they wait here for their slot.',
  },
  review: {
    says: 'waiting for the blog’s own review',
    lacking: 'It has no posts that wait for its own review; a draft is the nearest.',
  },
  private: { says: 'private', lacking: 'It does not say that it keeps posts for those who sign in.' },
  pages: { says: 'a standing page', lacking: 'It has no place for standing pages: every post is one of its list.' },
  replies: { says: 'replies on or off', lacking: 'Whether readers may reply is set on the blog itself.' },
  properties: { says: 'properties of its own', lacking: 'Posts have no properties beyond those every post has.' },
  canonical: {
    says: 'where it stood first',
    lacking: 'Where an article stood first does not go along, when it is on several blogs.',
  },
  siblings: { says: 'siblings in other languages', lacking: 'Posts do not name their siblings in other languages.' },
  'structured data': {
    says: 'structured data (schema.org)',
    lacking: 'Structured data does not go along: the blog makes its own.',
  },
};

const SAID = 'where the blog says so';
/** What some blogs of a way can, and by what: most say so when they are tested. */
export const SOME_CAN: Readonly<Partial<Record<BlogWay, Readonly<Partial<Record<Capability, string>>>>>> = {
  micropub: { review: SAID, private: SAID, pages: SAID, properties: SAID },
  atom: { pages: SAID },
  folder: { 'dated ahead': 'as Markdown', 'structured data': 'as HTML' },
};

/** Whether a blog keeps posts until the moment they are dated for, as far as it was seen. */
export const keepsDates = ({ settings }: Pick<BlogTarget, 'settings'>): readonly Capability[] =>
  settings.keepsDates === false ? [] : ['dated ahead'];

/** What posts on a blog cannot be or carry, each with the reason in a sentence. */
export const lackingIn = (can: ReadonlySet<Capability>): Record<string, string> =>
  Object.fromEntries(
    Object.entries(CARRIES)
      .filter(([name]) => !can.has(name as Capability))
      .map(([name, { lacking }]) => [name, lacking]),
  );

/** What posts on each of some blogs cannot be or carry, each with the reason. */
export function lacksOf(
  blogs: readonly BlogTarget[],
  port: BlogWays,
): (id: string) => Readonly<Record<string, string>> {
  const lacks = new Map(blogs.map((blog) => [blog.id, lackingIn(port(blog).can(blog))]));
  return (id) => lacks.get(id) ?? {};
}

/** The table of ways and what each carries, as Markdown. */
export function waysTable(ways: Readonly<Record<BlogWay, ReadonlySet<Capability>>>): string {
  const names = Object.keys(WAY_WORDS) as BlogWay[];
  const cell = (way: BlogWay, one: Capability) =>
    ways[way].has(one) ? (SOME_CAN[way]?.[one] ?? 'yes') : (SOME_CAN[way]?.[one] ?? 'no');
  const head = `| A post is or carries | ${names.map((way) => WAY_WORDS[way].name).join(' | ')} |`;
  const rows = Object.entries(CARRIES).map(
    ([capability, { says }]) => `| ${says} | ${names.map((way) => cell(way, capability as Capability)).join(' | ')} |`,
  );
  return [head, `|${' --- |'.repeat(names.length + 1)}`, ...rows].join('\n');
}
