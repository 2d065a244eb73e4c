import type { ServiceRole } from './kind.ts';

/** The sentence of a step: plain words and editable ones, from which a screen can draw the step and its editors. */

/** One of the values a word may have. */
export interface Option {
  value: string;
  says: string;
  does: string;
  /** Why it cannot be chosen just now. */
  not?: string;
}

export type WordEditor =
  | { type: 'number'; least: number; most: number; unit?: string }
  | { type: 'range'; least: number; most: number; unit?: string }
  | { type: 'choice'; options: Option[] }
  | { type: 'list'; of: 'source' | 'part' | 'word' | 'pick' | 'column' | 'attachment' }
  | { type: 'reference'; to: 'blog' | 'source' | 'routine' | 'destination' | 'style' }
  /** One of several services of a role. */
  | { type: 'service'; role: ServiceRole }
  /** Texts by names. */
  | { type: 'record' }
  | { type: 'minutes'; least: number; most: number; none: string }
  | { type: 'text' }
  /** A long text with fields, said to the writer. */
  | { type: 'instruction' }
  | { type: 'expression' }
  /** Values of one's own, one a line. */
  | { type: 'values'; most: number }
  /** What a branch depends on. */
  | { type: 'tests' };

export interface SentenceWord {
  word: string;
  field: string;
  editor: WordEditor;
  /** It is off and stands in no sentence: it can be added, and this is what it is called then. */
  add?: true;
}

export type SentencePart = { text: string } | SentenceWord;

/** Names of what a step refers to by id. */
export interface Names {
  blog: (id: string) => string;
  /** What posts on a blog cannot be or carry, by capability, each with the reason; absent where it is not known. */
  blogLacks?: (id: string) => Readonly<Record<string, string>>;
  source: (id: string) => string;
  routine?: (id: string) => string;
  destination?: (id: string) => string;
  service?: (id: string) => string;
  style?: (id: string) => string;
  /** Whether there is a house style to be named. */
  hasStyles?: boolean;
  /** What the cards of all house styles are called. */
  cards?: readonly string[];
  /** Whether there is more than one service of a role, so that one can be chosen. */
  choosable?: (role: ServiceRole) => boolean;
}

/** The sentence as one line of plain text. */
export function sentenceText(parts: readonly SentencePart[]): string {
  return parts.map((part) => ('text' in part ? part.text : part.add ? '' : part.word)).join('');
}

/** A word that stands in the sentence, after the text before it, only where it is on; else it is offered to be added. */
export function optional(
  on: boolean,
  before: string,
  word: SentenceWord,
  add: string,
  after: readonly SentencePart[] = [],
): SentencePart[] {
  return on ? [{ text: before }, word, ...after] : [{ ...word, word: add, add: true }];
}

export function plural(n: number, one: string, many = `${one}s`): string {
  return `${n} ${n === 1 ? one : many}`;
}

/** A list as people say it, shortened after some. */
export function listWords(values: readonly string[], none: string, most = 4): string {
  if (values.length === 0) return none;
  const shown = values.slice(0, most).join(', ');
  return values.length > most ? `${shown} and ${values.length - most} more` : shown;
}

/** The beginning of a long text. */
export function beginning(text: string, most = 60): string {
  const line = text.replace(/\s+/g, ' ').trim();
  return line.length <= most ? line : `${line.slice(0, most - 1).trimEnd()}…`;
}

/** Minutes as people say them after 'every': 'hour', '6 hours', 'day'. */
export function everyWords(minutes: number): string {
  const words = minutesWords(minutes);
  return words.startsWith('1 ') ? words.slice(2) : words;
}

/** Minutes as people say them: '5 minutes', '6 hours', '2 days'. */
export function minutesWords(minutes: number): string {
  if (minutes % 1_440 === 0 && minutes > 0) return plural(minutes / 1_440, 'day');
  if (minutes % 60 === 0 && minutes > 0) return plural(minutes / 60, 'hour');
  return plural(minutes, 'minute');
}
