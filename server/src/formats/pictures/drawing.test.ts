import sharp from 'sharp';
import { describe, expect, test } from 'vitest';
import { asDataAddress, drawingAsPicture, drawingAsPng, thumbOf } from './drawing.ts';

const svg =
  '<svg xmlns="http://www.w3.org/2000/svg" width="40" height="20" viewBox="0 0 40 20"><rect width="40" height="20" fill="#2f5a5d"/></svg>';
const solid = (channels: 3 | 4, width = 300, height = 200) =>
  sharp({ create: { width, height, channels, background: { r: 200, g: 30, b: 30, alpha: 0.5 } } });
const bytesOf = (address: string) => Buffer.from(address.slice(address.indexOf(',') + 1), 'base64');

describe('a drawing of ours', () => {
  test('becomes a picture of its sides, or as wide as is asked for', async () => {
    expect(await sharp(drawingAsPng(svg)).metadata()).toMatchObject({ format: 'png', width: 40, height: 20 });
    expect(await sharp(drawingAsPng(svg, 160)).metadata()).toMatchObject({ width: 160, height: 80 });
    const { data } = await sharp(drawingAsPng(svg)).raw().toBuffer({ resolveWithObject: true });
    expect([...data.subarray(0, 3)]).toEqual([0x2f, 0x5a, 0x5d]);
  });

  test('shows pictures put into it', async () => {
    const inside = await asDataAddress(await solid(3).png().toBuffer(), 40);
    const png = drawingAsPng(
      svg
        .replace('<rect', `<image width="40" height="20" preserveAspectRatio="xMidYMid slice" href="${inside}"/><desc`)
        .replace('fill="#2f5a5d"/>', '/>'),
    );
    const { data } = await sharp(png).raw().toBuffer({ resolveWithObject: true });
    expect(data[0]).toBeGreaterThan(150);
  });
});

test('a drawing is kept exactly as a PNG, with what shines through where anything does', async () => {
  const opaque = await drawingAsPicture(svg);
  expect(opaque).toMatchObject({ mime: 'image/png', width: 40, height: 20 });
  expect(await sharp(opaque.body).metadata()).toMatchObject({ format: 'png', width: 40, height: 20, hasAlpha: false });
  const { data } = await sharp(opaque.body).raw().toBuffer({ resolveWithObject: true });
  expect([...data.subarray(0, 3)]).toEqual([0x2f, 0x5a, 0x5d]);
  const through = await drawingAsPicture(svg.replace('fill=', 'fill-opacity="0.5" fill='));
  expect(await sharp(through.body).metadata()).toMatchObject({ hasAlpha: true });
});

test('a drawing with a photograph in it is kept as a WebP', async () => {
  const inside = await asDataAddress(await solid(3).png().toBuffer(), 40);
  const made = await drawingAsPicture(svg.replace('</svg>', `<image width="20" height="20" href="${inside}"/></svg>`));
  expect(made.mime).toBe('image/webp');
  expect(await sharp(made.body).metadata()).toMatchObject({ format: 'webp', width: 40, height: 20 });
});

describe('a picture to be put into a drawing', () => {
  test('is no larger than it is shown, and keeps what shines through', async () => {
    const plain = await asDataAddress(await solid(3).jpeg().toBuffer(), 100);
    expect(plain).toMatch(/^data:image\/jpeg;base64,/);
    expect(await sharp(bytesOf(plain!)).metadata()).toMatchObject({ width: 100, height: 67 });
    const through = await asDataAddress(await solid(4).webp().toBuffer(), 1_000);
    expect(through).toMatch(/^data:image\/png;base64,/);
    expect(await sharp(bytesOf(through!)).metadata()).toMatchObject({ width: 300, height: 200, hasAlpha: true });
  });

  test.each([
    ['a drawing described by text', Buffer.from(svg)],
    ['words', Buffer.from('no picture')],
    ['half a picture', Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 0, 0])],
    ['nothing', Buffer.alloc(0)],
  ])('is none of %s', async (_, bytes) => {
    expect([await asDataAddress(bytes, 100), await thumbOf(bytes, 100)]).toEqual([null, null]);
  });

  test('in small is a WebP as wide as is asked for', async () => {
    const small = await thumbOf(await solid(3).png().toBuffer(), 60);
    expect(await sharp(bytesOf(small!)).metadata()).toMatchObject({ format: 'webp', width: 60, height: 40 });
  });
});
