import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { CHANNELS, HOUSE, NEWS, PAGES } from '../material/index.ts';
import { sentencesOf, stemsOf } from '../words/language.ts';

/**
 * What the model can say in words of its own: statements of the demonstration's material, each with other ways to put it.
 * A statement is told by its words alone, wherever it stands. What is not here the model can only shorten and reorder.
 */
export interface Statement {
  id: number;
  /** What the material it stands in is called. */
  page: string;
  /** As it stands in the material. */
  text: string;
  words: readonly string[];
  /** Of the paragraph it stands in: what that speaks of, in a few words. */
  heading: string;
  /** Parts in turn: what is always said, or ways of saying it. */
  parts: readonly Part[];
  /** In how many ways it can be said; none when it says nothing worth telling. */
  ways: number;
  /** Stems that are there in every way, and those there in any. */
  always: ReadonlySet<string>;
  ever: ReadonlySet<string>;
}

/** Ways of saying a part; those of parts that hang together are chosen together. */
interface Part {
  ways: readonly string[];
  /** The stems of each. */
  stems: readonly (readonly string[])[];
  together: boolean;
}

interface Paragraph {
  heading: string;
  lines: string[];
}

/** Texts of the form: '# title of the material', then '## heading' and a line a sentence; '-' says nothing. */
function phrased(): Map<string, Paragraph[]> {
  const folder = join(import.meta.dirname, 'phrasings');
  const out = new Map<string, Paragraph[]>();
  for (const file of readdirSync(folder).sort())
    for (const part of readFileSync(join(folder, file), 'utf8').split(/^# /m)) {
      const [title = '', ...paragraphs] = part.trim().split(/^## /m);
      if (title === '') continue;
      out.set(
        title.trim(),
        paragraphs.map((paragraph) => {
          const [heading = '', ...lines] = paragraph.trim().split('\n');
          return { heading, lines };
        }),
      );
    }
  return out;
}

/** Paragraphs of all material that may be met, by its title. */
function* material(): Generator<{ title: string; language: string; paragraphs: readonly string[] }> {
  for (const page of PAGES) yield page;
  yield HOUSE;
  for (const site of NEWS) for (const piece of site.pieces) yield { ...piece, language: 'en' };
  for (const channel of CHANNELS)
    for (const video of channel.videos)
      yield { title: video.title, language: video.language, paragraphs: video.chapters.map(({ text }) => text) };
}

/** Sounds of a speaker and of the room, which captions may or may not hold. */
const SOUNDS = /\[[^\]]*\]|\b(?:um|uh|ähm|äh)\b,?/gi;

export const bareWords = (text: string): string[] =>
  text
    .replace(SOUNDS, ' ')
    .toLowerCase()
    .match(/[\p{L}\p{N}]+(?:[.,’'][\p{L}\p{N}]+)*/gu) ?? [];

/** Words that may stand for each other wherever they are met outside the ways that are written out. */
const ALIKE = [
  ['about', 'roughly', 'around'],
  ['because', 'since'],
  ['begin', 'start'],
  ['begins', 'starts'],
  ['big', 'large'],
  ['nearly', 'almost'],
  ['kilograms', 'kilos'],
  ['needs', 'wants'],
  ['usually', 'mostly'],
  ['stays', 'remains'],
  ['stay', 'remain'],
  ['below', 'under'],
  ['often', 'frequently'],
];

/** The same line with words of its fixed parts as ways, too. */
function widened(line: string): string {
  return line
    .split(/(\{[^{}]*\})/)
    .map((part) =>
      part.startsWith('{')
        ? part
        : ALIKE.reduce(
            (text, [first, ...others]) =>
              text.replace(new RegExp(`(?<= )${first}(?=[ ,.])`), `{${[first, ...others].join('|')}}`),
            part,
          ),
    )
    .join('');
}

/** `{a|b}` are ways of saying a part; those of `{=a|b}` and `{=c|d}` in one line go together: a with c, b with d. */
const partsOf = (line: string): Part[] =>
  widened(line)
    .split(/\{([^{}]*)\}/)
    .map((part, i) => {
      const ways = i % 2 === 1 ? part.replace(/^=/, '').split('|') : [part];
      return { ways, stems: ways.map(stemsOf), together: i % 2 === 1 && part.startsWith('=') };
    })
    .filter(({ ways: [first] }, i) => i % 2 === 1 || first !== '');

/** Parts that are chosen for themselves: of those that go together the first. */
const chosen = (parts: readonly Part[]): readonly Part[] =>
  parts.filter((part, i) => !part.together || parts.findIndex(({ together }) => together) === i);

function statementOf(id: number, page: string, text: string, heading: string, line: string): Statement {
  const parts = line === '-' ? [] : partsOf(line);
  const all = (from: readonly Part[]) => new Set(from.flatMap(({ stems }) => stems.flat()));
  return {
    id,
    page,
    text: text.replace(SOUNDS, ' ').replace(/\s+/g, ' ').replace(/ ,/g, ',').trim(),
    words: bareWords(text),
    heading,
    parts,
    ways: parts.length === 0 ? 0 : chosen(parts).reduce((product, { ways }) => product * ways.length, 1),
    always: all(parts.filter(({ ways }) => ways.length === 1)),
    ever: all(parts),
  };
}

interface Known {
  statements: Statement[];
  byBeginning: Map<string, Statement[]>;
  byWords: Map<string, Statement>;
  byStem: Map<string, Statement[]>;
}

let known: Known | null = null;

/** All statements there are phrasings for. */
export function statements(): readonly Statement[] {
  return read().statements;
}

function read(): Known {
  if (known) return known;
  const own = phrased();
  const all: Statement[] = [];
  for (const { title, language, paragraphs } of material()) {
    const said = own.get(title);
    if (!said) continue;
    for (const [i, paragraph] of paragraphs.entries()) {
      const texts = sentencesOf(paragraph.replace(/\[[^\]]*\]/g, ' ').trim(), language);
      const { heading = '', lines = [] } = said[i] ?? {};
      if (texts.length !== lines.length)
        throw new Error(`‘${title}’, paragraph ${i + 1}: ${texts.length} sentences, ${lines.length} phrasings`);
      for (const [n, text] of texts.entries()) all.push(statementOf(all.length, title, text, heading, lines[n]!));
    }
  }
  const byBeginning = new Map<string, Statement[]>();
  for (const statement of all) {
    const begins = beginning(statement.words, 0);
    byBeginning.set(begins, [...(byBeginning.get(begins) ?? []), statement]);
  }
  for (const same of byBeginning.values()) same.sort((a, b) => b.words.length - a.words.length);
  const byStem = new Map<string, Statement[]>();
  for (const statement of all)
    if (statement.ways > 0)
      for (const stem of statement.ever) byStem.set(stem, [...(byStem.get(stem) ?? []), statement]);
  const byWords = new Map(all.map((statement) => [statement.words.join(' '), statement]));
  known = { statements: all, byBeginning, byWords, byStem };
  return known;
}

const beginning = (words: readonly string[], at: number) => `${words[at]} ${words[at + 1] ?? ''}`;

/** Words from which on a statement is told by them alone; a shorter one may be part of another sentence. */
const LONG = 6;

/** Whether what stands from here to there is a sentence by itself. */
const isWhole = (text: string, from: number, to: number): boolean =>
  /(?:^|[.!?…]["”“’)]?\s*)$/.test(text.slice(Math.max(0, from - 6), from)) && /^\s*(?:[.!?…]|$)/.test(text.slice(to));

/** A text as it is read: statements that are known and, between them, what is not. */
export function recognised(text: string): (Statement | string)[] {
  const { byBeginning, byWords } = read();
  const clean = text.replace(SOUNDS, (sound) => ' '.repeat(sound.length));
  const words = [...clean.matchAll(/[\p{L}\p{N}]+(?:[.,’'][\p{L}\p{N}]+)*/gu)].map((match) => ({
    word: match[0].toLowerCase(),
    from: match.index,
    to: match.index + match[0].length,
  }));
  const bare = words.map(({ word }) => word);
  const out: (Statement | string)[] = [];
  /** What stands between two that are known; it may be a short one, run into the next where nothing parts sentences. */
  const keep = (between: string) => {
    if (/[\p{L}\p{N}]/u.test(between)) out.push(byWords.get(bareWords(between).join(' ')) ?? between);
  };
  let open = 0;
  for (let at = 0; at < words.length; ) {
    const found = byBeginning
      .get(beginning(bare, at))
      ?.find(
        (statement) =>
          statement.words.every((word, i) => word === bare[at + i]) &&
          (statement.words.length >= LONG ||
            isWhole(text, words[at]!.from, words[at + statement.words.length - 1]!.to)),
      );
    if (!found) {
      at++;
      continue;
    }
    keep(text.slice(open, words[at]!.from).trim());
    out.push(found);
    at += found.words.length;
    // Marks that end it belong to it.
    open = words[at - 1]!.to + (/^[^\p{L}\p{N}\s(„“"]+/u.exec(text.slice(words[at - 1]!.to))?.[0].length ?? 0);
  }
  keep(text.slice(open).trim());
  return out;
}

/** Whether a sentence may be one way of saying a statement: nothing else in it, and every part of it there in some way. */
function isWayOf(sentence: ReadonlySet<string>, { parts, ever }: Statement): boolean {
  return (
    [...sentence].every((stem) => ever.has(stem)) &&
    parts.every(({ stems }) => stems.some((way) => way.every((stem) => sentence.has(stem))))
  );
}

/** The statement a sentence is one way of saying; null when it is none. */
function saidBy(sentence: ReadonlySet<string>): Statement | null {
  const { byStem } = read();
  const [rarest] = [...sentence].map((stem) => byStem.get(stem) ?? []).sort((a, b) => a.length - b.length);
  // Of several that fit, the one that says the most.
  return (
    (rarest ?? [])
      .filter((statement) => isWayOf(sentence, statement))
      .sort((a, b) => b.always.size - a.always.size || a.ever.size - b.ever.size)[0] ?? null
  );
}

/** What a written sentence says, where that is known: one statement, or those it joins. */
export function understood(sentence: string): Statement[] {
  const whole = saidBy(new Set(stemsOf(sentence)));
  if (whole) return [whole];
  const parts = sentence.split(/; |, and |: /);
  return parts.length < 2 ? [] : parts.flatMap((part) => saidBy(new Set(stemsOf(part))) ?? []);
}

/** A step that visits every way before it comes to one again. */
function stepOver(ways: number): number {
  const common = (a: number, b: number): number => (b === 0 ? a : common(b, a % b));
  let step = Math.max(1, Math.round(ways * 0.618));
  while (common(step, ways) !== 1) step++;
  return step;
}

/** A statement said in its n-th way; neighbours in number are unlike. */
export function sayIn(statement: Statement, n: number): string {
  let way = ((n % statement.ways) * stepOver(statement.ways)) % statement.ways;
  let together: number | null = null;
  let out = '';
  for (const { ways, together: hangs } of statement.parts) {
    const settled: number | null = hangs ? together : null;
    const at: number = settled ?? way % ways.length;
    if (settled === null) way = Math.floor(way / ways.length);
    if (hangs) together = at;
    out += ways[at];
  }
  const text = out
    .replace(/ {2,}/g, ' ')
    .replace(/ ([,.;:!?])/g, '$1')
    .replace(/,([.;:!?])/g, '$1')
    .trim();
  return text.charAt(0).toUpperCase() + text.slice(1);
}

function holds(statement: Statement, way: number, wanted: ReadonlySet<string>): boolean {
  return stemsOf(sayIn(statement, way)).some((stem) => wanted.has(stem));
}

/** Requests whose choice of words is kept, for each statement. */
const KEPT = 64;

interface Said {
  /** The next way that was not taken, unless it was taken out of turn. */
  next: number;
  /** Ways taken since all of them were free. */
  taken: Set<number>;
  /** The way by request. */
  by: Map<string, number>;
}

/** Ways looked through for one that holds a wanted word. */
const MOST_TRIED = 48;

/**
 * Remembers in which way each statement was said last, so that two articles do not hold one sentence. The same request is
 * answered the same way again.
 */
export class SentenceMemory {
  private readonly said = new Map<number, Said>();

  /**
   * @param request what tells one request from another
   * @param wanted stems of which one should be there, where a way of saying it has one
   */
  say(statement: Statement, request: string, wanted: ReadonlySet<string>): string {
    const said = this.said.get(statement.id) ?? {
      next: 0,
      taken: new Set<number>(),
      by: new Map<string, number>(),
    };
    this.said.set(statement.id, said);
    const before = said.by.get(request);
    if (before !== undefined) return sayIn(statement, before);
    const way = free(statement, said, wanted);
    said.taken.add(way);
    said.by.set(request, way);
    const oldest = said.by.keys().next().value;
    if (said.by.size > KEPT && oldest !== undefined) said.by.delete(oldest);
    return sayIn(statement, way);
  }
}

/** A way not taken yet, with a wanted word where one has it; when all are taken they are free again. */
function free(statement: Statement, said: Said, wanted: ReadonlySet<string>): number {
  if (said.taken.size >= statement.ways) said.taken.clear();
  while (said.taken.has(said.next)) said.next = (said.next + 1) % statement.ways;
  const first = said.next;
  if (![...wanted].some((stem) => statement.ever.has(stem))) return first;
  for (let i = 0; i < Math.min(MOST_TRIED, statement.ways); i++) {
    const way = (first + i) % statement.ways;
    if (!said.taken.has(way) && holds(statement, way, wanted)) return way;
  }
  return first;
}
