import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { type Font, openSync } from 'fontkit';

export type Style = '400-normal' | '700-normal' | '400-italic' | '700-italic';

/** The face comes in parts, by script; the first that has a letter shows it. */
const SCRIPTS = ['latin', 'latin-ext', 'greek', 'cyrillic', 'vietnamese', 'cyrillic-ext', 'greek-ext'] as const;

/** What no face of text shows, and nobody misses on paper: emoji, and what joins or colours them. */
const LEFT_OUT = /\p{Extended_Pictographic}|\p{Emoji_Modifier}|\u200d|\ufe0e|\ufe0f|\u00ad|\u200b/gu;

export interface Stretch {
  text: string;
  /** The file of the part of the face that shows it. */
  file: string;
}

let folder: string | null = null;
const opened = new Map<string, Font>();

function fileOf(script: string, style: Style): string {
  folder ??= join(dirname(createRequire(import.meta.url).resolve('@fontsource/literata/package.json')), 'files');
  return join(folder, `literata-${script}-${style}.woff`);
}

function shows(file: string, letter: number): boolean {
  let font = opened.get(file);
  if (!font) {
    font = openSync(file) as Font;
    opened.set(file, font);
  }
  return font.hasGlyphForCodePoint(letter);
}

/** A text in stretches of one file each, or the first letter that none of them shows. */
export function stretchesOf(
  text: string,
  style: Style,
): { ok: true; stretches: Stretch[] } | { ok: false; letter: string } {
  const stretches: Stretch[] = [];
  for (const letter of text.replace(LEFT_OUT, '').replace(/\s+/g, ' ')) {
    const point = letter.codePointAt(0)!;
    const last = stretches.at(-1);
    // Spaces and points are in every part: a stretch is not broken for them.
    if (last && shows(last.file, point)) {
      last.text += letter;
      continue;
    }
    const script = SCRIPTS.find((one) => shows(fileOf(one, style), point));
    if (!script) return { ok: false, letter };
    stretches.push({ text: letter, file: fileOf(script, style) });
  }
  return { ok: true, stretches };
}
