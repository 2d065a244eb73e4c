import type { DocumentText, Unread } from './text.ts';

const MOST_PAGES = 2_000;
const MOST_LETTERS = 5_000_000;

/** A piece of text as the reader of PDF gives it: its matrix tells size and place. */
interface Piece {
  str: string;
  transform: number[];
  width: number;
  height: number;
}

function isPiece(item: object): item is Piece {
  return 'str' in item && typeof item.str === 'string';
}

interface Line {
  text: string;
  x: number;
  y: number;
  end: number;
  size: number;
}

/** Pieces of a page in one line: those that stand at the same height, in the order they are given. */
function linesOf(items: readonly object[]): Line[] {
  const lines: Line[] = [];
  for (const item of items) {
    if (!isPiece(item)) continue;
    const [, , , scale = 0, x = 0, y = 0] = item.transform;
    const size = Math.abs(scale) || item.height || 10;
    let line = lines.at(-1);
    if (!line || Math.abs(line.y - y) >= size * 0.4 || x < line.end - size) {
      line = { text: '', x, y, end: x, size: 0 };
      lines.push(line);
    }
    // A gap wider than a fifth of a letter is a blank.
    const gap = x - line.end > size * 0.2 && line.text !== '' && !line.text.endsWith(' ') && !item.str.startsWith(' ');
    line.text += (gap ? ' ' : '') + item.str;
    line.end = x + item.width;
    if (item.str.trim() !== '') line.size = Math.max(line.size, size);
  }
  return lines
    .filter(({ text }) => text.trim() !== '')
    .map((one) => ({ ...one, text: one.text.replace(/\s+/g, ' ').trim() }));
}

const middle = (numbers: readonly number[]): number =>
  [...numbers].sort((a, b) => a - b)[Math.floor(numbers.length / 2)] ?? 0;
/** The room from line to line within a paragraph: such lines are nearest to each other, so it is among the least there is. */
function stepOf(lines: readonly Line[]): number {
  const rooms = lines
    .slice(1)
    .map((line, i) => lines[i]!.y - line.y)
    .filter((room) => room > 0)
    .sort((a, b) => a - b);
  return rooms[Math.floor(rooms.length / 4)] ?? 0;
}

const bare = (text: string): string => text.replace(/\d+/g, '#');

/** Room between two lines, of that of the page, above which what stands at its edge stands by itself. */
const APART = 1.3;
/** How far apart a running line may stand on two pages. */
const SAME_PLACE = 4;

/** The lines at an edge of a page that stand apart from its text, by room or by size: one, or two together. */
function edge(lines: readonly Line[], step: number): Line[] {
  for (const n of [1, 2]) {
    const [last, next] = [lines[n - 1], lines[n]];
    if (!last || !next) return [];
    const isApart =
      Math.abs(last.y - next.y) > step * APART ||
      Math.abs(last.size - next.size) > Math.max(last.size, next.size) * 0.08;
    if (isApart) return lines.slice(0, n);
  }
  return [];
}

/**
 * Running heads and feet: lines that stand apart at the edge of most pages, at one place, and are the same but for their
 * numbers. A sentence of the text that is said on several pages is none.
 */
function runningOf(pages: readonly Line[][]): Set<Line> {
  const edges = pages.map((lines) => {
    const step = stepOf(lines) || 12;
    return [...edge(lines, step), ...edge([...lines].reverse(), step)];
  });
  const keyOf = ({ text, y }: Line) => `${bare(text)} at ${Math.round(y / SAME_PLACE)}`;
  const seen = new Map<string, number>();
  for (const own of edges) for (const key of new Set(own.map(keyOf))) seen.set(key, (seen.get(key) ?? 0) + 1);
  return new Set(
    edges.flatMap((own) => own.filter((line) => pages.length > 2 && seen.get(keyOf(line))! > pages.length / 2)),
  );
}

/** Two lines of one paragraph as one text; a word that was parted at the line's end is joined again. */
function joined(before: string, next: string): string {
  if (/\p{L}-$/u.test(before) && /^\p{Ll}/u.test(next)) return before.slice(0, -1) + next;
  return `${before} ${next}`;
}

/** The text of a PDF file: lines joined by where they stand, paragraphs by the room between lines. */
export async function readPdf(bytes: Uint8Array): Promise<DocumentText | Unread> {
  const { getDocument, VerbosityLevel } = await import('pdfjs-dist/legacy/build/pdf.mjs');
  const task = getDocument({
    data: bytes,
    isEvalSupported: false,
    useSystemFonts: false,
    disableFontFace: true,
    enableXfa: false,
    stopAtErrors: false,
    verbosity: VerbosityLevel.ERRORS,
  });
  let file: Awaited<typeof task.promise>;
  try {
    file = await task.promise;
  } catch (error) {
    const { name, message } = error as Error;
    if (name === 'PasswordException') return { problem: 'it asks for a password' };
    return { problem: `it is a broken PDF (${message})` };
  }
  try {
    if (file.numPages > MOST_PAGES)
      return { problem: `it has ${file.numPages} pages, and ${MOST_PAGES} at most are read; split it` };
    const pages: Line[][] = [];
    let letters = 0;
    for (let n = 1; n <= file.numPages; n++) {
      const page = await file.getPage(n);
      const { items } = await page.getTextContent();
      const lines = linesOf(items);
      letters += lines.reduce((sum, { text }) => sum + text.length, 0);
      if (letters > MOST_LETTERS)
        return { problem: `it has more than ${MOST_LETTERS / 1_000_000} million letters; split it` };
      pages.push(lines);
      page.cleanup();
    }
    const { paragraphs } = parted(pages);
    // A page's number is no text.
    if (paragraphs.length === 0)
      return {
        problem: `its ${file.numPages === 1 ? 'page holds' : `${file.numPages} pages hold`} pictures and no text; have the text recognised first`,
      };
    const about = await file.getMetadata().catch(() => null);
    return {
      paragraphs,
      title: titleIn(about?.info) || largestOf(pages[0] ?? []),
      language: null,
      published: null,
    };
  } finally {
    await task.destroy();
  }
}

function titleIn(info: object | undefined): string {
  const title: unknown = info && 'Title' in info ? info.Title : '';
  return typeof title === 'string' ? title.trim() : '';
}

function largestOf(lines: readonly Line[]): string {
  const size = Math.max(0, ...lines.map((line) => line.size));
  return lines
    .filter((line) => line.size > size * 0.98)
    .slice(0, 3)
    .map(({ text }) => text)
    .join(' ')
    .slice(0, 200);
}

interface Open {
  text: string;
  page: number;
  end: number;
}

function continued(open: Open | null, { text, end }: Line, page: number): Open {
  return open ? { ...open, text: joined(open.text, text), end } : { text, page, end };
}

/** Paragraphs of all pages, with their page and the heading they stand under. */
function parted(pages: readonly Line[][]): Pick<DocumentText, 'paragraphs'> {
  const running = runningOf(pages);
  const size = middle(pages.flat().map((line) => line.size));
  const paragraphs: DocumentText['paragraphs'] = [];
  let heading = '';
  let open: Open | null = null;
  const close = () => {
    // A number by itself is a page's.
    if (open && /\p{L}/u.test(open.text)) paragraphs.push({ text: open.text, heading, page: open.page });
    open = null;
  };
  for (const [at, lines] of pages.entries()) {
    const kept = lines.filter((line) => !running.has(line));
    const step = stepOf(kept) || size * 1.2;
    let above: (Line & { heading: boolean }) | null = null;
    let widest = Math.max(0, ...kept.map((line) => line.end));
    for (const line of kept) {
      const isHeading = line.size > size * 1.12 && line.text.split(' ').length <= 16;
      if (isHeading) {
        close();
        heading = above?.heading ? `${heading} ${line.text}` : line.text;
        above = { ...line, heading: true };
        continue;
      }
      const gap = above === null ? 0 : above.y - line.y;
      const apart = above !== null && (gap > step * 1.35 || gap < 0 || line.x - above.x > size * 0.8);
      // A paragraph goes on over the page's end unless its last line was short or ended a sentence.
      const goesOn = above === null && open !== null && !/[.!?:”"»]$/.test(open.text) && open.end > widest * 0.75;
      if (apart || above?.heading || (above === null && !goesOn)) close();
      open = continued(open, line, at + 1);
      above = { ...line, heading: false };
      widest = Math.max(widest, line.end);
    }
  }
  close();
  return { paragraphs };
}
