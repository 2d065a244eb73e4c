import { closedWords } from '../language/closedWords.ts';
import {
  AUXILIARIES,
  BEFORE_VERBS,
  DETERMINERS,
  isNounToo,
  isPlainPast,
  JOINS,
  OF_BEING,
  OF_HAVING,
  SLIGHT,
  SUBJECTS,
  type VerbForm,
  verbForm,
} from '../language/wordClasses.ts';
import { contentStems } from '../sentence/sentence.ts';

/** A noun phrase of a text, as an anchor may stand on it. */
export interface Phrase {
  /** Where it begins and ends in the text. */
  at: number;
  end: number;
  /** Stems of its words of content, in order. */
  stems: readonly string[];
  /** Stems of the words its parts end with: what it is about. */
  heads: readonly string[];
}

interface Word {
  at: number;
  end: number;
  text: string;
  lower: string;
  stem: string | null;
  /** Whether nothing but a space stands between it and the word before it. */
  joined: boolean;
  /** Whether a sentence begins with it. */
  opens: boolean;
}

/** A run of words that is a noun phrase by itself, `from` to `to` (exclusive). */
interface Run {
  from: number;
  to: number;
}

/** Prepositions and adverbs that end a phrase, beside those of the closed classes. */
const ADVERBS: ReadonlySet<string> = new Set(
  (
    'like first last again together away back out off down later twice once here there today tonight tomorrow yesterday anyway instead early inside outside ' +
    'across along among around as behind below beneath beside besides between beyond despite except near onto opposite past per round throughout toward towards underneath upon via within without ' +
    'ahead already altogether always else elsewhere ever everywhere far furthermore hence however indeed least long maybe meanwhile moreover never nevertheless otherwise quite rather right seldom somewhere straight therefore thus together whenever wherever whereas whether'
  ).split(' '),
);

/** Words of a phrase an anchor may have, at most. */
const LONGEST = 7;

const stemCache = new Map<string, string | null>();
const MOST_CACHED = 50_000;

/** Stem of a word of content; German infinitives with 'zu' inside count as those without. */
function stemOf(lower: string, tongue: string): string | null {
  const key = `${tongue} ${lower}`;
  const known = stemCache.get(key);
  if (known !== undefined) return known;
  const plain =
    tongue === 'de' ? lower.replace(/^(an|auf|aus|ein|ab|vor|um|her|hin|nach|zu)zu(?=\p{L}{4})/u, '$1') : lower;
  const found = contentStems(plain, tongue)[0] ?? null;
  if (stemCache.size >= MOST_CACHED) stemCache.clear();
  stemCache.set(key, found);
  return found;
}

function wordsIn(text: string, tongue: string): Word[] {
  const out: Word[] = [];
  let end = 0;
  for (const match of text.matchAll(/[\p{L}\p{N}][\p{L}\p{N}'’-]*/gu)) {
    const between = text.slice(end, match.index);
    const lower = match[0].toLowerCase().replaceAll('’', "'");
    out.push({
      at: match.index,
      end: match.index + match[0].length,
      text: match[0],
      lower,
      stem: stemOf(lower, tongue),
      joined: out.length > 0 && /^ $/.test(between),
      opens: out.length === 0 || /[.!?]/.test(between),
    });
    end = match.index + match[0].length;
  }
  return out;
}

const isIn = (sets: Readonly<Record<string, ReadonlySet<string>>>, tongue: string, word: string): boolean =>
  sets[tongue]?.has(word) ?? false;

/** Whether an English phrase ends before a word. */
const endsAt = (next: Word | undefined): boolean =>
  !next?.joined || closedWords('en')!.has(next.lower) || ADVERBS.has(next.lower);

/** Whether an English word is a verb where it stands. */
function actsAsVerb(words: readonly Word[], at: number, from: number): boolean {
  const word = words[at]!;
  const form: VerbForm = verbForm(word.lower);
  const before = at > 0 && word.joined ? words[at - 1]!.lower : '';
  if (at === from) {
    if (SUBJECTS.has(before)) return true;
    if (BEFORE_VERBS.has(before) && form !== null) return true;
    // 'is fermenting' says what goes on; in 'are mixing glazes' it stands with what is mixed.
    if (AUXILIARIES.has(before))
      return form === 'past' || (form === 'ing' && !OF_HAVING.has(before) && endsAt(words[at + 1]));
    if (DETERMINERS['en']!.has(before)) return false;
    if (form === 'ing') return false;
    if (form === null) return false;
    const next = words[at + 1];
    const takes = next?.joined === true && (DETERMINERS['en']!.has(next.lower) || SUBJECTS.has(next.lower));
    if (form === 'past') return takes || endsAt(next);
    return takes || !isNounToo(word.lower);
  }
  if (form === null || form === 'ing') return false;
  const next = words[at + 1];
  // 'jars kept yeast', 'jars soured late'
  if (form === 'past') return endsAt(next) || isPlainPast(word.lower) || /[^su]s$/.test(before);
  // No plural stands before another noun.
  if (form === 'third' && !endsAt(next)) return true;
  const takes = next?.joined === true && (DETERMINERS['en']!.has(next.lower) || SUBJECTS.has(next.lower));
  return takes || !isNounToo(word.lower);
}

function englishRuns(words: readonly Word[]): Run[] {
  const closed = closedWords('en')!;
  const runs: Run[] = [];
  let from = -1;
  const close = (to: number) => {
    const before = from > 0 && words[from]!.joined ? words[from - 1]!.lower : '';
    if (from >= 0 && to > from && !(to - from === 1 && OF_BEING.has(before))) runs.push({ from, to });
    from = -1;
  };
  for (const [i, word] of words.entries()) {
    if (from >= 0 && !word.joined) close(i);
    const breaks =
      closed.has(word.lower) ||
      DETERMINERS['en']!.has(word.lower) ||
      ADVERBS.has(word.lower) ||
      SUBJECTS.has(word.lower) ||
      AUXILIARIES.has(word.lower) ||
      BEFORE_VERBS.has(word.lower) ||
      /^\p{N}+$/u.test(word.text) ||
      (/ly$/.test(word.lower) && word.lower.length > 4) ||
      word.stem === null;
    const next = words[i + 1];
    // 'weekends building a clay oven': what is done begins a phrase of its own.
    if (from >= 0 && next?.joined && DETERMINERS['en']!.has(next.lower) && verbForm(word.lower) === 'ing') {
      close(i);
      from = i;
    }
    if (breaks || actsAsVerb(words, i, from < 0 ? i : from)) close(i);
    else if (from < 0) from = i;
  }
  close(words.length);
  return runs;
}

/** In German nouns say what they are; adjectives before them end as those do. */
function germanRuns(words: readonly Word[]): Run[] {
  const closed = closedWords('de')!;
  const runs: Run[] = [];
  const adjective = (word: Word) =>
    /^\p{Ll}/u.test(word.text) &&
    /(?:e|en|er|es|em)$/.test(word.lower) &&
    !closed.has(word.lower) &&
    word.stem !== null;
  for (let i = 0; i < words.length; i++) {
    const word = words[i]!;
    if (!/^\p{Lu}/u.test(word.text) || word.stem === null || closed.has(word.lower)) continue;
    if (isIn(DETERMINERS, 'de', word.lower)) continue;
    let from = i;
    while (
      from > 0 &&
      words[from]!.joined &&
      adjective(words[from - 1]!) &&
      // An adjective stands behind an article, another one, or at the beginning; else it is a verb.
      (from === 1 ||
        !words[from - 1]!.joined ||
        isIn(DETERMINERS, 'de', words[from - 2]!.lower) ||
        closed.has(words[from - 2]!.lower) ||
        adjective(words[from - 2]!))
    )
      from--;
    runs.push({ from, to: i + 1 });
  }
  return runs;
}

/** In other languages only what stands between marks or small words is taken, whole. */
function plainRuns(words: readonly Word[]): Run[] {
  const runs: Run[] = [];
  let from = -1;
  for (let i = 0; i <= words.length; i++) {
    const word = words[i];
    const goesOn = word !== undefined && word.stem !== null && word.lower.length > 3 && (from < 0 || word.joined);
    if (goesOn && from < 0) from = i;
    else if (!goesOn) {
      if (from >= 0) runs.push({ from, to: i });
      from = word !== undefined && word.stem !== null && word.lower.length > 3 ? i : -1;
    }
  }
  return runs;
}

/**
 * The noun phrases of a paragraph an anchor may stand on, each whole: with its adjectives, and joined with the next
 * where a small word joins them ('salt for sauerkraut', 'cleaning the chain'). Found by form: words of closed classes,
 * common verbs and what stands round them end a phrase; in German, capitals tell nouns.
 */
export function phrasesOf(text: string, language: string): Phrase[] {
  const tongue = language.slice(0, 2);
  const words = wordsIn(text, tongue);
  const runs = tongue === 'en' ? englishRuns(words) : tongue === 'de' ? germanRuns(words) : plainRuns(words);
  const out: Phrase[] = [];
  const add = (parts: readonly Run[]) => {
    // What only judges is no name of anything: 'as long as'.
    if (parts.some((part) => isIn(SLIGHT, tongue, words[part.to - 1]!.lower))) return;
    let from = parts[0]!.from;
    const to = parts.at(-1)!.to;
    // 'a proper fermentation weight' is one without 'proper' too.
    const take = () => {
      if (to - from > LONGEST) return;
      const stems = words
        .slice(from, to)
        .flatMap(({ stem, lower }) =>
          stem === null || isIn(JOINS, tongue, lower) || isIn(DETERMINERS, tongue, lower) ? [] : [stem],
        );
      const heads = parts.flatMap((part) => words[part.to - 1]!.stem ?? []);
      out.push({ at: words[from]!.at, end: words[to - 1]!.end, stems, heads });
    };
    take();
    while (from < parts[0]!.to - 1 && mayDrop(words[from]!, tongue)) {
      from++;
      take();
    }
  };
  for (const [i, run] of runs.entries()) {
    add([run]);
    const parts = [run];
    for (let next = i + 1; next < Math.min(runs.length, i + 3); next++) {
      if (!areJoined(words, parts.at(-1)!, runs[next]!, tongue)) break;
      parts.push(runs[next]!);
      add(parts);
    }
    if (tongue === 'de') withVerb(words, run, tongue, out);
  }
  return out;
}

/** Whether a phrase is whole without its first word: one that only judges, or what is done with the rest. */
function mayDrop({ lower }: Word, tongue: string): boolean {
  return isIn(SLIGHT, tongue, lower) || (tongue === 'en' && verbForm(lower) === 'ing');
}

/** 'Kartoffeln vorkeimen': a noun and the infinitive behind it, as German titles have them. */
function withVerb(words: readonly Word[], run: Run, tongue: string, out: Phrase[]): void {
  const verb = words[run.to];
  if (!verb?.joined || !/^\p{Ll}{4,}(?:en|ern|eln)$/u.test(verb.text) || verb.stem === null) return;
  if (closedWords(tongue)?.has(verb.lower)) return;
  const stems = words.slice(run.from, run.to + 1).flatMap(({ stem }) => stem ?? []);
  out.push({ at: words[run.from]!.at, end: verb.end, stems, heads: [words[run.to - 1]!.stem ?? '', verb.stem] });
}

/** Stem of what a title is about before it says of what: 'temperature' in 'Best temperature for vegetables'; null without. */
export function leadOf(title: string, language: string): string | null {
  const tongue = language.slice(0, 2);
  const words = wordsIn(title, tongue);
  const join = words.findIndex(({ lower, joined }) => joined && isIn(JOINS, tongue, lower));
  return join > 0 && join < words.length - 1 ? words[join - 1]!.stem : null;
}

/** Whether only a joining word, an article or both stand between two runs. */
function areJoined(words: readonly Word[], a: Run, b: Run, tongue: string): boolean {
  const between = words.slice(a.to, b.from);
  if (between.length === 0 || between.length > 2 || !words[b.from]!.joined) return false;
  if (between.some(({ joined }) => !joined)) return false;
  const [first, second] = between.map(({ lower }) => lower);
  if (isIn(JOINS, tongue, first!)) return second === undefined || isIn(DETERMINERS, tongue, second);
  // 'cleaning the chain'
  return (
    tongue === 'en' && second === undefined && isIn(DETERMINERS, tongue, first!) && /ing$/.test(words[a.to - 1]!.lower)
  );
}
