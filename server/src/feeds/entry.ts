import { visibleText } from '@grivo/core';
import { Parser } from 'htmlparser2';

/** A recording that goes with an entry. */
export interface Enclosure {
  address: string;
  mime: string;
  seconds: number | null;
  bytes: number | null;
}

/** One entry of a feed. */
export interface Entry {
  /** What the feed calls it by; null where it does not. */
  id: string | null;
  link: string | null;
  title: string;
  /** Its text as far as the feed has it, plain. */
  text: string;
  /** ISO 8601; null where there is none that can be read. */
  published: string | null;
  author: string;
  categories: string[];
  enclosure: Enclosure | null;
  /** How long it lasts, of a video or a recording. */
  seconds: number | null;
}

export interface Feed {
  form: 'RSS 2.0' | 'RSS 1.0' | 'Atom' | 'JSON Feed';
  title: string;
  home: string | null;
  language: string | null;
  /** What it calls itself, and the hub that pushes it (WebSub, section 4). */
  self: string | null;
  hub: string | null;
  entries: Entry[];
}

const MOST_LETTERS = 200_000;
const LONGEST_TITLE = 300;

/** Elements after which a reader sees the next words apart. */
const APART = new Set('p br li h1 h2 h3 h4 h5 h6 div blockquote td th tr dd dt section article pre'.split(' '));
const NO_TEXT = new Set(['script', 'style', 'template', 'noscript']);
const PART = 16_384;

/** Text of a piece of HTML, or of a text that was escaped twice; in one pass, whatever it is. */
export function plain(html: string): string {
  if (!/[<&]/.test(html)) return visibleText(html).replace(/\s+/g, ' ').trim();
  let text = '';
  let without = 0;
  const parser = new Parser(
    {
      onopentagname(name) {
        if (NO_TEXT.has(name)) without++;
        else if (APART.has(name)) text += ' ';
      },
      ontext(said) {
        if (without === 0) text += said;
      },
      onclosetag(name) {
        if (NO_TEXT.has(name)) without = Math.max(0, without - 1);
        else if (APART.has(name)) text += ' ';
      },
    },
    { decodeEntities: true },
  );
  const given = html.slice(0, MOST_LETTERS);
  for (let at = 0; at < given.length; at += PART) parser.write(given.slice(at, at + PART));
  parser.end();
  return visibleText(text).replace(/\s+/g, ' ').trim();
}

/** A moment as feeds write them (RFC 822, RFC 3339, and what comes near); null when nobody could tell. */
export function momentOf(text: string): string | null {
  const tidy = text
    .trim()
    // Days and zones that are named wrongly or in other languages are not needed.
    .replace(/^\p{L}{2,10}\.?,?\s+(?=\d)/u, '')
    .replace(/(?<!\s)\s+(?:UT|GMT|UTC|Z)$/i, ' GMT')
    .replace(/\b(\d{1,2})(?:st|nd|rd|th)\b/, '$1');
  const at = Date.parse(tidy);
  if (Number.isNaN(at) || at < Date.UTC(1_990, 0) || at > Date.UTC(2_100, 0)) return null;
  return new Date(at).toISOString();
}

/** A title, or the first words of the text where there is none. */
export function titleOf(title: string, text: string): string {
  const own = plain(title);
  if (own !== '') return own.slice(0, LONGEST_TITLE);
  const words = text.split(' ').slice(0, 10).join(' ');
  return words === text ? words.slice(0, LONGEST_TITLE) : `${words.slice(0, LONGEST_TITLE)} …`;
}

/** An address beside the feed's own; null when it is none. */
export function resolved(href: string | null | undefined, base: string): string | null {
  const text = href?.trim() ?? '';
  if (text === '' || !URL.canParse(text, base)) return null;
  const url = new URL(text, base);
  return url.protocol === 'http:' || url.protocol === 'https:' ? url.href : null;
}
