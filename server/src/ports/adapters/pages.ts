import { createHash } from 'node:crypto';
import type { PageText } from '@grivo/core';
import { type ReadDocument, readDocument } from '../../formats/documents/reader.ts';
import { MOST_DOCUMENT } from '../../formats/documents/uploaded.ts';
import { type Network, whyNot } from '../../ground/network/network.ts';
import type { ReadingRoom } from '../../ground/reading/room.ts';

/** A text that was read, with the digest of what it says; `headings` names the one each paragraph stands under. */
export type ReadPage =
  | {
      ok: true;
      page: PageText;
      digest: string;
      headings: readonly string[];
      published: string | null;
      words: number;
      /** Words of an article it carries. */
      carries: number;
    }
  | { ok: false; reason: string };

export interface PagePorts {
  network: Network;
  reader: ReadingRoom;
}

const TIME_LIMIT_MS = 15_000;

/**
 * Reads what is at an address as plain paragraphs: a page without what stands around its text, or a document.
 * @param language what it is taken to be in when neither it nor its words tell
 * @param mostWords paragraphs after so many words are left; null reads all
 */
export async function readPage(
  { network, reader }: PagePorts,
  address: string,
  language: string,
  signal: AbortSignal,
  mostWords: number | null = null,
): Promise<ReadPage> {
  const outcome = await network.call({
    method: 'GET',
    address,
    timeLimitMs: TIME_LIMIT_MS,
    maxBytes: MOST_DOCUMENT,
    headers: { accept: 'text/html, application/pdf;q=0.9, text/*;q=0.8, */*;q=0.5' },
    signal,
  });
  if (outcome.kind !== 'reply') return { ok: false, reason: whyNot(outcome) };
  const { status, body, headers, address: answered } = outcome.reply;
  if (status !== 200) return { ok: false, reason: `it answers ${status}` };
  const said = { mime: headers['content-type'] ?? '', name: answered, fetched: true };
  return pageOf(await readDocument(reader, body, said, { language, mostWords }), { address: answered, name: answered });
}

/** What a document's text is as a page of passages. */
export function pageOf(read: ReadDocument, about: { address: string; name: string }): ReadPage {
  if (!read.ok) return { ok: false, reason: read.problem };
  const { text } = read;
  const page: PageText = {
    address: about.address,
    title: text.title || about.name,
    language: text.language,
    paragraphs: text.paragraphs.map((one) => one.text),
    places: text.paragraphs.map(({ page: n, heading }) => {
      const parts = [...(n === undefined ? [] : [`page ${n}`]), ...(heading === '' ? [] : [heading])];
      return parts.length === 0 ? null : parts.join(', ');
    }),
  };
  const digest = createHash('sha256')
    .update(JSON.stringify([page.address, page.paragraphs]))
    .digest('hex');
  const { words, carries, published } = text;
  return { ok: true, page, digest, headings: text.paragraphs.map(({ heading }) => heading), published, words, carries };
}
