import { verbForm } from '../language/wordClasses.ts';
import type { Clause } from './clause.ts';
import { partOf } from './compared.ts';
import { setOf } from './lexicon.ts';
import { periodsOf } from './periods.ts';
import { type Quantity, quantityFits } from './quantity.ts';
import { REST } from './reckoning.ts';
import type { Token } from './token.ts';

/** Verbs that say the same of both. */
const BOTH = setOf('meet marry equal border match resemble touch face join mix alternate differ');
/** Where these stand, what is done stands before who does it, or more than one is spoken of. */
const ROUND = setOf('by and or than as not no never is are was were be been being both each');
/** Other words for one becoming another. */
const BECOMES = setOf('becom turn chang');

const sameVerb = (a: string, b: string): boolean => a === b || (BECOMES.has(a) && BECOMES.has(b));

interface Doing {
  verb: string;
  before: readonly string[];
  behind: readonly string[];
}

/** Who may do something to whom, by the words around each verb of a plain English clause. */
const doingsOf = (clause: Clause): readonly Doing[] => clause.once('doings', () => doings(clause));

function doings(clause: Clause): Doing[] {
  const { tokens, language } = clause;
  if (language === 'de' || clause.has(ROUND)) return [];
  const stems = (from: number, to?: number) =>
    tokens.slice(from, to).flatMap(({ content, lower, stem }) => (content && !PARTICLES.has(lower) ? [stem] : []));
  return tokens.flatMap((token, at) =>
    mayDo(token, tokens[at - 1]) ? [{ verb: token.stem, before: stems(0, at), behind: stems(at + 1) }] : [],
  );
}

/** Belong to the verb before them: 'slows down'. */
const PARTICLES = setOf('down up out off away over back');

/** A verb, or a word that may be one by its ending. */
const mayDo = ({ content, capital, lower, stem }: Token, before: Token | undefined): boolean =>
  before?.content === true &&
  content &&
  !capital &&
  !BOTH.has(stem) &&
  (/[^s]s$/.test(lower) || verbForm(lower) === 'past' || verbForm(lower) === 'third');

/** 'Yeast slows chlorine', of chlorine that slows yeast. */
export function rolesExchanged(said: Clause, sources: readonly Clause[]): boolean {
  return doingsOf(said).some((mine) => {
    const [who, whom] = [mine.before.at(-1), mine.behind[0]];
    if (who === undefined || whom === undefined || who === whom) return false;
    const alike = sources.flatMap((held) =>
      held.denies === said.denies ? doingsOf(held).filter(({ verb }) => sameVerb(mine.verb, verb)) : [],
    );
    const stand = (one: string, other: string) =>
      alike.some(({ before, behind }) => before.at(-1) === one && behind[0] === other);
    return stand(whom, who) && !stand(who, whom);
  });
}

/** Words both say from which on they speak of the same. */
const LEAST_ALIKE = 2;

/** 'In the fridge it is fed every day', of what is fed once a week there: all that speaks of it tells another time. */
export function otherPeriod(said: Clause, sources: readonly Clause[]): boolean {
  const mine = periodsOf(said);
  if (mine.size === 0 || said.figures.length > 0 || said.stemSet.size > MOST_WORDS) return false;
  const alike = sources.filter(
    ({ sentence }) => said.about.filter((stem) => sentence.stems.has(stem)).length >= LEAST_ALIKE,
  );
  const all = alike.flatMap((held) => (periodsOf(held).size > 0 ? [periodsOf(held)] : []));
  return all.length > 0 && !all.some((its) => [...mine].some((period) => its.has(period)));
}

const MOST_WORDS = 6;

/** The name a clause begins with, and what whoever bears it does. */
const namedDoing = (clause: Clause): { names: readonly string[]; verb: string } | null =>
  clause.once('named doing', () => {
    const { tokens } = clause;
    let at = 0;
    while (tokens[at]?.capital && tokens[at]!.content && at < MOST_NAMES) at++;
    const verb = tokens[at];
    if (at < 2 || verb === undefined || verb.kind !== 'word' || !verb.content || verb.capital) return null;
    return { names: tokens.slice(0, at).map(({ stem }) => stem), verb: verb.stem };
  });

const MOST_NAMES = 3;

/** 'Judith Ellwood founded it', of what Mara Ellwood founded: whoever bears one name of both does what the other did. */
export function doneByNamesake(said: Clause, sources: readonly Clause[]): boolean {
  const mine = namedDoing(said);
  if (mine === null) return false;
  const all = sources.flatMap((held) => namedDoing(held) ?? []).filter(({ verb }) => verb === mine.verb);
  const [first] = mine.names;
  const known = sources.some(({ stemSet }) => stemSet.has(first!));
  return (
    known &&
    all.length > 0 &&
    all.every(({ names }) => !names.includes(first!) && names.some((name) => mine.names.includes(name)))
  );
}

const INSTEAD = setOf('instead rather statt anstatt');

/** 'When air comes instead of water', of water that comes instead of air. */
export function exchangedInstead(said: Clause, sources: readonly Clause[]): boolean {
  const mine = aroundInstead(said);
  return (
    mine !== null &&
    sources.some((held) => {
      const its = aroundInstead(held);
      return (
        its !== null &&
        meet(mine.before, its.behind) &&
        meet(mine.behind, its.before) &&
        !meet(mine.before, its.before) &&
        !meet(mine.behind, its.behind)
      );
    })
  );
}

const meet = (a: readonly string[], b: readonly string[]): boolean => a.some((stem) => b.includes(stem));

/** The things on both sides of what says which takes the place of which. */
function aroundInstead(clause: Clause): { before: readonly string[]; behind: readonly string[] } | null {
  const { tokens } = clause;
  const at = tokens.findIndex(({ lower }) => INSTEAD.has(lower));
  if (at < 1) return null;
  const things = (from: number, to?: number) =>
    tokens.slice(from, to).flatMap(({ content, stem }, i) => (content && clause.isThing(from + i) ? [stem] : []));
  return { before: things(0, at), behind: things(at + 1).slice(0, 1) };
}

/** The words that say what a figure counts: those right behind it, up to the next figure or sign. */
function phraseOf({ tokens, facts }: Clause, { to }: Quantity): readonly string[] {
  const next = facts.quantities.find(({ from }) => from >= to)?.from ?? tokens.length;
  const sign = tokens.findIndex(({ kind, lower }, at) => at >= to && (kind === 'sign' || ENDS.has(lower)));
  return tokens
    .slice(to, Math.min(next, sign === -1 ? tokens.length : sign))
    .flatMap(({ content, unit, stem }) => (content && !unit ? [stem] : []));
}

const ENDS = setOf('and or und oder with from in on at for mit aus auf bei für');

/** 'Of fresh yeast 7 grams', of '20 grams of fresh yeast or 7 grams of dried': both stand side by side. */
export function countedBeside(said: Clause, sources: readonly Clause[]): boolean {
  return said.figures.some((figure) => {
    if (figure.bare) return false;
    const holding = sources.filter(({ figures }) => figures.some((own) => quantityFits(figure, own)));
    return (
      holding.length > 0 &&
      holding.every((held) => {
        const own = held.figures.find((one) => quantityFits(figure, one))!;
        const mine = phraseOf(held, own);
        return held.figures.some((other) => {
          if (other === own || other.means[0]!.dimension !== own.means[0]!.dimension) return false;
          if (said.figures.some((one) => quantityFits(one, other))) return false;
          const its = phraseOf(held, other).filter((stem) => !mine.includes(stem));
          const left = mine.filter((stem) => !phraseOf(held, other).includes(stem));
          return (
            left.length > 0 &&
            its.some((stem) => said.stemSet.has(stem)) &&
            !left.some((stem) => said.sentence.stems.has(stem))
          );
        });
      })
    );
  });
}

/** 'Two thirds show the country', where two thirds show the town and the rest the country. */
export function toldOfTheRest(said: Clause, sources: readonly Clause[]): boolean {
  return said.figures.some((figure) => {
    if (partOf(figure)?.dimension !== 'share' || said.has(REST)) return false;
    const holding = sources.filter(({ figures }) => figures.some((own) => quantityFits(figure, own)));
    return (
      holding.length > 0 &&
      holding.every((held) =>
        held.sentence.clauses.some(
          (other) =>
            other !== held &&
            other.has(REST) &&
            other.about.some((stem) => said.stemSet.has(stem) && !held.stemSet.has(stem)) &&
            !held.about.some(
              (stem) =>
                said.stemSet.has(stem) &&
                !other.stemSet.has(stem) &&
                held.isThing(held.tokens.findIndex((token) => token.stem === stem)),
            ),
        ),
      )
    );
  });
}

/** Times of day by the words for them. */
const DAY_PARTS: ReadonlyMap<string, string> = new Map(
  [
    'dawn sunrise daybreak morning mornings morgens vormittags vormittag frühmorgens sonnenaufgang morgengrauen',
    'noon midday mittags mittag',
    'afternoon afternoons nachmittags nachmittag',
    'evening evenings dusk sunset abends abend sonnenuntergang',
    'night nights midnight nachts nacht mitternacht',
  ].flatMap((words, i) => words.split(' ').map((word): [string, string] => [word, String(i)])),
);

const dayPartsOf = (clause: Clause): ReadonlySet<string> =>
  clause.once('parts of the day', () => new Set(clause.tokens.flatMap(({ lower }) => DAY_PARTS.get(lower) ?? [])));

/** 'Picked in the evening', of what is picked at dawn: all that speaks of it tells another time of day. */
export function otherPartOfDay(said: Clause, sources: readonly Clause[]): boolean {
  const mine = dayPartsOf(said);
  // A time of day by the clock is held by itself.
  if (mine.size !== 1 || said.denies || said.facts.moments.some(({ clock }) => clock !== undefined)) return false;
  const rest = said.about.filter(
    (stem) => !said.tokens.some((token) => token.stem === stem && DAY_PARTS.has(token.lower)),
  );
  const alike = sources.filter(({ sentence, denies }) => !denies && rest.some((stem) => sentence.stems.has(stem)));
  const all = alike.flatMap((held) => (dayPartsOf(held).size > 0 ? [dayPartsOf(held)] : []));
  const anywhere = sources.some((held) => dayPartsOf(held).has([...mine][0]!));
  return rest.length > 0 && all.length > 0 && !anywhere;
}
