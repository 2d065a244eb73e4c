import { readCell } from '@grivo/core';
import Papa from 'papaparse';
import { bare, type FilePhrase } from './filePhrase.ts';

/** Names under which keyword tools and people head the column of phrases. */
const HEADS =
  /^(?:keywords?|key ?phrases?|phrases?|quer(?:y|ies)|search terms?|top queries|terms?|suchbegriffe?|stichw(?:ort|örter))$/i;

const VOLUME = /\b(?:volume|searches|impressions)\b|suchvolumen/i;
const DIFFICULTY = /\b(?:difficulty|competition)\b|schwierigkeit/i;

/**
 * The phrases of a CSV, TSV or plain text: the separator is guessed, quotes and a byte order mark are read as RFC 4180
 * and Unicode say, and the column is the one a known head names, else the first that holds words. Columns headed as searches
 * a month and as difficulty give the measures.
 */
export function phrasesOfFile(
  name: string,
  bytes: Uint8Array,
): { phrases: FilePhrase[]; column: string } | { failed: string } {
  const text = decode(bytes);
  if (text === null)
    return { failed: `${name} is no text file. Save it as CSV with the encoding UTF-8 and read it again.` };
  const lines = text.split(/\r?\n/).filter((line) => line.trim() !== '');
  const plain = !/[,;\t]/.test(lines.slice(0, 20).join(''));
  if (plain) return { phrases: lines.map((line) => bare(unquoted(line))), column: 'one a line' };
  const { data } = Papa.parse<string[]>(text, { skipEmptyLines: 'greedy', delimitersToGuess: [',', ';', '\t', '|'] });
  const [first = []] = data;
  const named = first.findIndex((cell) => HEADS.test(cell.trim()));
  if (named >= 0) return measured(first, data.slice(1), named);
  const width = Math.max(...data.slice(0, 50).map((row) => row.length));
  // Without a known head a text of several columns is a list parted by its separators.
  if (width > 1 && data.length <= 3)
    return {
      phrases: data
        .flat()
        .map((cell) => cell.trim())
        .filter(Boolean)
        .map(bare),
      column: 'every cell',
    };
  const words = Array.from(
    { length: width },
    (_, at) => data.slice(0, 50).filter((row) => /\p{L}{2}/u.test(row[at] ?? '')).length,
  );
  const at = words.indexOf(Math.max(...words));
  return { phrases: column(data, at), column: width === 1 ? 'one a line' : `column ${at + 1}` };
}

function column(rows: readonly string[][], at: number): FilePhrase[] {
  return rows
    .map((row) => row[at]?.trim() ?? '')
    .filter((cell) => cell !== '')
    .map(bare);
}

/** Phrases under a known head, with the measures beside them. */
function measured(heads: readonly string[], rows: readonly string[][], at: number) {
  const [volume, difficulty] = [VOLUME, DIFFICULTY].map((named) =>
    heads.findIndex((head, i) => i !== at && named.test(head)),
  );
  const difficulties = rows.map((row) => numberIn(row[difficulty!])).filter((value) => value !== null);
  // Some write how hard it is as a share of one.
  const share =
    difficulties.some((value) => value > 0 && value < 1) && difficulties.every((value) => value <= 1) ? 100 : 1;
  const phrases = rows.flatMap((row): FilePhrase[] => {
    const { phrase } = bare(row[at] ?? '');
    if (phrase === '') return [];
    const hard = numberIn(row[difficulty!]);
    const much = numberIn(row[volume!]);
    return [
      {
        phrase,
        volume: much !== null && much >= 0 ? much : null,
        difficulty: hard !== null && hard >= 0 && hard * share <= 100 ? Math.round(hard * share) : null,
      },
    ];
  });
  const named = [at, volume!, difficulty!].filter((i) => i >= 0).map((i) => `“${heads[i]!.trim()}”`);
  return { phrases, column: `${named.length === 1 ? 'column' : 'columns'} ${named.join(', ')}` };
}

/** A number as people and tools write it; null for anything else, ranges and words among them. */
function numberIn(cell: string | undefined): number | null {
  const read = readCell('number', (cell ?? '').replace('%', ''));
  return read.ok && typeof read.value === 'number' ? read.value : null;
}

function unquoted(line: string): string {
  return line
    .trim()
    .replace(/^"(.*)"$/, '$1')
    .replaceAll('""', '"');
}

/** UTF-8 and UTF-16 by their marks, UTF-8 without one, else Windows-1252; null for what is no text. */
function decode(bytes: Uint8Array): string | null {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return new TextDecoder('utf-16le').decode(bytes);
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return new TextDecoder('utf-16be').decode(bytes);
  if (bytes.subarray(0, 4_000).includes(0)) return null;
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder('windows-1252').decode(bytes);
  }
}
