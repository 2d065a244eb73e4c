import { type Family, faceWith, type OpenFace } from './open.ts';

/** What no face shows, and nobody misses: what joins or colours emoji, and where a word may be parted. */
const LEFT_OUT = /\p{Emoji_Modifier}|\u200d|\ufe0e|\ufe0f|\u00ad|\u200b/gu;
const EMOJI = /\p{Extended_Pictographic}/u;

export interface Stretch {
  text: string;
  face: OpenFace;
}

/** A text in stretches of one face each, or the first letter that none of the families shows. */
export function stretchesIn(
  families: readonly Family[],
  text: string,
  style: string,
): { ok: true; stretches: Stretch[] } | { ok: false; letter: string } {
  const stretches: Stretch[] = [];
  for (const letter of text.replace(LEFT_OUT, '').replace(/\s+/g, ' ')) {
    const point = letter.codePointAt(0)!;
    const last = stretches.at(-1);
    // Spaces and points are in every part: a stretch is not broken for them. The face of emoji has figures of its own.
    if (!last?.face.name.startsWith('noto-emoji') && last?.face.font.hasGlyphForCodePoint(point)) {
      last.text += letter;
      continue;
    }
    const face = faceWith(families, style, point);
    // An emoji that is newer than the face of emoji says nothing the text does not.
    if (!face && EMOJI.test(letter)) continue;
    if (!face) return { ok: false, letter };
    stretches.push({ text: letter, face });
  }
  return { ok: true, stretches };
}
