import { CatalogueSettings } from '@grivo/contract';
import { EMPTY_ARTICLE } from '@grivo/core';
import { z } from 'zod';
import { readDocument } from '../../src/formats/documents/reader.ts';
import { TableRefused } from '../../src/formats/tables/csv.ts';
import { openTable } from '../../src/formats/tables/open.ts';
import type { VideoPage } from '../../src/formats/videos/page.ts';
import { putAway } from '../../src/ground/network/spool.ts';
import type { Read, ReadingRoom } from '../../src/ground/reading/room.ts';
import { gathered } from '../../src/ports/adapters/gathered.ts';
import { readReply } from '../../src/ports/adapters/writerReply.ts';

/** Ends in a value or a typed failure: anything else is a fault of ours. */
export interface Outcome {
  ok: boolean;
  problem: string | null;
}

const ended = (read: { ok: boolean; problem?: string; reason?: string } | null): Outcome => ({
  ok: read?.ok ?? false,
  problem: read?.problem ?? read?.reason ?? null,
});
const within = <T extends object | null>(read: Read<T>): Outcome => {
  if (!read.ok || read.value === null) return ended(read.ok ? null : read);
  return 'ok' in read.value ? ended(read.value as { ok: boolean }) : { ok: true, problem: null };
};

const AT = 'https://news.example/feed';
const VIDEO: VideoPage = {
  address: 'https://videos.example/1',
  title: 'A video',
  description: '',
  channel: '',
  published: null,
  seconds: 0,
  thumbnail: null,
  player: null,
  film: null,
  language: null,
  chapters: [],
  tracks: [],
};
export const catalogueSettings = CatalogueSettings.parse({
  kind: 'catalogue',
  partnerLink: '{link}?p={partner}',
  partner: 'x',
  spread: true,
  order: 'cheapest',
});

/** Every reader of what comes from outside, by its name, as the product calls it. */
export function readersIn(room: ReadingRoom): Record<string, (bytes: Buffer) => Promise<Outcome>> {
  const document =
    (name: string, fetched = false) =>
    async (bytes: Buffer) =>
      ended(await readDocument(room, bytes, { name, fetched }));
  return {
    feed: async (bytes) =>
      within(
        await room.read('feed', {
          bytes,
          mime: '',
          address: AT,
          items: { name: 'A', settings: { unwrap: [], shortest: 0 } },
        }),
      ),
    page: document('page.html', true),
    html: document('a.html'),
    pdf: document('a.pdf'),
    docx: document('a.docx'),
    markdown: document('a.md'),
    text: document('a.txt'),
    head: async (bytes) => within(await room.read('head', { bytes, mime: '' })),
    video: async (bytes) => within(await room.read('video', { bytes, mime: '', address: AT })),
    captions: async (bytes) => {
      const track = { address: AT, language: 'en', label: '' };
      const read = await room.read('captions', { bytes, charset: 'utf-8', video: VIDEO, track });
      if (!read.ok) return ended(read);
      return read.value.ok ? { ok: true, problem: null } : { ok: false, problem: read.value.failure.code };
    },
    map: async (bytes) => within(await room.read('map', { bytes, mime: '', address: AT })),
    opml: async (bytes) => within(await room.read('opml', { bytes })),
    heard: async (bytes) => within(await room.read('heard', { bytes })),
    yaml: async (bytes) => {
      const read = await room.read('procedure', { yaml: bytes.toString('utf8') });
      if (!read.ok) return ended(read);
      return read.value.ok
        ? { ok: true, problem: null }
        : { ok: false, problem: read.value.problems[0]!.problem.slice(0, 300) };
    },
    edited: async (bytes) =>
      within(await room.read('edited', { text: bytes.toString('utf8'), article: EMPTY_ARTICLE, as: 'markdown' })),
    editedHtml: async (bytes) =>
      within(await room.read('edited', { text: bytes.toString('utf8'), article: EMPTY_ARTICLE, as: 'html' })),
    phrases: async (bytes) => within(await room.read('phrases', { given: bytes.toString('utf8'), held: [], how: {} })),
    catalogue: async (bytes) => {
      const { remove, ...put } = await putAway(inOne(bytes));
      const parts = room.parts('products', { ...put, mime: '', base: AT, settings: catalogueSettings });
      let problem: string | null = null;
      try {
        for (;;) {
          const next = await parts.next();
          if (next.done) return next.value.ok ? { ok: problem === null, problem } : ended(next.value);
          if ('problem' in next.value) problem = next.value.problem;
        }
      } finally {
        await remove();
      }
    },
    table: async (bytes) => {
      const inParts = async function* () {
        for (let at = 0; at < bytes.length; at += 1_048_576) yield bytes.subarray(at, at + 1_048_576);
      };
      try {
        const opened = await openTable(room, inParts(), { table: null, encoding: 'guess', separator: 'guess' });
        if (!opened.ok) return ended(opened);
        for await (const _rows of opened.table.rows);
        return { ok: true, problem: null };
      } catch (error) {
        if (error instanceof TableRefused) return { ok: false, problem: error.problem };
        throw error;
      }
    },
    reply: async (bytes) => {
      const whole = bytes.subarray(0, 4_000_000);
      const came = whole.subarray(0, 5).toString() === 'data:' ? gathered(whole) : null;
      if (came && !came.ok) return ended(came);
      const body = came ? Buffer.from(JSON.stringify(came.completion)) : whole;
      return ended(readReply(body, { shape: z.object({ answer: z.string() }) }));
    },
  };
}

/** Bytes as a body that comes at once. */
export async function* inOne(bytes: Uint8Array): AsyncGenerator<Uint8Array> {
  yield bytes;
}
