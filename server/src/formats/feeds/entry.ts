import { plain } from '../documents/plain.ts';

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

const LONGEST_TITLE = 300;

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
