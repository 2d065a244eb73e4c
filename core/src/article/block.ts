/** The body of an article: an ordered list of typed blocks. Everything readers get is derived from it. */

export type Mark = 'strong' | 'emphasis' | 'code';

/** Where a link leads. Links to our own articles keep the target and get their address when the article is published. */
export type LinkTarget = { to: 'address'; address: string; sponsored?: boolean } | { to: 'article'; article: string };

export interface Inline {
  text: string;
  marks?: Mark[];
  link?: LinkTarget;
}

/** What a block rests on: a passage, the words of it that count, and the digest of the block's text it supported. */
export interface Evidence {
  passage: string;
  quote?: string;
  digest: string;
}

interface Common {
  /** Stable for the life of the article; measures and comments point at it. */
  id: string;
  evidence?: Evidence[];
}

export interface Heading extends Common {
  type: 'heading';
  /** 2 to 4; the one heading of level 1 is the title and stands outside the body. */
  level: 2 | 3 | 4;
  text: string;
}
export interface Paragraph extends Common {
  type: 'paragraph';
  content: Inline[];
}
export interface List extends Common {
  type: 'list';
  ordered: boolean;
  items: Inline[][];
}
export interface Table extends Common {
  type: 'table';
  caption?: string;
  head: string[];
  rows: string[][];
}
export interface Figure extends Common {
  type: 'figure';
  /** SHA-256 of the stored file. */
  file: string;
  width: number;
  height: number;
  alternative: string;
  caption?: string;
  credit?: string;
  lead: boolean;
}
export interface Quote extends Common {
  type: 'quote';
  text: string;
  attribution?: string;
}
export interface Video extends Common {
  type: 'video';
  /** The page it is watched on. */
  address: string;
  title: string;
  /** Address of a page that plays it and nothing else (schema.org embedUrl). */
  player?: string;
  /** Address of the film itself (schema.org contentUrl). */
  film?: string;
  still?: string;
}
export interface Chart extends Common {
  type: 'chart';
  form: 'bar' | 'line';
  labels: string[];
  series: { name: string; values: number[] }[];
  alternative: string;
}
export interface KeyPoints extends Common {
  type: 'key points';
  items: string[];
}
export interface QuestionAnswer extends Common {
  type: 'question and answer';
  question: string;
  answer: Inline[];
}
export interface CallToAction extends Common {
  type: 'call to action';
  text: string;
  button: string;
  address: string;
}
export interface StandingText extends Common {
  type: 'standing text';
  content: Inline[];
}
/** Kept as the owner typed it; the only markup that is not escaped. */
export interface OwnersMarkup extends Common {
  type: "owner's markup";
  markup: string;
}
/** Stands where the list of contents goes; its entries are derived from the headings. */
export interface Contents extends Common {
  type: 'contents';
}

export type Block =
  | Heading
  | Paragraph
  | List
  | Table
  | Figure
  | Quote
  | Video
  | Chart
  | KeyPoints
  | QuestionAnswer
  | CallToAction
  | StandingText
  | OwnersMarkup
  | Contents;

/** An article in one revision: what is published and everything known about it. */
export interface ArticleDocument {
  title: string;
  titleChoices: string[];
  slug: string;
  description: string;
  keyPhrase: string;
  keywords: string[];
  hashtags: string[];
  /** Two-letter language of the text. */
  language: string;
  body: Block[];
}

export const EMPTY_ARTICLE: ArticleDocument = {
  title: '',
  titleChoices: [],
  slug: '',
  description: '',
  keyPhrase: '',
  keywords: [],
  hashtags: [],
  language: 'en',
  body: [],
};
