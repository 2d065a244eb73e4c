import type { CatalogueSettings } from '@grivo/contract';
import type { ArticleDocument, Cleaning, Closeness } from '@grivo/core';
import type { DocumentKind } from '../../formats/documents/kind.ts';
import type { DocumentWanted } from '../../formats/documents/reader.ts';
import type { FeedAsked } from '../../formats/feeds/read.ts';
import type { EntryWords } from '../../formats/posting/atomEntry.ts';
import type { Captions } from '../../formats/videos/transcript.ts';
import type { EditedAs } from '../../nouns/articles/edited.ts';
import type { SentAndThere } from '../../nouns/publishing/shown.ts';

interface Sent {
  bytes: Uint8Array;
  mime: string;
}

const core = () => import('@grivo/core');
const kinds = () => import('../../formats/documents/kind.ts');

/**
 * Everything that is read in processes apart, each from what is handed over to what is handed back. Each is taken up when
 * it is first wanted: a process begins in a third of the time.
 */
export const jobs = {
  document: async (asked: { kind: DocumentKind; charset: string; bytes: Uint8Array } & DocumentWanted) =>
    (await import('../../formats/documents/reader.ts')).documentIn(asked),
  feed: async (asked: FeedAsked) => (await import('../../formats/feeds/read.ts')).feedFound(asked),
  opml: async ({ bytes }: { bytes: Uint8Array }) =>
    (await import('../../formats/feeds/opml.ts')).readOpml((await kinds()).textOf(bytes, '')),
  map: async (sent: Sent & { address: string }) => (await import('../../formats/documents/sitemap.ts')).mapIn(sent),
  head: async ({ bytes, mime }: Sent) =>
    (await import('../../formats/documents/head.ts')).readHead((await kinds()).textOf(bytes, mime)),
  video: async ({ bytes, mime, address }: Sent & { address: string }) =>
    (await import('../../formats/videos/page.ts')).videoPage((await kinds()).textOf(bytes, mime), address),
  captions: async (captions: Captions) => (await import('../../formats/videos/transcript.ts')).transcriptOf(captions),
  heard: async ({ bytes }: { bytes: Uint8Array }) =>
    (await import('../../ports/adapters/heard.ts')).readHeard(Buffer.from(bytes)),
  figures: async ({ text, language }: { text: string; language: string }) =>
    (await core()).figuresOfText(text, language),
  procedure: async ({ yaml }: { yaml: string }) => (await core()).readProcedureYaml(yaml),
  laidOut: async ({ text, reads }: { text: string; reads: 'Markdown' | 'HTML' | 'plain text' }) =>
    (await import('../../nouns/articles/laidOut.ts')).laidOut(text, reads),
  beside: async (asked: SentAndThere) => (await import('../../nouns/publishing/shown.ts')).besideSent(asked),
  edited: async ({ text, article, as }: { text: string; article: ArticleDocument; as: EditedAs }) => {
    const { editedArticle } = await import('../../nouns/articles/edited.ts');
    return editedArticle(text, article, as);
  },
  deskInterfaces: async ({ bytes }: { bytes: Uint8Array }) =>
    (await import('../../formats/posting/rsd.ts')).readRsd((await kinds()).textOf(bytes, '')),
  methodResponse: async ({ bytes }: { bytes: Uint8Array }) =>
    (await import('../../formats/posting/xmlRpc.ts')).readMethodResponse((await kinds()).textOf(bytes, '')),
  posting: async ({ bytes, address, as }: { bytes: Uint8Array; address: string; as: 'service' | 'entry' | 'page' }) => {
    const { readEntry, readPage, readService } = await import('../../formats/posting/atomEntry.ts');
    const text = (await kinds()).textOf(bytes, '');
    return {
      service: as === 'service' ? readService(text, address) : null,
      entry: as === 'entry' ? readEntry(text, address) : null,
      page: as === 'page' ? readPage(text, address) : null,
    };
  },
  categories: async ({ bytes }: { bytes: Uint8Array }) =>
    (await import('../../formats/posting/atomEntry.ts')).readCategories((await kinds()).textOf(bytes, '')),
  changedEntry: async ({ bytes, words }: { bytes: Uint8Array; words: EntryWords }) => {
    const { changedEntry } = await import('../../formats/posting/atomEntry.ts');
    return changedEntry((await kinds()).textOf(bytes, ''), words);
  },
  sketches: async ({ texts }: { texts: string[] }) => {
    const { sketchOf } = await core();
    return texts.map((text) => sketchOf(text));
  },
  phrases: async ({ given, held, how }: { given: string | string[]; held: string[]; how: Cleaning }) =>
    (await core()).cleanKeywords(given, held, how),
  groups: async ({
    phrases,
    ...how
  }: {
    phrases: { phrase: string; results: string[] }[];
    closeness: Closeness;
    language: string;
  }) => (await core()).groupPhrases(phrases, how),
};
/**
 * Jobs that may hand back tens of thousands of small things, all of them plain (no bytes, no figures in arrays of their own):
 * as one text those are taken up several times as fast.
 */
export const AS_TEXT: ReadonlySet<string> = new Set<keyof typeof jobs>([
  'phrases',
  'groups',
  'map',
  'edited',
  'beside',
]);

/** What is handed back part by part. */
export const parts = {
  /** Of a list in a file, which is read here: it is as large as what is made of it. */
  async *products({
    path,
    ...asked
  }: {
    path: string;
    size: number;
    mime: string;
    base: string;
    settings: CatalogueSettings;
  }) {
    const { bytesOf } = await import('../../ground/reading/bytes.ts');
    yield* (await import('../../formats/catalogue/read.ts')).readProducts({
      ...asked,
      bytes: (first) => bytesOf(path, first),
    });
  },
  async *workbook({ bytes, table }: { bytes: Uint8Array; table: string | null }) {
    yield* (await import('../../formats/tables/readWorkbook.ts')).readWorkbook(bytes, table);
  },
};
type Ours = typeof jobs;
type OurParts = typeof parts;
declare module '../../ground/reading/room.ts' {
  interface Jobs extends Ours {}
  interface JobParts extends OurParts {}
}
