import type { Clause } from './clause.ts';
import { setOf } from './lexicon.ts';
import { oppositesOf } from './opposites.ts';
import { type Meaning, type Quantity, quantityFits } from './quantity.ts';
import type { Token } from './token.ts';

/** What a figure is that is a part or a multiple. */
export const partOf = ({ means }: Quantity): Meaning | undefined =>
  means.find(({ dimension }) => dimension === 'times' || dimension === 'share');

const MORE = setOf('more less fewer mehr weniger');
const COMPARATIVE = /(?:er|worse|better)$/;
const isThan = ({ lower }: Token): boolean => lower === 'than' || lower === 'als';

/** What is compared by a word like 'better', and with what. */
function compares(clause: Clause): { word: string; one: ReadonlySet<string>; other: ReadonlySet<string> } | null {
  return clause.once('compares', () => {
    const { tokens } = clause;
    const than = tokens.findIndex(isThan);
    const word = tokens[than - 1]?.lower ?? '';
    const more = tokens.findLastIndex(({ lower }, at) => at < than && MORE.has(lower));
    const by = more >= 0 ? tokens[more]!.lower : word;
    if (than < 1 || !(more >= 0 || COMPARATIVE.test(word))) return null;
    const stems = (some: typeof tokens) => new Set(some.flatMap(({ content, stem }) => (content ? [stem] : [])));
    return { word: by, one: stems(tokens.slice(0, than)), other: stems(tokens.slice(than + 1)) };
  });
}

/** Whether two clauses compare the same things the other way round, or the same way; null where they do not compare. */
export function turned(
  said: Clause,
  held: Clause,
): { round: boolean; kept: boolean; same: boolean; opposed: boolean } | null {
  const mine = compares(said);
  const its = mine && compares(held);
  if (!its) return null;
  return {
    round: only(mine.one, its.other, its.one) && only(mine.other, its.one, its.other),
    kept: only(mine.one, its.one, its.other) && only(mine.other, its.other, its.one),
    same: mine.word === its.word,
    opposed: oppositesOf(mine.word, said.language).includes(its.word),
  };
}

/** 'Copper conducts better than steel' told of steel. */
export const comparedRound = (said: Clause, sources: readonly Clause[]): boolean =>
  sources.some((held) => {
    const found = turned(said, held);
    if (found === null || said.denies !== held.denies) return false;
    return (found.round && found.same) || (found.kept && found.opposed);
  });

/** 'Oaks grow more slowly' told of limes, and that than oaks: the source names nothing it compares with. */
export function comparedAlone(said: Clause, sources: readonly Clause[]): boolean {
  const { tokens, subject } = said;
  const than = tokens.findIndex(isThan);
  if (than < 1 || subject === null) return false;
  const [word, by] = [tokens[than - 1]!.lower, tokens[than - 2]?.lower ?? ''];
  const isMore = MORE.has(by);
  if (!isMore && !COMPARATIVE.test(word)) return false;
  const others = tokens.slice(than + 1).flatMap(({ content, stem }) => (content ? [stem] : []));
  const says = (held: Clause) =>
    held.tokens.some(({ lower }, at) => lower === word && (!isMore || held.tokens[at - 1]?.lower === by)) &&
    !held.tokens.some(isThan) &&
    held.denies === said.denies;
  const telling = sources.filter(says);
  return (
    telling.some(({ subject: its }) => its !== null && others.includes(its)) &&
    !telling.some(({ sentence }) => sentence.stems.has(subject))
  );
}

/** Whether two parts are the same seen from either side. */
export function isInverse(said: Quantity, held: Quantity): boolean {
  const [mine, its] = [partOf(said)?.value, partOf(held)?.value];
  return mine !== undefined && its !== undefined && Math.abs(mine * its - 1) < 0.03 && Math.abs(mine - its) > 0.03;
}

const POINTING = setOf('it they he she this that er sie es dieser diese dieses');

/** 'A weighs twice as much as B' told of B: the same multiple, and who is compared with whom the other way round. */
export function crossed(said: Clause, sources: readonly Clause[]): boolean {
  for (const multiple of said.facts.quantities) {
    const mine = partOf(multiple);
    const sides = mine && sidesIn(said, multiple);
    if (!sides) continue;
    for (const held of sources)
      for (const own of held.facts.quantities) {
        const its = partOf(own);
        const theirs = its && sidesIn(held, own);
        if (!theirs || !quantityFits(multiple, own)) continue;
        // 'It takes up twice as much as plaster': what 'it' is stands before, and is not plaster.
        const points = theirs.one.size === 0 || POINTING.has(held.tokens[0]?.lower ?? '');
        const swapped =
          only(sides.one, theirs.other, theirs.one) &&
          (only(sides.other, theirs.one, theirs.other) ||
            (points && ![...sides.other].some((stem) => theirs.other.has(stem))));
        const kept = only(sides.one, theirs.one, theirs.other) && only(sides.other, theirs.other, theirs.one);
        if (isInverse(multiple, own) ? kept && !swapped : swapped && !kept) return true;
      }
  }
  return false;
}

/** Whether one has a word of the first that the second has not. */
const only = (one: ReadonlySet<string>, first: ReadonlySet<string>, second: ReadonlySet<string>) =>
  [...one].some((stem) => first.has(stem) && !second.has(stem));

/** What is compared, and with what. */
function sidesIn({ tokens, before, leans }: Clause, { from, to }: Quantity) {
  const than = tokens.findIndex(({ lower }, i) => i > to && /^(?:as|than|of|wie|als)$/.test(lower));
  const behind = tokens.slice(to);
  // '… nine weeks, a dog twice as long'.
  const goesOn =
    than === -1 &&
    before !== null &&
    /^(?:as|so)$/.test(behind[0]?.lower ?? '') &&
    behind.filter(({ content }) => content).length <= 1;
  if (than === -1 && !goesOn) return null;
  // 'Copper costs four times as much as zinc, but lasts twice as long': both sides stand before.
  if (goesOn && leans && before.compared.size > 0) return { one: new Set(before.subjectWords), other: before.compared };
  const stems = (some: typeof tokens) => new Set(some.flatMap(({ content, stem }) => (content ? [stem] : [])));
  // '… brings £14, twice the price of clover honey'.
  const left = from === 0 && before !== null ? new Set(before.subjectWords) : null;
  // '… and sings ten times louder than a cockerel': who does stands before.
  const led = leans && before !== null ? before.sentence.clauses[0]!.subjectWords : [];
  return {
    one: left ?? new Set([...led, ...stems(tokens.slice(0, from))]),
    other: goesOn ? new Set(before.subjectWords) : stems(tokens.slice(than)),
  };
}
