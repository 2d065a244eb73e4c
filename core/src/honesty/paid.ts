import type { Clause } from './clause.ts';
import { setOf } from './lexicon.ts';

const FREE = setOf('free nothing gratis kostenlos umsonst nichts gratis');
const PAID = setOf(
  'pay pays paid cost costs charge charged free admission entry travel travels zahlen zahlt kostet kosten kostenlos umsonst gratis',
);
const isFree = (clause: Clause) => clause.has(FREE) && clause.has(PAID) && !costs(clause);
const FINED = setOf('fined fine fines charged fee fees surcharge gebühr gebühren strafe');
const costs = (clause: Clause) =>
  (clause.has(FINED) && !clause.denies && !clause.has(FREE)) ||
  clause.figures.some(({ means }) => means.some(({ dimension }) => dimension.startsWith('money'))) ||
  paysFull(clause);

const PAYS = setOf('pay pays paid charge charged zahlen zahlt bezahlen bezahlt');
const FULL = setOf('full fare fee admission voll volle vollen eintritt preis');
const MUST = setOf('must muss müssen');
const paysFull = (clause: Clause) =>
  clause.has(PAYS) && (clause.has(FULL) || clause.has(MUST)) && !clause.has(FREE) && !clause.denies;

/** The first word a clause says something of. */
const leaderOf = ({ tokens, taken }: Clause) =>
  tokens.slice(0, 3).find(({ content, unit }, at) => content && !unit && !taken[at])?.stem;

/** Told to be free of what is paid for in the sources, or paid for where it is free. */
export function paidOrFree(said: Clause, sources: readonly Clause[]): boolean {
  const free = isFree(said);
  const who = leaderOf(said);
  if (who === undefined || (!free && !costs(said))) return false;
  const its = sources.filter((held) => leaderOf(held) === who);
  return its.some(free ? costs : isFree) && !its.some(free ? isFree : costs);
}
