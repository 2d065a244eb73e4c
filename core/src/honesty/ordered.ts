import { type Clause, stemsOf } from './clause.ts';
import { setOf } from './lexicon.ts';
import type { Dimension } from './units.ts';

/** What a word that compares says of figures: of more (1) or less (-1), by what is measured. */
type Order = Partial<Record<string, 1 | -1>>;

const order = (more: string, less: string, dimensions: string, turned = ''): [string, Order][] =>
  [more, less].flatMap((words, i): [string, Order][] => {
    const sign = i === 0 ? 1 : -1;
    const of: Order = {};
    for (const dimension of dimensions.split(' ')) of[dimension] = sign;
    for (const dimension of turned.split(' ').filter(Boolean)) of[dimension] = sign === 1 ? -1 : 1;
    return words.split(' ').map((word) => [word, of]);
  });

const ORDERS: ReadonlyMap<string, Order> = new Map([
  ...order('heavier schwerer', 'lighter leichter', 'mass'),
  ...order('longer länger', 'shorter kürzer', 'length time'),
  ...order('higher taller höher', 'lower niedriger', 'length money heat share'),
  ...order(
    'deeper tiefer wider breiter thicker dicker coarser gröber',
    'shallower flacher narrower schmaler thinner dünner finer feiner',
    'length',
  ),
  ...order('larger bigger größer', 'smaller kleiner', 'length area mass volume count'),
  ...order('dearer costlier teurer', 'cheaper billiger günstiger', 'money'),
  ...order('warmer hotter wärmer heißer', 'colder cooler kälter kühler', 'heat'),
  ...order('older älter', 'younger jünger', 'time'),
  ...order('faster quicker schneller', 'slower langsamer', 'speed', 'time'),
]);

const THAN = setOf('than als');

/** Which figures a word compares, as money of any currency. */
const sortOf = (dimension: Dimension): string => (dimension.startsWith('money') ? 'money' : dimension);

/** What is compared, the word that compares, and with what; 'than' may begin a clause of its own behind a comma. */
function comparedIn(said: Clause): { word: string; one: readonly string[]; other: readonly string[] } | null {
  const { tokens, sentence } = said;
  const words = tokens.filter(({ kind }) => kind === 'word');
  const than = words.findIndex(({ lower }) => THAN.has(lower));
  const next = sentence.clauses[sentence.clauses.indexOf(said) + 1];
  const isNext = than === -1 && THAN.has(next?.tokens[0]?.lower ?? '');
  const end = isNext ? words.length : than;
  if (end < 1) return null;
  const other = isNext ? next!.stems : stemsOf(words.slice(than + 1));
  return { word: words[end - 1]!.lower, one: stemsOf(words.slice(0, end - 1)), other };
}

const POINTS = setOf('it they he she er sie es this these dieser diese dieses');

/** What a clause points at that begins its sentence with 'it': the words of the sentence before. */
const pointed = ({ before, tokens, sentence }: Clause): readonly string[] =>
  before === null && POINTS.has(tokens[0]?.lower ?? '')
    ? sentence.of.clauses.flatMap((one) => (one.sentence.n === sentence.n - 1 ? one.about : []))
    : [];

/**
 * 'In spring it is heavier than in autumn', of what weighs 17 kilos in autumn and ten in spring: all figures of the one and
 * the other speak against it.
 */
export function againstFigures(said: Clause, sources: readonly Clause[]): boolean {
  const sides = comparedIn(said);
  const by = sides === null ? undefined : ORDERS.get(sides.word);
  if (sides === null || by === undefined || said.denies || said.figures.length > 0) return false;
  const one = sides.one.filter((stem) => !sides.other.includes(stem));
  const other = sides.other.filter((stem) => !sides.one.includes(stem));
  if (one.length === 0 || other.length === 0) return false;
  const tellsOf = (held: Clause, mine: readonly string[], others: readonly string[]) => {
    const names = (stems: readonly string[]) => mine.some((stem) => stems.includes(stem));
    // What it leaves to the clause before it counts only where it names neither itself.
    const stems =
      names(held.about) || others.some((stem) => held.about.includes(stem))
        ? held.about
        : [...held.own, ...pointed(held)];
    return names(stems) && !others.some((stem) => stems.includes(stem));
  };
  const of = (mine: readonly string[], others: readonly string[]) =>
    sources.flatMap((held) =>
      tellsOf(held, mine, others)
        ? held.figures.flatMap(({ means }) => means.map((meant) => ({ ...meant, sentence: held.sentence })))
        : [],
    );
  const [mine, its] = [of(one, other), of(other, one)];
  const signs = mine.flatMap((a) =>
    its.flatMap((b) => {
      const sign = a.dimension === b.dimension && a.sentence === b.sentence ? by[sortOf(a.dimension)] : undefined;
      return sign === undefined || a.value === b.value ? [] : [Math.sign(a.value - b.value) * sign];
    }),
  );
  return signs.length > 0 && signs.every((sign) => sign === -1);
}
