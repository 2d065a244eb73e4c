import { type Cue, secondsOf } from './cue.ts';

/** A word of a caption that says itself when it is said, by WebVTT's time tags (W3C, section 5.6); seconds from the beginning. */
export interface TimedWord {
  word: string;
  start: number;
}

const TAG = /<((?:\d{1,3}:)?\d{1,2}:\d{2}\.\d{3})>/g;
const bare = (word: string): string => word.toLowerCase().replace(/[^\p{L}\p{N}]/gu, '');

/** Words that have times of their own, in order: those of lines with time tags; a line that rolls up has none any more. */
export function timedWords(cues: readonly Cue[]): TimedWord[] {
  const out: TimedWord[] = [];
  for (const cue of cues)
    for (const line of cue.lines) {
      const [first = '', ...parts] = line.split(TAG);
      if (parts.length === 0) continue;
      const add = (text: string, start: number) => {
        // Of several words behind one tag the others follow at once: between them nobody knows of a pause.
        for (const word of text.replace(/<[^<>]*>/g, '').split(/\s+/))
          if (bare(word) !== '') out.push({ word: bare(word), start });
      };
      add(first, cue.start);
      for (let i = 0; i + 1 < parts.length; i += 2) add(parts[i + 1]!, secondsOf(parts[i]!) ?? cue.start);
    }
  return out;
}

/** Words looked through for the next one that was said: in between lies what was taken out. */
const WITHIN = 12;

/** When each word is said; null for one that has no time of its own. Both are in order. */
export function timesOf(words: readonly string[], timed: readonly TimedWord[]): (number | null)[] {
  let at = 0;
  return words.map((word) => {
    const own = bare(word);
    for (let i = at; i < Math.min(timed.length, at + WITHIN); i++) {
      if (timed[i]!.word !== own) continue;
      at = i + 1;
      return timed[i]!.start;
    }
    return null;
  });
}

/** About how long a word is spoken, by its letters; in seconds, of somebody who speaks at a middling pace. */
const spoken = (word: string): number => 0.1 + 0.06 * bare(word).length;

/**
 * How long somebody is silent before each word, in seconds at a middling pace: what lies between the times of two words
 * beyond what the first takes to say, as this one speaks (the median). Null where that is not known.
 */
export function pausesBefore(words: readonly string[], times: readonly (number | null)[]): (number | null)[] {
  const lags = words.map((_, i) => {
    const [before, now] = [times[i - 1], times[i]];
    return before == null || now == null || now <= before ? null : now - before;
  });
  const paces = lags.flatMap((lag, i) => (lag === null ? [] : [lag / spoken(words[i - 1]!)])).sort((a, b) => a - b);
  const pace = paces[paces.length >> 1];
  if (pace === undefined) return lags;
  return lags.map((lag, i) => (lag === null ? null : Math.max(0, lag / pace - spoken(words[i - 1]!))));
}
