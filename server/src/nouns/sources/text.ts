import type { ItemText } from '@grivo/contract';
import type { Failure } from '@grivo/core';
import { readDocument } from '../../formats/documents/reader.ts';
import { GivenDocument, uploadedDocument } from '../../formats/documents/uploaded.ts';
import { pageOf, readPage } from '../../ports/adapters/pages.ts';
import type { LookPorts } from '../../ports/tools.ts';

export type ReadItem = { ok: true; text: ItemText } | { ok: false; failure: Failure };

/** What would be read of an item now: its document, what is behind its link, or the text that came with it. */
export async function itemText(
  ports: LookPorts,
  item: { subject: string; fields: Record<string, unknown> },
  signal: AbortSignal,
): Promise<ReadItem> {
  const { fields, subject } = item;
  const document = GivenDocument.safeParse(fields['document']).data;
  const link = fields['link'];
  const came = ['text', 'summary'].map((name) => fields[name]).find((one) => typeof one === 'string');
  const read = await readOne();
  if (!read.page.ok)
    return {
      ok: false,
      failure: { code: 'page-unreadable', address: read.at.slice(0, 300), reason: read.page.reason },
    };
  const { page } = read.page;
  return {
    ok: true,
    text: {
      title: page.title,
      address: page.address,
      language: page.language,
      paragraphs: page.paragraphs.map((text, i) => ({ text, place: page.places?.[i] ?? null })),
      words: read.page.words,
      carries: read.page.carries,
    },
  };

  async function readOne() {
    if (document) {
      const given = await uploadedDocument(ports.ground.db, document.file);
      if (!given.ok) return { at: document.fileName, page: { ok: false as const, reason: given.problem } };
      const read = await readDocument(ports.reader, given.bytes, { name: document.fileName, fetched: false });
      const page = pageOf(read, { address: '', name: subject });
      return { at: document.fileName, page };
    }
    if (typeof link === 'string') return { at: link, page: await readPage(ports, link, 'en', signal) };
    const notes = Buffer.from(String(came ?? ''));
    const page = pageOf(await readDocument(ports.reader, notes, { mime: 'text/plain', fetched: false }), {
      address: '',
      name: subject,
    });
    return { at: 'the notes', page };
  }
}
