import type { Clause } from './clause.ts';
import { setOf } from './lexicon.ts';

/** Words between who does something and to whom, or where, it is done. */
const WAYS = setOf('from to by after before under over for von vom nach vor an durch über unter für');
const PLACES = setOf('in at from near to into aus bei nach von');

/** Names behind a word and before it, by their stems. */
interface Side {
  way: string;
  before: ReadonlySet<string>;
  behind: ReadonlySet<string>;
}

const isName = ({ tokens, taken }: Clause, at: number): boolean =>
  tokens[at]?.capital === true && tokens[at]!.content && !taken[at];

const namesAround = (clause: Clause): readonly Side[] =>
  clause.once('names on both sides', () =>
    clause.tokens.flatMap(({ lower }, at) => {
      if (!WAYS.has(lower) || !isName(clause, at + 1)) return [];
      const before = clause.tokens.flatMap(({ stem }, i) => (i < at && isName(clause, i) ? [stem] : []));
      const behind: string[] = [];
      for (let i = at + 1; isName(clause, i); i++) behind.push(clause.tokens[i]!.stem);
      return before.length === 0 ? [] : [{ way: lower, before: new Set(before), behind: new Set(behind) }];
    }),
  );

const meet = (a: ReadonlySet<string>, b: ReadonlySet<string>): boolean => [...a].some((stem) => b.has(stem));

/** 'Moss took over from Hadley' told the other way round: the same is said, with the same word between the same names. */
export function namesExchanged(said: Clause, sources: readonly Clause[]): boolean {
  return namesAround(said).some((mine) => {
    const others = said.stems.filter((stem) => !mine.before.has(stem) && !mine.behind.has(stem));
    const alike = sources.flatMap((held) =>
      others.length === 0 || others.some((stem) => held.stemSet.has(stem))
        ? namesAround(held).filter(({ way }) => way === mine.way)
        : [],
    );
    const isAsTold = alike.some((its) => meet(mine.before, its.before) && meet(mine.behind, its.behind));
    return (
      !isAsTold &&
      alike.some(
        (its) =>
          meet(mine.before, its.behind) &&
          meet(mine.behind, its.before) &&
          !meet(mine.before, its.before) &&
          !meet(mine.behind, its.behind),
      )
    );
  });
}

/** Share of what else is said that a sentence has to say to be of the same. */
const OF_THE_SAME = 0.75;
const LEAST = 2;

/** Names that stand right behind a word for where. */
const namedPlaces = (clause: Clause): readonly { way: string; stem: string }[] =>
  clause.once('places', () =>
    clause.tokens.flatMap(({ lower }, at) =>
      PLACES.has(lower) && isName(clause, at + 1) ? [{ way: lower, stem: clause.tokens[at + 1]!.stem }] : [],
    ),
  );

/** 'He sang it first in Linz', where Graz is said of it and Linz of something else. */
export function elsewhere(said: Clause, sources: readonly Clause[]): boolean {
  return namedPlaces(said).some(({ way, stem }) => {
    const rest = said.stems.filter((one) => one !== stem);
    if (rest.length < LEAST || !sources.some(({ stemSet }) => stemSet.has(stem))) return false;
    const holding = sources.filter(
      ({ sentence }) => rest.filter((one) => sentence.stems.has(one)).length >= rest.length * OF_THE_SAME,
    );
    return (
      !holding.some(({ sentence }) => sentence.stems.has(stem)) &&
      holding.some(({ sentence }) =>
        sentence.clauses.some((held) =>
          namedPlaces(held).some((its) => its.way === way && !said.stemSet.has(its.stem)),
        ),
      )
    );
  });
}

const SHE = setOf('he she');

/** 'Ruth builds boats', where 'she builds boats' stands behind Kit. */
export function ofWhoStandsBefore(said: Clause, sources: readonly Clause[]): boolean {
  if (said.language === 'de') return false;
  const names = said.tokens.flatMap(({ stem }, at) => (isName(said, at) && at < 3 ? [stem] : []));
  const rest = said.stems.filter((stem) => !names.includes(stem));
  if (names.length === 0 || !isName(said, 0) || rest.length < LEAST) return false;
  const known = sources.some(({ stemSet }) => stemSet.has(names[0]!) || stemSet.has(names.at(-1)!));
  const holding = known ? sources.filter(({ stemSet }) => rest.every((stem) => stemSet.has(stem))) : [];
  return (
    holding.length > 0 &&
    holding.every((held) => {
      if (!SHE.has(held.tokens[0]?.lower ?? '')) return false;
      const { clauses } = held.sentence.of;
      const before = clauses.slice(0, clauses.indexOf(held)).toReversed();
      const near = before.find((clause) => clause.tokens.some((_, at) => at > 0 && isName(clause, at)));
      return near !== undefined && !names.some((stem) => near.stemSet.has(stem));
    })
  );
}
