import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { BlogSite } from '../blog/posts.ts';
import type { PartnerShop } from '../catalogue/partner.ts';
import type { DocumentMaterial } from '../documents/documents.ts';
import type { FoundElsewhere } from '../keywords/keywords.ts';
import type { SheetMaterial } from '../sheets/sheets.ts';
import type { Podcast } from '../sound/podcasts.ts';
import type { ChannelMaterial, VideoMaterial } from '../videos/videos.ts';
import type { NewsPiece, NewsSite } from '../web/feeds.ts';
import type { WebPage } from '../web/pages.ts';
import { STOCK_HEADER, stockRows } from './stock.ts';

/** The made-up world of the demonstration: pages to look up, blogs with older posts, and a list of keywords. */

interface Sheet {
  title: string;
  about: string[];
  paragraphs: string[];
}

/** What the shop of the demonstration has its articles say of it, a statement a paragraph. */
export const HOUSE = {
  title: 'What Crockhaven says of itself',
  language: 'en',
  paragraphs: [
    'Crockhaven is a small shop for fermenting gear and keeps its own crocks by the back door.',
    'At Crockhaven salt is always given by weight, in grams to the kilo or to the litre.',
    'Crockhaven changes the rubber rings of its jars every autumn.',
  ],
};

/** Texts of the form: '# title', '@ what it is', then paragraphs parted by blank lines. */
function sheets(text: string): Sheet[] {
  return text
    .split(/^# /m)
    .filter((part) => part.trim() !== '')
    .map((part) => {
      const [head = '', ...paragraphs] = part.trim().split(/\n\s*\n/);
      const [title = '', about = ''] = head.split('\n');
      return {
        title: title.trim(),
        about: about.replace(/^@ /, '').trim().split(' '),
        paragraphs: paragraphs.map((p) => p.replace(/\s+/g, ' ').trim()),
      };
    });
}

function read(name: string): string {
  return readFileSync(join(import.meta.dirname, name), 'utf8');
}

export const PAGES: readonly WebPage[] = readdirSync(join(import.meta.dirname, 'pages'))
  .sort()
  .flatMap((file) => sheets(read(join('pages', file))))
  .map(({ title, about: [site, slug, date, language], paragraphs }) => ({
    site: site!,
    slug: slug!,
    title,
    date: date!,
    language: language === 'de' ? 'de' : 'en',
    countries: [],
    paragraphs,
  }));

const OLDER = sheets(read('older-posts.txt')).map(({ title, about: [blog, slug, date], paragraphs }) => ({
  blog,
  slug: slug!,
  title,
  published: `${date}T09:00:00.000Z`,
  paragraphs,
}));

const older = (blog: string) =>
  OLDER.filter((post) => post.blog === blog).map(({ slug, title, published, paragraphs }) => ({
    slug,
    title,
    published,
    paragraphs,
  }));

export const BLOGS: readonly BlogSite[] = [
  {
    slug: 'journal',
    name: 'Crockhaven Journal',
    tagline: 'From the bench of a small shop for fermenting gear',
    language: 'en',
    token: 'journal-secret-4f2c',
    user: 'ines',
    categories: ['Guides', 'Crocks and lids', 'Salt and brine', 'Shop news'],
    older: older('journal'),
  },
  {
    slug: 'kitchen',
    name: 'Kitchen Notes',
    tagline: 'What we cook with what we ferment',
    language: 'en',
    token: 'kitchen-secret-81aa',
    user: 'ines',
    categories: ['Recipes', 'Pantry', 'Seasons'],
    older: older('kitchen'),
  },
  {
    slug: 'gaertagebuch',
    name: 'Gärtagebuch',
    tagline: 'Was in unserem Keller gärt',
    language: 'de',
    token: 'gaertagebuch-secret-c093',
    user: 'ines',
    categories: ['Anleitungen', 'Werkzeug', 'Fragen'],
    older: older('gaertagebuch'),
  },
  {
    slug: 'barrels',
    name: 'Barrel Notes',
    tagline: 'Rain, kept for the garden',
    language: 'en',
    token: 'barrels-secret-77d0',
    user: 'ines',
    categories: ['Barrels'],
    older: older('barrels'),
  },
];

const lines = (name: string): readonly string[] =>
  read(name)
    .split('\n')
    .map((line) => line.trim())
    .filter((line) => line !== '');

/** Phrases by list: the large one, recipes, and German ones. */
export const KEYWORDS = {
  guides: lines('keywords.txt'),
  recipes: lines('keywords-kitchen.txt'),
  german: lines('keywords-german.txt'),
} as const;

/** A video of the form: '# title', '@ slug day language captions', a line on it, then '## chapter' and what is said. */
function videoOf(text: string): VideoMaterial {
  const [head = '', ...chapters] = text.trim().split(/^## /m);
  const [title = '', about = '', description = ''] = head.trim().split('\n');
  const [slug = '', date = '', language, captions] = about.replace(/^@ /, '').split(' ');
  return {
    slug,
    title: title.replace(/^# /, ''),
    description,
    date,
    language: language === 'de' ? 'de' : 'en',
    captions: captions === 'none' || captions === 'machine' ? captions : 'hand',
    chapters: chapters.map((chapter) => {
      const [name = '', ...lines] = chapter.trim().split('\n');
      return { title: name, text: lines.join(' ') };
    }),
  };
}

export const CHANNELS: readonly ChannelMaterial[] = [
  {
    handle: 'crockhaven-bench',
    name: 'Crockhaven Bench',
    videos: readdirSync(join(import.meta.dirname, 'videos'))
      .filter((name) => name.endsWith('.txt'))
      .sort()
      .map((file) => videoOf(read(join('videos', file)))),
    lists: {
      basics: { title: 'The basics', videos: ['salt-by-weight', 'how-full', 'when-to-skim'] },
    },
  },
];

export const SHEETS: readonly SheetMaterial[] = [
  {
    slug: 'stock',
    title: 'Crockhaven stock',
    above: [['Stock autumn, printed 2 Nov']],
    header: STOCK_HEADER,
    rows: stockRows(read('stock.txt')),
  },
  { slug: 'written', title: 'What was written', above: [], header: ['Subject', 'Title', 'Words', 'Address'], rows: [] },
];

/** Hosts that pages of a subject lie on, in turn. */
const HOSTS: Record<string, readonly string[]> = {
  fermenting: ['crock-and-cellar.example', 'the-sour-shelf.example', 'cabbage-notes.example'],
  rainwater: ['barrel-and-spout.example', 'wet-gardens.example'],
  knives: ['keen-edges.example', 'the-cutting-board.example'],
};

/** Pages that searches give, of which only the summary is known here. */
export const ELSEWHERE: readonly FoundElsewhere[] = Object.entries(HOSTS).flatMap(([file, hosts]) =>
  read(join('elsewhere', `${file}.txt`))
    .trim()
    .split('\n')
    .map((line, i) => {
      const [title = '', text = ''] = line.split(' | ');
      const slug = title
        .toLowerCase()
        .replace(/[^a-z0-9]+/g, '-')
        .replace(/^-|-$/g, '');
      return { host: hosts[i % hosts.length]!, slug, title, paragraphs: [text] };
    }),
);

/** Phrases people search for, by subject: those that one page can answer stand together. */
export const SEARCHES: Readonly<Record<string, readonly (readonly string[])[]>> = Object.fromEntries(
  Object.keys(HOSTS).map((file) => [
    file,
    read(join('searches', `${file}.txt`))
      .trim()
      .split(/\n\s*\n/)
      .map((group) => group.split('\n')),
  ]),
);

/** News of the form: '# title', '@ slug day author', then paragraphs. */
function news(file: string): NewsPiece[] {
  return sheets(read(join('news', file))).map(({ title, about: [slug = '', day = '', ...author], paragraphs }) => ({
    slug,
    title,
    day,
    author: author.join(' '),
    paragraphs,
  }));
}

export const NEWS: readonly NewsSite[] = [
  { slug: 'brine-gazette', name: 'The Brine Gazette', form: 'rss', wraps: true, pieces: news('gazette.txt') },
  { slug: 'cellar-wire', name: 'Cellar Wire', form: 'atom', wraps: false, pieces: news('wire.txt') },
];

/** Products of the form: '# name', '@ id category price popularity language [broken]', then what the page says. */
export const SHOPS: readonly PartnerShop[] = [
  {
    slug: 'northquay',
    name: 'Northquay Supply',
    products: read('catalogue.txt')
      .split(/^#/m)
      .filter((part) => part.trim() !== '')
      .map((part) => {
        const [name = '', about = '', ...text] = part.split('\n');
        const [id = '', category = '', price = '', popularity = '', language = '', broken] = about
          .replace(/^@ /, '')
          .split(' ');
        return {
          id,
          name: name.trim(),
          category,
          price,
          popularity,
          language,
          text: text.join(' ').trim(),
          broken: broken === 'broken',
        };
      }),
  },
];

/** Documents of the form: '# title', '@ form', then '## heading' and paragraphs. */
export const DOCUMENTS: readonly DocumentMaterial[] = readdirSync(join(import.meta.dirname, 'documents'))
  .sort()
  .map((file) => {
    const [head = '', ...parts] = read(join('documents', file)).trim().split(/^## /m);
    const [title = '', form = ''] = head.trim().split('\n');
    return {
      slug: file.replace(/\.txt$/, ''),
      title: title.replace(/^# /, ''),
      form: form.trim() === '@ docx' ? 'docx' : 'pdf',
      parts: parts.map((part) => {
        const [heading = '', ...rest] = part.split('\n');
        return {
          heading: heading.trim(),
          paragraphs: rest
            .join('\n')
            .split(/\n\s*\n/)
            .map((one) => one.replace(/\s+/g, ' ').trim())
            .filter((one) => one !== ''),
        };
      }),
    };
  });

/** Episodes of the form: '# title', '@ slug day', a line on it, then what is said. */
export const PODCASTS: readonly Podcast[] = [
  {
    slug: 'over-the-crock',
    name: 'Over the Crock',
    episodes: read(join('podcasts', 'over-the-crock.txt'))
      .split(/^# /m)
      .filter((part) => part.trim() !== '')
      .map((part) => {
        const [title = '', about = '', line = '', ...text] = part.trim().split('\n');
        const [slug = '', day = ''] = about.replace(/^@ /, '').split(' ');
        return { slug, title: title.trim(), day, about: line, text: text.join(' ').trim() };
      }),
  },
];
