import Papa from 'papaparse';

/** Names under which keyword tools and people head the column of phrases. */
const HEADS =
  /^(?:keywords?|key ?phrases?|phrases?|quer(?:y|ies)|search terms?|top queries|terms?|suchbegriffe?|stichw(?:ort|örter))$/i;

/**
 * The phrases of a CSV, TSV or plain text: the separator is guessed, quotes and a byte order mark are read as RFC 4180
 * and Unicode say, and the column is the one a known head names, else the first that holds words.
 */
export function phrasesOfFile(
  name: string,
  bytes: Uint8Array,
): { phrases: string[]; column: string } | { failed: string } {
  const text = decode(bytes);
  if (text === null)
    return { failed: `${name} is no text file. Save it as CSV with the encoding UTF-8 and read it again.` };
  const lines = text.split(/\r?\n/).filter((line) => line.trim() !== '');
  const plain = !/[,;\t]/.test(lines.slice(0, 20).join(''));
  if (plain) return { phrases: lines.map((line) => unquoted(line)), column: 'one a line' };
  const { data } = Papa.parse<string[]>(text, { skipEmptyLines: 'greedy', delimitersToGuess: [',', ';', '\t', '|'] });
  const [first = []] = data;
  const named = first.findIndex((cell) => HEADS.test(cell.trim()));
  if (named >= 0) return { phrases: column(data.slice(1), named), column: `column “${first[named]!.trim()}”` };
  const width = Math.max(...data.slice(0, 50).map((row) => row.length));
  // Without a known head a text of several columns is a list parted by its separators.
  if (width > 1 && data.length <= 3)
    return {
      phrases: data
        .flat()
        .map((cell) => cell.trim())
        .filter(Boolean),
      column: 'every cell',
    };
  const words = Array.from(
    { length: width },
    (_, at) => data.slice(0, 50).filter((row) => /\p{L}{2}/u.test(row[at] ?? '')).length,
  );
  const at = words.indexOf(Math.max(...words));
  return { phrases: column(data, at), column: width === 1 ? 'one a line' : `column ${at + 1}` };
}

function column(rows: readonly string[][], at: number): string[] {
  return rows.map((row) => row[at]?.trim() ?? '').filter((cell) => cell !== '');
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
