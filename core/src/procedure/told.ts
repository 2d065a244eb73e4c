import type { ProcedureDocument } from './document.ts';
import { readProcedure } from './document.ts';
import { linesOf } from './edit.ts';
import type { Step } from './registry.ts';
import { type Names, sentenceText } from './sentence.ts';

/** A line of a procedure told in full. */
export interface ToldLine {
  /** The number of the step, from 1; of a line about the whole procedure, null. */
  step: number | null;
  says: string;
}

/** Said by the sentence in other words, or no words of a person. */
const NOT_OWN: ReadonlySet<string> = new Set([
  'id',
  'kind',
  'service',
  'style',
  'sources',
  'blog',
  'steps',
  'holds',
  'otherwise',
]);
const even = (text: string): string => text.replace(/\s+/g, ' ').trim();

/**
 * Everything of a procedure in lines: each step's sentence with the block it stands under, then the words of its own that
 * a sentence only begins or leaves out. Two procedures that differ in anything a person typed differ in a line.
 */
export function toldProcedure(document: ProcedureDocument, names: Names): ToldLine[] {
  const sentences = new Map(
    readProcedure(document, names).map(({ step, sentence }) => [step.id, sentenceText(sentence)]),
  );
  const out: ToldLine[] = [{ step: null, says: `Language: ${document.language}` }];
  for (const { name, asks, otherwise } of document.inputs ?? [])
    out.push({ step: null, says: `Asked for: ${name}, ‘${asks}’${otherwise === null ? '' : `, else ‘${otherwise}’`}` });
  if (document.outputs?.length) out.push({ step: null, says: `Gives back: ${document.outputs.join(', ')}` });
  const number = new Map<string, number>();
  let n = 0;
  for (const { step, place, under } of linesOf(document)) {
    if (step === null) continue;
    number.set(step.id, ++n);
    const sentence = sentences.get(step.id) ?? step.kind;
    const inside = place.inside === null ? '' : `within step ${number.get(place.inside)}${under ? `, ${under}` : ''}: `;
    out.push({ step: n, says: `${inside}${sentence}${step.off ? ' (off)' : ''}` });
    for (const [word, text] of ownWords(step, sentence)) out.push({ step: n, says: `${word}: ${text}` });
  }
  return out;
}

/** Words a person typed that the sentence does not show whole. */
function* ownWords(step: Step, sentence: string): Generator<[string, string]> {
  const shown = even(sentence);
  for (const [word, value] of Object.entries(step) as [string, unknown][]) {
    if (NOT_OWN.has(word)) continue;
    const texts = typeof value === 'string' ? [value] : Array.isArray(value) ? value : [];
    for (const text of texts)
      if (typeof text === 'string' && text.trim() !== '' && !shown.includes(even(text))) yield [word, even(text)];
  }
}
