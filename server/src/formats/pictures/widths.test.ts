import sharp from 'sharp';
import { describe, expect, test } from 'vitest';
import { inWidths, WIDTHS } from './widths.ts';

const solid = (width: number, height: number, channels: 3 | 4 = 3) =>
  sharp({ create: { width, height, channels, background: { r: 30, g: 90, b: 160, alpha: 0.5 } } });

describe('a picture in several widths', () => {
  test('is none wider than it is, keeps its sides, and is of the form that is asked for', async () => {
    const bytes = await solid(1_300, 650).jpeg().toBuffer();
    for (const form of ['webp', 'avif'] as const) {
      const copies = (await inWidths(bytes, WIDTHS, form))!;
      expect(copies.map(({ width, height }) => [width, height])).toEqual([
        [1_200, 600],
        [800, 400],
        [400, 200],
      ]);
      for (const { body, width } of copies) {
        const { format, compression, width: real } = await sharp(body).metadata();
        expect([form === 'avif' ? compression : format, real]).toEqual([form === 'avif' ? 'av1' : form, width]);
      }
    }
    expect(await inWidths(await solid(300, 300).png().toBuffer(), WIDTHS)).toEqual([]);
  });

  test('stands as it was taken, without what it says of where', async () => {
    const taken = await solid(900, 600)
      .withExif({ IFD0: { Copyright: 'somebody' }, IFD3: { GPSLatitude: '53/1 0/1 0/1' } })
      .withMetadata({ orientation: 6 })
      .jpeg()
      .toBuffer();
    const [widest] = (await inWidths(taken, [400]))!;
    expect([widest!.width, widest!.height]).toEqual([400, 600]);
    expect((await sharp(widest!.body).metadata()).exif).toBeUndefined();
  });

  test('keeps what shines through', async () => {
    const [copy] = (await inWidths(await solid(500, 500, 4).png().toBuffer(), [400]))!;
    expect(await sharp(copy!.body).metadata()).toMatchObject({ hasAlpha: true });
  });

  test.each([
    ['a drawing described by text', Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="500" height="9"/>')],
    ['half a picture', Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 0, 0])],
    ['nothing', Buffer.alloc(0)],
  ])('is none of %s', async (_, bytes) => {
    expect(await inWidths(bytes, WIDTHS)).toBeNull();
  });
});
