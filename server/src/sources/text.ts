import type { ItemText } from '@grivo/contract';
import { carries, countWords, type Failure, passagesOf } from '@grivo/core';
import { pageOf, readPage } from '../adapters/pages.ts';
import { fileAbout, fileBody } from '../files/repository.ts';
import { GivenDocument } from '../steps/readText.ts';
import type { LookPorts } from './kind.ts';

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
      words: page.paragraphs.reduce((sum, text) => sum + countWords(text, page.language), 0),
      carries: carries(passagesOf(page, '')),
    },
  };

  async function readOne() {
    if (document) {
      const about = await fileAbout(ports.ground.db, document.file);
      const bytes = about ? await fileBody(ports.ground.db, document.file) : Buffer.alloc(0);
      const page = pageOf(await ports.reader.read(bytes, { name: document.fileName, fetched: false }), {
        address: '',
        name: subject,
        language: 'en',
      });
      return { at: document.fileName, page };
    }
    if (typeof link === 'string') return { at: link, page: await readPage(ports, link, 'en', signal) };
    const page = pageOf(
      await ports.reader.read(Buffer.from(String(came ?? '')), { mime: 'text/plain', fetched: false }),
      {
        address: '',
        name: subject,
        language: 'en',
      },
    );
    return { at: 'the notes', page };
  }
}
