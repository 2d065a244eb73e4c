import { HouseStyleWhole } from '@grivo/contract';
import type { HouseStyleDocument } from '@grivo/core';
import { call, Refused } from '../api/call.ts';
import { queryClient, read } from '../api/queries.ts';
import { useWords } from '../api/useWords.ts';

export type StyleWords = Omit<HouseStyleDocument, 'grivo'>;

export function keepStyle(style: HouseStyleWhole): void {
  queryClient.setQueryData(read.style(style.id).queryKey, style);
  void queryClient.invalidateQueries({ queryKey: ['styles'] });
  void queryClient.invalidateQueries({ queryKey: ['style', style.id, 'versions'] });
}

const isSame = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

/**
 * Puts words of a style, each by itself, on what is there now. What somebody else changed meanwhile stays; where it is the
 * same words, that is said and theirs are shown.
 */
async function put(before: HouseStyleWhole, words: Partial<StyleWords>): Promise<void> {
  const now = queryClient.getQueryData<HouseStyleWhole>(read.style(before.id).queryKey) ?? before;
  const send = (on: HouseStyleWhole) =>
    call('PUT', `/styles/${on.id}`, {
      body: { document: { ...on.document, ...words } },
      rev: on.rev,
      answer: HouseStyleWhole,
    });
  try {
    keepStyle(await send(now));
  } catch (error) {
    if (!(error instanceof Refused) || error.problem.status !== 412) throw error;
    const theirs = HouseStyleWhole.safeParse(error.problem.current).data;
    if (!theirs) throw error;
    keepStyle(theirs);
    const clash = (Object.keys(words) as (keyof StyleWords)[]).some(
      (name) => !isSame(theirs.document[name], now.document[name]) && !isSame(theirs.document[name], words[name]),
    );
    if (clash)
      throw new Refused({
        ...error.problem,
        detail: 'Somebody else changed the same words meanwhile; theirs stand here now.',
        mend: 'Change them again if yours are to stand.',
      });
    keepStyle(await send(theirs));
  }
}

/** The words of a style as they show, and how they are changed. */
export function useStyleWords(style: HouseStyleWhole) {
  return useWords<StyleWords>(style.document, (words) => put(style, words));
}

export type StyleEdit = ReturnType<typeof useStyleWords>;
