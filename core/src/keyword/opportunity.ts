import { expressionFields, expressionProblem, workOut } from '../expression/evaluate.ts';
import { numberOf } from '../procedure/test.ts';

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

/**
 * What a phrase promises, by an expression of `volume`, `difficulty` and `words` (how many it has); null where a measure
 * the expression asks for is not known, or it gives no figure.
 */
export function opportunity(phrase: string, measures: Measures, formula: string = OPPORTUNITY): number | null {
  const fields = { ...measures, words: phrase.trim().split(/\s+/).length };
  if (expressionFields(formula).some((name) => fields[name as keyof typeof fields] === null)) return null;
  const done = workOut(formula, fields, () => ({ ok: false, problem: 'no pattern is searched for here' }));
  return done.ok ? numberOf(done.value) : null;
}

/** What is wrong with an opportunity's formula, in a sentence; null when nothing is. */
export function opportunityProblem(formula: string): string | null {
  const problem = expressionProblem(formula);
  if (problem !== null) return problem;
  const unknown = expressionFields(formula).find((name) => !KNOWN.includes(name));
  if (unknown !== undefined) return `there is no ‘${unknown}’; there are ${KNOWN.join(', ')}`;
  const tried = workOut(formula, { volume: 880, difficulty: 25, words: 3 }, () => ({
    ok: false,
    problem: 'patterns cannot be searched for here',
  }));
  if (!tried.ok) return tried.problem;
  return numberOf(tried.value) === null ? 'it gives no figure' : null;
}
