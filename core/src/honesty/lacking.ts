import type { Clause } from './clause.ts';
import { opposite } from './denial.ts';
import { isNegator } from './denying.ts';
import { SPARING, setOf } from './lexicon.ts';
import { quantityFits } from './quantity.ts';

/** Words that deny what stands behind them, not the verb. */
const NO = setOf('no hardly any without neither nor kein keine keinen keinem keiner keines ohne weder noch kaum');
const NEVER = setOf('nicht nie niemals');
const DOERS = setOf('er sie es man wir ich der die das');

/** In German: what is done to stands first, behind its verb who does it, and it is denied. */
const isObjectFirst = ({ tokens, language }: Clause): boolean =>
  language === 'de' &&
  tokens[0]!.capital &&
  tokens[0]!.content &&
  tokens[1]?.content === true &&
  !tokens[1].capital &&
  DOERS.has(tokens[2]?.lower ?? '') &&
  tokens.some(({ lower }) => NEVER.has(lower));

const WITH = setOf('with mit');
const WITHOUT = setOf('without ohne');
/** Said of what might be, or of others. */
const OTHERWISE = setOf(
  'would could might if unlike instead other others elsewhere only rarely seldom scarcely barely little few gone vanished vanishes disappears disappeared lose loses losing suffers wäre würde könnte wenn falls statt anders andere anderen anderswo woanders nur selten wenig wenige verschwunden verschwindet weg verliert verlieren leidet leiden',
);

/** The next thing behind a place, within a few words. */
function thingBehind({ tokens }: Clause, at: number): string | null {
  const next = tokens.slice(at + 1, at + 4).find(({ content, kind }) => content || kind === 'sign');
  return next?.content ? next.stem : null;
}

/** What a clause says there is none of: 'no cement', 'hardly any hedgehogs', 'keine Kaninchen', 'Fisch gibt es nicht'. */
function lacks(clause: Clause): ReadonlySet<string> {
  return clause.once('lacks', () => {
    const { tokens } = clause;
    const out = new Set<string>();
    for (const [at, { lower }] of tokens.entries()) {
      // 'Any' denies nothing without a word before it that does.
      if (NO.has(lower) && (lower !== 'any' || isNegator(tokens[at - 1] ?? tokens[at]!, clause.language))) {
        const thing = thingBehind(clause, at);
        if (thing !== null) out.add(thing);
      }
      // 'Silofutter bekommen die Kühe nie'.
      if (at === 0 && isObjectFirst(clause)) out.add(tokens[0]!.stem);
      const isGiven = lower === 'gibt' && tokens[at + 1]?.lower === 'es' && tokens[at + 2]?.lower === 'nicht';
      if (isGiven && tokens[at - 1]?.content) out.add(tokens[at - 1]!.stem);
    }
    return out;
  });
}

/** Whether a thing is told to be where every source that speaks of it says there is none, speaking of the same. */
export function hasWhatLacks(said: Clause, sources: readonly Clause[]): boolean {
  if (said.denies || said.has(OTHERWISE) || said.has(SPARING[said.language] ?? SPARING['en']!)) return false;
  return said.about.some((stem) => {
    if (isVerb(said, stem)) return false;
    const speaking = sources.filter(({ stemSet }) => stemSet.has(stem));
    return (
      speaking.length > 0 &&
      speaking.every(
        (held) =>
          held.denies &&
          lacks(held).has(stem) &&
          (areOfOne(said, held, stem) || isToldOfOne(said, held, stem)) &&
          !opposite(said, held),
      )
    );
  });
}

/** 'She feeds hay' feeds no feed: it stands between who does it and what it is done to. */
const isVerb = ({ tokens, language }: Clause, stem: string): boolean =>
  language !== 'de' &&
  tokens.some(
    (token, at) =>
      token.stem === stem &&
      /s$/.test(token.lower) &&
      tokens[at - 1]?.content === true &&
      tokens[at + 1]?.content === true,
  );

/** Whether both speak of something else too that is the same, where both speak of more than the thing. */
function areOfOne(said: Clause, held: Clause, thing: string): boolean {
  const [mine, its] = [said.own, held.own].map((own) => [...own].filter((stem) => stem !== thing));
  // 'Elektronik baut er nicht ein' speaks of nothing else.
  if (isObjectFirst(held) && !held.tokens.some(({ capital, content }, at) => at > 0 && capital && content)) return true;
  // 'They live mainly on hedgehogs': who 'they' are stands before.
  if (said.subject === null && mine!.length <= 2) return true;
  return mine!.length === 0 || its!.length === 0 || mine!.some((stem) => its!.includes(stem));
}

const SHE = setOf('she he it they er sie es');

/** 'Amaro works with gloves' of 'he wears no gloves': who he is was said before. */
const isToldOfOne = (said: Clause, held: Clause, thing: string): boolean =>
  SHE.has(held.tokens[0]?.lower ?? '') && things(said, WITH).has(thing);

/** What stands behind 'with', or behind 'without' and 'with no'. */
function things(clause: Clause, words: ReadonlySet<string>): ReadonlySet<string> {
  const { tokens, language } = clause;
  return new Set(
    tokens.flatMap(({ lower }, at) => {
      const behind = tokens[at + 1];
      const withNo = WITH.has(lower) && behind !== undefined && isNegator(behind, language);
      return (withNo ? words === WITHOUT : words.has(lower)) ? (thingBehind(clause, at) ?? []) : [];
    }),
  );
}

/** 'Without' for 'with', or the other way round, of a figure the sources have of that alone. */
export function withForWithout(said: Clause, sources: readonly Clause[]): boolean {
  if (said.figures.length === 0) return false;
  const has = (held: Clause) =>
    held.figures.length === 1 && said.figures.some((figure) => quantityFits(figure, held.figures[0]!));
  const turned = (mine: ReadonlySet<string>, its: ReadonlySet<string>) =>
    [...things(said, mine)].some((thing) => sources.some((held) => things(held, its).has(thing) && has(held)));
  return turned(WITHOUT, WITH) || turned(WITH, WITHOUT);
}
