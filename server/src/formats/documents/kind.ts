import { guessEncoding } from '../tables/decode.ts';

/** What a document is read as. */
export type DocumentKind = 'page' | 'html' | 'pdf' | 'docx' | 'markdown' | 'text';

/** What is said of a document beside its bytes. */
export interface Said {
  /** As a reply's content-type or an upload's. */
  mime?: string;
  /** A file's name or an address. */
  name?: string;
  /** Fetched from an address: an HTML document then has menus and the like around its text. */
  fetched: boolean;
}

export type Recognised = { ok: true; kind: DocumentKind; charset: string } | { ok: false; problem: string };

const begins = (bytes: Uint8Array, text: string, within = 1): boolean =>
  Buffer.from(bytes.subarray(0, within + text.length))
    .toString('latin1')
    .includes(text);

/**
 * What a document is, by its first bytes, then by what is said of it.
 * @returns the kind and the character set of a text (WHATWG label), or why it is none that is read
 */
export function recognise(bytes: Uint8Array, { mime = '', name = '', fetched }: Said): Recognised {
  const end = /\.([a-z0-9]+)(?:[?#].*)?$/i.exec(name)?.[1]?.toLowerCase() ?? '';
  if (bytes.length === 0) return { ok: false, problem: 'it is empty' };
  if (begins(bytes, '%PDF-', 1_024)) return { ok: true, kind: 'pdf', charset: 'utf-8' };
  if (begins(bytes, 'PK\u0003\u0004'))
    return Buffer.from(bytes).includes('word/document.xml')
      ? { ok: true, kind: 'docx', charset: 'utf-8' }
      : { ok: false, problem: 'it is packed (ZIP), and no DOCX; unpack it, or save it as DOCX or PDF' };
  if (begins(bytes, '\u00d0\u00cf\u0011\u00e0'))
    return { ok: false, problem: 'it is a file of an older word processor; save it as DOCX or PDF' };
  if (begins(bytes, '{\\rtf')) return { ok: false, problem: 'it is RTF; save it as DOCX or PDF' };
  if (/^(?:image|audio|video|font)\//.test(mime))
    return { ok: false, problem: `it is no text (${mime.split(';')[0]})` };
  const charset = charsetOf(bytes, mime);
  if (!isText(bytes, charset)) return { ok: false, problem: 'it is not a text that can be read' };
  const head = Buffer.from(bytes.subarray(0, 2_048)).toString('latin1');
  if (/html/i.test(mime) || /^html?$/.test(end) || /<!doctype html|<html[\s>]/i.test(head))
    return { ok: true, kind: fetched ? 'page' : 'html', charset };
  if (/markdown/.test(mime) || /^(?:md|markdown)$/.test(end)) return { ok: true, kind: 'markdown', charset };
  if (/^(?:text\/plain|application\/octet-stream|)(?:;|$)/.test(mime) || /^(?:txt|text)$/.test(end))
    return { ok: true, kind: 'text', charset };
  return { ok: false, problem: `it is no page and no document (${mime.split(';')[0]})` };
}

/** Signs that stand in no text people read, of a hundred, above which it is none. */
const MOST_STRANGE = 2;

function isText(bytes: Uint8Array, charset: string): boolean {
  const head = new TextDecoder(charset).decode(bytes.subarray(0, 4_096), { stream: true });
  const strange = head.match(/[\u0000-\u0008\u000e-\u001a\u001c-\u001f\ufffd]/g)?.length ?? 0;
  return strange * 100 <= head.length * MOST_STRANGE;
}

/**
 * The character set of a text: by its first bytes, what the reply says, what the document says of itself, else UTF-8, and
 * Windows-1252 where it is not valid UTF-8 (WHATWG Encoding, section 4.2; HTML, section 13.2.3.2).
 */
export function charsetOf(bytes: Uint8Array, mime: string): string {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return 'utf-16le';
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return 'utf-16be';
  if (bytes[0] === 0xef && bytes[1] === 0xbb && bytes[2] === 0xbf) return 'utf-8';
  const head = Buffer.from(bytes.subarray(0, 1_024)).toString('latin1');
  const said =
    /charset\s*=\s*["']?([\w-]+)/i.exec(mime)?.[1] ??
    /<\?xml[^>]*\sencoding\s*=\s*["']([\w-]+)/i.exec(head)?.[1] ??
    /<meta[^>]+charset\s*=\s*["']?([\w-]+)/i.exec(head)?.[1];
  if (said !== undefined && isKnown(said)) return said.toLowerCase();
  return guessEncoding(bytes);
}

function isKnown(label: string): boolean {
  try {
    new TextDecoder(label);
    return true;
  } catch (error) {
    if (error instanceof RangeError) return false;
    throw error;
  }
}

/** Bytes that were fetched as text, by their character set. */
export function textOf(bytes: Uint8Array, mime: string): string {
  return textIn(bytes, charsetOf(bytes, mime));
}

export function textIn(bytes: Uint8Array, charset: string): string {
  return new TextDecoder(charset).decode(bytes);
}

const PART = 262_144;

/** The text of bytes in parts, where all of it beside the bytes would be too much. */
export function* partsOfText(bytes: Uint8Array, charset: string): Generator<string> {
  const decoder = new TextDecoder(charset);
  for (let at = 0; at < bytes.length; at += PART)
    yield decoder.decode(bytes.subarray(at, at + PART), { stream: at + PART < bytes.length });
}
