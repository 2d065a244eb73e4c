import type { CaptionFault, Cue, ReadCaptions } from './cue.ts';

/** Times of a cue in WebVTT (W3C, section 4.1) and, with a comma, in SRT; hours may be missing. */
const TIMES =
  /^\s*((?:\d+:)?\d{1,2}:\d{1,2}[.,]\d{1,3}|(?:\d+:)?\d{1,2}:\d{1,2})\s*-{1,2}>\s*((?:\d+:)?\d{1,2}:\d{1,2}[.,]\d{1,3}|(?:\d+:)?\d{1,2}:\d{1,2})(?:\s|$)/;

const MOST_CUES = 50_000;

/**
 * Reads WebVTT or SRT. Numbers of cues are not looked at, whatever they say; style, region and note blocks are left out;
 * a cue that ends before it begins, or has no times, is read past and named. Overlapping cues stay as they are.
 */
export function readCaptions(text: string): ReadCaptions {
  const lines = text.replace(/^\ufeff/, '').split(/\r\n|\r|\n/);
  const webvtt = /^WEBVTT(?:\s|$)/.test(lines[0] ?? '');
  if (!webvtt && !lines.some((line) => TIMES.test(line)))
    return { ok: false, problem: 'it holds no times as 00:01:02.000 --> 00:01:04.000' };
  const cues: Cue[] = [];
  const faults: CaptionFault[] = [];
  for (let at = webvtt ? headEnd(lines) : 0; at < lines.length; ) {
    if (lines[at]!.trim() === '') {
      at++;
      continue;
    }
    const end = blockEnd(lines, at);
    if (cues.length >= MOST_CUES) {
      faults.push({
        line: at + 1,
        problem: `more than ${MOST_CUES.toLocaleString('en-GB')} captions; the rest is left out`,
      });
      break;
    }
    const read = cueOf(lines, at, end);
    if (read && 'problem' in read) faults.push(read);
    else if (read) cues.push(read);
    at = end;
  }
  if (cues.length === 0) return { ok: false, problem: 'it holds no caption that can be read' };
  cues.sort((a, b) => a.start - b.start || a.end - b.end);
  return { ok: true, format: webvtt ? 'WebVTT' : 'SRT', cues, faults };
}

/** The head ends at an empty line, or where times stand (with the name of their cue before them). */
function headEnd(lines: readonly string[]): number {
  let at = 1;
  while (at < lines.length && lines[at]!.trim() !== '') {
    if (TIMES.test(lines[at]!)) return at > 1 && /^\s*\d+\s*$/.test(lines[at - 1]!) ? at - 1 : at;
    at++;
  }
  return at;
}

/** A block ends at an empty line; one that lacks it ends where the next number and times stand. */
function blockEnd(lines: readonly string[], from: number): number {
  let at = from + 1;
  let timed = TIMES.test(lines[from]!);
  while (at < lines.length && lines[at]!.trim() !== '') {
    if (TIMES.test(lines[at]!)) {
      if (timed) return /^\s*\d+\s*$/.test(lines[at - 1]!) ? at - 1 : at;
      timed = true;
    }
    at++;
  }
  return at;
}

function cueOf(lines: readonly string[], from: number, end: number): Cue | CaptionFault | null {
  const first = lines[from]!;
  if (/^(?:NOTE|STYLE|REGION)(?:\s|$)/.test(first)) return null;
  let at = from;
  while (at < end && !TIMES.test(lines[at]!)) at++;
  if (at === end) return { line: from + 1, problem: `‘${first.slice(0, 40)}’ has no times` };
  const [, begins, ends] = TIMES.exec(lines[at]!)!;
  const start = seconds(begins!);
  const stop = seconds(ends!);
  if (stop < start) return { line: at + 1, problem: `it ends (${ends}) before it begins (${begins})` };
  return { start, end: stop, lines: lines.slice(at + 1, end) };
}

function seconds(time: string): number {
  return time
    .replace(',', '.')
    .split(':')
    .reduce((sum, part) => sum * 60 + Number(part), 0);
}
