import type { Clause } from './clause.ts';
import { setOf } from './lexicon.ts';

/** Words for a time in which something is so often or so much, behind a word that says so: 'a month', 'im Jahr'. */
const NOUNS: ReadonlyMap<string, string> = new Map(
  Object.entries({
    minute: 'minute minuten',
    hour: 'hour stunde stunden',
    day: 'day tag tage',
    week: 'week woche wochen',
    month: 'month monat',
    year: 'year jahr',
  }).flatMap(([period, words]) => words.split(' ').map((word): [string, string] => [word, period])),
);
/** Words that say it by themselves. */
const ADVERBS: ReadonlyMap<string, string> = new Map([
  ['hourly', 'hour'],
  ['stündlich', 'hour'],
  ['daily', 'day'],
  ['täglich', 'day'],
  ['weekly', 'week'],
  ['wöchentlich', 'week'],
  ['monthly', 'month'],
  ['monatlich', 'month'],
  ['yearly', 'year'],
  ['annually', 'year'],
  ['annual', 'year'],
  ['jährlich', 'year'],
]);
const PER = setOf('a an per each every pro je im am jede jeder jeden jedem jedes');

/** In which times a clause says something is so often or so much. */
export function periodsOf(clause: Clause): ReadonlySet<string> {
  return clause.once('periods', () => {
    const out = new Set<string>();
    clause.tokens.forEach(({ lower }, at) => {
      const alone = ADVERBS.get(lower);
      if (alone) out.add(alone);
      const named = NOUNS.get(lower);
      const before = clause.tokens[at - 1]?.lower ?? '';
      if (named && (PER.has(before) || (before === 'der' && clause.tokens[at - 2]?.lower === 'in'))) out.add(named);
    });
    return out;
  });
}
