import type { Passage } from '../passage/passage.ts';
import { countWords } from '../sentence/sentence.ts';
import { type Chapter, clockOf } from './cue.ts';
import type { Spoken } from './spoken.ts';

const MOST_WORDS = 110;

/** What was said in a chapter, in passages. */
export interface SpokenChapter extends Chapter {
  passages: string[];
  words: number;
}

export interface SpokenPassages {
  passages: Passage[];
  /** Chapters that lie in the range, with what is said in them; one without a title when there are none. */
  chapters: SpokenChapter[];
  words: number;
}

/**
 * What is said between two times, cut into passages of about a hundred words at ends of sentences; no passage reaches over
 * a chapter's beginning.
 * @param digest identifies the captions; becomes the first half of each passage's id
 */
export function spokenPassages(
  spoken: readonly Spoken[],
  about: { address: string; title: string; language: string; digest: string },
  chapters: readonly Chapter[] = [],
  range: { from: number; to: number } = { from: 0, to: Number.POSITIVE_INFINITY },
): SpokenPassages {
  const marks = [...chapters].sort((a, b) => a.start - b.start);
  if (marks.length === 0 || marks[0]!.start > 1) marks.unshift({ start: 0, title: '' });
  const passages: Passage[] = [];
  const out: SpokenChapter[] = [];
  let n = 0;
  marks.forEach((chapter, at) => {
    const end = marks[at + 1]?.start ?? Number.POSITIVE_INFINITY;
    // A sentence belongs to where most of it is said.
    const inside = spoken.filter((one) => {
      const middle = (one.start + one.end) / 2;
      return middle >= chapter.start && middle < end && middle >= range.from && middle < range.to;
    });
    const cut = parted(inside, about.language).map((part): Passage => {
      n++;
      return {
        id: `${about.digest}:${n}`,
        text: part.map((one) => one.text).join(' '),
        locator: {
          address: about.address,
          title: about.title,
          paragraph: n,
          seconds: Math.floor(part[0]!.start),
          place: [clockOf(part[0]!.start), chapter.title].filter((word) => word !== '').join(', '),
        },
        language: about.language,
      };
    });
    if (cut.length === 0) return;
    passages.push(...cut);
    out.push({
      ...chapter,
      passages: cut.map(({ id }) => id),
      words: cut.reduce((sum, { text }) => sum + countWords(text, about.language), 0),
    });
  });
  return { passages, chapters: out, words: out.reduce((sum, { words }) => sum + words, 0) };
}

function parted(spoken: readonly Spoken[], language: string): Spoken[][] {
  const out: Spoken[][] = [];
  let words = 0;
  for (const one of spoken) {
    const more = countWords(one.text, language);
    if (out.length === 0 || words + more > MOST_WORDS) {
      out.push([]);
      words = 0;
    }
    out.at(-1)!.push(one);
    words += more;
  }
  return out;
}

/**
 * About how many written words so many spoken ones carry: speech repeats and turns back, so it is less than a page of the
 * same length does. Two thirds, checked on the demonstration's videos.
 */
export function spokenCarries(words: number): number {
  return Math.floor(words * 0.66);
}
