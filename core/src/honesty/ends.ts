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

/** What an end is of: the word behind it that says what it is about. */
function ofWhat(clause: Clause, end: string): string | null | undefined {
  const at = clause.tokens.findIndex(({ lower }) => lower === end || (clause.language === 'de' && bare(lower) === end));
  return at === -1 ? undefined : (clause.tokens.slice(at + 1, at + 3).find(({ content }) => content)?.stem ?? null);
}

const bare = (lower: string): string => lower.replace(/e[nrms]?$/, '');

/** 'The last flour' of what is told of the first: no source names that end of anything, and one the other end of this. */
export function otherEnd(said: Clause, sources: readonly Clause[]): boolean {
  const pairs = ENDS[said.language] ?? ENDS['en']!;
  return pairs.some((pair) =>
    [pair, [pair[1], pair[0]] as const].some(([mine, its]) => {
      const what = ofWhat(said, mine);
      if (what === undefined || said.denies || ofWhat(said, its) !== undefined) return false;
      if (sources.some((held) => ofWhat(held, mine) !== undefined)) return false;
      return sources.some((held) => {
        const other = ofWhat(held, its);
        return (
          other !== undefined &&
          !held.denies &&
          (what === other || (other !== null && said.stemSet.has(other)) || (what !== null && held.stemSet.has(what)))
        );
      });
    }),
  );
}
