import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { doubtsOf, readSources } from '../honesty.ts';

/** A sentence with the passage it is said to rest on, and whether it does or one thing in it was altered. */
export type Pair = [language: string, is: 'ok' | 'altered', kind: string, passage: string, sentence: string];

const LINE = /^([+-]) (\w+) \| (.*)$/;

/**
 * The pairs kept here: made-up passages each with sentences that rest on them in other words and others in which one thing
 * was altered. Every third passage of the first, and a list, are kept for the last look: nothing was fitted to them. Those
 * written later, those written anew, which ask for more reckoning, and the latest, which tell one thing of another more
 * often, were looked at once before anything was fitted to them; what was seen then stands in `docs/performance.md`.
 */
export function keptPairs(): { fitted: Pair[]; kept: Pair[]; anew: Pair[]; latest: Pair[] } {
  const out = { fitted: [] as Pair[], kept: [] as Pair[], anew: [] as Pair[], latest: [] as Pair[] };
  for (const [file, language, every, third] of [
    ['english.txt', 'en', 'fitted', 'kept'],
    ['german.txt', 'de', 'fitted', 'kept'],
    ['later-english.txt', 'en', 'fitted', 'fitted'],
    ['later-german.txt', 'de', 'fitted', 'fitted'],
    ['anew-english.txt', 'en', 'anew', 'anew'],
    ['anew-german.txt', 'de', 'anew', 'anew'],
    ['latest-english.txt', 'en', 'latest', 'latest'],
    ['latest-german.txt', 'de', 'latest', 'latest'],
  ] as const) {
    const text = readFileSync(join(import.meta.dirname, file), 'utf8');
    for (const [n, part] of text.split(/^= /m).slice(1).entries()) {
      const [passage = '', ...lines] = part.trim().split('\n');
      for (const line of lines) {
        const [, sign, kind, sentence] = LINE.exec(line) ?? [];
        if (sign === undefined) continue;
        out[n % 3 === 2 ? third : every].push([language, sign === '+' ? 'ok' : 'altered', kind!, passage, sentence!]);
      }
    }
  }
  const list = (name: string) => JSON.parse(readFileSync(join(import.meta.dirname, name), 'utf8')) as Pair[];
  out.fitted.push(...list('short.json'));
  out.kept.push(...list('unseen.json'));
  return out;
}

export interface Judged {
  recall: number;
  falseMarks: number;
  /** By language and kind: of what is right how many were marked, of what was altered how many. */
  rows: { of: string; right: number; marked: number; altered: number; caught: number }[];
  /** What went wrong. */
  wrong: Pair[];
}

/** Holds every sentence against its passage. */
export function judged(pairs: readonly Pair[]): Judged {
  const rows = new Map<string, Judged['rows'][number]>();
  const wrong: Pair[] = [];
  for (const pair of pairs) {
    const [language, is, kind, passage, sentence] = pair;
    const of = `${language} ${kind}`;
    const row = rows.get(of) ?? { of, right: 0, marked: 0, altered: 0, caught: 0 };
    rows.set(of, row);
    const doubted = doubtsOf(sentence, readSources([passage], language), language).length > 0;
    if (is === 'ok') {
      row.right++;
      if (doubted) row.marked++;
    } else {
      row.altered++;
      if (doubted) row.caught++;
    }
    if (doubted !== (is === 'altered')) wrong.push(pair);
  }
  const all = [...rows.values()];
  const sum = (of: 'right' | 'marked' | 'altered' | 'caught') => all.reduce((n, row) => n + row[of], 0);
  return {
    recall: sum('caught') / Math.max(1, sum('altered')),
    falseMarks: sum('marked') / Math.max(1, sum('right')),
    rows: all,
    wrong,
  };
}
