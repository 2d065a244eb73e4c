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

/**
 * The same as it is kept in the library: its dots become a WebP without being packed as a PNG and unpacked between, which
 * would take half of the time.
 */
export async function drawingAsWebp(svg: string): Promise<{ body: Buffer; width: number; height: number }> {
  const { pixels, width, height } = drawn(svg);
  const picture = sharp(pixels, { raw: { width, height, channels: 4 } });
  const body = await (isOpaque(pixels) ? picture.removeAlpha() : picture).webp({ quality: 80, effort: 0 }).toBuffer();
  return { body, width, height };
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
