import type { Clause } from './clause.ts';
import { setOf } from './lexicon.ts';

const SWITCHING = setOf(
  'switch switches switched switching turn turns turned turning is are be was were stay stays stayed remain remains keep keeps kept leave',
);
const STATES = setOf('on off');

/** Whether something is on or off: behind a verb of switching, or at the end of what is said. */
const stateOf = (clause: Clause): string | null =>
  clause.once('switched', () => {
    const { tokens, language } = clause;
    if (language === 'de') return null;
    const at = tokens.findIndex(
      ({ lower }, i) =>
        STATES.has(lower) &&
        (isSwitched(tokens[i - 1]?.lower) || (isEnd(clause, i) && isSwitched(tokens[i - 2]?.lower))),
    );
    // 'Is on the shelf' is no state.
    return at === -1 || (tokens[at]!.lower === 'on' && !isEnd(clause, at) && !isDoing(tokens[at - 1]!.lower))
      ? null
      : tokens[at]!.lower;
  });

const isSwitched = (lower = ''): boolean => SWITCHING.has(lower);
const isDoing = (lower: string): boolean => /^(?:switch|turn)/.test(lower);
const isEnd = ({ tokens }: Clause, at: number): boolean => (tokens[at + 1]?.kind ?? 'sign') === 'sign';

/** 'The heating must be on', of heating that is to be switched off. */
export const otherState = (said: Clause, sources: readonly Clause[]): boolean => {
  const mine = stateOf(said);
  if (mine === null) return false;
  const its = sources.filter((held) => stateOf(held) !== null && said.about.some((stem) => held.stemSet.has(stem)));
  return its.length > 0 && its.every((held) => (stateOf(held) === mine) === (held.denies !== said.denies));
};
