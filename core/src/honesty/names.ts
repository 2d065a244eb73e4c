import { EMPTY, setOf } from './lexicon.ts';
import { numbersOf } from './numbers.ts';
import { bareOf, stemOf, type Token } from './token.ts';
import { unitAt } from './units.ts';

/** Names everybody knows, of days and languages: they may be said though no source does. */
const COMMON = setOf(
  'monday tuesday wednesday thursday friday saturday sunday mondays tuesdays wednesdays thursdays fridays saturdays sundays january february march april may june july august september october november december christmas easter valentine eve day celsius fahrenheit internet english german french spanish italian european earth god i mr mrs ms dr st',
);
/** Words a German place or name stands behind without an article. */
const BARE = setOf('bei in aus von nach um familie aus');

const WAYS = setOf('nach in bei aus');
/** What stands behind them without an article and is no name. */
const USUAL = setOf(
  'hause haus bedarf wunsch ende anfang arbeit bett hand holz glas stein metall norden süden osten westen form zukunft ruhe ordnung betrieb kraft teilen summe folge eile gefahr regen schnee frost hitze kälte nacht tag luft wasser salz zucker mehl prozent grad euro feierabend plan angst liebe not erfahrung neugier sicht zeit',
);

/** What the sources have, to hold the names of a text against. */
export interface KnownWords {
  words: ReadonlySet<string>;
  stems: ReadonlySet<string>;
  /** Words that are names by where they stand, folded, each with the names before and behind it. */
  names: ReadonlyMap<string, { before: ReadonlySet<string>; behind: ReadonlySet<string> }>;
  /** Words that stand right behind 'in', 'aus', 'bei' in German, by that word. */
  ways: ReadonlyMap<string, ReadonlySet<string>>;
}

const read = new WeakMap<readonly Token[], KnownWords>();

/** The words of one source. */
export function knownWords(tokens: readonly Token[], language: string): KnownWords {
  const known = read.get(tokens);
  if (known) return known;
  const words = new Set<string>();
  const stems = new Set<string>();
  const names = new Map<string, { before: Set<string>; behind: Set<string> }>();
  const ways = new Map<string, Set<string>>();
  for (const [at, token] of tokens.entries()) {
    if (token.kind !== 'word') continue;
    for (const part of [token.lower, ...(token.lower.includes('-') ? token.lower.split('-') : [])]) {
      words.add(bare(part));
      stems.add(stemOf(part, language));
    }
    if (!token.capital || !namedHere(tokens, at, language)) continue;
    const own = bare(token.lower);
    const way = tokens[at - 1]?.lower ?? '';
    if (BARE.has(way)) ways.set(way, (ways.get(way) ?? new Set()).add(own));
    const beside = names.get(own) ?? { before: new Set(), behind: new Set() };
    if (isNoun(tokens[at - 1], language)) beside.before.add(bare(tokens[at - 1]!.lower));
    if (isNoun(tokens[at + 1], language)) beside.behind.add(bare(tokens[at + 1]!.lower));
    names.set(own, beside);
  }
  const out = { words, stems, names, ways };
  read.set(tokens, out);
  return out;
}

const bare = (word: string) => bareOf(word, '');

/** Written with a capital for what it is, not for where it stands. */
const isNoun = (token: Token | undefined, language: string): boolean =>
  token !== undefined && token.capital && token.text.length > 1 && !(EMPTY[language] ?? EMPTY['en']!).has(token.lower);

/** Whether a word is a name by its form and place. */
function namedHere(tokens: readonly Token[], at: number, language: string): boolean {
  const [before, token, after] = [tokens[at - 1], tokens[at]!, tokens[at + 1]];
  if (!isNoun(token, language)) return false;
  if (language === 'de') return isNoun(before, language) || isNoun(after, language) || BARE.has(before?.lower ?? '');
  return !begun(before) || isNoun(after, language);
}

const begun = (before: Token | undefined) => before === undefined || /^[.!?:;—“„"»]$/.test(before.text);

/** Names of a text that no source has, though they are names by their form. */
export function strangeNames(tokens: readonly Token[], known: readonly KnownWords[], language: string): Token[] {
  return tokens.filter((token, at) => {
    if (
      !token.capital ||
      !isNoun(token, language) ||
      COMMON.has(bare(token.lower)) ||
      (known.some((one) => isKnown(token, one, language)) && !isNearlyAName(tokens, at, known))
    )
      return false;
    if (unitAt([token.lower], 0) || numbersOf([token], language).length > 0) return false;
    return (
      isNearlyAName(tokens, at, known) ||
      known.some((one) => (language === 'de' ? strangeInGerman(tokens, at, one) : strange(tokens, at, one))) ||
      (language === 'de' && isWholeName(tokens, at, known)) ||
      (known.length === 0 && language !== 'de')
    );
  });
}

/** Letters by which a name with an ending is longer: 'Irma Tolles'. */
const OWNING = /^(?:s|es|ens|’|')$/;

/** 'Irma Toller' of Irma Tolle: a name that stands behind its other half with letters more or less than there. */
function isNearlyAName(tokens: readonly Token[], at: number, known: readonly KnownWords[]): boolean {
  const before = tokens[at - 1];
  if (!before?.capital || before.end + 1 !== tokens[at]!.start) return false;
  const own = bare(tokens[at]!.lower);
  const behind = known.flatMap(({ names }) => [...(names.get(bare(before.lower))?.behind ?? [])]);
  const isItsForm = (name: string) =>
    own === name ||
    (own.startsWith(name) && OWNING.test(own.slice(name.length))) ||
    (name.startsWith(own) && OWNING.test(name.slice(own.length)));
  const isNearly = (name: string) =>
    (Math.abs(own.length - name.length) <= 2 && (own.startsWith(name) || name.startsWith(own))) ||
    distance(own, name) === 1;
  return behind.length > 0 && !behind.some(isItsForm) && behind.some(isNearly);
}

/** Two German nouns side by side are one thing by its maker or its measure, or somebody with both names. */
function isWholeName(tokens: readonly Token[], at: number, known: readonly KnownWords[]): boolean {
  const isStrange = (place: number) => {
    const token = tokens[place];
    return (
      isNoun(token, 'de') &&
      // What begins a sentence has a capital anyway.
      !begun(tokens[place - 1]) &&
      !token!.unit &&
      !USUAL.has(token!.lower) &&
      !known.some((one) => isKnown(token!, one, 'de')) &&
      numbersOf([token!], 'de').length === 0
    );
  };
  return isStrange(at) && (isStrange(at - 1) || isStrange(at + 1));
}

function isKnown({ lower }: Token, { words, stems }: KnownWords, language: string): boolean {
  const own = bare(lower);
  if (words.has(own) || stems.has(stemOf(own, language)) || own.split('-').every((part) => words.has(part)))
    return true;
  // 'Käse' of a 'Bergkäse'.
  return (
    language === 'de' &&
    own.length >= 4 &&
    [...words].some((word) => word.length > own.length + 2 && word.endsWith(own))
  );
}

function strange(tokens: readonly Token[], at: number, known: KnownWords): boolean {
  const [before, token, after] = [tokens[at - 1], tokens[at]!, tokens[at + 1]];
  if (!begun(before)) return true;
  // The first word of a sentence has a capital anyway.
  // Nothing but a name is said to own something without an article before it.
  return (
    isNoun(after, 'en') || /[’']s$/.test(token.lower) || isSetApart(tokens, at) || likeAName(token, tokens, known, 'en')
  );
}

const WHO = setOf('who whose whom aged the a an');
const SAYS_HOW =
  /ly$|^(?:however|therefore|instead|afterwards?|today|tomorrow|yesterday|then|later|meanwhile|still|first|second|third|last|next|finally|otherwise|besides|moreover|indeed|thus|here|there|now|once|again|sometimes|often|perhaps|maybe|yes|no|so|too|also|like|unlike|before|after|above|below|inside|outside|upstairs|outdoors|indoors|overnight|soon|nowadays|elsewhere)$/;

/** 'Doig, the last keeper, …' and 'Doig, who paints, …': who begins a sentence and is told of between commas. */
const isSetApart = (tokens: readonly Token[], at: number): boolean =>
  tokens[at + 1]?.text === ',' &&
  (WHO.has(tokens[at + 2]?.lower ?? '') || tokens[at + 2]?.kind === 'number') &&
  tokens.slice(at + 3, at + 12).some(({ text }) => text === ',') &&
  !SAYS_HOW.test(tokens[at]!.lower);

/** Every German noun has a capital: a name is what stands beside a known one in another's place, or is nearly one. */
function strangeInGerman(tokens: readonly Token[], at: number, known: KnownWords): boolean {
  const said = new Set(tokens.map(({ lower }) => bare(lower)));
  const gone = (names: ReadonlySet<string> | undefined) =>
    names !== undefined && names.size > 0 && ![...names].some((name) => said.has(name));
  const [before, after] = [
    known.names.get(bare(tokens[at - 1]?.lower ?? '')),
    known.names.get(bare(tokens[at + 1]?.lower ?? '')),
  ];
  if (tokens[at - 1]?.capital && gone(before?.behind)) return true;
  // A title before a whole name is none of it.
  const whole = after !== undefined && after.behind.has(bare(tokens[at + 2]?.lower ?? ''));
  if (tokens[at + 1]?.capital && !whole && gone(after?.before)) return true;
  // 'Aus Ravenna' where the source says 'aus Trevelmo'.
  const way = tokens[at - 1]?.lower ?? '';
  if (BARE.has(way) && gone(known.ways.get(way))) return true;
  if (WAYS.has(way) && !USUAL.has(tokens[at]!.lower) && !/en$|ung$/.test(tokens[at]!.lower)) {
    // Somewhere else than where the source says: one of its names is gone.
    const others = [...known.names.keys()].filter((name) => !said.has(name));
    if (others.length > 0 && endsThere(tokens[at + 1])) return true;
  }
  return likeAName(tokens[at]!, tokens, known, 'de');
}

function likeAName(token: Token, tokens: readonly Token[], { names }: KnownWords, language: string): boolean {
  const own = bare(token.lower);
  const said = new Set(tokens.map(({ lower }) => bare(lower)));
  for (const name of names.keys()) if (!said.has(name) && isNear(own, name, language)) return true;
  return false;
}

/** Whether two words begin alike, as 'Ostberg' and 'Ostmann', or differ by two letters at most. */
function isNear(a: string, b: string, language: string): boolean {
  if (a.length < 4 || b.length < 4 || a.charAt(0) !== b.charAt(0)) return false;
  if (a.startsWith(b) || b.startsWith(a)) return false;
  const least = Math.min(a.length, b.length);
  if (language === 'de') return distance(a, b) <= 1 || (least >= 6 && a.slice(0, 3) === b.slice(0, 3));
  return distance(a, b) <= 2 || (least >= 5 && a.slice(0, 3) === b.slice(0, 3));
}

/** Letters to be changed from one word to another (Levenshtein); words are short. */
function distance(a: string, b: string): number {
  let row = Array.from({ length: b.length + 1 }, (_, i) => i);
  for (let i = 1; i <= a.length; i++) {
    const next = [i];
    for (let j = 1; j <= b.length; j++)
      next.push(Math.min(next[j - 1]! + 1, row[j]! + 1, row[j - 1]! + (a[i - 1] === b[j - 1] ? 0 : 1)));
    row = next;
  }
  return row[b.length]!;
}

/** Whether a sentence goes on with something else behind a word. */
const endsThere = (token: Token | undefined) => token === undefined || token.kind === 'sign' || !token.content;
