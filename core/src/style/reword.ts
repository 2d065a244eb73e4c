import type { Block, Inline } from '../article/block.ts';
import { blockText, withTexts } from '../article/text.ts';
import { textDigest } from '../chance/chance.ts';
import { spelt } from '../keyword/spelling.ts';
import { pluralOf, wordsOfText } from '../sentence/sentence.ts';
import type { HouseStyleDocument, HouseWord } from './document.ts';

/** A word of an article the house says otherwise. */
export interface Reworded {
  block: string;
  from: string;
  to: string;
}

type Words = Pick<HouseStyleDocument, 'words' | 'spelling'>;

const escaped = (text: string): string => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&').replace(/\s+/g, '\\s+');
const evened = (text: string): string => text.toLowerCase().replace(/’/g, "'").replace(/\s+/g, ' ').trim();

interface Instead {
  /** Null where there is nothing to say otherwise. */
  pattern: RegExp | null;
  say: ReadonlyMap<string, string>;
}

/** What is said instead, the longest first; in English the plural too, where a word stands for a word. */
function insteadOf(words: readonly HouseWord[], language: string): Instead {
  const say = new Map<string, string>();
  const put = (from: string, to: string) => {
    if (!say.has(evened(from)) && evened(from) !== evened(to)) say.set(evened(from), to);
  };
  for (const { use, not } of words) for (const from of not) put(from, use);
  if (language.startsWith('en'))
    for (const { use, not } of words)
      for (const from of not)
        if (/\p{L}$/u.test(from) && /^[\p{L}-]+$/u.test(use) && !/s$/i.test(from) && !/s$/i.test(use))
          put(pluralOf(from), pluralOf(use));
  const all = [...say.keys()].sort((a, b) => b.length - a.length || (a < b ? -1 : 1));
  if (all.length === 0) return { pattern: null, say };
  const one = (text: string) => escaped(text).replace(/'/g, "['’]");
  return { pattern: new RegExp(`(?<![\\p{L}\\p{N}])(?:${all.map(one).join('|')})(?![\\p{L}\\p{N}])`, 'giu'), say };
}

/** A word in the case of the one it stands for. */
export function asCased(to: string, from: string): string {
  const letters = from.replace(/\P{L}/gu, '');
  if (letters.length > 1 && letters === letters.toUpperCase() && letters !== letters.toLowerCase())
    return to.toUpperCase();
  const [first = ''] = letters;
  return first !== first.toLowerCase() ? to.slice(0, 1).toUpperCase() + to.slice(1) : to;
}

function reworder(
  { words, spelling }: Words,
  language: string,
): (text: string, said: (from: string, to: string) => void) => string {
  const { pattern, say } = insteadOf(words, language);
  return (text, said) => {
    // What one word was made into is not made into another.
    const instead = pattern
      ? text.replace(pattern, (from: string) => {
          const to = asCased(say.get(evened(from))!, from);
          said(from, to);
          return to;
        })
      : text;
    if (!spelling || !language.startsWith('en')) return instead;
    const respelt = spelt(instead, spelling);
    if (respelt !== instead) {
      const [before, after] = [instead.split(/\s+/), respelt.split(/\s+/)];
      for (const [i, word] of before.entries()) if (word !== after[i]) said(bare(word), bare(after[i] ?? ''));
    }
    return respelt;
  };
}

const bare = (word: string): string => wordsOfText(word)[0] ?? word;

/** A title, a description or another text in the words of the house. */
export function rewordedText(text: string, style: Words, language: string): string {
  return reworder(style, language)(text, () => {});
}

/**
 * An article's blocks in the words of the house. Quotations, code and credits stay as they are; what a block rests on it
 * goes on resting on, since nothing else is said.
 */
export function reworded(body: readonly Block[], style: Words, language: string): { body: Block[]; notes: Reworded[] } {
  const notes: Reworded[] = [];
  const change = reworder(style, language);
  const out = body.map((block): Block => {
    if (block.type === 'quote' || block.type === "owner's markup") return block;
    const said = (from: string, to: string) => notes.push({ block: block.id, from, to });
    const rich = (content: readonly Inline[]): Inline[] =>
      content.map((part) => (part.marks?.includes('code') ? part : { ...part, text: change(part.text, said) }));
    const plain = (text: string) => change(text, said);
    return restingStill(block, withTexts(block, { rich, plain, aside: plain }));
  });
  return { body: out, notes };
}

/** A block that says the same in other words: what it rested on it goes on resting on. */
export function restingStill(block: Block, next: Block): Block {
  if (!block.evidence || blockText(next) === blockText(block)) return next;
  const [before, after] = [digestOf(block), digestOf(next)];
  return {
    ...next,
    evidence: block.evidence.map((one) => (one.digest === before ? { ...one, digest: after } : one)),
  };
}

const digestOf = (block: Block): string => textDigest(blockText(block));

/** Where words stand in texts that the house does not say, with what it says instead; null where it says nothing. */
export interface UnwantedWord {
  block: string | null;
  words: string;
  instead: string | null;
}

/** Words of an article the house avoids: those that have another word for them, and those it never says. */
export function unwantedIn(
  { title, body, language }: { title: string; body: readonly Block[]; language: string },
  style: Words & Pick<HouseStyleDocument, 'never'>,
): UnwantedWord[] {
  const out: UnwantedWord[] = [];
  const change = reworder(style, language);
  const never =
    style.never.length === 0
      ? null
      : new RegExp(
          `(?<![\\p{L}\\p{N}])(?:${[...style.never]
            .sort((a, b) => b.length - a.length)
            .map(escaped)
            .join('|')})(?![\\p{L}\\p{N}])`,
          'giu',
        );
  const look = (block: string | null, text: string) => {
    change(text, (words, instead) => out.push({ block, words, instead }));
    for (const [words] of never ? text.matchAll(never) : []) out.push({ block, words, instead: null });
  };
  look(null, title);
  for (const block of body) if (block.type !== 'quote') look(block.id, blockText(block));
  return out;
}
