/**
 * Where sentences end in running words without punctuation or capitals. No model and no statistics of a corpus: what stands
 * on both sides of a place is held against what sentences of the language can begin and end with, and of all ways to part the
 * words the one is taken whose places fit best (dynamic programming over sentence lengths).
 */

const MOST = 40;
const LEAST = 3;

interface Manner {
  /** Words no sentence ends with: determiners, prepositions, conjunctions, auxiliaries, subjects, verbs that want an object. */
  open: ReadonlySet<string>;
  /** Words no sentence begins with, but for a question or an ellipsis. */
  inner: ReadonlySet<string>;
  /** Subjects: they begin a clause when a verb follows them. */
  subjects: ReadonlySet<string>;
  /** Verbs as they follow a subject, beside those the ending tells. */
  verbs: ReadonlySet<string>;
  /** Words sentences like to begin with. */
  first: ReadonlySet<string>;
  /** Verbs as somebody is told what to do. */
  orders: ReadonlySet<string>;
  /** Words that begin a noun. */
  determiners: ReadonlySet<string>;
  /** Words after which a subject goes on the same sentence. */
  joins: ReadonlySet<string>;
  /** Objects and other words sentences like to end with. */
  last: ReadonlySet<string>;
  verbEnding: RegExp;
}

const set = (words: string) => new Set(words.split(' '));

const MANNERS: Record<string, Manner> = {
  en: {
    open: set(
      'a an the of to and or but nor in on at into onto from with without for by about over under between through during than as like is are was were be been am being has have had do does did can could will would shall should may might must my your its their our his her this these those every each no not very too so more most which who what how why where when while if because that although until since whether i we you he she they put take use add keep make cut fill press wash let want need give get set see cover hold bring leave turn weigh taste one two three four five six seven eight nine ten half per just only almost nearly about around even either both quite',
    ),
    inner: set(
      'of than to is are was were has had does did and or that which who whose been be am not per into down up out off away back apart',
    ),
    subjects: set('i we you it they he she there this that these those nobody everybody somebody'),
    verbs: set(
      'is are was were am be has have had do does did can could will would shall should may might must need want like know think see say get go put take use make keep let give found find made took put went came left lost cut fill add begin come look mean weigh wash salt press taste try turn buy bought sell sold work works went',
    ),
    first: set(
      'so now but if when this these then here first next last after before every never once my that’s it’s in',
    ),
    orders: set(
      'put take press leave add keep use let cut fill cover wash turn check open close pour stir wait taste try make weigh look bring get give set hold hang mix boil heat cool buy read write click choose begin start stop remember notice',
    ),
    determiners: set('the a an my your our this these that those its one every each all some most no three two'),
    joins: set(
      'and but or because that which who what how if when while as where than before after until so since whether whatever',
    ),
    last: set('it them me us him here there again too yet then well now anyway together time water'),
    verbEnding: /(?:ed|[^su]s|n’t|n't|’s|'s|’ve|’re|’ll|’d)$/,
  },
  de: {
    open: set(
      'der die das den dem des ein eine einen einem einer eines und oder aber sondern denn in im an am auf zu zum zur bei beim mit von vom für über unter zwischen durch ohne gegen nach vor aus als wie ist sind war waren bin hat haben hatte kann können will wollen soll sollen muss müssen darf wird werden mein meine dein deine sein seine ihr ihre unser kein keine nicht sehr zu so mehr welche welcher was wer wo warum wenn weil dass ob bis seit ich wir er sie man nehmt nehme stelle stellt zwei drei vier fünf sechs jede jeder jedes alle nur fast etwa auch noch',
    ),
    inner: set('dass als und oder zu ist sind war hat nicht denn sondern'),
    subjects: set('ich wir ihr er sie es man das dies'),
    verbs: set(
      'ist sind war waren hat haben hatte kann können will soll muss darf wird werden nehme nehmt nimmt stelle stellt lasse lasst braucht brauche bin habe mache macht gebe gebt geht gibt',
    ),
    first: set('dann aber wenn jetzt hier so nach beim wer im am'),
    orders: set(
      'nehmt nimm stellt stell lasst lass gebt gib macht mach wartet warte schneidet schneide füllt fülle drückt drücke denkt schaut',
    ),
    determiners: set('der die das den ein eine einen mein meine jede jeder jedes alle zwei drei'),
    joins: set('und aber oder weil dass wenn wie was wer wo ob bis als denn sondern'),
    last: set('ab an auf aus ein mit vor zu weg lang fertig gut wieder werden haben sein kann muss'),
    verbEnding: /(?:st|t|te|ten|en)$/,
  },
};

/**
 * @param pauses how long somebody is silent before each word, in seconds; null where that is not known
 * @returns after how many words each sentence ends, rising; the last is the number of words
 */
export function sentenceEnds(
  words: readonly string[],
  language: string,
  pauses: readonly (number | null)[] = [],
): number[] {
  const manner = MANNERS[language] ?? MANNERS['en']!;
  const bare = words.map((word) => word.toLowerCase().replace(/[^\p{L}\p{N}’'-]/gu, ''));
  const stops = words.map((word) => /[.?!…]["'”’)]?$/.test(word));
  const n = words.length;
  if (n === 0) return [];
  const best = new Float64Array(n + 1).fill(Number.NEGATIVE_INFINITY);
  const from = new Int32Array(n + 1);
  best[0] = 0;
  const fitnessAt = (at: number) => {
    const pause = pauses[at] ?? null;
    // Who speaks without a stop ends no sentence; words alone tell little where the silence tells.
    return pause === null ? fitness(bare, at, manner) : fitness(bare, at, manner) * BY_WORDS + silenceWorth(pause);
  };
  const fits = words.map((_, at) => (at === 0 ? 0 : stops[at - 1] ? 8 : fitnessAt(at)));
  for (let end = 1; end <= n; end++) {
    const worth = end === n ? 0 : fits[end]!;
    for (let begin = Math.max(0, end - MOST); begin < end; begin++) {
      const total = best[begin]! + worth + lengthWorth(end - begin);
      if (total > best[end]!) {
        best[end] = total;
        from[end] = begin;
      }
    }
  }
  const ends: number[] = [];
  for (let end = n; end > 0; end = from[end]!) ends.push(end);
  return ends.reverse();
}

/** How much words tell where silence tells too. */
const BY_WORDS = 0.5;

/** How well a sentence ends where somebody is silent for so long: at a full stop about half a second, at a comma half of that. */
const silenceWorth = (seconds: number): number => Math.max(-3, Math.min(4, (seconds - 0.28) * 14));

/** Sentences of speech have six to twenty-five words; a shorter or longer one must be well founded. */
function lengthWorth(words: number): number {
  if (words < LEAST) return -5;
  if (words < 6) return -1.5;
  return words <= 24 ? 0 : -0.25 * (words - 24);
}

/** How well a sentence ends before the word at a place and one begins there; below nothing when it does not. */
function fitness(words: readonly string[], at: number, manner: Manner): number {
  const [before, word, next] = [words[at - 1]!, words[at]!, words[at + 1] ?? ''];
  if (manner.inner.has(word)) return -5;
  let worth = -1.4;
  if (manner.open.has(before)) worth -= 4;
  if (manner.last.has(before)) worth += 0.8;
  if (manner.subjects.has(word)) {
    const speaks = manner.verbs.has(next) || manner.verbEnding.test(next);
    worth += speaks ? 3 : word === 'i' || word === 'we' || word === 'ich' || word === 'wir' ? 2 : -2;
    if (manner.joins.has(before)) worth -= 4;
  } else if (manner.first.has(word)) {
    // ‘So I salt it’, ‘in October the cabbage’: a clause follows soon; ‘in the big bowl’ goes on what was said.
    worth += manner.subjects.has(next) || clauseSoon(words, at, manner) ? 2 : 0;
  }
  if (manner.orders.has(word) && !manner.open.has(before) && !manner.subjects.has(before)) worth += 1.8;
  if (manner.determiners.has(word) && !manner.subjects.has(word)) worth += verbSoon(words, at, manner) ? 1.6 : -0.8;
  return worth;
}

/** Whether a subject with its verb stands within the next words. */
function clauseSoon(words: readonly string[], at: number, manner: Manner): boolean {
  for (let i = at + 1; i <= Math.min(words.length - 2, at + 5); i++)
    if (manner.subjects.has(words[i]!) && !manner.joins.has(words[i - 1]!)) return true;
  return false;
}

/** Whether a verb follows a noun that begins here before anything begins anew: 'the silicone one held'. */
function verbSoon(words: readonly string[], at: number, manner: Manner): boolean {
  for (let i = at + 2; i <= Math.min(words.length - 1, at + 5); i++) {
    const word = words[i]!;
    if (manner.verbs.has(word) || /(?:ed|’s|'s)$/.test(word)) return true;
    if (manner.determiners.has(word) || manner.joins.has(word)) return false;
  }
  return false;
}
