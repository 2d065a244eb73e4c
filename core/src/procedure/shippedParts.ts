import type { ProcedureDocument } from './document.ts';
import { type Step, type StepOf, stepKinds } from './registry.ts';

/** What a procedure to begin with is made for. */
export interface ShippedFor {
  source: string;
  blog: string;
  /** Two-letter language of the articles. */
  language: string;
  /** Columns of a sheet its articles may be made of; none is all. */
  columns?: readonly string[];
}

/** Kinds of source procedures to begin with are made for. */
export type ShippedFrom =
  | 'keywords'
  | 'sheet'
  | 'videos'
  | 'feed'
  | 'documents'
  | 'catalogue'
  | 'publications'
  | 'recordings'
  | 'hook'
  | 'requests';

export interface Shipped {
  key: string;
  name: string;
  /** What it makes, in a sentence. */
  says: string;
  /** The kind of source that feeds it. */
  from: ShippedFrom;
  make: (given: ShippedFor) => ProcedureDocument;
}

const k = stepKinds;

export function take(source: string, change: Partial<ReturnType<typeof k.take.fresh>> = {}): Step {
  return { ...k.take.fresh('s1'), sources: source === '' ? [] : [source], most: 3, everyMinutes: 1_440, ...change };
}

/** From passages to an article with title, picture and links, all but publishing. */
export function made(blog: string, words = 900): Step[] {
  return [
    k.outline.fresh('s3'),
    { ...k.write.fresh('s4'), words, parts: ['key points', 'lists'] },
    k.title.fresh('s5'),
    k.illustrate.fresh('s6'),
    { ...k.link.fresh('s7'), blog },
  ];
}

/**
 * A check of what is made of rows, films and papers of one's own: that it says what they say in their words is no fault, as
 * it would be of other people's pages.
 */
export const ofOwn = (id: string, words: { from: number; to: number }): StepOf<'check'> => ({
  ...k.check.fresh(id),
  words,
  likeness: null,
  own: null,
  // Two rows, films or editions of one name are two things.
  alone: false,
  otherwise: 'set it aside',
});

/** A check of what is made of other people's pages: in words of its own, or a person looks. */
export const ofOthers: typeof ofOwn = (id, words) => ({ ...k.check.fresh(id), words });

/**
 * A short article of what was read, with its source credited, as far as publishing.
 * @param check what it is checked by, of words from and to
 */
export function short(blog: string, words: number, length = { from: 80, to: 1_500 }, check = ofOwn): Step[] {
  return [
    { ...k.outline.fresh('s3'), sections: { from: 1, to: 4 } },
    { ...k.write.fresh('s4'), words, parts: ['source credit'] },
    k.title.fresh('s5'),
    k.illustrate.fresh('s6'),
    { ...k.link.fresh('s7'), blog },
    check('s8', length),
    { ...k.publish.fresh('s9'), blog },
  ];
}

export const lookUp: Step = { ...k['look up'].fresh('s2'), pages: 6 };
export const lengthChecked = (id: string): Step => ofOthers(id, { from: 300, to: 2_000 });
