/** One caption as it stands in its file. Times are seconds from the beginning. */
export interface Cue {
  start: number;
  end: number;
  /** Lines as they are shown, markup and all. */
  lines: string[];
}

/** Something in a captions file that was read past. */
export interface CaptionFault {
  /** Line of the file, from 1. */
  line: number;
  problem: string;
}

export type ReadCaptions =
  | { ok: true; format: 'WebVTT' | 'SRT'; cues: Cue[]; faults: CaptionFault[] }
  | { ok: false; problem: string };

/** A part of a video with a title of its own. */
export interface Chapter {
  start: number;
  title: string;
}

/** A time as people write it: 00:12, 4:55, 1:02:03. */
export function clockOf(seconds: number): string {
  const whole = Math.max(0, Math.floor(seconds));
  const [h, m, s] = [Math.floor(whole / 3_600), Math.floor(whole / 60) % 60, whole % 60];
  const two = (n: number) => String(n).padStart(2, '0');
  return h > 0 ? `${h}:${two(m)}:${two(s)}` : `${two(m)}:${two(s)}`;
}

/** Seconds of a time written as 4:55, 00:12, 1:02:03 or 295; null when it is none. */
export function secondsOf(text: string): number | null {
  const match = /^\s*(?:(?:(\d{1,3}):)?(\d{1,3}):)?(\d{1,5}(?:[.,]\d{1,3})?)\s*$/.exec(text);
  if (!match) return null;
  return Number(match[1] ?? 0) * 3_600 + Number(match[2] ?? 0) * 60 + Number(match[3]!.replace(',', '.'));
}
