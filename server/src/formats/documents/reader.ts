import { carries, countWords, languageOf, passagesOf, visibleText } from '@grivo/core';
import type { ReadingRoom } from '../../ground/reading/room.ts';
import { type DocumentKind, recognise, type Said } from './kind.ts';
import type { DocumentText, Unread } from './text.ts';

/** Bytes of what is text as it stands; a PDF or DOCX, whose pictures and faces weigh most, may have more. */
const MOST_TEXT = 4_000_000;
/** Markdown makes many times its own length of parts while it is read. */
const MOST_MARKDOWN = 2_000_000;
const PACKED: ReadonlySet<DocumentKind> = new Set(['pdf', 'docx']);
const MOST_PARAGRAPHS = 20_000;
const LONGEST_PARAGRAPH = 50_000;

/** How a document is to be read. */
export interface DocumentWanted {
  /** What it is taken to be in when neither it nor its words tell. */
  language: string;
  /** Paragraphs after so many words are left; null reads all. */
  mostWords: number | null;
}

/** A document's text with what is worked out of it. */
export interface DocumentRead extends DocumentText {
  language: string;
  words: number;
  /** Words of an article it carries. */
  carries: number;
}

export type ReadDocument = { ok: true; text: DocumentRead; kind: DocumentKind } | { ok: false; problem: string };

/** The text of a document, or why there is none. */
export async function readDocument(
  reader: ReadingRoom,
  bytes: Uint8Array,
  said: Said,
  wanted: DocumentWanted = { language: 'en', mostWords: null },
): Promise<ReadDocument> {
  const recognised = recognise(bytes, said);
  if (!recognised.ok) return recognised;
  const { kind, charset } = recognised;
  const most = kind === 'markdown' ? MOST_MARKDOWN : MOST_TEXT;
  if (bytes.byteLength > most && !PACKED.has(kind))
    return {
      ok: false,
      problem: `it is longer than ${most / 1_000_000} MB of text; split it into several documents`,
    };
  const read = await reader.read('document', { kind, charset, bytes, ...wanted });
  if (!read.ok) return read;
  return 'problem' in read.value
    ? { ok: false, problem: read.value.problem.slice(0, 300) }
    : { ok: true, kind, text: read.value };
}

/** Reads a document by its kind; readers that are large are taken up when they are first wanted. */
export async function documentIn({
  kind,
  charset,
  bytes,
  ...wanted
}: { kind: DocumentKind; charset: string; bytes: Uint8Array } & DocumentWanted): Promise<DocumentRead | Unread> {
  const text = () => new TextDecoder(charset).decode(bytes);
  const read = await (async (): Promise<DocumentText | Unread> => {
    switch (kind) {
      case 'page':
      case 'html':
        return (await import('./readHtml.ts')).readHtml(text(), { whole: kind === 'html' });
      case 'pdf':
        return (await import('./readPdf.ts')).readPdf(bytes);
      case 'docx':
        return (await import('./readDocx.ts')).readDocx(bytes);
      case 'markdown':
        return (await import('./readMarkdown.ts')).readMarkdown(text());
      case 'text':
        return (await import('./readMarkdown.ts')).readPlain(text());
    }
  })();
  return 'problem' in read ? read : weighed(read, wanted);
}

/** What of a document's text is wanted, without what nobody sees, with what it comes to. */
function weighed(read: DocumentText, { language: otherwise, mostWords }: DocumentWanted): DocumentRead | Unread {
  const seen = read.paragraphs
    .slice(0, MOST_PARAGRAPHS)
    .map((one) => ({
      ...one,
      text: visibleText(one.text).replace(/\s+/g, ' ').trim().slice(0, LONGEST_PARAGRAPH),
      heading: visibleText(one.heading),
    }))
    .filter(({ text }) => text !== '');
  if (seen.length === 0) return { problem: 'there is no text on it' };
  const language = read.language ?? languageOf(sample(seen)) ?? otherwise;
  let words = 0;
  const paragraphs: typeof seen = [];
  for (const one of seen) {
    const more = countWords(one.text, language);
    // Whole paragraphs up to so many words, the first in any case.
    if (mostWords !== null && paragraphs.length > 0 && words + more > mostWords) continue;
    words += more;
    paragraphs.push(one);
  }
  const title = visibleText(read.title).replace(/\s+/g, ' ').trim();
  const page = { address: '', title, language, paragraphs: paragraphs.map(({ text }) => text) };
  return { ...read, title, language, paragraphs, words, carries: carries(passagesOf(page, '')) };
}

/** Enough of a text to tell its language by. */
function sample(paragraphs: readonly { text: string }[]): string {
  let out = '';
  for (const { text } of paragraphs) {
    out += `${text}\n`;
    if (out.length > 50_000) break;
  }
  return out;
}
