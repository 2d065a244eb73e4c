import sharp from 'sharp';
import { choicesFrom, stemsOf } from '../words/language.ts';

/** Pictures drawn from a stock of shapes; which are taken is decided by the words asked for. */

const PALETTES = [
  ['#E9EFEA', '#1F4A4C', '#8FB9A8', '#E4B363', '#C9563C'],
  ['#F3EEE4', '#3B3A36', '#B7A57A', '#7C9885', '#A4473D'],
  ['#E8EDF2', '#24364B', '#7D9BB5', '#D9C27E', '#B5533C'],
  ['#F1F0EA', '#2E4034', '#A3B18A', '#588157', '#BC6C25'],
  ['#EFEAF0', '#3D3350', '#9A86B0', '#E0BE6A', '#B34A5F'],
  ['#EAF1EF', '#17403F', '#6FA8A0', '#F0CF8E', '#D0704F'],
] as const;

type Palette = readonly string[];
type Shape = (p: Palette) => string;

/** Each shape fits a box of 200 by 260 with its foot at y = 0, drawn upwards. */
const jar: Shape = ([, ink, body, fill]) =>
  `<path d="M-70 0 h140 q18 0 18 -18 v-150 q0 -26 -24 -34 v-18 h-128 v18 q-24 8 -24 34 v150 q0 18 18 18z" fill="${body}" fill-opacity=".55" stroke="${ink}" stroke-width="5"/><path d="M-66 -8 h132 q10 0 10 -10 v-96 h-152 v96 q0 10 10 10z" fill="${fill}"/><rect x="-70" y="-244" width="140" height="28" rx="5" fill="${ink}"/>`;
const pot: Shape = ([, ink, body]) =>
  `<path d="M-62 0 h124 q26 -60 22 -120 q-4 -42 -22 -60 h-124 q-18 18 -22 60 q-4 60 22 120z" fill="${body}" stroke="${ink}" stroke-width="5"/><rect x="-74" y="-204" width="148" height="26" rx="10" fill="${ink}"/><path d="M-78 -118 q78 24 156 0" fill="none" stroke="${ink}" stroke-width="4"/><circle cy="-216" r="12" fill="${ink}"/>`;
const leaf: Shape = ([, ink, body]) =>
  `<path d="M0 0 C-110 -50 -96 -170 0 -240 C96 -170 110 -50 0 0z" fill="${body}" stroke="${ink}" stroke-width="5"/><path d="M0 -8 V-226 M0 -70 L-50 -108 M0 -70 L50 -108 M0 -130 L-42 -166 M0 -130 L42 -166" stroke="${ink}" stroke-width="4" fill="none"/>`;
const heap: Shape = ([, ink, , fill]) =>
  `<path d="M-110 0 Q-60 -20 -38 -76 Q0 -140 38 -76 Q60 -20 110 0z" fill="#fff" stroke="${ink}" stroke-width="5"/><g fill="${fill}"><circle cx="-20" cy="-40" r="5"/><circle cx="18" cy="-62" r="5"/><circle cx="34" cy="-24" r="5"/><circle cx="-48" cy="-16" r="5"/></g>`;
const drop: Shape = ([, ink, body]) =>
  `<path d="M0 -240 C70 -150 96 -96 96 -70 A96 76 0 0 1 -96 -70 C-96 -96 -70 -150 0 -240z" fill="${body}" stroke="${ink}" stroke-width="5"/><path d="M-48 -70 a48 40 0 0 0 40 44" fill="none" stroke="#fff" stroke-width="8" stroke-linecap="round"/>`;
const glass: Shape = ([, ink, body, fill]) =>
  `<path d="M-58 0 h116 l22 -220 h-160z" fill="${body}" fill-opacity=".35" stroke="${ink}" stroke-width="5"/><path d="M-56 -6 h112 l14 -134 h-140z" fill="${fill}"/><g fill="#fff" fill-opacity=".8"><circle cx="-18" cy="-40" r="7"/><circle cx="22" cy="-70" r="6"/><circle cx="-4" cy="-104" r="8"/></g>`;
const thermometer: Shape = ([, ink, , , red]) =>
  `<rect x="-24" y="-250" width="48" height="200" rx="24" fill="#fff" stroke="${ink}" stroke-width="5"/><circle cy="-40" r="40" fill="${red}" stroke="${ink}" stroke-width="5"/><rect x="-9" y="-180" width="18" height="140" fill="${red}"/><path d="M34 -220 h26 M34 -180 h18 M34 -140 h26 M34 -100 h18" stroke="${ink}" stroke-width="5"/>`;
const clock: Shape = ([, ink, body]) =>
  `<circle cy="-120" r="112" fill="#fff" stroke="${ink}" stroke-width="7"/><circle cy="-120" r="92" fill="${body}" fill-opacity=".35"/><path d="M0 -120 V-190 M0 -120 L48 -92" stroke="${ink}" stroke-width="9" stroke-linecap="round"/>`;
const root: Shape = ([, ink, body, , red]) =>
  `<path d="M0 0 C-30 -30 -92 -70 -84 -120 C-76 -166 76 -166 84 -120 C92 -70 30 -30 0 0z" fill="${red}" stroke="${ink}" stroke-width="5"/><path d="M-8 -150 C-40 -200 -70 -220 -60 -250 C-30 -240 -8 -200 0 -156 C10 -206 40 -240 70 -246 C66 -216 30 -186 8 -150z" fill="${body}" stroke="${ink}" stroke-width="5"/>`;
const book: Shape = ([, ink, body, fill]) =>
  `<path d="M-110 0 q55 -26 110 0 q55 -26 110 0 v-170 q-55 -26 -110 0 q-55 -26 -110 0z" fill="#fff" stroke="${ink}" stroke-width="5"/><path d="M0 0 v-170" stroke="${ink}" stroke-width="5"/><path d="M-90 -140 h66 M-90 -110 h66 M-90 -80 h48" stroke="${body}" stroke-width="7"/><path d="M24 -140 h66 M24 -110 h50" stroke="${fill}" stroke-width="7"/>`;
const wheel: Shape = ([, ink, body]) =>
  `<circle cy="-120" r="110" fill="none" stroke="${ink}" stroke-width="14"/><circle cy="-120" r="22" fill="${body}" stroke="${ink}" stroke-width="5"/><path d="M0 -230 V-10 M-110 -120 H110 M-78 -198 L78 -42 M78 -198 L-78 -42" stroke="${ink}" stroke-width="5"/>`;
const barrel: Shape = ([, ink, body]) =>
  `<path d="M-76 0 h152 q22 -120 0 -236 h-152 q-22 116 0 236z" fill="${body}" stroke="${ink}" stroke-width="5"/><path d="M-86 -60 h172 M-90 -120 h180 M-86 -180 h172" stroke="${ink}" stroke-width="9"/>`;
const cloud: Shape = ([, ink, body]) =>
  `<path d="M-90 -60 a52 52 0 0 1 24 -100 a70 70 0 0 1 128 -10 a56 56 0 0 1 24 110z" fill="${body}" stroke="${ink}" stroke-width="5"/><path d="M-60 -36 l-14 36 M-6 -36 l-14 36 M48 -36 l-14 36" stroke="${ink}" stroke-width="7" stroke-linecap="round"/>`;
const scissors: Shape = ([, ink, body]) =>
  `<path d="M-70 -250 L40 -70 M70 -250 L-40 -70" stroke="${ink}" stroke-width="12" stroke-linecap="round"/><circle cx="-52" cy="-42" r="36" fill="none" stroke="${body}" stroke-width="14"/><circle cx="52" cy="-42" r="36" fill="none" stroke="${body}" stroke-width="14"/>`;
const scale: Shape = ([, ink, body, fill]) =>
  `<rect x="-100" y="-64" width="200" height="64" rx="12" fill="${ink}"/><rect x="-40" y="-46" width="80" height="28" rx="4" fill="${fill}"/><rect x="-12" y="-96" width="24" height="34" fill="${ink}"/><path d="M-110 -98 h220 l-16 -22 h-188z" fill="${body}" stroke="${ink}" stroke-width="5"/>`;

interface Stock {
  words: string;
  shape: Shape;
  /** What it shows, by language. */
  en: string;
  de: string;
}

const STOCK: readonly Stock[] = [
  {
    words: 'jar lid seal airlock bottle preserve pickle',
    shape: jar,
    en: 'a jar with a lid',
    de: 'ein Glas mit Deckel',
  },
  {
    words: 'crock pot stoneware ceramic vessel glaze',
    shape: pot,
    en: 'a stoneware crock',
    de: 'ein Topf aus Steinzeug',
  },
  {
    words: 'leaf cabbage kraut kimchi vegetable plant lettuce garden herb',
    shape: leaf,
    en: 'a cabbage leaf',
    de: 'ein Kohlblatt',
  },
  { words: 'salt sugar flour powder spice', shape: heap, en: 'a heap of salt', de: 'ein Häufchen Salz' },
  {
    words: 'water brine rain drop liquid juice vinegar',
    shape: drop,
    en: 'a large drop of water',
    de: 'ein großer Wassertropfen',
  },
  {
    words: 'drink kvass kombucha tea tepache kefir cider beer glass fizz',
    shape: glass,
    en: 'a glass with bubbles rising in it',
    de: 'ein Trinkglas, in dem Blasen steigen',
  },
  {
    words: 'temperature warm cold heat winter summer cool degree',
    shape: thermometer,
    en: 'a thermometer',
    de: 'ein Thermometer',
  },
  { words: 'day week hour time long when wait age', shape: clock, en: 'a round clock', de: 'eine runde Uhr' },
  {
    words: 'beet beetroot carrot radish turnip root garlic onion',
    shape: root,
    en: 'a beetroot with its leaves',
    de: 'eine Rote Bete mit Blättern',
  },
  {
    words: 'book page paper glue spine bind cover read',
    shape: book,
    en: 'an open book',
    de: 'ein aufgeschlagenes Buch',
  },
  { words: 'wheel chain bicycle brake gear tyre', shape: wheel, en: 'a spoked wheel', de: 'ein Speichenrad' },
  { words: 'barrel cask butt tank store', shape: barrel, en: 'a hooped barrel', de: 'ein Fass mit Reifen' },
  {
    words: 'mould yeast foam gas bubble air cloud roof gutter',
    shape: cloud,
    en: 'a cloud with rain falling',
    de: 'eine Wolke, aus der es regnet',
  },
  { words: 'cut shred slice knife blade thread', shape: scissors, en: 'a pair of scissors', de: 'eine Schere' },
  {
    words: 'weigh weight scale gram per cent measure much',
    shape: scale,
    en: 'a kitchen scale',
    de: 'eine Küchenwaage',
  },
];

/** Colours of the palettes in words, in their order. */
const COLOURS = {
  en: [
    'teal and ochre',
    'brown and sage',
    'navy and brick',
    'moss and copper',
    'violet and gold',
    'sea green and orange',
  ],
  de: [
    'Petrol und Ocker',
    'Braun und Salbei',
    'Marine und Ziegelrot',
    'Moos und Kupfer',
    'Violett und Gold',
    'Seegrün und Orange',
  ],
} as const;

/**
 * Draws a picture for a prompt.
 * @param seed the same seed and prompt give the same picture
 * @returns PNG, and what it shows, in German where the prompt asks for that
 */
export async function draw(
  prompt: string,
  seed: string,
  width: number,
  height: number,
  palette: number,
): Promise<{ png: Buffer; shows: string }> {
  const chance = choicesFrom(prompt + seed);
  const stems = new Set(stemsOf(prompt));
  const ranked = STOCK.map((entry, i) => ({
    entry,
    hits: stemsOf(entry.words).filter((s) => stems.has(s)).length,
    i,
  })).sort((a, b) => b.hits - a.hits || a.i - b.i);
  const fitting = ranked.filter(({ hits }) => hits > 0).slice(0, 3);
  const chosen = (fitting.length > 0 ? fitting : [ranked[chance(ranked.length)]!]).map(({ entry }) => entry);
  const n = (palette + chance(PALETTES.length)) % PALETTES.length;
  const sun = 15 + chance(70);
  const drawn = svg(
    chosen.map(({ shape }) => shape),
    { colours: PALETTES[n]!, sun },
    width,
    height,
    chance,
  );
  const png = await sharp(Buffer.from(drawn)).png({ compressionLevel: 1 }).toBuffer();
  return { png, shows: inWords(chosen, n, sun, /\bin German\b/.test(prompt) ? 'de' : 'en') };
}

function inWords(chosen: readonly Stock[], n: number, sun: number, language: 'en' | 'de'): string {
  const german = language === 'de';
  const names = chosen.map((entry) => entry[language]);
  const all =
    names.length === 1
      ? german
        ? `${names[0]}, dreimal nebeneinander`
        : `${names[0]}, three times side by side`
      : `${names.slice(0, -1).join(', ')} ${german ? 'und' : 'and'} ${names[names.length - 1]}`;
  const [left, right, middle] = german
    ? ['links', 'rechts', 'in der Mitte']
    : ['on the left', 'on the right', 'in the middle'];
  const stands = sun < 38 ? left : sun > 62 ? right : middle;
  const text = german
    ? `${all} auf einem Bord, in ${COLOURS.de[n]}, die Sonne steht ${stands}`
    : `${all} on a shelf, in ${COLOURS.en[n]}, with the sun ${stands}`;
  return `${text.charAt(0).toUpperCase()}${text.slice(1)}.`;
}

function svg(
  shapes: readonly Shape[],
  { colours, sun: at }: { colours: Palette; sun: number },
  width: number,
  height: number,
  chance: (options: number) => number,
): string {
  const floor = height * 0.8;
  const unit = height / 420;
  const many = shapes.length === 1 ? [shapes[0]!, shapes[0]!, shapes[0]!] : shapes;
  const places = many.map((shape, i) => {
    const x = (width * (i + 1)) / (many.length + 1) + (chance(40) - 20) * unit;
    const size = unit * (i === 0 ? 1.15 : 0.75 + chance(30) / 100);
    return `<g transform="translate(${x} ${floor}) scale(${size})">${shape(colours)}</g>`;
  });
  const sun = `<circle cx="${(width * at) / 100}" cy="${height * 0.24}" r="${height * 0.11}" fill="${colours[3]}" fill-opacity=".5"/>`;
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}"><rect width="100%" height="100%" fill="${colours[0]}"/>${sun}<rect y="${floor}" width="100%" height="${height - floor}" fill="${colours[2]}" fill-opacity=".45"/><rect y="${floor - 2}" width="100%" height="4" fill="${colours[1]}"/>${places.join('')}</svg>`;
}
