import { hashOf } from '../words/language.ts';

/** A chapter as it is spoken. */
export interface SpokenChapter {
  title: string;
  text: string;
}

interface Line {
  start: number;
  end: number;
  text: string;
}

/** Words spoken in a second. */
const PACE = 2.5;
const WORDS_A_LINE = 9;
/** A breath between chapters. */
const BREATH = 1.5;
/** Silence behind a full stop and behind a comma, in seconds; some are shorter, some are longer. */
const SILENCE = { stop: 0.55, comma: 0.2 };

interface Timed {
  lines: Line[];
  chapters: { title: string; start: number }[];
  seconds: number;
}

/** When each line of a video is said, at an even pace. */
export function timed({ chapters }: { chapters: readonly SpokenChapter[] }): Timed {
  const lines: Line[] = [];
  const starts: { title: string; start: number }[] = [];
  let at = 0;
  for (const { title, text } of chapters) {
    starts.push({ title, start: at });
    const words = text.split(/\s+/).filter((word) => word !== '');
    for (let i = 0; i < words.length; i += WORDS_A_LINE) {
      const part = words.slice(i, i + WORDS_A_LINE);
      const end = at + part.length / PACE;
      lines.push({ start: at, end, text: part.join(' ') });
      at = end;
    }
    at += BREATH;
  }
  return { lines, chapters: starts, seconds: at };
}

/** Seconds a word takes, with the silence behind it: as people speak, now quicker, now slower. */
function spokenFor(word: string, at: number): number {
  const letters = word.replace(/[^\p{L}\p{N}]/gu, '').length;
  const uneven = (hashOf(`${word} ${at}`) % 1_000) / 1_000;
  const silence = /[.?!]["”]?$/.test(word) ? SILENCE.stop : /[,;:]$/.test(word) ? SILENCE.comma : 0;
  // Now and then somebody looks for a word.
  const seeks = uneven > 0.97 ? 0.3 : 0;
  return (0.09 + 0.055 * letters) * (0.85 + 0.3 * uneven) + silence * (0.6 + 0.8 * uneven) + seeks;
}

/** A line with the time of each word but its first, as machines write them: the time it has is shared out by how it is spoken. */
function withTimes({ start, end, text }: Line, from: number): string {
  const words = text.split(' ');
  const lengths = words.map((word, i) => spokenFor(word, from + i));
  const whole = lengths.reduce((sum, length) => sum + length, 0);
  let at = start;
  return words
    .map((word, i) => {
      const own = i === 0 ? bareWord(word) : `<${time(at)}><c> ${bareWord(word)}</c>`;
      at += (lengths[i]! / whole) * (end - start);
      return own;
    })
    .join('');
}

const bareWord = (word: string): string => word.toLowerCase().replace(/[.,;:?!"]/g, '');

/**
 * The captions of a video as WebVTT. Those of a machine have neither punctuation nor capitals, but times of their words, and
 * roll: each shows the line before once more.
 */
export function captionsOf(video: {
  captions: 'hand' | 'machine' | 'none';
  chapters: readonly SpokenChapter[];
}): string {
  const { lines } = timed(video);
  const machine = video.captions === 'machine';
  const bare = lines.map(({ text }) => escaped(text.split(' ').map(bareWord).join(' ')));
  const cues = lines.map((line, i) => {
    const own = machine ? withTimes({ ...line, text: escaped(line.text) }, i * WORDS_A_LINE) : escaped(line.text);
    return `${time(line.start)} --> ${time(line.end)}\n${machine && i > 0 ? `${bare[i - 1]}\n` : ''}${own}`;
  });
  return `WEBVTT\n\n${cues.join('\n\n')}\n`;
}

const escaped = (text: string): string => text.replace(/&/g, '&amp;').replace(/</g, '&lt;');

function time(seconds: number): string {
  const whole = Math.floor(seconds);
  const two = (n: number) => String(n).padStart(2, '0');
  const thousandths = String(Math.floor((seconds - whole) * 1_000)).padStart(3, '0');
  return `${two(Math.floor(whole / 3_600))}:${two(Math.floor(whole / 60) % 60)}:${two(whole % 60)}.${thousandths}`;
}
