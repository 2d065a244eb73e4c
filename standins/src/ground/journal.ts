import { appendFileSync, existsSync, mkdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';

/** What a service received, kept line by line so that it outlives a restart. Without a folder it is kept in memory. */
export class Journal<Entry> {
  readonly entries: Entry[] = [];
  private readonly path: string | null;

  constructor(folder: string | null, name: string) {
    this.path = folder === null ? null : join(folder, `${name}.jsonl`);
    if (!this.path) return;
    mkdirSync(folder!, { recursive: true });
    if (!existsSync(this.path)) return;
    const text = readFileSync(this.path, 'utf8');
    // A crash may have cut the last line: it is left out, and what comes next begins on a line of its own.
    if (text !== '' && !text.endsWith('\n')) appendFileSync(this.path, '\n');
    for (const line of text.split('\n').slice(0, -1))
      if (line.startsWith('{') && line.endsWith('}')) this.entries.push(JSON.parse(line) as Entry);
  }

  add(entry: Entry): void {
    if (this.path) appendFileSync(this.path, `${JSON.stringify(entry)}\n`);
    this.entries.push(entry);
  }
}
