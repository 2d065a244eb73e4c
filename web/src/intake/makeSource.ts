import { ChannelFound, type GivenFile, Looked, Made, type SourceKind, Uploaded } from '@grivo/contract';
import { call } from '../api/call.ts';
import { webAddress } from '../words/address.ts';
import { addressesIn, uploadAll } from './uploads.ts';

/** What a person gives of a new source: its name, where it is, files. */
export interface SourceDraft {
  kind: SourceKind;
  name: string;
  where: string;
  files: readonly File[];
}

async function post(name: string, settings: object): Promise<string> {
  return (await call('POST', '/sources', { body: { name: name.slice(0, 120), settings }, answer: Made })).id;
}

/** A source that files were put into; what was given by hand is there at once. */
async function posted(name: string, settings: object, files: readonly File[]): Promise<string> {
  const id = await post(name, settings);
  // What cannot be read is said on its page, and may be looked at again there.
  if (files.length > 0) await call('POST', `/sources/${id}/look`, { answer: Looked }).catch(() => undefined);
  return id;
}

/** The last part of an address or a file's name, as a name. */
export function nameOf(address: string): string {
  const last = address.split('/').at(-1)?.split('?')[0] ?? '';
  return last
    .replace(/\.\w+$/, '')
    .replace(/[_-]+/g, ' ')
    .trim();
}

/** Makes a source of what was given; feeds are found first and come by `makeFeedSource`. */
export async function makeSource(draft: SourceDraft): Promise<string> {
  const { kind, name, where, files } = draft;
  switch (kind) {
    case 'keywords':
      return post(name || 'Keywords', { kind });
    case 'sheet':
      return oneFile(draft, 'A sheet', (file) => (file ? file : { address: webAddress(where) }));
    case 'catalogue':
      return oneFile(draft, 'A catalogue', (file) => (file ? file : { address: webAddress(where) }));
    case 'videos':
      return makeVideos(draft);
    case 'documents': {
      const given = await uploadAll(files);
      const addresses = addressesIn(where);
      const [first] = addresses;
      const isMap = addresses.length === 1 && /sitemap[^/]*\.(?:xml|txt|gz)/i.test(first!);
      const named = given[0] ? nameOf(given[0].fileName) : first ? new URL(first).hostname : '';
      const read = isMap ? { sitemap: first } : { addresses };
      return posted(name || named || 'Documents', { kind, files: given, ...read }, files);
    }
    case 'recordings': {
      const given = await uploadAll(files);
      const [podcast = null] = addressesIn(where);
      return posted(
        name || (given[0] ? nameOf(given[0].fileName) : 'Recordings'),
        { kind, files: given, podcast },
        files,
      );
    }
    case 'publications':
      return post(name || 'What went out', { kind, startFrom: { at: 'now' } });
    case 'hook':
      return post(name || 'Hook', { kind });
    case 'requests':
      return post(name || 'Requests', { kind });
    case 'feed':
      return post(name || 'Feeds', { kind });
  }
}

/** A source of feeds that were found. */
export function makeFeedSource(name: string, feeds: readonly { address: string; name: string }[]): Promise<string> {
  return post(name || (feeds.length === 1 ? feeds[0]!.name : 'Feeds') || 'Feeds', {
    kind: 'feed',
    feeds: feeds.map((feed) => ({ ...feed, name: feed.name.slice(0, 200) })),
    startFrom: { at: 'the last', n: 30 },
  });
}

async function oneFile(
  { kind, name, where, files }: SourceDraft,
  otherwise: string,
  settings: (file: GivenFile | null) => object,
): Promise<string> {
  const [given = null] = await uploadAll(files.slice(0, 1));
  return post(name || nameOf(given?.fileName ?? where) || otherwise, { kind, ...settings(given) });
}

/** Several addresses are single videos; one may be a channel or a video: what has no list of videos is taken for one. */
async function makeVideos({ kind, name, where, files }: SourceDraft): Promise<string> {
  const [file] = files;
  if (file) {
    const { file: digest } = await call('POST', '/uploads?mime=text/vtt', { file, answer: Uploaded });
    const title = file.name.replace(/\.\w+$/, '');
    return posted(name || title, { kind, captions: [{ file: digest, fileName: file.name }], shortest: 0 }, files);
  }
  const parts = where.split(/[\s,;]+/).filter((part) => part !== '');
  const addresses = parts.length > 0 && parts.every((part) => /^https?:\/\//i.test(part)) ? parts : [];
  const channel = async () => call('POST', '/channels/find', { body: { text: where }, answer: ChannelFound });
  if (addresses.length > 1) return post(name || 'Videos', { kind, addresses });
  const found = addresses.length === 1 ? await channel().catch(() => null) : await channel();
  return found
    ? post(name || found.name, { kind, channel: found.address, channelName: found.name })
    : post(name || 'Videos', { kind, addresses });
}
