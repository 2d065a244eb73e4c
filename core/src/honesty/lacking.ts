import { type Clause, isNegator } from './clause.ts';
import { SPARING, setOf } from './lexicon.ts';

/** Words that deny what stands behind them, not the verb. */
const NO = setOf('no hardly any without nor kein keine keinen keinem keiner keines ohne weder noch kaum');
const WITH = setOf('with mit');
const WITHOUT = setOf('without ohne');
/** Said of what might be, or of others. */
const OTHERWISE = setOf(
  'would could might if unlike instead other others elsewhere only rarely seldom scarcely barely little few wäre würde könnte wenn falls statt anders andere anderen anderswo woanders nur selten wenig wenige',
);

const hasWord = ({ words }: Clause, any: ReadonlySet<string>) => [...words].some((word) => any.has(word));

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
      const isGiven = lower === 'gibt' && tokens[at + 1]?.lower === 'es' && tokens[at + 2]?.lower === 'nicht';
      if (isGiven && tokens[at - 1]?.content) out.add(tokens[at - 1]!.stem);
    }
    return out;
  });
}

/** Whether something is told of a thing of which every source that speaks of it says there is none. */
export function hasWhatLacks(said: Clause, sources: readonly Clause[]): boolean {
  if (said.denies || hasWord(said, OTHERWISE) || hasWord(said, SPARING[said.language] ?? SPARING['en']!)) return false;
  return said.about.some((stem) => {
    const speaking = sources.filter(({ stemSet }) => stemSet.has(stem));
    return speaking.length > 0 && speaking.every((held) => held.denies && lacks(held).has(stem));
  });
}

/** What stands behind 'with', or behind 'without'. */
function things(clause: Clause, words: ReadonlySet<string>): ReadonlySet<string> {
  return new Set(clause.tokens.flatMap(({ lower }, at) => (words.has(lower) ? (thingBehind(clause, at) ?? []) : [])));
}

/** 'Without' for 'with', or the other way round, of all that the sources say of it. */
export function withForWithout(said: Clause, sources: readonly Clause[]): boolean {
  const turned = (mine: ReadonlySet<string>, its: ReadonlySet<string>) =>
    [...things(said, mine)].some((thing) => {
      const own = sources.filter((held) => things(held, its).has(thing));
      return own.length > 0 && !sources.some((held) => held.stemSet.has(thing) && !own.includes(held));
    });
  return turned(WITHOUT, WITH) || turned(WITH, WITHOUT);
}
