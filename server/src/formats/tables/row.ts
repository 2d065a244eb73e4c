const SPACE = 32;
/** Beyond it there are other kinds of space. */
const LAST_SIGN = 127;

/** A row of a table. Its cells are read one by one, so that of a long table only those are made that are looked at. */
export interface TableRow {
  /** Its number in the table, from 1; 0 until it is counted. */
  n: number;
  readonly length: number;
  /** The text of a cell, from 0; undefined beyond the last. */
  at(i: number): string | undefined;
  readonly cells: string[];
  /** Whether nothing stands in it. */
  readonly blank: boolean;
}

function isBlank(cells: readonly string[]): boolean {
  return cells.every((cell) => cell.trim() === '');
}

/** A row whose cells are there. */
export class ArrayRow implements TableRow {
  n = 0;

  constructor(readonly cells: string[]) {}

  get length(): number {
    return this.cells.length;
  }

  at(i: number): string | undefined {
    return this.cells[i];
  }

  get blank(): boolean {
    return isBlank(this.cells);
  }
}

/** A text and where its cells are. */
export interface ScannedText {
  text: string;
  /** Of each cell where it begins and ends; an end below 0 is of a cell with doubled quotes, as ~end. */
  bounds: Int32Array;
}

/** A row as places in a text: of each cell where it begins and ends. */
export class TextRow implements TableRow {
  n = 0;

  /** @param first the first cell of the row, among all of the text */
  constructor(
    private readonly of: ScannedText,
    private readonly first: number,
    readonly length: number,
  ) {}

  at(i: number): string | undefined {
    if (i >= this.length) return undefined;
    const at = (this.first + i) * 2;
    const { text, bounds } = this.of;
    const start = bounds[at]!;
    const end = bounds[at + 1]!;
    return end < 0 ? text.slice(start, ~end).replaceAll('""', '"') : text.slice(start, end);
  }

  get cells(): string[] {
    return Array.from({ length: this.length }, (_, i) => this.at(i)!);
  }

  get blank(): boolean {
    const { text, bounds } = this.of;
    // Most rows begin with a letter or a figure.
    const start = bounds[this.first * 2]!;
    const code = start === bounds[this.first * 2 + 1] ? SPACE : text.charCodeAt(start);
    return code > SPACE && code < LAST_SIGN ? false : isBlank(this.cells);
  }
}
