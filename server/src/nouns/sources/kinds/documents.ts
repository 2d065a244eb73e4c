import type { GivenFile } from '@grivo/contract';
import type { Failure } from '@grivo/core';
import { calledByAddress, calledByFile } from '../../../formats/documents/called.ts';
import { readSitemap } from '../../../formats/documents/sitemap.ts';
import { plainAddress } from '../../../formats/videos/channel.ts';
import type { Found, SourceReader } from '../kind.ts';

/** Pages and documents: those named, those uploaded, and those of a sitemap. What each says is read when it is taken. */
export const documents: SourceReader<'documents'> = {
  async look(ports, source, signal) {
    const { addresses, files, sitemap, within } = source.settings;
    const unreadable = (reason: string, mend: string) => ({
      ok: false as const,
      failure: { code: 'source-unreadable' as const, source: source.id, reason, mend },
    });
    if (addresses.length === 0 && files.length === 0 && sitemap === null)
      return unreadable('it names no page and holds no document', 'Give addresses, a sitemap, or upload documents.');
    let partly: Failure | null = null;
    // A map among the pages is one all the same.
    const maps = [...(sitemap === null ? [] : [sitemap]), ...addresses.filter(isMap)];
    const found = [
      ...addresses.filter((address) => !isMap(address)).map((address) => pageAt(address, null)),
      ...files.map(uploaded),
    ];
    for (const map of maps) {
      const read = await readSitemap(ports, map, signal);
      if (!read.ok) {
        const unread = unreadable(
          `${maps.length === 1 ? 'its sitemap' : `the sitemap ${map}`} cannot be read: ${read.reason}`,
          'Give the address of the sitemap itself, or single pages.',
        );
        if (found.length === 0 && map === maps.at(-1)) return unread;
        partly = unread.failure;
        continue;
      }
      const named = new Set(found.map(({ identity }) => identity));
      const listed = read.pages
        .filter(({ address }) => within === '' || address.includes(within))
        .sort((a, b) => (a.changed ?? '').localeCompare(b.changed ?? ''))
        .map(({ address, changed }) => pageAt(address, changed))
        .filter(({ identity }) => !named.has(identity));
      found.push(...listed);
      const [first] = read.unread;
      if (first)
        partly = unreadable(
          `${read.unread.length === 1 ? 'one of its sitemaps' : `${read.unread.length} of its sitemaps`} cannot be read: ${first.address}: ${first.reason}`,
          'The others were read.',
        ).failure;
    }
    return { ok: true, entries: inOne(found), ended: { whole: partly === null, partly } };
  },
};

/** Whether an address is a sitemap's by its name. */
function isMap(address: string): boolean {
  return URL.canParse(address) && /sitemap[^/]*\.(?:xml|txt)(?:\.gz)?$/i.test(new URL(address).pathname);
}

async function* inOne(found: Found[]): AsyncGenerator<Found[]> {
  yield found;
}

function pageAt(given: string, changed: string | null): Found {
  const address = plainAddress(given);
  return {
    identity: address,
    subject: calledByAddress(address),
    content: changed ?? '',
    fields: () => ({ link: address, about: new URL(address).hostname }),
    publishedDesk: changed === null ? null : Date.parse(changed),
    leftOut: null,
  };
}

function uploaded({ file, fileName }: GivenFile): Found {
  return {
    identity: `file ${file}`,
    subject: calledByFile(fileName),
    content: fileName,
    fields: () => ({ document: { file, fileName }, about: fileName }),
    publishedDesk: null,
    leftOut: null,
  };
}
