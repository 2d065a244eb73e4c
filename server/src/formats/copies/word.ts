import { type ArticleDocument, directionOf, type FlowPart, type FlowSpan } from '@grivo/core';
import {
  Bookmark,
  BorderStyle,
  Document,
  ExternalHyperlink,
  HeadingLevel,
  ImageRun,
  type INumberingOptions,
  InternalHyperlink,
  type IParagraphOptions,
  type IStylesOptions,
  LevelFormat,
  LineRuleType,
  Packer,
  Paragraph,
  type ParagraphChild,
  Table,
  TableCell,
  TableRow,
  TextRun,
  WidthType,
} from 'docx';
import type { PrintedPicture } from './picture.ts';

const HEADINGS = { 2: HeadingLevel.HEADING_1, 3: HeadingLevel.HEADING_2, 4: HeadingLevel.HEADING_3 } as const;
/** Pixels between the margins of A4, as word processors count them. */
const WIDEST = 600;
const NUMBERED = 'numbered';

/** An article as a Word document (Office Open XML, ECMA-376), with real headings, lists, tables and links. */
export async function wordOf(
  { title, description, keywords, language }: ArticleDocument,
  parts: readonly FlowPart[],
  pictures: ReadonlyMap<string, PrintedPicture>,
): Promise<Buffer> {
  let lists = 0;
  const bidirectional = directionOf(language) === 'rtl';
  const looks = looksOf(bidirectional);
  const block = (options: IParagraphOptions) =>
    new Paragraph({ ...options, ...(bidirectional ? { bidirectional } : {}) });
  const document = new Document({
    title,
    description,
    keywords: keywords.join(', '),
    creator: 'Grivo',
    styles: stylesOf(language),
    numbering: NUMBERING,
    sections: [
      {
        children: [
          block({ heading: HeadingLevel.TITLE, children: [new TextRun(title)] }),
          ...parts.flatMap((part) => nodesOf(part, { pictures, block, looks, nextList: () => ++lists })),
        ],
      },
    ],
  });
  return Packer.toBuffer(document);
}

/** How the parts of a document look: one face, headings in sizes that fall. */
const stylesOf = (language: string): IStylesOptions => ({
  default: {
    document: {
      run: { font: 'Georgia', size: 22, language: { value: language } },
      paragraph: { spacing: { after: 160, line: 300, lineRule: LineRuleType.AUTO } },
    },
    title: { run: { font: 'Georgia', size: 44, bold: true }, paragraph: { spacing: { after: 240 } } },
    heading1: {
      run: { font: 'Georgia', size: 30, bold: true },
      paragraph: { spacing: { before: 320, after: 120 } },
    },
    heading2: {
      run: { font: 'Georgia', size: 26, bold: true },
      paragraph: { spacing: { before: 240, after: 100 } },
    },
    heading3: {
      run: { font: 'Georgia', size: 24, bold: true },
      paragraph: { spacing: { before: 200, after: 80 } },
    },
  },
});

const NUMBERING: INumberingOptions = {
  config: [
    {
      reference: NUMBERED,
      levels: [
        {
          level: 0,
          format: LevelFormat.DECIMAL,
          text: '%1.',
          style: { paragraph: { indent: { left: 480, hanging: 360 } } },
        },
      ],
    },
  ],
};

interface With {
  pictures: ReadonlyMap<string, PrintedPicture>;
  /** A paragraph that runs the way the text does. */
  block: (options: IParagraphOptions) => Paragraph;
  looks: ReturnType<typeof looksOf>;
  nextList: () => number;
}

function nodesOf(part: FlowPart, { pictures, block, looks, nextList }: With): (Paragraph | Table)[] {
  switch (part.type) {
    case 'heading':
      return [
        block({
          heading: HEADINGS[part.level],
          keepNext: true,
          children: [new Bookmark({ id: part.anchor, children: [new TextRun(part.text)] })],
        }),
      ];
    case 'paragraph':
      return [block({ ...looks[part.look], children: part.spans.map((span) => runOf(span, part.look)) })];
    case 'list': {
      const instance = nextList();
      return part.items.map((item) =>
        block({
          ...(part.ordered ? { numbering: { reference: NUMBERED, level: 0, instance } } : { bullet: { level: 0 } }),
          spacing: { after: 60 },
          children: item.map((span) => runOf(span)),
        }),
      );
    }
    case 'table':
      return [
        ...(part.caption.length > 0
          ? [block({ keepNext: true, children: part.caption.map((span) => runOf(span, 'note')) })]
          : []),
        tableOf(part, block),
        block({ children: [] }),
      ];
    case 'picture':
      return picturesOf(part, pictures.get(part.file), block);
    case 'contents':
      return part.entries.map(({ text, anchor }) =>
        block({
          bullet: { level: 0 },
          spacing: { after: 40 },
          children: [
            new InternalHyperlink({
              anchor: anchor,
              children: [new TextRun({ text, style: 'Hyperlink' })],
            }),
          ],
        }),
      );
  }
}

/** A picture no wider than the page, and what is said of it under it; that alone where the picture is gone. */
function picturesOf(
  { file, alternative, share, note }: Extract<FlowPart, { type: 'picture' }>,
  picture: PrintedPicture | undefined,
  block: With['block'],
): Paragraph[] {
  const below = note.length > 0 ? [block({ children: note.map((span) => runOf(span, 'note')) })] : [];
  if (!picture) return below;
  const scale = Math.min(1, (WIDEST * share) / picture.width);
  const image = new ImageRun({
    type: 'jpg',
    data: picture.jpeg,
    transformation: { width: Math.round(picture.width * scale), height: Math.round(picture.height * scale) },
    altText: { name: file.slice(0, 12), title: '', description: alternative },
  });
  return [block({ children: [image] }), ...below];
}

const BAR = { style: BorderStyle.SINGLE, size: 12, space: 12, color: '888888' };

/** Indents follow the way a text runs by themselves, borders do not (ECMA-376 part 1, 17.3.1.12 and 17.3.1.17). */
const looksOf = (bidirectional: boolean): Record<'plain' | 'quote' | 'note', IParagraphOptions> => ({
  plain: {},
  quote: { indent: { left: 360 }, border: bidirectional ? { right: BAR } : { left: BAR } },
  note: { indent: { left: 360 } },
});

function runOf(span: FlowSpan, look: 'plain' | 'quote' | 'note' = 'plain'): ParagraphChild {
  const { text, strong = false, emphasis = false, code = false, href } = span;
  const run = new TextRun({
    text,
    bold: strong,
    italics: emphasis || look === 'quote',
    ...(code ? { font: 'Courier New' } : {}),
    ...(look === 'note' ? { size: 18, color: '555555' } : {}),
    ...(href ? { style: 'Hyperlink' } : {}),
  });
  return href ? new ExternalHyperlink({ link: href, children: [run] }) : run;
}

function tableOf({ head, rows }: Extract<FlowPart, { type: 'table' }>, block: With['block']): Table {
  const row = (cells: readonly (readonly FlowSpan[])[], first: boolean) =>
    new TableRow({
      tableHeader: first,
      cantSplit: true,
      children: cells.map(
        (cell) =>
          new TableCell({
            margins: { top: 60, bottom: 60, left: 100, right: 100 },
            children: [
              block({
                spacing: { after: 0 },
                children: cell.map((span) => runOf(first ? { ...span, strong: true } : span)),
              }),
            ],
          }),
      ),
    });
  return new Table({
    width: { size: 100, type: WidthType.PERCENTAGE },
    rows: [row(head, true), ...rows.map((cells) => row(cells, false))],
  });
}
