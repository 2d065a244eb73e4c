import { crc32, deflateSync } from 'node:zlib';
import type { ArticleWhole, BroughtPicture, Picture, Pictures, PictureWhole, Redrawn } from '@grivo/contract';
import { stepKinds as k, type Step } from '@grivo/core';
import sharp from 'sharp';
import { describe, expect, test } from 'vitest';
import { alikeness, lookOf } from '../src/formats/pictures/look.ts';
import { notePictures } from '../src/nouns/pictures/uses.ts';
import { atTheDesk, type Desk } from './ground/desk.ts';
import { illustrating } from './ground/illustrating.ts';

let desk: Desk;
// Pictures are noted when a test says so.
atTheDesk(
  (open) => {
    desk = open;
  },
  { upkeep: [] },
);

/** Stripes of two colours, so that pictures differ in how they look. */
async function striped(seed: number, format: 'png' | 'jpeg' | 'gif' | 'tiff' = 'png', width = 640): Promise<Buffer> {
  const stripes = Array.from(
    { length: 8 },
    (_, i) =>
      `<rect x="${i * 80}" width="80" height="400" fill="${((seed * 37 + i * i * seed) % 5) % 2 ? '#224433' : '#eeddcc'}"/>`,
  ).join('');
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="640" height="400">${stripes}<circle cx="${100 + ((seed * 97) % 400)}" cy="200" r="90" fill="#cc4422"/></svg>`;
  return sharp(Buffer.from(svg)).resize(width).toFormat(format).toBuffer();
}

async function upload(bytes: Buffer): Promise<string> {
  const response = await fetch(`${desk.http.address}/api/uploads?name=p&mime=image/png`, {
    method: 'POST',
    headers: { cookie: desk.cookie, 'content-type': 'application/octet-stream' },
    body: new Uint8Array(bytes),
  });
  return ((await response.json()) as { file: string }).file;
}
/** The beginning of a PNG that says how large it is (PNG, section 11.2.1), with next to nothing in it. */
function vast(side: number): Buffer {
  const chunk = (type: string, data: Buffer) => {
    const body = Buffer.concat([Buffer.from(type), data]);
    const out = Buffer.alloc(body.length + 8);
    out.writeUInt32BE(data.length, 0);
    body.copy(out, 4);
    out.writeUInt32BE(crc32(body), body.length + 4);
    return out;
  };
  const head = Buffer.from([0, 0, 0, 0, 0, 0, 0, 0, 8, 2, 0, 0, 0]);
  head.writeUInt32BE(side, 0);
  head.writeUInt32BE(side, 4);
  const sign = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);
  return Buffer.concat([
    sign,
    chunk('IHDR', head),
    chunk('IDAT', deflateSync(Buffer.alloc(90_001))),
    chunk('IEND', Buffer.alloc(0)),
  ]);
}
const bring = async (bytes: Buffer, words: string, credit = '') =>
  desk.ask<BroughtPicture>('POST', '/pictures', { file: await upload(bytes), words, credit });
const list = async (query = '') => (await desk.ask<Pictures>('GET', `/pictures${query}`)).body;
const whole = async (file: string) => (await desk.ask<PictureWhole>('GET', `/pictures/${file}`)).body;

const illustrated = illustrating(() => desk);
/** Several processes note them, at once. */
const noted = async () => {
  const notes = () => Promise.all([1, 2, 3].map(() => notePictures(desk.w.product.ground.db)));
  while ((await notes()).some((many) => many > 0));
};

describe('pictures brought in', () => {
  test('are kept once, at a size for the web, found by their words, changed, and taken out', async () => {
    const bytes = await striped(3, 'jpeg', 2_400);
    const { body: first } = await bring(bytes, 'A maple peg on a bench', 'Ada Strings');
    expect(first.isNew).toBe(true);
    expect((await bring(bytes, 'The same')).body).toEqual({ file: first.file, isNew: false });
    const { picture, usedIn } = await whole(first.file);
    expect(picture).toMatchObject({
      kind: 'own',
      words: 'A maple peg on a bench',
      credit: 'Ada Strings',
      width: 1_600,
    });
    expect(usedIn).toEqual([]);
    expect((await list('?find=maple')).pictures.map(({ file }) => file)).toEqual([first.file]);
    expect((await list('?find=spruce')).pictures).toEqual([]);
    expect((await list('?kind=still')).pictures).toEqual([]);
    const change = (rev: number) =>
      desk.ask('PATCH', `/pictures/${first.file}`, { words: 'Pegs of maple', credit: '' }, { 'if-match': `"${rev}"` });
    expect((await change(picture.rev)).status).toBe(200);
    expect((await change(picture.rev)).status).toBe(412);
    expect((await desk.ask('DELETE', `/pictures/${first.file}`)).status).toBe(204);
    expect((await desk.ask('GET', `/pictures/${first.file}`)).status).toBe(404);
  });

  test('lose what they say of where and by whom they were taken', async () => {
    const bytes = await sharp(await striped(5))
      .withExif({ IFD0: { Artist: 'Somebody at home' } })
      .jpeg()
      .toBuffer();
    expect(bytes.toString('latin1')).toContain('Somebody at home');
    const { file } = (await bring(bytes, 'A private peg')).body;
    const kept = Buffer.from(
      await (await fetch(`${desk.http.address}/api/files/${file}`, { headers: { cookie: desk.cookie } })).arrayBuffer(),
    );
    expect(kept.toString('latin1')).not.toContain('Somebody');
    expect((await sharp(kept).metadata()).exif).toBeUndefined();
  });

  test.each([
    [
      'a drawing described by text, with a script',
      Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script></svg>'),
      /svg|no picture/,
    ],
    ['words', Buffer.from('not a picture at all'), /no picture/],
    ['a picture that ends too early', null, /cannot be read/],
    ['an animated GIF', 'gif', /gif.*PNG, JPEG, WebP and AVIF/],
    ['a TIFF', 'tiff', /PNG, JPEG, WebP and AVIF/],
  ])('%s is refused with what would mend it', async (_says, what, problem) => {
    const bytes =
      what === null
        ? (
            await sharp(await striped(7))
              .webp()
              .toBuffer()
          ).subarray(0, 900)
        : typeof what === 'string'
          ? await striped(7, what as 'gif')
          : what;
    const { status, problem: said } = await bring(bytes, 'x');
    expect([status, said.detail]).toEqual([422, expect.stringMatching(problem)]);
    expect(said.mend).toBe('Choose a PNG, JPEG, WebP or AVIF.');
  });

  test('a TIFF of sixty megabytes is refused before it is read, and memory stays flat', async () => {
    const large = await sharp({ create: { width: 5_000, height: 4_000, channels: 3, background: '#a33' } })
      .tiff({ compression: 'none' })
      .toBuffer();
    expect(large.length).toBeGreaterThan(59_000_000);
    const before = process.memoryUsage().rss;
    const { status, problem } = await bring(large, 'x');
    expect([status, problem.mend]).toEqual([
      expect.toSatisfy((code: number) => code === 413 || code === 422),
      expect.stringMatching(/smaller|PNG/),
    ]);
    expect(process.memoryUsage().rss - before).toBeLessThan(200_000_000);
    // Whatever it says it is, what is within the limit is told by its bytes.
    const small = await bring(
      await sharp({ create: { width: 9, height: 9, channels: 3, background: '#a33' } })
        .tiff()
        .toBuffer(),
      'x',
    );
    expect(small.problem.detail).toMatch(/PNG, JPEG, WebP and AVIF are/);
  });

  test('one of nine hundred million dots is refused, and not unpacked', async () => {
    const huge = vast(30_000);
    const before = process.memoryUsage().rss;
    expect((await bring(huge, 'x')).problem.detail).toMatch(/pixel limit/);
    expect(process.memoryUsage().rss - before).toBeLessThan(200_000_000);
  });

  test('are cut to other sides at what is to stay; the one they are cut from stays', async () => {
    const { file } = (await bring(await striped(31), 'A long bench', 'Ada Strings')).body;
    const cut = (body: object) => desk.ask<Picture>('POST', `/pictures/${file}/cut`, body);
    const square = (await cut({ ratio: '1:1', keep: 'the left' })).body;
    expect(square).toMatchObject({
      width: 400,
      height: 400,
      words: 'A long bench',
      credit: 'Ada Strings',
      kind: 'own',
    });
    expect((await cut({ ratio: '1:1', keep: 'the right' })).body.file).not.toBe(square.file);
    expect((await cut({ ratio: '16:9', keep: 'the top' })).body).toMatchObject({ width: 640, height: 360 });
    expect((await cut({ ratio: '9:100', keep: 'the top' })).status).toBe(422);
    expect((await desk.ask('POST', `/pictures/${'0'.repeat(64)}/cut`, { ratio: '1:1', keep: 'the top' })).status).toBe(
      404,
    );
    expect((await whole(file)).picture).toMatchObject({ width: 640, height: 400 });
  });

  test('that look nearly the same are told, others not', async () => {
    const one = (await bring(await striped(11), 'Stripes')).body.file;
    const smaller = (await bring(await striped(11, 'jpeg', 320), 'Stripes, smaller')).body.file;
    const other = (await bring(await striped(19), 'Other stripes')).body.file;
    const { alike } = await whole(one);
    const files = alike.map(({ file }) => file);
    expect(files).toContain(smaller);
    expect(files).not.toContain(other);
    expect(files).not.toContain(one);
    expect(alike[0]!.share).toBeGreaterThan(0.9);
    expect(alikeness((await lookOf(await striped(11)))!, (await lookOf(await striped(19)))!)).toBeLessThan(0.9);
    expect(await lookOf(Buffer.from('no'))).toBeNull();
  });
});

describe('the lead picture', () => {
  test('is the one of ours whose words fit, with its words and credit; the library knows where it stands', async () => {
    const { file } = (await bring(await striped(23), 'An ebony peg in its hole, from above', 'Ada Strings')).body;
    await bring(await striped(29), 'A row of cellos');
    const { article, lead } = await illustrated('the ebony peg', { lead: 'own', otherwise: 'none' });
    expect(lead).toMatchObject({
      file,
      alternative: 'An ebony peg in its hole, from above',
      credit: [{ text: 'Ada Strings' }],
    });
    await noted();
    expect((await whole(file)).usedIn).toEqual([
      { article: article.id, title: article.title, standing: article.standing, isLead: true },
    ]);
    const refused = await desk.ask('DELETE', `/pictures/${file}`);
    expect([refused.status, refused.problem.detail]).toEqual([409, 'One article has it.']);
    expect((await list('?unused=true')).pictures.map((one) => one.file)).not.toContain(file);
  });

  test('where none of ours fits there is none, or one is drawn, as the step says', async () => {
    expect((await illustrated('qanun quills', { lead: 'own', otherwise: 'none' })).lead).toBeNull();
    const { lead } = await illustrated('qanun quills', { lead: 'own', otherwise: 'drawn' });
    expect(lead?.alternative).toBeTruthy();
    const { picture } = await whole(lead!.file);
    expect(picture).toMatchObject({ kind: 'drawn', words: lead!.alternative });
    expect(picture.cost).toBeGreaterThan(0);
    expect((await list()).sums.cost).toBeGreaterThanOrEqual(picture.cost);
  });

  test('is the still of the video it is made from, credited with a link; without a video there is none', async () => {
    const link = `${desk.w.standIns.address}/videos/watch/salt-by-weight`;
    const read = { ...k.read.fresh('r1'), what: 'the captions' } as Step;
    const { lead } = await illustrated('salt by weight', { lead: 'still', otherwise: 'none' }, [read], { link });
    expect(lead).not.toBeNull();
    expect(lead!.alternative).toMatch(/^Still of “.+”$/);
    expect(lead!.credit![0]).toMatchObject({ link: { to: 'address', address: link } });
    expect((await whole(lead!.file)).picture).toMatchObject({ kind: 'still', origin: link, cost: 0 });
    expect((await illustrated('no video', { lead: 'still', otherwise: 'none' })).lead).toBeNull();
  });
});

describe('a picture drawn anew', () => {
  test('comes beside what there is, is paid for once and kept in the library; the article stays as it is', async () => {
    const { article, lead } = await illustrated('peg paste', { lead: 'drawn' });
    const { db } = desk.w.product.ground;
    const spent = async () =>
      Number(
        (await db.rows<{ n: number }>("SELECT COALESCE(SUM(micros), 0) AS n FROM ledger WHERE what = 'picture'"))[0]!.n,
      );
    const before = await spent();
    const { body: price } = await desk.ask<{ micros: number }>('GET', '/redraw/price');
    const again = (note: string, n = 0) =>
      desk.ask<Redrawn>('POST', `/articles/${article.id}/redraw`, { shows: lead!.alternative, note, again: n });
    const first = (await again('fewer jars, and a scale')).body;
    expect(first.micros).toBe(price.micros);
    expect(await spent()).toBe(before + price.micros);
    expect(first.picture.file).not.toBe(lead!.file);
    expect(first.picture).toMatchObject({ kind: 'drawn', cost: price.micros, uses: 0 });
    // Asked the same again it is the same drawing, and costs nothing; another number is another one.
    expect((await again('fewer jars, and a scale')).body.picture.file).toBe(first.picture.file);
    expect(await spent()).toBe(before + price.micros);
    expect((await again('fewer jars, and a scale', 1)).body.picture.file).not.toBe(first.picture.file);
    const now = (await desk.ask<ArticleWhole>('GET', `/articles/${article.id}`)).body;
    expect(now.revision).toBe(article.revision);
    expect((await again('')).status).toBe(422);
    const proofreader = await desk.http.as('proofreader');
    const refused = await proofreader('POST', `/articles/${article.id}/redraw`, { note: 'x' });
    expect(refused.status).toBe(403);
  });
});
