import { docxOf, pdfOf } from '@grivo/standins';
import Pdf from 'pdfkit';
import { afterAll, describe, expect, test } from 'vitest';
import { charsetOf, recognise, textOf } from '../src/formats/documents/kind.ts';
import { packedProblem } from '../src/formats/documents/packed.ts';
import { readDocument } from '../src/formats/documents/reader.ts';
import { readMap } from '../src/formats/documents/sitemap.ts';
import { ReadingRoom } from '../src/ground/reading/room.ts';
import { pageOf } from '../src/ports/adapters/pages.ts';

const reader = new ReadingRoom();
afterAll(() => reader.close());

const read = async (bytes: Buffer | string, said: { name?: string; mime?: string; fetched?: boolean } = {}) => {
  const got = await readDocument(reader, Buffer.from(bytes), { fetched: false, ...said });
  if (!got.ok) throw new Error(got.problem);
  return got.text;
};

describe('what a document is', () => {
  test.each([
    ['%PDF-1.4', {}, 'pdf'],
    ['junk before\n%PDF-1.7', {}, 'pdf'],
    ['<!DOCTYPE html><p>x', {}, 'html'],
    ['<!DOCTYPE html><p>x', { fetched: true }, 'page'],
    ['<p>x', { mime: 'text/html; charset=utf-8', fetched: true }, 'page'],
    ['# A', { name: 'a.md' }, 'markdown'],
    ['words', { name: 'a.txt' }, 'text'],
    ['words', { mime: 'text/plain' }, 'text'],
  ])('%j %j', (text, said, kind) => {
    expect(recognise(Buffer.from(text), { fetched: false, ...said })).toMatchObject({ ok: true, kind });
  });

  test.each([
    ['', {}, 'it is empty'],
    ['PK\u0003\u0004 something else', {}, /packed/],
    ['{\\rtf1 words}', {}, /RTF/],
    ['words', { mime: 'image/png' }, /no text \(image\/png\)/],
    ['{"a": 1}', { mime: 'application/json', name: 'a.json' }, /no page and no document/],
  ])('%j is none that is read', (text, said, says) => {
    const got = recognise(Buffer.from(text), { fetched: false, ...said });
    expect(got.ok ? '' : got.problem).toMatch(says);
  });

  test('its letters: by the mark, the reply, its own word, else as they are formed', () => {
    expect(charsetOf(Buffer.from([0xff, 0xfe, 65, 0]), '')).toBe('utf-16le');
    expect(charsetOf(Buffer.from('x'), 'text/html; charset="ISO-8859-1"')).toBe('iso-8859-1');
    expect(charsetOf(Buffer.from('<?xml version="1.0" encoding="windows-1251"?>'), '')).toBe('windows-1251');
    expect(charsetOf(Buffer.from('<meta charset=shift_jis>'), '')).toBe('shift_jis');
    expect(charsetOf(Buffer.from('x'), 'text/html; charset=nonsense')).toBe('utf-8');
    expect(textOf(Buffer.from([0x47, 0xe4, 0x72]), '')).toBe('Gär');
  });
});

describe('reading', () => {
  test('a PDF: paragraphs over lines and hyphens joined, headings and pages known, running heads and numbers left out', async () => {
    const words =
      'The brine should stand two centimetres above the leaves, and a plate keeps them down while the gas rises for the first week.';
    const parts = Array.from({ length: 4 }, (_, i) => ({
      heading: `Part ${'ABCD'[i]}`,
      paragraphs: [
        `${words} ${words} This is part number ${i}.`,
        `${['First', 'Second', 'Third', 'Last'][i]} comes a paragraph that says a little more.`,
      ],
    }));
    const text = await read(pdfOf('A handbook', parts));
    expect(text.title).toBe('A handbook');
    expect(text.paragraphs).toHaveLength(8);
    expect(text.paragraphs[2]).toMatchObject({
      heading: 'Part B',
      page: 2,
      text: `${words} ${words} This is part number 1.`,
    });
  });

  test('a PDF of more pages than are read is refused, not cut', async () => {
    const pdf = new Pdf({ size: [100, 60], margin: 5, autoFirstPage: false });
    const parts: Buffer[] = [];
    pdf.on('data', (part: Buffer) => parts.push(part));
    const ended = new Promise((resolve) => pdf.on('end', resolve));
    for (let n = 0; n < 2_001; n++) pdf.addPage().fontSize(8).text('Salt it well.');
    pdf.end();
    await ended;
    const got = await readDocument(reader, Buffer.concat(parts), { fetched: false });
    expect(got).toEqual({ ok: false, problem: 'it has 2001 pages, and 2000 at most are read; split it' });
  });

  test('a DOCX: title, headings, paragraphs', async () => {
    const text = await read(
      docxOf('Counter', [{ heading: 'Sizes', paragraphs: ['Three litres are enough for two.'] }]),
      { name: 'a.docx' },
    );
    expect(text.paragraphs).toEqual([{ heading: 'Sizes', text: 'Three litres are enough for two.' }]);
  });

  test('Markdown: front matter, lists, tables, links as their words', async () => {
    const text = await read(
      '---\ntitle: "Named"\n---\n## Salt\n\nUse [two per cent](https://a.example) of *it* all.\n\n- one and two\n\n|a|b|\n|-|-|\n|more|of this here|\n',
      { name: 'a.md' },
    );
    expect(text.title).toBe('Named');
    expect(text.paragraphs.map((one) => one.text)).toEqual([
      'Use two per cent of it all.',
      'one and two',
      'a | b',
      'more | of this here',
    ]);
    expect(text.paragraphs[0]?.heading).toBe('Salt');
  });

  test('a page: what stands around its text and what nobody sees are left out', async () => {
    const long = Array.from(
      { length: 6 },
      (_, i) =>
        `<p>Paragraph ${i} tells at some length how the cabbage is salted, pressed and kept under its brine.</p>`,
    ).join('');
    const page = `<!doctype html><html lang="en"><head><title>T</title></head><body><nav><a href="/">Home of many things for you</a></nav><main><article><h1>Kraut</h1>${long}<p hidden>Nobody sees these words that stand here.</p></article></main><footer><p>All rights are reserved by somebody here.</p></footer></body></html>`;
    const text = await read(page, { mime: 'text/html', fetched: true });
    expect(text.title).toBe('Kraut');
    expect(text.paragraphs).toHaveLength(6);
  });

  test('a plain text: a short first line is its title', async () => {
    expect(await read('A title\n\nFirst words\nof a paragraph.\n\nSecond.', { name: 'a.txt' })).toMatchObject({
      title: 'A title',
      paragraphs: [{ text: 'First words of a paragraph.' }, { text: 'Second.' }],
    });
  });

  test('as passages: whole paragraphs up to so many words, places for people', async () => {
    const got = await readDocument(
      reader,
      Buffer.from('# Glazes\n\nFirst the ash is sieved twice.\n\nThen it is mixed with clay.'),
      { name: 'a.md', fetched: false },
      { language: 'de', mostWords: 8 },
    );
    expect(got).toMatchObject({ ok: true, text: { words: 6, language: 'en' } });
    const page = pageOf(
      {
        ok: true,
        kind: 'pdf',
        text: {
          title: '',
          language: 'en',
          words: 6,
          carries: 4,
          published: null,
          paragraphs: [
            { text: 'one two three', heading: 'Salt', page: 1 },
            { text: 'four five six', heading: '', page: 2 },
          ],
        },
      },
      { address: 'https://a.example/', name: 'A file' },
    );
    expect(page).toMatchObject({
      ok: true,
      page: { title: 'A file', paragraphs: ['one two three', 'four five six'], places: ['page 1, Salt', 'page 2'] },
    });
  });

  test('elements too deep in each other are refused before a document is made of them', async () => {
    const deep = await readDocument(reader, Buffer.from(`<html>${'<div>'.repeat(300_000)}`), { fetched: true });
    expect(deep).toEqual({ ok: false, problem: 'its elements lie more than 400 deep in each other' });
  });
});

test('a packed file that grows beyond what is allowed is refused, whatever its directory says', () => {
  const file = docxOf('A', [{ heading: 'B', paragraphs: ['x'.repeat(200_000)] }]);
  expect(packedProblem(file, 1_000_000)).toBeNull();
  expect(packedProblem(file, 100_000)).toMatch(/larger than/);
  const lying = Buffer.from(file);
  for (let at = lying.indexOf('PK\u0001\u0002'); at >= 0; at = lying.indexOf('PK\u0001\u0002', at + 4))
    lying.writeUInt32LE(5, at + 24);
  expect(packedProblem(lying, 100_000)).toMatch(/larger than/);
  expect(packedProblem(file.subarray(0, 300), 1_000_000)).toBe('its end is missing');
});

describe('sitemaps', () => {
  test('pages with their days, maps of an index, one address a line', () => {
    expect(
      readMap(
        '<urlset><url><loc> /a </loc><lastmod>2026-01-02</lastmod></url><url><loc>javascript:x</loc></url></urlset>',
        'https://a.example/s.xml',
      ),
    ).toEqual({
      ok: true,
      maps: [],
      pages: [{ address: 'https://a.example/a', changed: '2026-01-02' }],
    });
    expect(
      readMap('<sitemapindex><sitemap><loc>b.xml</loc></sitemap></sitemapindex>', 'https://a.example/x/s.xml'),
    ).toEqual({
      ok: true,
      maps: ['https://a.example/x/b.xml'],
      pages: [],
    });
    expect(readMap('https://a.example/1\nno address\nhttps://a.example/2', 'https://a.example/')).toMatchObject({
      ok: true,
      pages: [{ address: 'https://a.example/1' }, { address: 'https://a.example/2' }],
    });
  });

  test.each(['<rss/>', 'words', '<html><p>'])('%s is none', (text) =>
    expect(readMap(text, 'https://a.example/').ok).toBe(false),
  );
});

test('nothing readable is dropped, however short; rows of a table stay rows', async () => {
  const html = `<html><body><h1>Brine</h1><table><tr><th>Vegetable</th><th>Salt</th></tr><tr><td>Cabbage</td><td>2 %</td></tr>
    <tr><td><p>Beans</p></td><td><p>5 %</p></td></tr></table><ul><li>Sea salt</li><li>Water</li></ul><p>Done.</p></body></html>`;
  const wanted = ['Vegetable | Salt', 'Cabbage | 2 %', 'Beans | 5 %', 'Sea salt', 'Water', 'Done.'];
  expect((await read(html, { name: 'a.html' })).paragraphs.map((one) => one.text)).toEqual(wanted);
  const markdown = '# Brine\n\n|Vegetable|Salt|\n|-|-|\n|Cabbage|2 %|\n|Beans|5 %|\n\n- Sea salt\n- Water\n\nDone.\n';
  expect((await read(markdown, { name: 'a.md' })).paragraphs.map((one) => one.text)).toEqual(wanted);
  const short = await read(docxOf('Brine', [{ heading: 'Sorts', paragraphs: ['Sea salt', 'Water'] }]), {
    name: 'a.docx',
  });
  expect(short.paragraphs.map((one) => one.text)).toEqual(['Sea salt', 'Water']);
});

test('a sentence of the text that begins several pages stays; a head that stands apart on them does not', async () => {
  const pdf = new Pdf({ size: [300, 200], margin: 20, autoFirstPage: false });
  const parts: Buffer[] = [];
  pdf.on('data', (part: Buffer) => parts.push(part));
  const ended = new Promise((resolve) => pdf.on('end', resolve));
  const said = 'Turn the nipple a quarter turn at a time.';
  const rest = [
    'Look at the gap beside the brake.',
    'Then let the wheel run once round.',
    'A true wheel needs no more.',
  ];
  for (let n = 0; n < 4; n++) {
    pdf
      .addPage()
      .fontSize(7)
      .text(`Wheels, part ${n + 1}`, 20, 20);
    pdf.fontSize(10).text(`${said} ${rest[n % 3]} It takes ${n + 2} minutes.`, 20, 50);
    pdf.fontSize(7).text(`${n + 1}`, 150, 170, { lineBreak: false });
  }
  pdf.end();
  await ended;
  const text = (await read(Buffer.concat(parts))).paragraphs.map((one) => one.text).join(' ');
  expect(text.split(said)).toHaveLength(5);
  expect(text).not.toMatch(/Wheels, part/);
  for (const n of [2, 3, 4, 5]) expect(text).toContain(`It takes ${n} minutes.`);
});
