import type { RootContent as HtmlNode } from 'hast';
import type { RootContent as MarkdownNode } from 'mdast';
import type { Block, Inline, LinkTarget } from '../block.ts';
import type { FlowSpan, Resolve } from '../inline.ts';

/** What a block is drawn with. */
export interface Here {
  resolve: Resolve;
  body: readonly Block[];
  /** What links within the article lead to, for its headings. */
  anchor: (heading: Block) => string;
  /** Whether what readers never see is shown: on the page where the article is made. */
  making: boolean;
}

/** A part of an article for forms that are printed or opened in a word processor. */
export type FlowPart =
  | { type: 'heading'; level: 2 | 3 | 4; text: string; anchor: string }
  | { type: 'paragraph'; look: 'plain' | 'quote' | 'note'; spans: FlowSpan[] }
  | { type: 'list'; ordered: boolean; items: FlowSpan[][] }
  | { type: 'table'; head: FlowSpan[][]; rows: FlowSpan[][][]; caption: FlowSpan[] }
  | {
      type: 'picture';
      file: string;
      width: number;
      height: number;
      alternative: string;
      note: FlowSpan[];
      /** Of the width of the text, at most. */
      share: number;
    }
  | { type: 'contents'; entries: { text: string; anchor: string }[] };

/** What is made of the texts of a block; each function gets them in the order they are read. */
export interface TextVisit {
  /** Words with marks and links. */
  rich: (content: readonly Inline[]) => Inline[];
  plain: (text: string) => string;
  /** What only some read: alternative texts. */
  aside: (text: string) => string;
  /** Whose something is: it is nobody's to reword. */
  credit: (content: readonly Inline[]) => Inline[];
}

/** A block in a text that is edited: a container or a line with a name (the generic directives of CommonMark extensions). */
export interface Written {
  label: readonly Inline[];
  attributes: Record<string, string>;
  /** Null for one that is a single line. */
  children: MarkdownNode[] | null;
}

/** What was read of one. */
export interface ReadBack {
  id: () => string;
  label: Inline[];
  attributes: Readonly<Record<string, string>>;
  /** The blocks within it. */
  inner: Block[];
  /** The block of the article it names. */
  own: Block | null;
}

export type Wrong = { sentence: string; mend: string };

export interface Editing<B extends Block> {
  /** What it is called in an edited text. */
  name: string;
  /** Null where plain Markdown says all of it. */
  write: (block: B) => Written | null;
  /** The block, or what it lacks. */
  read: (read: ReadBack) => B | string;
  /** It stands outside the text and is only named in it. */
  named?: true;
}

/** Everything a kind of block is: its texts, and what becomes of it in each form of an article. */
export interface BlockKind<B extends Block> {
  /** Its words come from the writer and so need evidence. */
  isStatement: boolean;
  /** The block with its texts as `visit` gives them back. */
  texts: (block: B, visit: TextVisit) => B;
  /** The words a reader reads, where they are not its texts a line each. */
  words?: (block: B) => string;
  links?: (block: B) => LinkTarget[];
  /** Without the parts of it that say nothing. */
  bare?: (block: B) => B;
  /** Whether it may be left out; where it is not said, when it has no words. */
  isEmpty?: (block: B) => boolean;
  html: (block: B, here: Here) => HtmlNode | null;
  markdown: (block: B, here: Here) => MarkdownNode[];
  flow: (block: B, here: Here) => FlowPart[];
  editing?: Editing<B>;
}

/** Text that holds the words of a block: without marks and links, as Markdown has it in a paragraph. */
export const hasWords = (content: readonly Inline[]): boolean => content.some(({ text }) => text.trim() !== '');
