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

/**
 * The captions of a video as WebVTT. Those of a machine have neither punctuation nor capitals, and roll: each shows the
 * line before once more.
 */
export function captionsOf(video: {
  captions: 'hand' | 'machine' | 'none';
  chapters: readonly SpokenChapter[];
}): string {
  const { lines } = timed(video);
  const shown = lines.map((line) =>
    video.captions === 'machine' ? { ...line, text: line.text.toLowerCase().replace(/[.,;:?!"]/g, '') } : line,
  );
  const cues = shown.map(({ start, end, text }, i) => {
    const rolled = video.captions === 'machine' && i > 0 ? `${shown[i - 1]!.text}\n${text}` : text;
    return `${time(start)} --> ${time(end)}\n${rolled.replace(/&/g, '&amp;').replace(/</g, '&lt;')}`;
  });
  return `WEBVTT\n\n${cues.join('\n\n')}\n`;
}

function time(seconds: number): string {
  const whole = Math.floor(seconds);
  const two = (n: number) => String(n).padStart(2, '0');
  const thousandths = String(Math.floor((seconds - whole) * 1_000)).padStart(3, '0');
  return `${two(Math.floor(whole / 3_600))}:${two(Math.floor(whole / 60) % 60)}:${two(whole % 60)}.${thousandths}`;
}
