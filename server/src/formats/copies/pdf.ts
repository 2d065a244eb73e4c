import { type ArticleDocument, directionOf, type FlowPart, type FlowSpan } from '@grivo/core';
import Pdf from 'pdfkit';
import { type Stretch, type Style, stretchesOf } from './faces.ts';
import { FROM_RIGHT, linesOf, type Piece } from './lines.ts';
import type { PrintedPicture } from './picture.ts';

const MARGIN = 64;
const SIZE = 10.5;
const LINE_GAP = 3;
const INK = '#1c1a17';
const QUIET = '#5c574f';
const LINK = '#1f4e79';
const HEADINGS = { 2: 16, 3: 13, 4: 11.5 } as const;

class NoSuchLetter extends Error {
  constructor(readonly letter: string) {
    super(`no face shows ${letter}`);
  }
}

/** An article as PDF (ISO 32000): A4, its text to be searched, its links to be followed, its structure tagged. */
export async function pdfOf(
  article: ArticleDocument,
  parts: readonly FlowPart[],
  pictures: ReadonlyMap<string, PrintedPicture>,
): Promise<{ ok: true; body: Buffer } | { ok: false; problem: string }> {
  try {
    return { ok: true, body: await new Sheets(article).print(parts, pictures) };
  } catch (error) {
    if (!(error instanceof NoSuchLetter)) throw error;
    return { ok: false, problem: `the face of a PDF has no letter ‘${error.letter}’` };
  }
}

interface Look {
  size?: number;
  color?: string;
  strong?: boolean;
  emphasis?: boolean;
}

class Sheets {
  private readonly pdf: PDFKit.PDFDocument;
  private readonly faces = new Set<string>();

  private readonly fromRight: boolean;

  constructor(private readonly article: ArticleDocument) {
    this.fromRight = directionOf(article.language) === 'rtl';
    this.pdf = new Pdf({
      size: 'A4',
      margin: MARGIN,
      bufferPages: true,
      pdfVersion: '1.7',
      tagged: true,
      lang: article.language,
      displayTitle: true,
      info: { Title: article.title, Subject: article.description, Keywords: article.keywords.join(', ') },
    });
  }

  async print(parts: readonly FlowPart[], pictures: ReadonlyMap<string, PrintedPicture>): Promise<Buffer> {
    const chunks: Buffer[] = [];
    const ended = new Promise<Buffer>((resolve, reject) => {
      this.pdf.on('data', (chunk: Buffer) => chunks.push(chunk));
      this.pdf.on('end', () => resolve(Buffer.concat(chunks)));
      this.pdf.on('error', reject);
    });
    this.tagged('H1', () => this.write([{ text: this.article.title }], { size: 24, strong: true }));
    this.pdf.moveDown(0.6);
    for (const part of parts) this.part(part, pictures);
    this.number();
    this.pdf.end();
    return ended;
  }

  private part(part: FlowPart, pictures: ReadonlyMap<string, PrintedPicture>): void {
    const { pdf } = this;
    switch (part.type) {
      case 'heading':
        this.room(70);
        pdf.moveDown(0.5);
        pdf.addNamedDestination(part.anchor);
        this.tagged(`H${part.level}`, () =>
          this.write([{ text: part.text }], { size: HEADINGS[part.level], strong: true }),
        );
        this.gap(4);
        return;
      case 'paragraph': {
        const look = LOOKS[part.look];
        this.tagged(part.look === 'quote' ? 'BlockQuote' : 'P', () =>
          this.write(part.spans, look, part.look === 'plain' ? 0 : 18),
        );
        this.gap(7);
        return;
      }
      case 'list':
        for (const [i, item] of part.items.entries()) {
          this.room(SIZE + LINE_GAP);
          const y = pdf.y;
          this.tagged('LI', () => {
            this.write([{ text: part.ordered ? `${i + 1}.` : '•' }], {}, 2, 18);
            pdf.y = y;
            this.write(item, {}, 20);
          });
          this.gap(3);
        }
        this.gap(4);
        return;
      case 'contents':
        for (const { text, anchor } of part.entries) {
          this.tagged('P', () => this.write([{ text }], { color: LINK }, 18, undefined, anchor));
          this.gap(2);
        }
        this.gap(6);
        return;
      case 'table':
        if (part.caption.length > 0)
          this.tagged('Caption', () => {
            this.room(60);
            this.write(part.caption, LOOKS.note);
          });
        this.tagged('Table', () => this.table([part.head, ...part.rows]));
        this.gap(8);
        return;
      case 'picture': {
        const picture = pictures.get(part.file);
        if (picture) this.picture(picture, part.alternative, part.share);
        if (part.note.length > 0) this.tagged('Caption', () => this.write(part.note, LOOKS.note));
        this.gap(8);
        return;
      }
    }
  }

  private get width(): number {
    return this.pdf.page.width - 2 * MARGIN;
  }

  private get bottom(): number {
    return this.pdf.page.height - MARGIN;
  }

  private gap(points: number): void {
    this.pdf.y += points;
  }

  /** Begins a page where less than so much of this one is left. */
  private room(points: number): void {
    if (this.pdf.y + points > this.bottom) this.pdf.addPage();
  }

  private tagged(type: string, draw: () => void): void {
    const part = this.pdf.struct(type, {}, draw);
    this.pdf.addStructure(part);
    part.end();
  }

  private write(spans: readonly FlowSpan[], look: Look, indent = 0, width = this.width - indent, goTo?: string): void {
    const { pdf } = this;
    const { size = SIZE, color = INK } = look;
    const pieces = inked(spans, look);
    const left = this.leftOf(indent, width);
    if (this.isOrdered(spans)) {
      this.writeOrdered(pieces, look, left, width, goTo);
      return;
    }
    const stretches = pieces.flatMap(({ text, ink }) => stretched(text, ink));
    pdf.x = left;
    for (const [i, { text, face, href }] of stretches.entries())
      this.face(face)
        .fontSize(size)
        .fillColor(href ? LINK : color)
        .text(text, {
          width,
          lineGap: LINE_GAP,
          continued: i < stretches.length - 1,
          // Said each time: what goes on keeps what it was told before.
          link: href,
          underline: href !== null,
          goTo: goTo ?? null,
        } as PDFKit.Mixins.TextOptions);
    pdf.x = MARGIN;
  }

  /** Whether a text has to be put in order line by line: it, or some of it, runs from the right. */
  private isOrdered(spans: readonly FlowSpan[]): boolean {
    return this.fromRight || FROM_RIGHT.test(wordsOf(spans));
  }

  /** Where a part of the page begins that is indented from the side its text begins at. */
  private leftOf(indent: number, width: number): number {
    return MARGIN + (this.fromRight ? this.width - indent - width : indent);
  }

  /** Lines of which each is put in the order of its scripts. */
  private writeOrdered(pieces: readonly Piece<Ink>[], look: Look, left: number, width: number, goTo?: string): void {
    const { pdf } = this;
    const { size = SIZE, color = INK } = look;
    const height = size * ORDERED_LINE + LINE_GAP;
    for (const line of linesOf(pieces, width, this.fromRight, (piece) => this.widthOf(piece, size))) {
      this.room(height);
      const whole = line.reduce((sum, piece) => sum + this.widthOf(piece, size), 0);
      let x = this.fromRight ? left + width - whole : left;
      const y = pdf.y;
      for (const piece of line) {
        const stretches = stretched(piece.text, piece.ink);
        for (const { text, face, href } of piece.fromRight ? stretches.reverse() : stretches) {
          // Letters of no script of their own keep the order they are given in.
          const shown = piece.fromRight && !FROM_RIGHT.test(text) ? [...text].reverse().join('') : text;
          const font = this.face(face).fontSize(size);
          font.fillColor(href ? LINK : color).text(shown, x, y, {
            lineBreak: false,
            // Shaped as a whole: words of a run from the right stand in that order too.
            features: [],
            link: href,
            underline: href !== null,
            goTo: goTo ?? null,
          } as PDFKit.Mixins.TextOptions);
          x += this.advance(face, shown, size);
        }
      }
      pdf.y = y + height;
    }
    pdf.x = MARGIN;
  }

  private widthOf({ text, ink }: Piece<Ink>, size: number): number {
    return stretched(text, ink).reduce((sum, stretch) => sum + this.advance(stretch.face, stretch.text, size), 0);
  }

  private advance(face: Stretch['face'], text: string, size: number): number {
    return this.face(face)
      .fontSize(size)
      .widthOfString(text, { features: [] } as PDFKit.Mixins.TextOptions);
  }

  /** Rows of cells, columns as wide as what stands in them asks for; a row is not broken. */
  private table(rows: readonly (readonly (readonly FlowSpan[])[])[]): void {
    const { pdf } = this;
    const many = Math.max(1, ...rows.map((row) => row.length));
    const wants = Array.from({ length: many }, (_, n) =>
      Math.min(40, Math.max(6, ...rows.map((row) => wordsOf(row[n] ?? []).length))),
    );
    const sum = wants.reduce((total, want) => total + want, 0);
    const widths = wants.map((want) => (want / sum) * this.width);
    for (const [r, row] of rows.entries()) {
      const look: Look = { size: 9.5, strong: r === 0 };
      const heights = row.map((cell, n) => this.height(cell, look, widths[n]! - 10));
      const height = Math.max(14, ...heights) + 6;
      this.room(height);
      const top = pdf.y;
      let left = 0;
      for (const [n, cell] of row.entries()) {
        pdf.y = top + 4;
        if (cell.length > 0) this.write(cell, look, left + 4, widths[n]! - 10);
        left += widths[n]!;
      }
      pdf
        .moveTo(MARGIN, top + height)
        .lineTo(MARGIN + this.width, top + height)
        .lineWidth(r === 0 ? 1 : 0.4)
        .strokeColor(r === 0 ? INK : '#bbb5aa')
        .stroke();
      pdf.y = top + height;
    }
  }

  private face({ name, body }: Stretch['face']): PDFKit.PDFDocument {
    if (!this.faces.has(name)) this.pdf.registerFont(name, body);
    this.faces.add(name);
    return this.pdf.font(name);
  }

  private height(spans: readonly FlowSpan[], look: Look, width: number): number {
    const { size = SIZE } = look;
    if (this.isOrdered(spans)) {
      const lines = linesOf(inked(spans, look), width, this.fromRight, (piece) => this.widthOf(piece, size));
      return lines.length * (size * ORDERED_LINE + LINE_GAP);
    }
    const [first] = stretched(wordsOf(spans), { style: look.strong ? '700-normal' : '400-normal', href: null });
    if (!first) return 0;
    return this.face(first.face).fontSize(size).heightOfString(wordsOf(spans), { width, lineGap: LINE_GAP });
  }

  private picture({ jpeg, width, height }: PrintedPicture, alternative: string, share: number): void {
    const { pdf } = this;
    const scale = Math.min(1, (this.width * share) / width, 380 / height);
    this.room(height * scale + 4);
    const figure = pdf.struct('Figure', { alt: alternative }, () => {
      pdf.image(jpeg, this.leftOf(0, width * scale), pdf.y, { width: width * scale });
    });
    const top = pdf.y;
    pdf.addStructure(figure);
    figure.end();
    pdf.y = top + height * scale + 6;
    pdf.x = MARGIN;
  }

  /** Page n of m, where there are several. */
  private number(): void {
    const { pdf } = this;
    const { start, count } = pdf.bufferedPageRange();
    if (count < 2) return;
    for (let i = start; i < start + count; i++) {
      pdf.switchToPage(i);
      // Below the margin, where a text would begin a page of its own.
      const { margins } = pdf.page;
      pdf.page.margins = { ...margins, bottom: 0 };
      pdf.markContent('Artifact', { type: 'Pagination' });
      const read = stretchesOf(`${i + 1} / ${count}`, '400-normal');
      if (read.ok && read.stretches[0])
        this.face(read.stretches[0].face)
          .fontSize(9)
          .fillColor(QUIET)
          .text(read.stretches[0].text, MARGIN, pdf.page.height - MARGIN / 2 - 8, {
            width: this.width,
            align: 'center',
            lineBreak: false,
          });
      pdf.endMarkedContent();
      pdf.page.margins = margins;
    }
  }
}

/** How a piece of text looks, and where it leads. */
interface Ink {
  style: Style;
  href: string | null;
}

/** Room of a line by its size: letters of scripts from the right reach higher and deeper than Latin ones. */
const ORDERED_LINE = 1.5;

const inked = (spans: readonly FlowSpan[], { strong = false, emphasis = false }: Look): Piece<Ink>[] =>
  spans.map((span) => {
    const bold = strong || (span.strong ?? false);
    const leaning = emphasis || (span.emphasis ?? false);
    return {
      text: span.text,
      ink: { style: `${bold ? 700 : 400}-${leaning ? 'italic' : 'normal'}`, href: span.href ?? null },
    };
  });

/** @throws {NoSuchLetter} where no face has one of its letters */
function stretched(text: string, { style, href }: Ink): (Stretch & Pick<Ink, 'href'>)[] {
  const read = stretchesOf(text, style);
  if (!read.ok) throw new NoSuchLetter(read.letter);
  return read.stretches.map((stretch) => ({ ...stretch, href }));
}

const wordsOf = (spans: readonly FlowSpan[]): string => spans.map(({ text }) => text).join('');

const LOOKS: Record<'plain' | 'quote' | 'note', Look> = {
  plain: {},
  quote: { emphasis: true },
  note: { size: 9, color: QUIET },
};
