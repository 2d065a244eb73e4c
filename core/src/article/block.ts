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

/** How much of the width of the text something takes. */
export type Size = 'small' | 'medium' | 'full';
/** Where something stands that is narrower than the text; text runs past what stands left or right. */
export type Side = 'left' | 'middle' | 'right';

/** Words no source has that a person answers for. */
export interface Vouched {
  words: string;
  reason: string;
  /** Who does. */
  by: string;
}

interface Common {
  /** Stable for the life of the article; measures and comments point at it. */
  id: string;
  evidence?: Evidence[];
  vouched?: Vouched[];
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
  caption?: Inline[];
  head: Inline[][];
  rows: Inline[][][];
}
export interface Figure extends Common {
  type: 'figure';
  /** SHA-256 of the stored file. */
  file: string;
  /** Pixels of the stored file. */
  width: number;
  height: number;
  alternative: string;
  caption?: Inline[];
  credit?: Inline[];
  /** Where the picture leads. */
  link?: LinkTarget;
  /** 'full' where it is not said. */
  size?: Size;
  /** 'middle' where it is not said. */
  side?: Side;
  lead: boolean;
}
export interface Quote extends Common {
  type: 'quote';
  content: Inline[];
  /** Who said it, and where. */
  credit?: Inline[];
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
  /** Where its host has a picture of it. */
  still?: string;
  /** That picture as a file of ours: nothing of its host is loaded before somebody presses it. */
  picture?: { file: string; width: number; height: number };
}
export interface Chart extends Common {
  type: 'chart';
  form: 'bar' | 'line' | 'dots';
  labels: string[];
  series: { name: string; values: number[] }[];
  caption?: Inline[];
  alternative: string;
}
export interface KeyPoints extends Common {
  type: 'key points';
  items: Inline[][];
}
export interface QuestionAnswer extends Common {
  type: 'question and answer';
  question: string;
  answer: Inline[];
}
export interface CallToAction extends Common {
  type: 'call to action';
  /** The words before the button. */
  content: Inline[];
  button: string;
  link: LinkTarget;
  /** Of the button; 'medium' where it is not said. */
  size?: Size;
  /** 'left' where it is not said. */
  side?: Side;
}
/** The last words of the text itself: what follows from it. */
export interface Closing extends Common {
  type: 'closing';
  content: Inline[];
}
export interface StandingText extends Common {
  type: 'standing text';
  content: Inline[];
}
/** That somebody pays, that a machine wrote it, or what else readers must be told. */
export interface Disclosure extends Common {
  type: 'disclosure';
  content: Inline[];
}
/** What stands below is shown once a reader asks for it. */
export interface Fold extends Common {
  type: 'fold';
  words: string;
}
/** Articles of ours to read next; one that is not published is left out. */
export interface RelatedArticles extends Common {
  type: 'related articles';
  heading: string;
  items: Inline[][];
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
/** A place that is kept for something; readers never see it. */
export interface Placeholder extends Common {
  type: 'placeholder';
  wants: 'picture' | 'video' | 'table' | 'chart' | 'text';
  /** What is to stand there. */
  says: string;
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
  | Closing
  | StandingText
  | Disclosure
  | Fold
  | RelatedArticles
  | OwnersMarkup
  | Contents
  | Placeholder;

export type BlockType = Block['type'];
export type BlockOf<T extends BlockType> = Extract<Block, { type: T }>;

/** The format articles are kept in; `upgrade.ts` reads those of before. */
export const ARTICLE_FORMAT = 2;

/** An article in one revision: what is published and everything known about it. */
/** A place where a rule of the house said something otherwise, with the letters on both sides of it. */
export interface Replaced {
  block: string;
  from: string;
  to: string;
  before: string;
  after: string;
}

export interface ArticleDocument {
  format: typeof ARTICLE_FORMAT;
  title: string;
  titleChoices: string[];
  slug: string;
  description: string;
  keyPhrase: string;
  keywords: string[];
  hashtags: string[];
  /** Language of the text as BCP 47 has it: `de`, `pt-BR`, `zh-Hant`. */
  language: string;
  body: Block[];
  /** What rules of the house replaced, as long as nobody put it back. */
  replaced?: Replaced[] | undefined;
}

export const EMPTY_ARTICLE: ArticleDocument = {
  format: ARTICLE_FORMAT,
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
