import type { Clause } from './clause.ts';

/** Both begin with a name, and not with the same. */
export function isPerson(said: Clause, held: Clause, sources: readonly Clause[]): boolean {
  const [first, second] = said.tokens;
  if (!first?.capital || !first.content) return false;
  const its = held.tokens.slice(1, 4).filter(({ capital, content }) => capital && content);
  if (its.length === 0 || its.some(({ lower }) => said.words.has(lower)) || held.words.has(first.lower)) return false;
  if (second?.capital && held.words.has(second.lower)) return false;
  return isNamed(first.lower, sources) || (second?.capital === true && isNamed(second.lower, sources));
}

/** Part of a name of two words somewhere. */
const isNamed = (word: string, sources: readonly Clause[]) =>
  sources.some(
    ({ words, tokens }) =>
      words.has(word) &&
      tokens.some(
        ({ lower, capital }, at) =>
          at > 0 && capital && lower === word && (tokens[at - 1]!.capital || tokens[at + 1]?.capital === true),
      ),
  );
