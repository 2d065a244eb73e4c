import { remembered } from '../sentence/remembered.ts';
import { bareWords, type Clause, stemsOf } from './clause.ts';
import { turned as comparesRound } from './compared.ts';
import { deniesAt, FALLING, isDenying, takesPlace } from './denying.ts';
import { DENYING, EARLIER, NEGATORS, SPARING, setOf } from './lexicon.ts';
import { oppositesOf } from './opposites.ts';
import { quantityFits } from './quantity.ts';
import { stemOf } from './token.ts';

/** Share of words both have from which two clauses speak of the same. */
const ALIKE = 0.6;
/** The same of the longer of both: what was only turned round has hardly another word besides. */
const TURNED = 0.5;
/** The same where one says it of all there is: 'nothing is dyed' denies that the wool is. */
const OF_ALL = 0.3;

/**
 * Whether a clause says the opposite of what one of the sources says: one denies and the other does not, and what is
 * denied stands in both.
 */
export function turnedRound(said: Clause, sources: readonly Clause[]): boolean {
  let turned = 0;
  let turnedBy: Clause | null = null;
  let agreed = 0;
  let agreedWith: Clause | null = null;
  const prefixes = deniedWords(said).length > 0;
  const against = setAgainst(said);
  for (const held of sources) {
    // Most clauses have nothing to do with each other.
    const apart = !prefixes && deniedWords(held).length === 0;
    if (apart && both(said.meant, held.meant) === 0) continue;
    if (against && exchanged(against, setAgainst(held))) return true;
    if (!against && toldOfDenied(said, held)) return true;
    if (isAllowed(said, held) || isAllowed(held, said)) return true;
    const mine = apart ? asItIs(said) : plain(said, held);
    const its = apart ? asItIs(held) : plain(held, said);
    const words = both(mine.stems, its.stems);
    // How much it is tells nothing of what it is: 'must be booked two days ahead', 'need not be booked'.
    const longer = Math.max(
      mine.stems.size,
      its.stems.size - (said.taken.includes(true) ? 0 : figuresBeside(its, mine)),
    );
    const least = isOfAll(said) || isOfAll(held) ? OF_ALL : TURNED;
    const turns = words / longer >= least;
    if (words === 0) continue;
    const alike = words / Math.min(mine.stems.size, its.stems.size) >= ALIKE;
    if (mine.denies === its.denies) {
      // What has its figures is what it rests on.
      if (said.figures.length > 0 && hasFigures(said, held)) return false;
      if (!opposite(said, held)) {
        if (words > agreed) agreedWith = held;
        agreed = Math.max(agreed, words);
      }
      // But for the two words they say the same.
      else if (turns && words / Math.max(1, Math.min(mine.stems.size, its.stems.size) - 1) >= ALIKE)
        [turned, turnedBy] = [Math.max(turned, words), held];
    } else if (alike && turns && !opposite(said, held, true)) {
      const [denying, other] = mine.denies ? [mine, its] : [its, mine];
      const heads = headsOf(denying);
      const denied =
        heads.length > 0 &&
        other.stems.has(heads[0]!) &&
        (heads.every((stem) => other.stems.has(stem)) || (isPutIn(said) && other.stems.size - words <= 2));
      if (denied && !isBound(denying.clause, other.clause) && !spares(other.clause, denying.clause, words / longer))
        [turned, turnedBy] = [Math.max(turned, words), held];
    }
  }
  // '… lost four in 2019 and none since': what is denied behind it leaves it as it is.
  if (turnedBy !== null && turnedBy.about.length === 0 && turnedBy.before === agreedWith && agreed >= turned)
    return false;
  // What agrees in more words is what it rests on.
  return turned > 0 && (turned > agreed || (turned === agreed && agreed < said.stemSet.size));
}

const NONE = setOf('nothing nobody anything anyone anybody never nichts niemand niemals nie nirgends überhaupt');
const PERHAPS = setOf('would could might if wäre würde könnte wenn falls');

/** Denies of everything, and is no mere thought. */
const isOfAll = (clause: Clause): boolean =>
  clause.once('of all', () => clause.denies && clause.has(NONE) && !clause.has(PERHAPS));

/** A 'not' put into what is said. */
const isPutIn = ({ words }: Clause): boolean => words.has('not') || words.has('nicht');

const asItIs = (clause: Clause): Plain => ({ clause, stems: clause.meant, denies: clause.denies });

/** 'The leaves, not the roots' for 'the roots, not the leaves'. */
function exchanged(mine: Against, its: Against | null): boolean {
  if (its === null) return false;
  return mine.denied.some((stem) => its.rest.includes(stem)) && its.denied.some((stem) => mine.rest.includes(stem));
}

const ALLOWED = setOf('allowed permitted welcome erlaubt gestattet zulässig willkommen');
const FORBIDDEN = setOf('forbidden prohibited banned verboten untersagt unzulässig tabu');
const PLAINLY = setOf('not no never nicht nie kein keine except unless only nur außer');

/** One says to be allowed what the other says to be forbidden, and the shorter of both says nothing else. */
function isAllowed(one: Clause, other: Clause): boolean {
  if (!one.has(ALLOWED) || !other.has(FORBIDDEN) || one.has(PLAINLY) || other.has(PLAINLY)) return false;
  const rest = (clause: Clause) =>
    clause.tokens.flatMap(({ content, lower, stem }) =>
      content && !ALLOWED.has(lower) && !FORBIDDEN.has(lower) ? [stem] : [],
    );
  const [mine, its] = [rest(one), rest(other)];
  const [less, more] = mine.length <= its.length ? [mine, its] : [its, mine];
  return less.length > 0 && less.every((stem) => more.includes(stem));
}

/** 'Those in seats get breakfast' for 'breakfast is for those in beds, not for those in seats'. */
function toldOfDenied(said: Clause, held: Clause): boolean {
  if (said.denies || said.has(SPARED)) return false;
  const its = setAgainst(held);
  const instead = its?.rest[its.at - 1];
  if (!its || instead === undefined || its.denied.length === 0 || said.stemSet.has(instead)) return false;
  return its.denied.every((stem) => said.stemSet.has(stem)) && its.rest.some((stem) => said.stemSet.has(stem));
}

/** Whether a source says all its figures. */
const hasFigures = (said: Clause, held: Clause): boolean =>
  said.figures.every((figure) => held.facts.quantities.some((own) => quantityFits(figure, own)));

/** Words of its figures that the other one does not say. */
const figuresBeside = ({ clause }: Plain, { stems }: Plain): number =>
  clause.figureStems.filter((stem) => !stems.has(stem)).length;

const SPARED = setOf(
  'survived survives survive spared escaped untouched intact unharmed remained remains safe überstand überstanden überlebte verschont blieb heil',
);
const EVEN = setOf('even once einmal mal');
const AGAINST = setOf(', and und but sondern – —');

interface Against {
  denied: string[];
  rest: string[];
  /** How many of the rest stand before what is denied. */
  at: number;
}

/** What is denied beside something that is not: 'this, not that', 'not this but that'. */
const setAgainst = (clause: Clause): Against | null => clause.once('set against', () => against(clause));

function against({ tokens, language }: Clause): Against | null {
  const { words } = NEGATORS[language] ?? NEGATORS['en']!;
  const at = tokens.findIndex(({ lower }, i) => words.has(lower) && AGAINST.has(tokens[i - 1]?.lower ?? ''));
  // 'Not even by day' sets nothing against it.
  if (at === -1 || EVEN.has(tokens[at + 1]?.lower ?? '')) return null;
  const sign = tokens.findIndex(({ kind }, i) => i > at && kind === 'sign');
  const end = sign === -1 ? tokens.length : sign;
  const before = stemsOf(tokens.slice(0, at));
  return {
    denied: stemsOf(tokens.slice(at + 1, end)),
    rest: [...before, ...stemsOf(tokens.slice(end))],
    at: before.length,
  };
}

interface Plain {
  clause: Clause;
  stems: ReadonlySet<string>;
  denies: boolean;
}

/** A clause with its words without what denies them, where the other says them so: 'unfiltered' as not filtered. */
function plain(own: Clause, other: Clause): Plain {
  const denying = deniedWords(own);
  let { denies } = own;
  let stems: Set<string> | null = null;
  for (const { stem, without } of denying) {
    if (other.stemSet.has(stem)) continue;
    const meant = other.stems.filter((one) => related(one, without));
    if (meant.length === 0) continue;
    denies = !denies;
    stems ??= new Set(own.stems);
    for (const one of meant) stems.add(one);
  }
  return { clause: own, stems: stems ?? own.stemSet, denies };
}

/** Its words that deny by a prefix or an ending, with what is left without it. */
function deniedWords(clause: Clause): readonly { stem: string; without: string }[] {
  return clause.once('denied words', () => {
    return clause.tokens.flatMap(({ content, lower, stem }) => {
      const without = content ? withoutDenying(lower, clause.language) : null;
      return without === null || without === stem ? [] : [{ stem, without }];
    });
  });
}

/** The stem of what a word denies by its prefix or its ending; null for most. */
const withoutDenying = remembered((word, language) => {
  const form = (DENYING[language] ?? DENYING['en']!).find((one) => one.test(word));
  return form ? stemOf(word.replace(form, ''), language) : null;
});

const related = (a: string, b: string) =>
  a === b || (a.length >= 5 && b.length >= 5 && a.slice(0, 5) === b.slice(0, 5));

/** How many words both have. */
function both(a: ReadonlySet<string>, b: ReadonlySet<string>): number {
  const [one, other] = a.size <= b.size ? [a, b] : [b, a];
  let words = 0;
  for (const stem of one) if (other.has(stem)) words++;
  return words;
}

/** What is denied: the words behind the one that denies, else those before it. In German a verb stands before it. */
function headsOf({ clause, stems }: Plain): string[] {
  const { tokens, language } = clause;
  const at = tokens.findIndex((_, i) => deniesAt(tokens, i, language));
  if (at === -1) return [...stems].slice(-1);
  // What stands behind a comma or a semicolon is not denied by what stands before it.
  const end = tokens.findIndex(({ kind }, i) => i > at && kind === 'sign');
  const behind = stemsOf(tokens.slice(at + 1, end === -1 ? undefined : end));
  const sign = tokens.findLastIndex(({ kind }, i) => i < at && kind === 'sign');
  // '…, bei Frost nie': only what stands behind the comma.
  const from =
    sign !== -1 && stemsOf(tokens.slice(sign, at)).length > 0 && stemsOf(tokens.slice(at + 1)).length === 0 ? sign : 0;
  const before = stemsOf(
    tokens.slice(from, at).filter(({ lower }) => tokens[at]!.lower !== 'aus' || !FALLING.has(lower)),
  );
  if (language !== 'de') return behind.length > 0 ? behind.slice(0, 2) : before.slice(-2);
  // 'Kein' and 'ohne' deny the noun behind them, 'nicht' the verb beside it and what that is done to.
  if (/^kein|^ohne$/.test(tokens[at]!.lower)) return [...behind.slice(0, 1), ...before.slice(-1)];
  return behind.length > 0 ? behind.slice(0, 1) : before.slice(-2);
}

const STAYING = setOf('stay stays stayed leave leaves left bleibt bleiben blieb');

/** Share of words from which on a word that is sparing explains no denial any more. */
const SAME = 0.85;

/** Whether what is not denied says no in its own way, and is not merely the same with or without a 'not'. */
function spares(other: Clause, denying: Clause, alike: number): boolean {
  const words = SPARING[other.language] ?? SPARING['en']!;
  return (
    alike < SAME &&
    other.tokens.some(
      ({ lower, stem }, at) =>
        words.has(lower) &&
        !denying.words.has(lower) &&
        !denying.stemSet.has(stem) &&
        !takesPlace(other.tokens, at) &&
        // 'Stays open' says nothing of what is not open.
        !(STAYING.has(lower) && denying.stemSet.has(other.tokens[at + 1]?.stem ?? '')),
    )
  );
}

/** 'Not more than' and 'at most' say the same, as do 'not before' and 'must … before'. */
function isBound({ sentence: denying }: Clause, { sentence: other }: Clause): boolean {
  return (
    (/\b(?:not|never|nicht|nie)\b.{1,60}?\b(?:before|until|unless|bevor|bis|vor|ehe)\b/i.test(denying.text) &&
      /\b(?:must|at least|only|earliest|first|muss|müssen|mindestens|erst|frühestens)\b/i.test(other.text)) ||
    (/\b(?:more|longer|higher|closer|later|mehr|länger|höher|später|weiter) (?:\S+ ){0,2}?(?:than|als)\b/i.test(
      denying.text,
    ) &&
      /\b(?:at most|the most|up to|no more|maximum|limit|höchstens|bis zu|maximal)\b/i.test(other.text))
  );
}

const COMPARING = setOf('more less fewer mehr weniger before after vor nach');

/**
 * One says a word whose opposite the other says, and not the word itself.
 * @param plainly whether words that deny themselves, as 'never' for 'always', are left out
 */
export function opposite(said: Clause, held: Clause, plainly = false): boolean {
  const mine = opposedWords(said);
  // 'Steel is worse than copper' says that copper is better than steel.
  if (mine.length === 0 || comparesRound(said, held)?.round) return false;
  // 'The year before there were four fewer' and 'four more than the year before' say the same.
  const inSentence = ({ sentence }: Clause, word: string) => sentence.clauses.some((one) => bareWords(one).has(word));
  const earlier = said.has(EARLIER);
  const its = bareWords(held);
  const denies = (word: string) => plainly && isDenying(word, said.language);
  return mine.some(
    ([a, b]) =>
      its.has(b) &&
      !denies(a) &&
      !denies(b) &&
      !inSentence(held, a) &&
      !inSentence(said, b) &&
      !(earlier && (COMPARING.has(a) || COMPARING.has(b))),
  );
}

/** Its words that have an opposite it does not say, each with that. */
function opposedWords(clause: Clause): readonly [string, string][] {
  return clause.once('opposed', () => {
    const words = bareWords(clause);
    return [...words].flatMap((word): [string, string][] =>
      oppositesOf(word, clause.language).flatMap((other): [string, string][] =>
        words.has(other) ? [] : [[word, other]],
      ),
    );
  });
}
