/** A line of text set in a face: where its letters are, in thousandths of the size, from the start of the line and its baseline. */
export interface SetLine {
  /** How far the line goes on, in thousandths of the size. */
  advance: number;
  /** What is inked: left and right of the start, above (negative) and below the baseline. */
  ink: { left: number; right: number; top: number; bottom: number };
  /** The outlines of its letters as SVG path data (SVG 2, 9.3), thousandths of the size, downward positive. */
  outline: string;
}

/** A face of text, as whoever draws it has it. */
export interface Face {
  /** How far its letters reach above and below the baseline, in thousandths of the size; for lines of a text, {@link reach}. */
  reach: (text: string) => { above: number; below: number };
  /**
   * @param fromRight the direction of the text it is a line of
   * @returns the line, or the first letter that cannot be shown
   */
  set: (text: string, fromRight: boolean) => SetLine | { missing: string };
}

/** A box on a drawing, in pixels from its upper left corner. */
export interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

export const isSet = (line: SetLine | { missing: string }): line is SetLine => !('missing' in line);

const ESCAPES: Record<string, string> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };

/** A text as it stands in an attribute or between tags of XML. */
export const xmlText = (text: string): string => text.replace(/[&<>"]/g, (letter) => ESCAPES[letter]!);

/** Figures of a drawing: two decimals are finer than any screen. */
export const px = (n: number): string => String(Math.round(n * 100) / 100);
