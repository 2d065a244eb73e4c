import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { create, type Font } from 'fontkit';
import { plainFont } from './woff.ts';

export type Style = '400-normal' | '700-normal' | '400-italic' | '700-italic';

/** The face comes in parts, by script; the first that has a letter shows it. */
const SCRIPTS = ['latin', 'latin-ext', 'greek', 'cyrillic', 'vietnamese', 'cyrillic-ext', 'greek-ext'] as const;

/** What no face of text shows, and nobody misses on paper: emoji, and what joins or colours them. */
const LEFT_OUT = /\p{Extended_Pictographic}|\p{Emoji_Modifier}|\u200d|\ufe0e|\ufe0f|\u00ad|\u200b/gu;

/** A part of the face, by its name, as a plain font. */
interface Face {
  name: string;
  body: Buffer;
  font: Font;
}

export interface Stretch {
  text: string;
  face: Face;
}

let folder: string | null = null;
const opened = new Map<string, Face>();

function faceOf(script: string, style: Style): Face {
  const name = `literata-${script}-${style}`;
  let face = opened.get(name);
  if (!face) {
    folder ??= join(dirname(createRequire(import.meta.url).resolve('@fontsource/literata/package.json')), 'files');
    const body = plainFont(readFileSync(join(folder, `${name}.woff`)));
    face = { name, body, font: create(body) as Font };
    opened.set(name, face);
  }
  return face;
}

/** A text in stretches of one face each, or the first letter that none of them shows. */
export function stretchesOf(
  text: string,
  style: Style,
): { ok: true; stretches: Stretch[] } | { ok: false; letter: string } {
  const stretches: Stretch[] = [];
  for (const letter of text.replace(LEFT_OUT, '').replace(/\s+/g, ' ')) {
    const point = letter.codePointAt(0)!;
    const last = stretches.at(-1);
    // Spaces and points are in every part: a stretch is not broken for them.
    if (last?.face.font.hasGlyphForCodePoint(point)) {
      last.text += letter;
      continue;
    }
    const script = SCRIPTS.find((one) => faceOf(one, style).font.hasGlyphForCodePoint(point));
    if (!script) return { ok: false, letter };
    stretches.push({ text: letter, face: faceOf(script, style) });
  }
  return { ok: true, stretches };
}
