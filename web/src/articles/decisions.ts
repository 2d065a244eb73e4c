import type { Hold } from '@grivo/contract';
import { create } from 'zustand';
import { call, inWords } from '../api/call.ts';
import { queryClient } from '../api/queries.ts';
import { flushUnsaved } from '../proof/saver.ts';

/** A word on an article that was not taken. */
export interface NotTaken {
  id: string;
  title: string;
  why: string;
}

interface Decisions {
  /** Articles a word on which is on its way. */
  going: readonly string[];
  notTaken: readonly NotTaken[];
}

/** Words that were said of articles somebody has gone on from. */
export const useDecisions = create<Decisions>(() => ({ going: [], notTaken: [] }));

const without = (id: string) => (one: string | NotTaken) => (typeof one === 'string' ? one : one.id) !== id;

/** It was seen, or is decided anew. */
export const seen = (id: string): void =>
  useDecisions.setState(({ notTaken }) => ({ notTaken: notTaken.filter(without(id)) }));

/** What was typed has not reached the server: nothing is decided over it. */
class NotKept extends Error {
  constructor() {
    super('What you typed is not kept on the server yet, so nothing was decided. Try again in a moment.');
  }
}

/** Why a word was not taken. */
export const whyNot = (error: unknown): string => (error instanceof NotKept ? error.message : inWords(error));

/** Says a word on an article. @throws what refused it */
export async function decide(article: { id: string }, hold: Hold, body: object): Promise<void> {
  // What is typed and not kept yet would go out without being in it.
  if (!(await flushUnsaved(article.id))) throw new NotKept();
  await call('POST', `/briefs/${hold.brief}/holds/${hold.run}`, { body });
  seen(article.id);
  for (const key of [['article', article.id], ['articles'], ['brief', hold.brief], ['briefs'], ['today']])
    void queryClient.invalidateQueries({ queryKey: key });
}

/** The same behind somebody's back, who goes on to the next at once; where it is not taken, that is said on every page of articles. */
export function decideBehind(article: { id: string; title: string }, hold: Hold, body: object): void {
  const { id, title } = article;
  // A key pressed twice before the next article is drawn is one word.
  if (useDecisions.getState().going.includes(id)) return;
  useDecisions.setState(({ going }) => ({ going: [...going, id] }));
  void decide(article, hold, body)
    .catch((error: unknown) =>
      useDecisions.setState(({ notTaken }) => ({
        notTaken: [...notTaken.filter(without(id)), { id, title, why: whyNot(error) }],
      })),
    )
    .finally(() => useDecisions.setState(({ going }) => ({ going: going.filter(without(id)) })));
}
