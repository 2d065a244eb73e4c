/** The sentence of a step: plain words and editable ones, from which a screen can draw the step and its editors. */

export type WordEditor =
  | { type: 'number'; least: number; most: number; unit?: string }
  | { type: 'range'; least: number; most: number; unit?: string }
  | { type: 'choice'; options: { value: string; says: string; does: string }[] }
  | { type: 'list'; of: 'source' | 'part' | 'word' }
  | { type: 'reference'; to: 'blog' | 'source' }
  | { type: 'minutes'; least: number; most: number; none: string }
  | { type: 'text' };

export type SentencePart = { text: string } | { word: string; field: string; editor: WordEditor };

/** Names of what a step refers to by id. */
export interface Names {
  blog: (id: string) => string;
  source: (id: string) => string;
}

/** The sentence as one line of plain text. */
export function sentenceText(parts: readonly SentencePart[]): string {
  return parts.map((part) => ('text' in part ? part.text : part.word)).join('');
}

export function plural(n: number, one: string, many = `${one}s`): string {
  return `${n} ${n === 1 ? one : many}`;
}

/** Minutes as people say them: '5 minutes', '6 hours', '2 days'. */
export function minutesWords(minutes: number): string {
  if (minutes % 1_440 === 0 && minutes > 0) return plural(minutes / 1_440, 'day');
  if (minutes % 60 === 0 && minutes > 0) return plural(minutes / 60, 'hour');
  return plural(minutes, 'minute');
}
