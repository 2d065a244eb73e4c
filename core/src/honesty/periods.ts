import type { Clause } from './clause.ts';
import { setOf } from './lexicon.ts';

export type Period = 'minute' | 'hour' | 'day' | 'week' | 'month' | 'year';
export const SECONDS: Record<Period, number> = {
  minute: 60,
  hour: 3_600,
  day: 86_400,
  week: 604_800,
  month: 2_629_800,
  year: 31_557_600,
};

/** Words for a stretch of time. Behind a word that says so, something is so often or so much in it: 'a month', 'im Jahr'. */
export const PERIOD_OF: ReadonlyMap<string, Period> = new Map(
  Object.entries({
    minute: 'minute minutes minuten',
    hour: 'hour hours stunde stunden',
    day: 'day days tag tage tagen tages',
    week: 'week weeks woche wochen',
    month: 'month months monat monate monaten monats',
    year: 'year years jahr jahre jahren jahres',
  }).flatMap(([period, words]) => words.split(' ').map((word): [string, Period] => [word, period as Period])),
);
/** Words that say it by themselves. */
const ADVERBS: ReadonlyMap<string, Period> = new Map([
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
/** What comes once in such a time, behind a word that says each: 'every Friday', 'each spring'. */
const RECURRING: ReadonlyMap<string, Period> = new Map(
  Object.entries({
    week: 'monday tuesday wednesday thursday friday saturday sunday montag dienstag mittwoch donnerstag freitag samstag sonntag',
    year: 'spring summer autumn winter frühjahr frühling sommer herbst',
  }).flatMap(([period, words]) => words.split(' ').map((word): [string, Period] => [word, period as Period])),
);
const EACH = setOf('each every jede jeder jeden jedes');
const PER = setOf('a an per each every pro je im am jede jeder jeden jedem jedes');

/** In which times a clause says something is so often or so much. */
export function periodsOf(clause: Clause): ReadonlySet<Period> {
  return clause.once('periods', () => {
    const out = new Set<Period>();
    clause.tokens.forEach(({ lower }, at) => {
      const alone = ADVERBS.get(lower);
      if (alone) out.add(alone);
      const named = PERIOD_OF.get(lower);
      const before = clause.tokens[at - 1]?.lower ?? '';
      const recurring = EACH.has(before) ? RECURRING.get(lower) : undefined;
      if (recurring) out.add(recurring);
      if (named && (PER.has(before) || (before === 'der' && clause.tokens[at - 2]?.lower === 'in'))) out.add(named);
    });
    return out;
  });
}
