import type { Passage } from './passage.ts';

/** Where a passage stands, for people: 'page 3, Salt', '01:48, Brine', 'row 44, Notes', 'paragraph 6'. */
export function placeOf({ place, paragraph }: Passage['locator']): string {
  return place ?? `paragraph ${paragraph}`;
}

const BEGINNING = 6;

/**
 * An address that leads to the place itself: the second of a recording (Media Fragments, W3C 2012), the page of a PDF
 * (RFC 8118), else the first words of the passage on a page (URL Fragment Text Directives, WICG). Empty where the passage
 * has no address of the web.
 */
export function addressOfPlace({ locator, text }: Pick<Passage, 'locator' | 'text'>): string {
  const { address, seconds, place } = locator;
  if (!/^https?:\/\//.test(address)) return '';
  if (address.includes('#')) return address;
  if (seconds !== undefined) return `${address}#t=${seconds}`;
  const page = /^page (\d+)/.exec(place ?? '')?.[1];
  if (page) return `${address}#page=${page}`;
  if (place !== undefined) return address;
  const words = text.split(/\s+/).filter((word) => word !== '');
  const [from, to] = [words.slice(0, BEGINNING), words.slice(-BEGINNING)].map((part) => encoded(part.join(' ')));
  return words.length <= BEGINNING * 2
    ? `${address}#:~:text=${encoded(words.join(' '))}`
    : `${address}#:~:text=${from},${to}`;
}

/** The hyphen and the comma have a meaning of their own in a text directive. */
function encoded(text: string): string {
  return encodeURIComponent(text).replace(/-/g, '%2D');
}
