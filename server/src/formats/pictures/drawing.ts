import { Resvg } from '@resvg/resvg-js';
import sharp from 'sharp';
import { MOST_PIXELS, pictureAs, pictureRefused } from './read.ts';

/**
 * A drawing of ours (SVG with letters as outlines) as a picture. Only what this application drew comes here; drawings of
 * others are not read.
 * @param width pixels it is to be wide; as wide as it was drawn where none is given
 */
export function drawingAsPng(svg: string, width?: number): Buffer {
  return drawn(svg, width).asPng();
}

/** A picture made here, as it is kept. */
export interface MadePicture {
  body: Buffer;
  mime: 'image/png' | 'image/webp';
  width: number;
  height: number;
}

/**
 * The same as it is kept in the library. Flat colours and letters are a PNG: exact, shown by every program that shows a
 * preview of an address, and packed in a quarter of the time. A drawing that holds a photograph is a WebP, since a PNG of it
 * would be ten times as large.
 */
export async function drawingAsPicture(svg: string): Promise<MadePicture> {
  const { pixels, width, height } = drawn(svg);
  const all = sharp(pixels, { raw: { width, height, channels: 4 } });
  const picture = isOpaque(pixels) ? all.removeAlpha() : all;
  return svg.includes('<image')
    ? { body: await picture.webp({ quality: 80, effort: 0 }).toBuffer(), mime: 'image/webp', width, height }
    : { body: await picture.png({ compressionLevel: 3 }).toBuffer(), mime: 'image/png', width, height };
}

/** Whether nothing shines through dots of red, green, blue and alpha. */
function isOpaque(pixels: Buffer): boolean {
  for (let i = 3; i < pixels.length; i += 4) if (pixels[i] !== 255) return false;
  return true;
}

function drawn(svg: string, width?: number) {
  const drawing = new Resvg(svg, {
    font: { loadSystemFonts: false },
    ...(width === undefined ? {} : { fitTo: { mode: 'width', value: width } }),
  });
  return drawing.render();
}

/**
 * A picture as it is put into a drawing: no larger than it is shown, in an address of its own (RFC 2397).
 * @returns null of what cannot be read
 */
export async function asDataAddress(bytes: Buffer, widest: number): Promise<string | null> {
  if (pictureRefused(bytes) !== null) return null;
  try {
    const open = sharp(bytes, { limitInputPixels: MOST_PIXELS, pages: 1 });
    const { hasAlpha } = await open.metadata();
    const sized = open.rotate().resize({ width: widest, height: widest, fit: 'inside', withoutEnlargement: true });
    const body = await (hasAlpha ? sized.png() : sized.jpeg({ quality: 85 })).toBuffer();
    return `data:image/${hasAlpha ? 'png' : 'jpeg'};base64,${body.toString('base64')}`;
  } catch (error) {
    if (!(error instanceof Error)) throw error;
    return null;
  }
}

/** A picture in small, as it is shown to choose from; null of what cannot be read. */
export async function thumbOf(bytes: Buffer, widest: number): Promise<string | null> {
  const small = await pictureAs(bytes, widest, (open) => open.rotate().webp({ quality: 60, effort: 0 }));
  return small.ok ? `data:image/webp;base64,${small.body.toString('base64')}` : null;
}
