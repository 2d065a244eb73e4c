import sharp from 'sharp';

export type Keep = 'the middle' | 'the top' | 'the bottom' | 'the left' | 'the right';

/** Where of what is left over the cut begins, from 0 to 1. */
const BEGINS: Record<Keep, { x: number; y: number }> = {
  'the middle': { x: 0.5, y: 0.5 },
  'the top': { x: 0.5, y: 0 },
  'the bottom': { x: 0.5, y: 1 },
  'the left': { x: 0, y: 0.5 },
  'the right': { x: 1, y: 0.5 },
};

/**
 * The largest part of a picture whose sides are as wide for so high, at what is to be kept. The picture is one of ours: it was
 * read before with limits.
 */
export async function cutTo(
  bytes: Buffer,
  wide: number,
  high: number,
  keep: Keep,
): Promise<{ body: Buffer; width: number; height: number }> {
  const picture = sharp(bytes);
  const { width: w, height: h } = await picture.metadata();
  const width = Math.max(1, Math.min(w, Math.round((h * wide) / high)));
  const height = Math.max(1, Math.min(h, Math.round((w * high) / wide)));
  const { x, y } = BEGINS[keep];
  const { data, info } = await picture
    .extract({ left: Math.round((w - width) * x), top: Math.round((h - height) * y), width, height })
    .webp({ quality: 80, effort: 0 })
    .toBuffer({ resolveWithObject: true });
  return { body: data, width: info.width, height: info.height };
}
