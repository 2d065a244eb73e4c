import { aspectsOf } from '../keyword/aspects.ts';
import { type Folded, foldedText } from '../keyword/saying.ts';
import { contentStems } from '../sentence/sentence.ts';
import type { PageText } from './passage.ts';

/** What of a page is held against a subject. */
export type HeldPage = Pick<PageText, 'title' | 'language' | 'paragraphs'>;

/** Languages that write compound words as one: a part of a word counts there. */
const COMPOUNDS: ReadonlySet<string> = new Set(['de', 'nl', 'da', 'sv', 'nb', 'no', 'fi']);
/** Letters from which on a part of a compound is a word of its own. */
const PART = 5;
/** Letters from which on the end of a compound is a word. */
const END = 4;
/** Letters before a word from which on it is the end of a compound. */
const PREFIX = 3;

/** A paragraph under the title of its page. */
export interface Part {
  stems: ReadonlySet<string>;
  /** What is answered in it, by the words people ask with. */
  aspects: () => ReadonlySet<string>;
  /** What the title of its page asks. */
  asked: () => ReadonlySet<string>;
  /** The paragraph, as answers are looked for in it. */
  folded: () => Folded;
}

export function partsOf({ title, paragraphs, language }: HeldPage): Part[] {
  const above = contentStems(title, language);
  const asked = once(() => new Set(aspectsOf(title, language).aspects));
  return (paragraphs.length > 0 ? paragraphs : ['']).slice(0, MOST_PARTS).map((paragraph) => {
    const text = paragraph.slice(0, LONGEST_PART);
    return {
      stems: new Set([...above, ...contentStems(text, language)]),
      aspects: once(() => new Set(aspectsOf(`${title}\n${text}`, language).aspects)),
      asked,
      folded: once(() => foldedText(text)),
    };
  });
}

const MOST_PARTS = 2_000;
const LONGEST_PART = 5_000;

function once<T>(work: () => T): () => T {
  let done: { value: T } | null = null;
  return () => {
    done ??= { value: work() };
    return done.value;
  };
}

/** A stem without what forms of a word add to it, where three letters are left: more is cut off than a stemmer would. */
function rootOf(stem: string, language: string): string {
  const roots = ROOTS.get(language) ?? new Map<string, string>();
  if (!ROOTS.has(language)) ROOTS.set(language, roots);
  const known = roots.get(stem);
  if (known !== undefined) return known;
  const bare = language === 'de' ? stem.replace(/^ge(?=.{4})/, '') : stem;
  const cut = bare.replace(language === 'de' ? /(?:es|ten?|est|et|st|en|e|n|s|t)$/ : /(?:ing|ed|er|es|s|e|d)$/, '');
  const root = cut.length >= 3 ? cut : bare;
  if (roots.size < MOST_ROOTS) roots.set(stem, root);
  return root;
}

const ROOTS = new Map<string, Map<string, string>>();
const MOST_ROOTS = 20_000;

/** Whether a word is among stems, in any of its forms, or as a part of a compound. */
export function holds(stems: ReadonlySet<string>, word: string, language: string): boolean {
  if (stems.has(word)) return true;
  const compounds = COMPOUNDS.has(language);
  const root = rootOf(word, language);
  for (const stem of stems) {
    if (rootOf(stem, language) === root) return true;
    if (compounds && stem.length >= END && word.endsWith(stem)) return true;
    if (word.length < PART) continue;
    // 'sauerkraut' is kraut, 'across' is no cross.
    if (stem.length >= word.length + PREFIX && stem.endsWith(word)) return true;
    if (compounds && stem.length >= PART && (stem.includes(word) || word.startsWith(stem))) return true;
  }
  return false;
}
