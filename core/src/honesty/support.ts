import type { Statements } from './clause.ts';
import { doubtsOf, readSources, type Sources } from './honesty.ts';
import type { Token } from './token.ts';

/** How far a text rests on what it names. */
export type Support = 'rests' | 'in part' | 'nothing';

/** Shares of the weight of a text's words from which it rests on its sources, and in part. */
const RESTS = 0.6;
const IN_PART = 0.3;
/** What figures and names weigh beside other words: they are what a source is read for. */
const TELLING = 2;

/**
 * How far a text rests on its sources: the share of its words they have, a word weighing less the more of the sources
 * have it and a figure or a name twice as much. Where something in it is doubted it rests on them in part at best.
 */
export function supportOf(text: string, sources: Sources, language = 'en'): { support: Support; share: number } {
  const [own] = readSources([text], language);
  const words = own!.tokens.filter(({ content, kind }) => content || kind === 'number');
  if (words.length === 0 || sources.length === 0) return { support: 'nothing', share: 0 };
  const held = sources.map(stemsOf);
  let whole = 0;
  let found = 0;
  for (const word of words) {
    const having = held.filter((stems) => stems.has(keyOf(word))).length;
    const weight = (telling(word) ? TELLING : 1) * (1 + Math.log((sources.length + 1) / (having + 1)));
    whole += weight;
    if (having > 0) found += weight;
  }
  const share = found / whole;
  const doubted = share >= RESTS && doubtsOf(text, sources, language).length > 0;
  return { support: share >= RESTS && !doubted ? 'rests' : share >= IN_PART ? 'in part' : 'nothing', share };
}

const keyOf = ({ kind, text, stem }: Token) => (kind === 'number' ? text : stem);
const telling = ({ kind, capital }: Token) => kind === 'number' || capital;

const read = new WeakMap<Statements, ReadonlySet<string>>();

function stemsOf(source: Statements): ReadonlySet<string> {
  let stems = read.get(source);
  if (!stems) {
    stems = new Set(source.tokens.map(keyOf));
    read.set(source, stems);
  }
  return stems;
}
