import { verbForm } from '../language/wordClasses.ts';
import { verbOf } from '../sentence/irregular.ts';
import { remembered } from '../sentence/remembered.ts';
import { sentencesOf } from '../sentence/sentence.ts';
import { deniesAt, FREELY, isWhether, saysNoMore, tellsNothingApart } from './denying.ts';
import { MEASURING, setOf } from './lexicon.ts';
import { isDenial, LACKING, parted } from './parting.ts';
import { type Facts, factsOf } from './quantities.ts';
import type { Quantity } from './quantity.ts';
import { type Token, tokensOf } from './token.ts';

/** A part of a sentence that says one thing. What is known of it is worked out when it is asked for, once. */
export class Clause {
  /** The clause before it in its sentence. */
  readonly before: Clause | null;
  /** What others have worked out of it, by a name. */
  private known: Map<string, unknown> | null = null;

  constructor(
    readonly tokens: readonly Token[],
    readonly facts: Facts,
    /** What stands between it and the clause before it; nothing for the first of a sentence. */
    readonly after: string,
    readonly sentence: Sentence,
    readonly language: string,
  ) {
    this.before = sentence.clauses.at(-1) ?? null;
  }

  /** What is worked out of it by a name, the first time only; not for what is undefined. */
  once<T>(name: string, work: () => T): T {
    this.known ??= new Map();
    let found = this.known.get(name);
    if (found === undefined) {
      found = work();
      this.known.set(name, found);
    }
    return found as T;
  }

  /** Words that carry it, by their stems, in order. */
  get stems(): readonly string[] {
    return this.once('stems', () => stemsOf(this.tokens));
  }

  get stemSet(): ReadonlySet<string> {
    return this.once('stemSet', () => new Set(this.stems));
  }

  get words(): ReadonlySet<string> {
    return this.once('words', () => new Set(this.tokens.map(({ lower }) => lower)));
  }

  /** Whether it says any of some words. */
  has(any: ReadonlySet<string>): boolean {
    for (const { lower } of this.tokens) if (any.has(lower)) return true;
    return false;
  }

  /** Whether something is denied in it: what is denied twice is said, what is denied in each of two parts is denied. */
  get denies(): boolean {
    return this.once('denies', () => {
      let odd = false;
      for (const [at, token] of this.tokens.entries()) {
        if (token.kind === 'sign' && odd) return true;
        // 'Neither … nor' denies once.
        if (token.lower === 'nor' && this.words.has('neither')) continue;
        // 'At no extra cost' denies nothing that is said.
        if (token.lower === 'no' && FREELY.has(this.tokens[at + 1]?.lower ?? '')) continue;
        if (saysNoMore(this.tokens, at) || isWhether(this.tokens, at) || tellsNothingApart(this.tokens, at)) continue;
        if (deniesAt(this.tokens, at, this.language)) odd = !odd;
      }
      return odd;
    });
  }

  /** Figures that are no years. */
  get figures(): readonly Quantity[] {
    return this.once('figures', () =>
      this.facts.quantities.filter(({ from }) => !this.facts.moments.some((moment) => moment.from === from)),
    );
  }

  /** Whether a token is part of a figure or a date. */
  get taken(): readonly boolean[] {
    return this.once('taken', () => {
      const out = this.tokens.map(() => false);
      for (const { from, to } of [...this.facts.quantities, ...this.facts.moments]) out.fill(true, from, to);
      return out;
    });
  }

  /** Stems of the words of its figures and dates. */
  get figureStems(): readonly string[] {
    return this.once('figureStems', () =>
      this.tokens.flatMap((token, at) => (token.content && (token.unit || this.taken[at]) ? [token.stem] : [])),
    );
  }

  /** Stems of the words that say what it is about: not those of its figures, dates and units. */
  get about(): readonly string[] {
    return this.once('about', () =>
      this.tokens.flatMap((token, at) => (token.content && !token.unit && !this.taken[at] ? [token.stem] : [])),
    );
  }

  /** What it compares with: 'the bell' in 'twice as much as the bell'. */
  get compared(): ReadonlySet<string> {
    return this.once('compared', () => {
      const than = this.tokens.findLastIndex(({ lower }) => COMPARES.has(lower));
      const times = this.tokens.findIndex(
        ({ lower }, i) => MULTIPLES.has(lower) && this.tokens[i + 1]?.lower === 'the',
      );
      // 'Twice the price of clover honey'.
      const of = times === -1 ? -1 : this.tokens.findIndex(({ lower }, i) => i > times && lower === 'of');
      const at = than === -1 ? of : than;
      const behind = at === -1 ? [] : this.tokens.slice(at + 1);
      return new Set(
        behind.flatMap((token) => (token.content && !token.unit && !WHEN.has(token.lower) ? [token.stem] : [])),
      );
    });
  }

  /** Whether it begins without something that it is about, and goes on from the clause before it. */
  get leans(): boolean {
    return this.once('leans', () => leans(this));
  }

  /** Words up to its first figure. */
  get subjectWords(): readonly string[] {
    return this.once('subjectWords', () => {
      const end = this.facts.quantities[0]?.from ?? this.tokens.length;
      return stemsOf(this.tokens.slice(0, end));
    });
  }

  /** The words it is about, with those it leaves to the clause before it, without those it compares with. */
  get own(): ReadonlySet<string> {
    return this.once('own', () => {
      const words = new Set(this.about);
      for (const stem of this.compared) words.delete(stem);
      if (this.before === null) return words;
      const pointed = this.tokens.some(({ lower }) => BACK.has(lower));
      for (const stem of pointed ? this.before.about : this.leans ? this.before.subjectWords : []) words.add(stem);
      return words;
    });
  }

  /** Words for things in it: in German those with a capital, else those behind an article or a word of place. */
  get things(): ReadonlySet<string> {
    return this.once(
      'things',
      () =>
        new Set(this.tokens.flatMap((token, at) => (token.kind === 'word' && this.isThing(at) ? [token.stem] : []))),
    );
  }

  isThing(at: number): boolean {
    const token = this.tokens[at]!;
    // An adjective behind an article tells one thing from another too.
    if (this.language === 'de')
      return token.capital || (OWN.has(this.tokens[at - 1]?.lower ?? '') && /e[nrms]?$/.test(token.lower));
    const before = this.tokens[at - 1];
    if (before === undefined || token.capital || BEFORE_THINGS.has(before.lower) || OPENING.has(before.lower))
      return true;
    // 'The old mill' is a thing, of 'the bell weighs' only the bell.
    return (
      BEFORE_THINGS.has(this.tokens[at - 2]?.lower ?? '') &&
      !(before.content && (/(?:[^s]s|ed)$/.test(token.lower) || verbOf(token.lower) !== token.lower))
    );
  }

  /** Its stems, with those of what it points at where it says to be without: '… with compost, without it 2'. */
  get meant(): ReadonlySet<string> {
    const [first, second] = this.tokens;
    const { before } = this;
    if (LACKING.has(first?.lower ?? '') && BACK.has(second?.lower ?? ''))
      return this.once('meant', () => new Set([...this.stemSet, ...this.own]));
    // '…, motorbikes are not': what they are not stands before.
    if (before === null || this.stems.length !== 1 || !isDenial(this.tokens.findLast(({ kind }) => kind !== 'sign')))
      return this.stemSet;
    const where = PLACES.has(first!.lower);
    return this.once(
      'meant',
      () => new Set([...this.stems, ...before.stems.filter((stem) => where || stem !== before.subject)]),
    );
  }

  /** Things named before its figure, or in the clause it goes on from. */
  get thingsBefore(): readonly string[] {
    return this.once('thingsBefore', () => {
      const from = this.leans && this.before !== null ? this.before : this;
      const its = from !== this && from.subjectWords.length === 0 ? from.about : from.subjectWords;
      return its.filter((stem) => this.sentence.clauses.some(({ things }) => things.has(stem)));
    });
  }

  /** The thing it begins with; none where it begins by pointing at one, or by counting it. */
  get subject(): string | null {
    return this.once('subject', () => {
      const [first, second] = this.tokens;
      const takes = first?.lower === 'it' && /^(?:takes|took)$/.test(second?.lower ?? '');
      if ((POINTS.has(first?.lower ?? '') && !takes) || LED.has(first?.lower ?? '')) return null;
      if (this.language !== 'de' && isOrder(this.tokens)) return null;
      // 'Kühl hält er ein Jahr': whoever it is about stands behind the verb.
      if (this.language === 'de' && this.tokens.some(({ lower }, at) => lower === 'er' && at > 1)) return null;
      const at = this.tokens.findIndex(
        (token, i) =>
          token.content &&
          !token.unit &&
          !this.taken[i] &&
          !MEASURING.has(token.lower) &&
          !ORDERING.has(token.lower) &&
          // An adjective before it is not what it is about.
          (this.language !== 'de' || token.capital || !this.tokens[i + 1]?.capital),
      );
      // 'Within four weeks they turn sour' is about them.
      if (this.tokens.slice(0, at).some(({ lower }) => WHO.has(lower))) return null;
      if (at === -1 || [...this.facts.quantities, ...this.facts.moments].some(({ to }) => to === at)) return null;
      return this.isThing(at) ? this.tokens[at]!.stem : null;
    });
  }

  /** The thing a figure counts or measures: the word right behind it. */
  countedBy({ to }: Quantity): string | null {
    const at = this.tokens[to]?.lower === 'of' ? to + 1 : to;
    const token = this.tokens[at];
    if (!token?.content || token.unit) return null;
    // 'Twelve oak boards', but '6,500 visitors climb'.
    const goesOn = at === to && this.tokens[at + 1]?.content === true && !/[^s]s$/.test(token.lower);
    return (this.language === 'de' ? token.capital : !goesOn) ? token.stem : null;
  }
}

/** Words with and without the ending of a German adjective. */
export function bareWords(clause: Clause): ReadonlySet<string> {
  if (clause.language !== 'de') return clause.words;
  return clause.once(
    'bare words',
    () => new Set([...clause.words].flatMap((word) => [word, word.replace(/(?:e[nmrs]?|s)$/, '')])),
  );
}

/** A sentence with its clauses, in its text. */
export interface Sentence {
  text: string;
  /** By number, in its text. */
  n: number;
  clauses: Clause[];
  stems: ReadonlySet<string>;
  of: Statements;
}

/** A text as what it states. */
export interface Statements {
  text: string;
  /** The words of its sentences, one behind the other, a full stop between two sentences. */
  words: string;
  tokens: readonly Token[];
  clauses: readonly Clause[];
}

/** Words, numbers and signs of units one behind the other. */
export function wordsOf(tokens: readonly Token[]): string {
  let out = '';
  for (const { kind, unit, lower } of tokens) if (kind !== 'sign' || unit) out += out === '' ? lower : ` ${lower}`;
  return out;
}

export function stemsOf(tokens: readonly Token[]): string[] {
  const out: string[] = [];
  for (const { content, stem } of tokens) if (content) out.push(stem);
  return out;
}

const ORDERING = setOf('next last first second third other same only nächste letzte erste zweite dritte andere');
const COMPARES = setOf('than as wie als');
const MULTIPLES = setOf('twice double half triple times');
const WHEN = setOf('winter summer spring autumn time times season sommer frühjahr herbst mal saison zeit');
const BACK = setOf('them it davon ihnen dessen deren');
const OWN = setOf(
  'a an the his her its their each every one der die das ein eine ihr ihre sein seine jede jeder jedes',
);
const POINTS = setOf('it they he she this that these those we you i there es sie er man wir dies das');
const WHO = setOf('they he she we you wir ihr');
/** Behind them stands what it is done for or because of, and not what does it. */
const LED = setOf('for despite thanks due für wegen trotz dank');
const BEFORE_THINGS = setOf(
  'a an the of for in on at with per each every its his her their one some any no from by old new small large simple full first last',
);

const GIVEN = setOf('a an the it them in on up off out down more your its their one two');

/** 'Choose a smaller jar', 'put in more': what it begins with is a verb, and nobody it is about. */
const isOrder = ([first, second]: readonly Token[]): boolean =>
  first !== undefined && verbForm(first.lower) === 'base' && GIVEN.has(second?.lower ?? '');

/** Behind them a clause begins. */
const OPENING = setOf('since because if when while whereas unless although until');

/** Verbs that say how much of what stands before: '… and weighs 11 tonnes'. */
const WEIGHING = setOf(
  'weighs weighed measures measured holds held costs cost lasts lasted takes took stands stood wiegt wog misst maß fasst kostet kostete dauert dauerte',
);

const TELLING = setOf(
  'weighs weighed measures measured holds held costs cost lasts lasted takes took pay pays paid is are was were wiegt wog misst maß fasst kostet kosten kostete dauert dauerte zahlen zahlt ist sind war waren',
);

function leans({ tokens, facts, after }: Clause): boolean {
  const [first] = tokens;
  if (first === undefined) return true;
  const counts = facts.quantities.some(({ from }) => from === 0);
  // Behind a semicolon something new begins.
  if (after === ';' || after === ':' || after === '.') return counts || POINTS.has(first.lower);
  if (counts || first.kind !== 'word' || WEIGHING.has(first.lower)) return true;
  if (OWN.has(first.lower) || (first.capital && first.content)) return false;
  // 'Season tickets cost £60' says of what.
  const until = facts.quantities[0]?.from ?? tokens.length;
  if (first.content && tokens.some(({ lower }, at) => at > 0 && at < until && TELLING.has(lower))) return false;
  // 'Children 5': what is left out stands behind it.
  const [only] = facts.quantities;
  const ends = only !== undefined && only.to >= tokens.filter(({ kind }) => kind !== 'sign').length;
  return !(ends && only.from > 0 && only.from <= 2 && tokens[only.from - 1]!.content);
}

const PLACES = setOf('in on at from im am an auf bei von');
/** A sentence by itself, as it is read whatever stands beside it. */
export interface ReadSentence {
  tokens: readonly Token[];
  /** Its words one behind the other. */
  words: string;
  stems: ReadonlySet<string>;
  parts: readonly { part: readonly Token[]; after: string; facts: Facts }[];
}

function readNow(own: string, language: string): ReadSentence {
  const tokens = tokensOf(own, language);
  const whole = factsOf(tokens, language);
  const parts = parted(tokens, language);
  return {
    tokens,
    words: wordsOf(tokens),
    stems: new Set(stemsOf(tokens)),
    parts: parts.map(({ part, after }) => ({
      part,
      after,
      facts: parts.length === 1 ? whole : withUnits(factsOf(part, language), part, whole, tokens),
    })),
  };
}

/** Sentences that are remembered: of a paragraph that is being typed in all but one are as they were. */
const MOST_READ = 1_000;

/** What a sentence says, whatever stands beside it. */
export const readSentence = remembered(readNow, MOST_READ);

/** A text in sentences and these in clauses. */
export function statementsOf(text: string, language: string): Statements {
  const clauses: Clause[] = [];
  const all: Token[] = [];
  const sentences: string[] = [];
  const of = { text, words: '', tokens: all, clauses };
  for (const [n, own] of sentencesOf(text, language).entries()) {
    const { tokens, words, stems, parts } = readSentence(own, language);
    all.push(...tokens);
    sentences.push(words);
    const sentence: Sentence = { text: own, n, clauses: [], stems, of };
    for (const { part, facts, after } of parts)
      sentence.clauses.push(new Clause(part, facts, after, sentence, language));
    clauses.push(...sentence.clauses);
  }
  of.words = ` ${sentences.join(' . ')} `;
  return of;
}

/** Facts of a clause with the units that stand in another clause of its sentence. */
function withUnits(own: Facts, part: readonly Token[], whole: Facts, all: readonly Token[]): Facts {
  if (!own.quantities.some(({ bare }) => bare)) return own;
  const quantities = own.quantities.map((one) => {
    const same = one.bare && whole.quantities.find(({ from }) => all[from]?.start === part[one.from]?.start);
    return same ? { ...one, means: same.means } : one;
  });
  return { ...own, quantities };
}
