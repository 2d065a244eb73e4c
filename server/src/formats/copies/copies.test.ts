import { type ArticleDocument, articleFlow, type Block, EMPTY_ARTICLE } from '@grivo/core';
import { strFromU8, unzipSync } from 'fflate';
import { convertToHtml } from 'mammoth';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import sharp from 'sharp';
import { expect, test } from 'vitest';
import { pdfOf } from './pdf.ts';
import { wordOf } from './word.ts';

const FILE = 'a'.repeat(64);
const jpeg = await sharp({ create: { width: 300, height: 200, channels: 3, background: '#888888' } })
  .jpeg()
  .toBuffer();
const pictures = new Map([[FILE, { jpeg, width: 300, height: 200 }]]);
const resolve = { file: (digest: string) => digest, article: () => 'https://journal.example/salt' };

const body: Block[] = [
  {
    type: 'figure',
    id: 'f',
    file: FILE,
    width: 300,
    height: 200,
    alternative: 'A grey crock',
    credit: [{ text: 'Drawn' }],
    lead: true,
  },
  { type: 'contents', id: 'c' },
  { type: 'heading', id: 'h', level: 2, text: 'Größe und Gärzeit' },
  {
    type: 'paragraph',
    id: 'p',
    content: [
      { text: 'Take ' },
      { text: '22 grams', marks: ['strong'] },
      { text: ' a kilogram, as ' },
      { text: 'we said of salt', link: { to: 'article', article: 'x' } },
      { text: ' – żółty сок.' },
    ],
  },
  { type: 'list', id: 'l', ordered: true, items: [[{ text: 'Slice it' }], [{ text: 'Press it down' }]] },
  { type: 'heading', id: 'h2', level: 3, text: 'In figures' },
  {
    type: 'table',
    id: 't',
    caption: [{ text: 'Salt by weight' }],
    head: [[{ text: 'Cabbage' }], [{ text: 'Salt' }]],
    rows: [
      [[{ text: '1 kg' }], [{ text: '22 g', marks: ['strong'] }]],
      [[{ text: '6 kg' }], [{ text: '132 g' }]],
    ],
  },
  { type: 'quote', id: 'q', content: [{ text: 'It went soft.' }], credit: [{ text: 'A neighbour' }] },
  { type: 'question and answer', id: 'qa', question: 'How warm?', answer: [{ text: '18 degrees.' }] },
  { type: "owner's markup", id: 'o', markup: '<script>alert(1)</script>' },
];
const article = { ...EMPTY_ARTICLE, title: 'Packing a crock', language: 'en', keywords: ['crock'], body };

test('a Word document has its headings, marks, lists, table, picture and links, as a word processor reads them', async () => {
  const parts = articleFlow(article, resolve);
  const { value } = await convertToHtml({ buffer: await wordOf(article, parts, pictures) });
  expect(value).toContain('Packing a crock');
  expect(value).toMatch(/<h1>.*Größe und Gärzeit<\/h1>/);
  expect(value).toMatch(/<h2>.*In figures<\/h2>/);
  expect(value).toContain('<strong>22 grams</strong>');
  expect(value).toContain('<a href="https://journal.example/salt">we said of salt</a>');
  expect(value).toContain('<ol><li>Slice it</li><li>Press it down</li></ol>');
  expect(value).toMatch(/<table>.*Cabbage.*<strong>22 g<\/strong>.*132 g.*<\/table>/);
  expect(value).toMatch(/<img alt="A grey crock" src="data:image\/jpeg/);
  expect(value).not.toContain('alert');
});

test('in Word a line grows with the picture in it, and a quotation has its bar where its lines begin', async () => {
  const inside = async (language: string, name: string) => {
    const of = { ...article, language };
    const files = unzipSync(new Uint8Array(await wordOf(of, articleFlow(of, resolve), pictures)));
    return strFromU8(files[name]!);
  };
  // Without that word some programs cut a picture to the height of a line.
  expect(await inside('en', 'word/styles.xml')).toMatch(/<w:spacing [^>]*w:lineRule="auto"/);
  expect(await inside('en', 'word/document.xml')).toMatch(/<w:pBdr><w:left /);
  expect(await inside('ar', 'word/document.xml')).toMatch(/<w:pBdr><w:right /);
});

async function readPdf(bytes: Buffer) {
  const pdf = await getDocument({ data: new Uint8Array(bytes) }).promise;
  const pages = [];
  const links: string[] = [];
  for (let n = 1; n <= pdf.numPages; n++) {
    const page = await pdf.getPage(n);
    const { items } = await page.getTextContent();
    pages.push(
      items
        .map((item) => ('str' in item ? item.str : ''))
        .join(' ')
        .replace(/\s+/g, ' '),
    );
    for (const { url } of (await page.getAnnotations()) as { url?: string }[]) if (url) links.push(url);
  }
  return { pages, links, about: await pdf.getMetadata(), tagged: await pdf.getMarkInfo() };
}

test('a PDF can be searched, its links followed, letters of several scripts among them', async () => {
  const made = await pdfOf(article, articleFlow(article, resolve), pictures);
  if (!made.ok) throw new Error(made.problem);
  const { pages, links, about, tagged } = await readPdf(made.body);
  expect(pages).toHaveLength(1);
  const [text] = pages as [string];
  for (const said of [
    'Packing a crock',
    'Größe und Gärzeit',
    '22 grams',
    'żół',
    'сок',
    '1. Slice it',
    '132 g',
    'It went soft.',
    'Drawn',
  ])
    expect(text.replaceAll(' ', '')).toContain(said.replaceAll(' ', ''));
  expect(links).toContain('https://journal.example/salt');
  expect((about.info as { Title: string }).Title).toBe('Packing a crock');
  expect(tagged?.['Marked']).toBe(true);
});

test('a long PDF breaks into numbered pages, and loses no paragraph', async () => {
  const many: Block[] = Array.from({ length: 120 }, (_, i) => ({
    type: 'paragraph',
    id: `p${i}`,
    content: [
      { text: `Paragraph number ${i} says something about salt, brine and time, and then a little more of the same.` },
    ],
  }));
  const long = { ...article, body: many };
  const made = await pdfOf(long, articleFlow(long, resolve), pictures);
  if (!made.ok) throw new Error(made.problem);
  const { pages } = await readPdf(made.body);
  expect(pages.length).toBeGreaterThan(3);
  for (let i = 0; i < 120; i++) expect(pages.join(' ')).toContain(`Paragraph number ${i} says`);
  expect(pages[1]).toContain(`2 / ${pages.length}`);
});

/** What a bag is waxed with, in Arabic. */
const ARABIC: ArticleDocument = {
  ...article,
  language: 'ar',
  title: 'كيف تشمع حقيبة الدراجة',
  body: [
    {
      type: 'paragraph',
      id: 'p1',
      content: [
        { text: 'تدوم حقيبة القماش سنوات طويلة إذا شمعتها مرة في السنة، كما يقول ' },
        { text: 'Grivo', link: { to: 'address', address: 'https://bags.example/' } },
        { text: '، بنسبة 2.5 في المئة من الزيت (لا أكثر)، ثم تركتها يومين في الظل حتى يجف الشمع تماما.' },
      ],
    },
    { type: 'heading', id: 'h1', level: 2, text: 'ما تحتاج إليه' },
    {
      type: 'list',
      id: 'l1',
      ordered: true,
      items: [[{ text: 'شمع العسل' }], [{ text: 'قطعة قماش قطنية', marks: ['strong'] }], [{ text: 'مجفف شعر' }]],
    },
  ] as Block[],
};

test('emoji are printed, and letters no face has are named', async () => {
  const say = async (text: string) => {
    const one = { ...article, body: [{ type: 'paragraph', id: 'p', content: [{ text }] } satisfies Block] };
    return pdfOf(one, articleFlow(one, resolve), pictures);
  };
  const well = await say('Salt 🧂 12 and brine');
  if (!well.ok) throw new Error(well.problem);
  expect((await readPdf(well.body)).pages[0]).toMatch(/Salt +🧂 +12 and brine/u);
  expect(await say('가')).toEqual({ ok: false, problem: 'the face of a PDF has no letter ‘가’' });
});

test('an Arabic PDF has its lines from the right, figures and Latin words among them in their own order', async () => {
  const made = await pdfOf(ARABIC, articleFlow(ARABIC, resolve), pictures);
  if (!made.ok) throw new Error(made.problem);
  const pdf = await getDocument({ data: new Uint8Array(made.body) }).promise;
  const { items } = await (await pdf.getPage(1)).getTextContent();
  const shown = items.flatMap((item) => ('str' in item && item.str.trim() !== '' ? [item] : []));
  const right = (item: (typeof shown)[number]) => item.transform[4] + item.width;
  // A4 is 595.28 points wide, with 64 of margin: the first line ends where the text begins.
  expect(Math.max(...shown.map(right))).toBeGreaterThan(525);
  expect(Math.max(...shown.map(right))).toBeLessThan(532.5);
  const at = (words: string) => shown.find(({ str }) => str.includes(words))!.transform[4] as number;
  expect(at('2.5')).toBeLessThan(at('Grivo'));
});
