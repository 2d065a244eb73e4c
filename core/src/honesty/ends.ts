import type { Clause } from './clause.ts';

/** Words for one end of a row and for the other. */
const ENDS: Record<string, readonly (readonly [string, string])[]> = {
  en: [
    ['first', 'last'],
    ['oldest', 'youngest'],
    ['oldest', 'newest'],
    ['largest', 'smallest'],
    ['biggest', 'smallest'],
    ['longest', 'shortest'],
    ['highest', 'lowest'],
    ['heaviest', 'lightest'],
    ['best', 'worst'],
    ['fastest', 'slowest'],
    ['wettest', 'driest'],
    ['warmest', 'coldest'],
    ['deepest', 'shallowest'],
    ['cheapest', 'dearest'],
  ],
  de: [
    ['erst', 'letzt'],
    ['ältest', 'jüngst'],
    ['größt', 'kleinst'],
    ['längst', 'kürzest'],
    ['höchst', 'niedrigst'],
    ['schwerst', 'leichtest'],
    ['best', 'schlechtest'],
    ['schnellst', 'langsamst'],
  ],
};

/** Where a word for an end stands. In German it has an ending: 'erst ab 19 Uhr' is no first. */
const endAt = ({ tokens, language }: Clause, end: string): number =>
  tokens.findIndex(({ lower }) => (language === 'de' ? lower !== end && bare(lower) === end : lower === end));

/** What an end is of, the word behind it that says what it is about: of 'sour to the last' nothing. */
function ofWhat(clause: Clause, end: string): string | undefined {
  const at = endAt(clause, end);
  return at === -1 ? undefined : clause.tokens.slice(at + 1, at + 3).find(({ content }) => content)?.stem;
}

const bare = (lower: string): string => lower.replace(/e[nrms]?$/, '');

/** 'The last flour' of what is told of the first: no source names that end of anything, and one the other end of this. */
export function otherEnd(said: Clause, sources: readonly Clause[]): boolean {
  const pairs = ENDS[said.language] ?? ENDS['en']!;
  return pairs.some((pair) =>
    [pair, [pair[1], pair[0]] as const].some(([mine, its]) => {
      const what = ofWhat(said, mine);
      if (what === undefined || said.denies || endAt(said, its) !== -1) return false;
      if (sources.some((held) => endAt(held, mine) !== -1)) return false;
      return sources.some((held) => {
        const other = ofWhat(held, its);
        return other !== undefined && !held.denies && (said.stemSet.has(other) || held.stemSet.has(what));
      });
    }),
  );
}
