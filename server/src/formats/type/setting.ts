import type { CardFace, Face, SetLine } from '@grivo/core';
import type { Font, Glyph, GlyphPosition } from 'fontkit';
import type { Family } from './open.ts';
import { runsOf } from './order.ts';
import { type Stretch, stretchesIn } from './stretches.ts';

/** Where letters come from, in this order: no face has all scripts. */
const FAMILIES: Record<CardFace, readonly Family[]> = {
  book: ['literata', 'noto-naskh-arabic', 'noto-serif-hebrew', 'noto-serif-jp'],
  plain: ['schibsted-grotesk', 'literata', 'noto-naskh-arabic', 'noto-serif-hebrew', 'noto-serif-jp'],
};

/** Words that are remembered as set; titles come from ten thousands of articles. */
const MOST_REMEMBERED = 5_000;

const faces = new Map<string, Face>();

/** A face that comes with the application, as drawings use it. */
export function faceFor(kind: CardFace, bold: boolean): Face {
  const style = bold ? '700-normal' : '400-normal';
  const key = `${kind} ${style}`;
  let face = faces.get(key);
  if (!face) {
    face = makeFace(FAMILIES[kind], style);
    faces.set(key, face);
  }
  return face;
}

function makeFace(families: readonly Family[], style: string): Face {
  const remembered = new Map<string, ReturnType<Face['set']>>();
  return {
    reach: (text) => {
      const split = stretchesIn(families, text, style);
      let [above, below] = [0, 0];
      for (const { face } of split.ok ? split.stretches : []) {
        const em = 1_000 / face.font.unitsPerEm;
        above = Math.max(above, face.font.ascent * em);
        below = Math.max(below, -face.font.descent * em);
      }
      return { above, below };
    },
    set: (text, fromRight) => {
      const key = `${fromRight} ${text}`;
      const known = remembered.get(key);
      if (known) return known;
      const line = setLine(families, style, text, fromRight);
      if (remembered.size >= MOST_REMEMBERED) remembered.delete(remembered.keys().next().value!);
      remembered.set(key, line);
      return line;
    },
  };
}

function setLine(families: readonly Family[], style: string, text: string, from: boolean): ReturnType<Face['set']> {
  const line: SetLine = { advance: 0, ink: { left: 0, right: 0, top: 0, bottom: 0 }, outline: '' };
  for (const { text: run, fromRight } of runsOf(text, from)) {
    const split = stretchesIn(families, run, style);
    if (!split.ok) return { missing: split.letter };
    for (const stretch of fromRight ? split.stretches.reverse() : split.stretches) add(line, stretch, fromRight);
  }
  return line;
}

function add(line: SetLine, { text, face: { font } }: Stretch, fromRight: boolean): void {
  const { glyphs, positions } = font.layout(text, undefined, undefined, undefined, fromRight ? 'rtl' : 'ltr');
  for (const [n, glyph] of glyphs.entries()) place(line, font, glyph, positions[n]!);
}

const COMMANDS: Record<string, string> = {
  moveTo: 'M',
  lineTo: 'L',
  quadraticCurveTo: 'Q',
  bezierCurveTo: 'C',
  closePath: 'Z',
};

function place(line: SetLine, font: Font, glyph: Glyph, { xAdvance, xOffset, yOffset }: GlyphPosition): void {
  const em = 1_000 / font.unitsPerEm;
  const [x, y] = [line.advance + xOffset * em, -yOffset * em];
  for (const { command, args } of glyph.path.commands) {
    const points = args.map((arg, n) => Math.round(n % 2 === 0 ? x + arg * em : y - arg * em));
    line.outline += `${COMMANDS[command]}${points.join(' ')}`;
  }
  const { minX, minY, maxX, maxY } = glyph.path.bbox;
  if (glyph.path.commands.length > 0) {
    const { ink } = line;
    ink.left = Math.min(ink.left, x + minX * em);
    ink.right = Math.max(ink.right, x + maxX * em);
    ink.top = Math.min(ink.top, y - maxY * em);
    ink.bottom = Math.max(ink.bottom, y - minY * em);
  }
  line.advance += xAdvance * em;
}
