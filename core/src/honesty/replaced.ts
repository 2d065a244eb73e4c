import { verbForm } from '../language/wordClasses.ts';
import { type Clause, stemsOf } from './clause.ts';
import { MEASURING, setOf, VERBS } from './lexicon.ts';
import { momentFits } from './moments.ts';
import { quantityFits } from './quantity.ts';

/** Share of the other words of a source that what is said has to have to be told of the same. */
const OF_THE_SAME = 0.55;
/** The same where a name is all else that is said. */
const OF_A_NAME = 0.5;

/**
 * All that is said is said there of something else that is named: 'Thyme can be cut all year', told of basil. Only where
 * what it is told of is spoken of in the source too, or takes the place of the one word that is not.
 */
export function doneByAnother(said: Clause, sources: readonly Clause[]): boolean {
  const { subject } = said;
  if (subject === null) return false;
  const rest = [...said.stemSet].filter((stem) => stem !== subject);
  // One name tells enough: 'the spruce comes from Bosnia'.
  const isNamed =
    rest.length === 1 &&
    said.language !== 'de' &&
    said.tokens.some(({ stem, capital }, at) => at > 0 && capital && stem === rest[0]);
  if (rest.length < 2 && !isNamed) return false;
  const all = sources.filter((held) => {
    const its = withVerb(held);
    return rest.every((stem) => its.some((own) => isForm(own, stem))) && sameFigures(said, held);
  });
  // Where the source says it of this too it is no matter what else it says it of.
  if (all.some(({ stemSet }) => stemSet.has(subject))) return false;
  return all.some((held) => {
    // What has many words more speaks of something else.
    if (rest.length / Math.max(1, held.stemSet.size - 1) < (isNamed ? OF_A_NAME : OF_THE_SAME)) return false;
    // 'Silicone valves need no water and fit under a ring': what goes on is of the valves.
    if (held.before?.stemSet.has(subject) && beginsWithVerb(held)) return false;
    if (held.denies !== said.denies || held.subject === null || said.sentence.stems.has(held.subject)) return false;
    // 'Crisp' and 'crispness'.
    if (subject.length >= LEAST_OF_FORM && held.subject.startsWith(subject)) return false;
    const known = sources.some(({ stemSet }) => stemSet.has(subject));
    return known || (rest.length >= 3 && held.stemSet.size === rest.length + 1);
  });
}

const sameFigures = (said: Clause, held: Clause) =>
  said.facts.quantities.every((figure) => held.facts.quantities.some((own) => quantityFits(figure, own))) &&
  said.facts.moments.every((moment) => held.facts.moments.some((own) => momentFits(moment, own)));

/** Letters of a word that another is made of. */
const LEAST_OF_FORM = 4;

/** Forms of one word: 'schneidet' and 'schneiden'. */
const isForm = (a: string, b: string) => a === b || (a.length >= 6 && b.length >= 6 && a.slice(0, 6) === b.slice(0, 6));

/** In German a word without a capital that is no adjective before a noun; in English three words hold one. */
function hasVerb({ tokens, stems, words, language }: Clause): boolean {
  for (const verb of VERBS[language] ?? VERBS['en']!) if (words.has(verb)) return true;
  // '…, and helps little' goes on from what stands before it, and says another thing of it.
  if (language !== 'de') return stems.length > 2 || verbForm(tokens[0]?.lower ?? '') === 'third';
  return tokens.some(({ content, capital }, at) => content && !capital && !tokens[at + 1]?.capital);
}

const beginsWithVerb = ({ tokens, language }: Clause): boolean =>
  language !== 'de' && ['base', 'third', 'past'].includes(verbForm(tokens[0]?.lower ?? '') ?? '');

const PLACING = setOf('from to in at on by for with of aus von nach in an auf bei für mit');

/** The words of a clause with those of the clause before it that it leaves out: 'thyme all year'. */
function withVerb(held: Clause): readonly string[] {
  const { before } = held;
  if (before === null || hasVerb(held)) return held.stems;
  // 'Flour comes from a mill, salt from the coast': what stands behind the same word is another there.
  const way = held.tokens.find(({ lower }) => PLACING.has(lower))?.lower;
  const at = way === undefined ? -1 : before.tokens.findIndex(({ lower }) => lower === way);
  const left = at === -1 ? before.stems : stemsOf(before.tokens.slice(0, at));
  return [...held.stems, ...left.filter((stem) => stem !== before.subject)];
}

/**
 * All is as in the source but for one thing in the same place: 'the lid of the bottle', where the source has 'the lid of
 * the jar'.
 */
export function oneThingOther(said: Clause, sources: readonly Clause[]): boolean {
  const mine = said.stemSet;
  if (mine.size < 4) return false;
  return sources.some((held) => {
    if (held.stemSet.size !== mine.size) return false;
    const strange = [...mine].filter((stem) => !held.stemSet.has(stem));
    if (strange.length !== 1 || !sameFigures(said, held)) return false;
    // 'Its first firing' of what was fired first.
    if ([...held.stemSet].some((stem) => stem.length >= 3 && strange[0]!.startsWith(stem))) return false;
    const gone = [...held.stemSet].find((stem) => !mine.has(stem))!;
    const place = before(said, strange[0]!);
    return place !== null && place === before(held, gone);
  });
}

/** Stand before what is meant and are no things: 'in a matter of days'. */
const MUCH = setOf('matter couple handful lot bit kind sort way number');
const WHEN = setOf('ahead earlier later sooner afterwards before behind früher später eher');

/** The word before a thing; null where it is no thing, or begins the clause. */
function before(clause: Clause, stem: string): string | null {
  const at = clause.tokens.findIndex((token) => token.content && token.stem === stem && !MEASURING.has(token.lower));
  const { lower = '' } = clause.tokens[at] ?? {};
  return at > 0 && clause.isThing(at) && !WHEN.has(lower) && !MUCH.has(lower) ? clause.tokens[at - 1]!.lower : null;
}
