import { expressionFields, expressionProblem, prepared, workOut } from '../expression/evaluate.ts';
import { numberOf } from '../expression/test.ts';

/** What a keyword tool measured of a phrase. */
export interface Measures {
  /** Searches a month. */
  volume: number | null;
  /** How hard it is to be found for it, 0 to 100. */
  difficulty: number | null;
}

/** The rule of the house: the searches a month, less the share the difficulty takes. */
export const OPPORTUNITY = 'volume * (100 - difficulty) / 100';

const KNOWN = ['volume', 'difficulty', 'words'];

/** What a phrase promises; null where a measure its formula asks for is not known, or it gives no figure. */
export type Promising = (phrase: string, measures: Measures) => number | null;

const NO_PATTERNS = () => ({ ok: false as const, problem: 'patterns cannot be searched for here' });

/** What phrases promise by a formula, an expression of `volume`, `difficulty` and `words` (how many a phrase has). */
export function opportunityBy(formula: string = OPPORTUNITY): Promising {
  const work = prepared(formula);
  const asked = expressionFields(formula);
  return (phrase, { volume, difficulty }) => {
    const fields: Record<string, number | null> = { volume, difficulty, words: phrase.trim().split(/\s+/).length };
    if (asked.some((name) => fields[name] === null)) return null;
    const done = work(fields, NO_PATTERNS);
    return done.ok ? numberOf(done.value) : null;
  };
}

/** What is wrong with an opportunity's formula, in a sentence; null when nothing is. */
export function opportunityProblem(formula: string): string | null {
  const problem = expressionProblem(formula);
  if (problem !== null) return problem;
  const unknown = expressionFields(formula).find((name) => !KNOWN.includes(name));
  if (unknown !== undefined) return `there is no ‘${unknown}’; there are ${KNOWN.join(', ')}`;
  const tried = workOut(formula, { volume: 880, difficulty: 25, words: 3 }, NO_PATTERNS);
  if (!tried.ok) return tried.problem;
  return numberOf(tried.value) === null ? 'it gives no figure' : null;
}
