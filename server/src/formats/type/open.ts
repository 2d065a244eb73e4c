import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { create, type Font } from 'fontkit';
import { plainFont } from './woff.ts';

/** A part of a face, by its name, as a plain font. */
export interface OpenFace {
  name: string;
  body: Buffer;
  font: Font;
}

/** Families of letters that come with the application, the parts each comes in, by script, and whether it has slanted letters. */
const FAMILIES = {
  literata: {
    scripts: ['latin', 'latin-ext', 'greek', 'cyrillic', 'vietnamese', 'cyrillic-ext', 'greek-ext'],
    slanted: true,
  },
  'schibsted-grotesk': { scripts: ['latin', 'latin-ext'], slanted: true },
  'noto-naskh-arabic': { scripts: ['arabic'], slanted: false },
  'noto-serif-hebrew': { scripts: ['hebrew'], slanted: false },
  'noto-serif-jp': { scripts: ['japanese'], slanted: false },
  'noto-emoji': { scripts: ['emoji'], slanted: false },
} as const;
export type Family = keyof typeof FAMILIES;

const folders = new Map<Family, string>();
const opened = new Map<string, OpenFace>();

function open(family: Family, script: string, style: string): OpenFace {
  const name = `${family}-${script}-${style}`;
  let face = opened.get(name);
  if (!face) {
    let folder = folders.get(family);
    if (folder === undefined) {
      folder = join(dirname(createRequire(import.meta.url).resolve(`@fontsource/${family}/package.json`)), 'files');
      folders.set(family, folder);
    }
    const body = plainFont(readFileSync(join(folder, `${name}.woff`)));
    face = { name, body, font: create(body) as Font };
    opened.set(name, face);
  }
  return face;
}

/** The first part of these families, in their order, that has a letter; null where none has. */
export function faceWith(families: readonly Family[], style: string, point: number): OpenFace | null {
  for (const family of families)
    for (const script of FAMILIES[family].scripts) {
      const face = open(family, script, FAMILIES[family].slanted ? style : style.replace('italic', 'normal'));
      if (face.font.hasGlyphForCodePoint(point)) return face;
    }
  return null;
}
