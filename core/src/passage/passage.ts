import { countWords, sentencesOf } from '../sentence/sentence.ts';

/** A piece of source text with its place. `n` numbers it within one brief, so a writer can name what it rests on. */
export interface Passage {
  /** Material digest and number, stable over all briefs: `digest:n`. */
  id: string;
  text: string;
  /**
   * Where it stands: an address and the paragraph of it; of what was said, the second it begins at. `place` says it for
   * people: '01:48, Salt', 'row 44'.
   */
  locator: { address: string; title: string; paragraph: number; seconds?: number; place?: string };
  language: string;
}

/** Text of one page, paragraphs in order, as the reader of pages gives it. */
export interface PageText {
  address: string;
  title: string;
  language: string;
  paragraphs: string[];
  /** Where each paragraph stands, for people: 'page 3, Salt'; none for a page that has no such places. */
  places?: readonly (string | null)[];
}

const MOST_WORDS = 120;

/**
 * Cuts a page into passages: one for each paragraph, long ones parted at sentence ends after about 120 words.
 * @param digest identifies the page's content; becomes the first half of each passage's id
 */
export function passagesOf(page: PageText, digest: string): Passage[] {
  const out: Passage[] = [];
  page.paragraphs.forEach((paragraph, at) => {
    const place = page.places?.[at];
    for (const text of parted(paragraph, page.language)) {
      out.push({
        id: `${digest}:${out.length + 1}`,
        text,
        locator: { address: page.address, title: page.title, paragraph: at + 1, ...(place ? { place } : {}) },
        language: page.language,
      });
    }
  });
  return out;
}

function parted(paragraph: string, language: string): string[] {
  if (countWords(paragraph, language) <= MOST_WORDS) return paragraph.trim() === '' ? [] : [paragraph.trim()];
  const out: string[] = [];
  let open = '';
  for (const sentence of sentencesOf(paragraph, language)) {
    if (open !== '' && countWords(`${open} ${sentence}`, language) > MOST_WORDS) {
      out.push(open);
      open = '';
    }
    open = open === '' ? sentence : `${open} ${sentence}`;
  }
  return open === '' ? out : [...out, open];
}

/** About how many words an article can be written in from these passages without padding: four fifths of what they say. */
export function carries(passages: readonly Passage[]): number {
  return Math.floor(passages.reduce((sum, passage) => sum + countWords(passage.text, passage.language), 0) * 0.8);
}
