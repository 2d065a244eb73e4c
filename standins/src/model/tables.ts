import { readFileSync } from 'node:fs';
import { join } from 'node:path';

/** Words and phrases by language, `english|german|french|spanish` a line. What is not there stays as it is. */

type Table = Readonly<Record<string, string>>;

const WORDS = readFileSync(join(import.meta.dirname, 'words.txt'), 'utf8');

function tableOf(column: number): Table {
  const rows = WORDS.trim()
    .split('\n')
    .map((line) => line.split('|'));
  return Object.fromEntries(rows.map((row) => [row[0]!, row[column]!]));
}

export const TABLES: Readonly<Record<string, Table>> = { German: tableOf(1), French: tableOf(2), Spanish: tableOf(3) };
