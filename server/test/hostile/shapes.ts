/**
 * Contents made to keep a reader busy: repeated single characters, deep nesting, wide rows, huge cells; each at a size that
 * is asked for.
 */
export interface Shape {
  name: string;
  bytes: (size: number) => Buffer;
}

const repeated = (unit: string, size: number): string => unit.repeat(Math.max(1, Math.floor(size / unit.length)));
const shape = (name: string, text: (size: number) => string): Shape => ({
  name,
  bytes: (size) => Buffer.from(text(size)),
});
/** A beginning that makes a reader take it for its own, and what comes behind it. */
const behind =
  (head: string, unit: string, tail = '') =>
  (size: number) =>
    `${head}${repeated(unit, Math.max(1, size - head.length - tail.length))}${tail}`;

const SINGLE = [
  '<',
  '>',
  '&',
  '"',
  "'",
  ' ',
  '\n',
  '\t',
  ',',
  ';',
  '[',
  '{',
  '(',
  '*',
  '_',
  '`',
  '#',
  '-',
  '=',
  '~',
  '|',
  ':',
  '\\',
  '/',
  '.',
  '!',
  '\u0000',
  'a',
  '0',
  'ä',
  '😀',
  '\u202e',
];
/** Single characters, repeated behind what each kind begins with. */
const singles = (head: string, tail = ''): Shape[] =>
  SINGLE.map((one) => shape(`${JSON.stringify(one)} repeated`, behind(head, one, tail)));

const TIMES = '00:00.000 --> 00:02.000\n';
/** By what is read. */
export const SHAPES: Readonly<Record<string, readonly Shape[]>> = {
  captions: [
    ...singles(`WEBVTT\n\n${TIMES}`),
    shape('empty cues', behind('WEBVTT\n\n', `${TIMES}\n`)),
    shape('cues of one word', behind('WEBVTT\n\n', `${TIMES}uh um, you know, er\n\n`)),
    shape('one cue without an end', behind(`WEBVTT\n\n${TIMES}`, 'word ')),
    shape('brackets in a cue', behind(`WEBVTT\n\n${TIMES}`, '[( ♪# <c.')),
    shape('times alone', behind('', TIMES)),
  ],
  feed: [
    ...singles('<rss><channel><item><title>a</title><description>'),
    shape('large entries of markup', (size) => {
      const entries = 30;
      const body = repeated('&lt;div&gt;&lt;p&gt;a ', Math.floor(size / entries) - 100);
      return `<rss><channel>${`<item><title>t</title><description>${body}</description></item>`.repeat(entries)}</channel></rss>`;
    }),
    shape('nested elements', behind('<rss><channel>', '<a>')),
    shape('empty items', behind('<rss><channel>', '<item/>')),
    shape('items', behind('<rss><channel>', '<item><title>a b c d e f</title><link>https://a.example/1</link></item>')),
    shape('attributes', behind('<rss ', 'a="b" ')),
    shape('CDATA never ended', behind('<rss><channel><item><description><![CDATA[', '<p>')),
    shape('comments', behind('<rss>', '<!-- ')),
    shape('JSON nested', behind('{"version":"https://jsonfeed.org/version/1.1","items":', '[')),
    shape('JSON items', behind('{"version":"https://jsonfeed.org/version/1.1","items":[{}', ',{"title":"a"}', ']}')),
    shape('JSON quotes', behind('{"version":"', '\\"')),
  ],
  page: [
    ...singles('<!doctype html><html><body><p>'),
    shape('nested div', behind('<!doctype html><html><body>', '<div>')),
    shape('nested list', behind('<!doctype html><html><body>', '<ul><li>')),
    shape('tables in tables', behind('<!doctype html><html><body>', '<table><tr><td>')),
    shape('unclosed formatting', behind('<!doctype html><html><body>', '<b><i><a href=x>')),
    shape('many paragraphs', behind('<!doctype html><html><body>', '<p>some words that stand here for long</p>')),
    shape('many attributes', behind('<!doctype html><html><body><p ', 'a=b ')),
    shape('many classes with rules', (size) => {
      const rules = Array.from({ length: 3_000 }, (_, i) => `.c${i} .d:not(.e${i}){color:#fff}`).join('');
      return behind(
        `<!doctype html><html><head><style>${rules}</style></head><body>`,
        '<p class="c1 d">words to be read</p>',
      )(size);
    }),
    shape('rules never closed', behind('<!doctype html><html><head><style>', 'a{b:c;')),
    shape('conditions in conditions', behind('<!doctype html><html><head><style>', '@media screen{')),
    shape('styles', behind('<!doctype html><html><body>', '<p style="color:red;;;;width:1px">a</p>')),
    shape('links with relations', behind('<!doctype html><html><head>', '<link rel="alternate a b c" href="x">')),
    shape('JSON-LD nested', behind('<!doctype html><script type="application/ld+json">', '[')),
  ],
  markdown: [
    ...singles('# A\n\n'),
    shape('quotations in quotations', behind('', '> ')),
    shape('lists in lists', behind('', '- ')),
    shape('numbers in numbers', behind('', '1. ')),
    shape('links never ended', behind('', '[a](')),
    shape('links in links', behind('', '[')),
    shape('emphasis', behind('', '**a_ ')),
    shape('tables', behind('|a|b|\n|-|-|\n', '|c|d|\n')),
    shape('one wide table', behind('|a', '|b')),
    shape('definitions', behind('', '[a]: b\n')),
    shape('footnotes', behind('', '[^a]: b\n[^a] ')),
    shape('front matter', behind('---\ntitle: ', ' ', '\n---\n')),
  ],
  yaml: [
    ...singles('grivo: 1\nlanguage: en\nsteps: '),
    shape('quotes', behind('a: ', "'")),
    shape('nested lists', behind('', '- ')),
    shape('nested maps', behind('', '{a: ')),
    shape('anchors', behind('', '&a ')),
    shape('aliases', behind('a: &a [1]\n', 'b: *a\n')),
    shape('steps', behind('grivo: 1\nlanguage: en\nsteps:\n', '  - {id: s1, kind: wait, minutes: 1}\n')),
    shape('strange keys', behind('', 'a: b\n')),
    shape('block text', behind('a: |\n', '  x\n')),
  ],
  table: [
    ...singles('a,b\n'),
    shape('columns', behind('', 'a,')),
    shape('empty columns', behind('', ',')),
    shape('rows of one letter', behind('', 'a\n')),
    shape('quotes never closed, in lines', behind('', '"a\n')),
    shape('quotes where none belong', behind('', 'a"b"c,\n')),
    shape('doubled quotes', behind('"', '""')),
    shape('a huge cell', behind('a,b\nc,"', 'x', '"\n')),
    shape('carriage returns', behind('', '\r')),
  ],
  catalogue: [
    ...singles('<products><product><name>a</name><description>'),
    shape(
      'products',
      behind('<products>', '<product><name>a b</name><link>https://a.example</link><price>1</price></product>'),
    ),
    shape('products of many columns', (size) => {
      const columns = Array.from({ length: 300 }, (_, i) => `<c${i}>x</c${i}>`).join('');
      return behind('<products>', `<product>${columns}</product>`, '</products>')(size);
    }),
    shape('columns without end', behind('<products><product>', '<a>x</a>')),
    shape('nested', behind('<products><product>', '<a>')),
    shape('JSON nested', behind('', '[')),
    shape('JSON nested objects', behind('', '{"a":')),
    shape('JSON of many keys', (size) => {
      const keys = Array.from({ length: Math.floor(size / 14) }, (_, i) => `"k${i}":"v"`).join(',');
      return `[{${keys}}]`;
    }),
    shape('JSON products', behind('[{}', ',{"name":"a","link":"https://a.example","price":1}', ']')),
    shape('CSV of many columns', behind('', 'a,')),
  ],
  phrases: [
    ...singles(''),
    shape('commas', behind('', ',')),
    shape('short phrases', behind('', 'a b,')),
    shape('one phrase', behind('', 'word ')),
    shape('different phrases', (size) =>
      Array.from({ length: Math.floor(size / 16) }, (_, i) => `clay ${i.toString(36)} bowl`).join('\n'),
    ),
  ],
  reply: [
    ...singles('{"choices":[{"message":{"content":"', '"}}]}').filter(
      ({ name }) => !/\\\\|\\"|\\n|\\t|\\u0000/.test(name),
    ),
    shape('fences', behind('{"choices":[{"message":{"content":"', '```json ', '"}}]}')),
    shape('a fence and spaces', behind('{"choices":[{"message":{"content":"```', ' ', '"}}]}')),
    shape('nested', behind('{"choices":', '[')),
    shape('pieces', behind('', 'data: {"choices":[{"delta":{"content":"a"}}]}\n\n')),
    shape('pieces never ended', behind('data: ', '{"a":')),
  ],
  map: [
    ...singles('<urlset><url><loc>'),
    shape('addresses', behind('<urlset>', '<url><loc>https://a.example/1</loc></url>')),
    shape('lines', behind('', 'https://a.example/1\n')),
    shape('nested', behind('<urlset>', '<url>')),
  ],
  opml: [
    ...singles('<opml><body><outline text="'),
    shape('nested outlines', behind('<opml><body>', '<outline>')),
    shape('outlines', behind('<opml><body>', '<outline xmlUrl="https://a.example/1"/>')),
  ],
  heard: [
    ...singles('{"language":"en","duration":1,"segments":[{"start":0,"end":1,"text":"').filter(
      ({ name }) => !/\\\\|\\"|\\n|\\t|\\u0000/.test(name),
    ),
    shape(
      'segments',
      behind(
        '{"language":"en","duration":1,"segments":[',
        '{"start":0,"end":1,"text":"a"},',
        '{"start":0,"end":1,"text":"a"}]}',
      ),
    ),
    shape('nested', behind('', '[')),
  ],
};
