import { type ArticlesOrder, ArticlesWanted } from '@grivo/contract';
import { useCallback, useMemo } from 'react';
import { useSearchParams } from 'react-router';
import type { z } from 'zod';
import { useLabel } from '../../labels/label.ts';

export type Order = z.infer<typeof ArticlesOrder>;
/** The words of the list's sentence, as they stand in its address. */
export type Word = Exclude<keyof ArticlesWanted, 'label' | 'title'> | 'order';

const WORDS: readonly Word[] = [
  'blog',
  'pipeline',
  'source',
  'language',
  'standing',
  'days',
  'mark',
  'cost',
  'q',
  'order',
];

export interface Wanted {
  /** What each word says; empty where it says nothing. */
  word: (word: Word) => string;
  say: (word: Word, value: string) => void;
  /** The whole of it as it is kept by a name. */
  kept: string;
  /** The same with the label that is chosen for all views, as the list is asked for. */
  asked: string;
  /** What is counted: the order is nothing to it. */
  counted: string;
  narrowed: boolean;
}

/** What of an address the list understands; all else in it is nobody's word. */
export function wordsIn(search: URLSearchParams): URLSearchParams {
  const words = new URLSearchParams();
  for (const word of WORDS) {
    const value = search.get(word)?.trim();
    const well = word === 'order' ? value === 'slot' : ArticlesWanted.safeParse({ [word]: value }).success;
    if (value && well) words.set(word, value);
  }
  return words;
}

/** The list's sentence, kept in its address: it can be gone back to, kept by a name, and sent to somebody. */
export function useWanted(): Wanted {
  const [search, setSearch] = useSearchParams();
  const { label } = useLabel();
  const words = useMemo(() => wordsIn(search), [search]);
  const say = useCallback(
    (word: Word, value: string) =>
      setSearch(
        (before) => {
          const after = new URLSearchParams(before);
          if (value === '') after.delete(word);
          else after.set(word, value);
          return after;
        },
        { replace: true },
      ),
    [setSearch],
  );
  return useMemo(() => {
    const asked = new URLSearchParams(words);
    if (label !== null) asked.set('label', label);
    const counted = new URLSearchParams(asked);
    counted.delete('order');
    asked.set('order', words.get('order') ?? (words.has('q') ? 'fit' : 'slot'));
    return {
      word: (word) => words.get(word) ?? '',
      say,
      kept: String(words),
      asked: String(asked),
      counted: String(counted),
      narrowed: [...words.keys()].some((word) => word !== 'order'),
    };
  }, [words, label, say]);
}
