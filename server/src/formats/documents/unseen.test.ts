import { expect, test } from 'vitest';
import { readHtml } from './readHtml.ts';

const pad = Array.from(
  { length: 8 },
  (_, i) =>
    `<p>Paragraph ${i} tells at some length how the kiln is stacked, sealed and brought slowly to its heat.</p>`,
).join('');
const paragraphs = (body: string, whole: boolean) => {
  const read = readHtml(`<!doctype html><html><body><article><h1>T</h1>${pad}${body}</article></body></html>`, {
    whole,
  });
  return JSON.stringify(read);
};

const T = (x: string) => `<p ${x}>HIDDEN words that nobody is told here at all.</p>`;
const cases = {
  'white on white, by its style': T('style="color:#fff"'),
  'white named': T('style="color: white"'),
  rgb: T('style="color:rgb(255, 255, 255)"'),
  'near white': T('style="color:#fdfdfd"'),
  'on own ground': T('style="color:#123456;background:#123457"'),
  'font tag': '<p><font color="#ffffff">HIDDEN words that nobody is told.</font></p>',
  class: '<style>.zz{display:none}</style>' + T('class="zz"'),
  'class colour': '<style>.k { color:#fff }</style>' + T('class="k"'),
  id: '<style>#q{visibility:hidden !important}</style>' + T('id="q" style="visibility:visible"'),
  offscreen: T('style="position:absolute;left:-9999px"'),
  top: T('style="position:fixed; top:-5000px"'),
  indent: T('style="text-indent:-9999px"'),
  '1px': T('style="font-size:1px"'),
  '0': T('style="font-size:0"'),
  opacity: T('style="opacity:0"'),
  'opacity .01': T('style="opacity:.01"'),
  'clip-path': T('style="clip-path:inset(50%)"'),
  clip: T('style="position:absolute;clip:rect(0,0,0,0)"'),
  box: T('style="height:0;overflow:hidden"'),
  sr: '<style>.sr-only{position:absolute;width:1px;height:1px;overflow:hidden}</style>' + T('class="sr-only"'),
  scale: T('style="transform:scale(0)"'),
  translate: T('style="transform: translateX(-10000px)"'),
  transparent: T('style="color:transparent"'),
  rgba0: T('style="color:rgba(0,0,0,0)"'),
  media: '<style>@media screen and (min-width: 600px){.m{display:none}}</style>' + T('class="m"'),
  comment: '<p>visible</p><!-- HIDDEN words -->',
  hidden: T('hidden'),
  'zero-width': '<p>vis\u200bible</p>',
  inherited: '<div style="color:#fff"><p>HIDDEN words that nobody is told here at all.</p></div>',
  filter: T('style="filter: opacity(0)"'),
  'ground by class':
    '<style>.g{background:#000}.g p{color:#010101}</style><div class="g"><p>HIDDEN words that nobody is told here at all.</p></div>',
  input: '<input value="HIDDEN"><textarea>HIDDEN</textarea>',
  noscript: '<noscript><p>HIDDEN words here for machines only</p></noscript>',
  svg: '<svg><text>HIDDEN</text></svg>',
  details: '<dialog><p>HIDDEN words here for machines only</p></dialog>',
  'alpha hex': T('style="color:#00000000"'),
};
const V = (x: string, y = '') => `${y}<p ${x}>SEEN words that everybody is told here today.</p>`;
const seen = {
  plain: V(''),
  'white on black': `<div style="background:#000">${V('style="color:#fff"')}</div>`,
  'class dark': V('', '<style>body{background:#111;color:#eee}</style>'),
  'narrow media': V('class="d"', '<style>@media (max-width: 600px){.d{display:none}}</style>'),
  print: V('class="d"', '<style>@media print{.d{display:none}}</style>'),
  hover: V('class="d"', '<style>.d:hover{display:none}.e{display:none}</style>'),
  'opacity .8': V('style="opacity:.8"'),
  grey: V('style="color:#777"'),
  relative: V('style="position:relative;left:-10px"'),
  height: V('style="height:0"'),
  gradient: `<div style="background:linear-gradient(#000,#111)">${V('style="color:#fff"')}</div>`,
  before: V('class="x"', '<style>.x::before{content:"";display:none}</style>'),
  'comment css': V('class="x"', '<style>/* .x{display:none} */</style>'),
};

test.each(Object.entries(cases))('not read, since nobody sees it: %s', (_name, body) => {
  for (const whole of [true, false]) expect(paragraphs(body, whole)).not.toContain('HIDDEN');
});

test.each(Object.entries(seen))('read, since it is seen: %s', (_name, body) => {
  for (const whole of [true, false]) expect(paragraphs(body, whole)).toContain('SEEN');
});
