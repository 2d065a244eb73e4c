import { BlogWay, FOLDER_AS_MADE, FolderSettings, FoundEndpoint, MadeBlog, type NewBlog } from '@grivo/contract';
import { z } from 'zod';
import { call } from '../../api/call.ts';
import { webAddress } from '../../words/address.ts';

/** What is typed of a blog that is to be connected. */
export const BlogDraft = z
  .object({
    way: z.enum(['found', ...BlogWay.options]),
    name: z.string().trim().max(120),
    /** Where its readers find it. */
    address: z.string().trim(),
    /** The hook's address, or the folder's path. */
    endpoint: z.string().trim(),
    user: z.string().trim().max(200),
    secret: z.string(),
    folder: FolderSettings,
  })
  .superRefine((draft, context) => {
    const wrong = (path: string, message: string) => context.addIssue({ code: 'custom', path: [path], message });
    if (draft.address === '') wrong('address', 'The address people open in a browser.');
    if (draft.way !== 'folder' && draft.secret.trim() === '')
      wrong('secret', 'Without a secret the blog takes nothing.');
    if (draft.way === 'xml-rpc' && draft.user === '') wrong('user', 'Desk programs sign in with a user name.');
    if ((draft.way === 'folder' || draft.way === 'hook') && draft.endpoint === '')
      wrong('endpoint', draft.way === 'folder' ? 'The folder posts are written to.' : 'Where the calls go.');
    if ((draft.way === 'folder' || draft.way === 'hook') && draft.name === '') wrong('name', 'A name to tell it by.');
  });
export type BlogDraft = z.infer<typeof BlogDraft>;

export const NOTHING_TYPED: BlogDraft = {
  way: 'found',
  name: '',
  address: '',
  endpoint: '',
  user: '',
  secret: '',
  folder: FOLDER_AS_MADE,
};

/** What is needed beside what was typed; it is said, and nothing is lost. */
export class NeedsMore extends Error {
  /** @param asksUser whether it is a user name that lacks */
  constructor(
    says: string,
    readonly asksUser: boolean,
  ) {
    super(says);
  }
}

/** Five a week in the morning: a cadence to begin with, changed in a sentence later. */
export function firstCadence() {
  return {
    rate: { kind: 'count' as const, n: 5, per: 'week' as const },
    days: [1, 2, 3, 4, 5],
    hours: { from: '08:00', to: '10:00' },
    gapMinutes: 240,
    start: '2024-01-01',
    pauses: [],
    zone: Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC',
  };
}

export type Connected = z.infer<typeof MadeBlog> & { notes: string[] };
type Body = Partial<z.input<typeof NewBlog>>;

const connect = async (body: Body, notes: string[] = []): Promise<Connected> => ({
  ...(await call('POST', '/blogs', { body: { cadence: firstCadence(), ...body }, answer: MadeBlog })),
  notes,
});

/** Looks at an address for how posts go there, and connects the blog that way. */
export async function connectBlog(draft: BlogDraft): Promise<Connected> {
  const { way, name, endpoint, user, secret } = draft;
  const address = webAddress(draft.address);
  const own = { name, address: address.replace(/\/$/, ''), secret, language: navigatorLanguage() };
  if (way === 'folder') return connect({ ...own, way, endpoint, settings: { folder: draft.folder } });
  if (way === 'hook') return connect({ ...own, way, endpoint: webAddress(endpoint) });
  const found = await call('POST', '/blogs/find', { body: { address }, answer: FoundEndpoint });
  const chosen =
    way === 'found'
      ? found.ways[0]
      : (found.ways.find((one) => one.way === way) ?? { way, endpoint: address, settings: {} });
  if (!chosen)
    throw new NeedsMore(
      'That page names no place for posts. Enter the front page of the blog; or say yourself how posts go there, above, and enter that place.',
      false,
    );
  if (chosen.way === 'xml-rpc' && user === '')
    throw new NeedsMore('This blog takes posts by the interface for desk programs: it asks for a user name too.', true);
  return connect(
    {
      name: found.name?.slice(0, 120) || new URL(found.address).hostname,
      address: found.address.replace(/\/$/, ''),
      way: chosen.way,
      endpoint: chosen.endpoint,
      settings: { ...chosen.settings, ...(user === '' ? {} : { user }) },
      secret,
      language: found.language ?? 'en',
    },
    found.notes,
  );
}

const navigatorLanguage = (): string => navigator.language.slice(0, 2).toLowerCase() || 'en';
