import { type Article, DoneToArticles, type ManyArticles } from '@grivo/contract';
import { useCallback, useRef, useState } from 'react';
import { call, inWords } from '../../api/call.ts';
import { queryClient } from '../../api/queries.ts';

/** Something done to all that are picked. */
export type Act =
  | { path: 'decide'; body: { decide: 'pass' } | { decide: 'set aside' } | { decide: 'send back'; note: string } }
  | { path: 'many'; body: Each<ManyArticles> };
type Each<A> = A extends unknown ? Omit<A, 'articles'> : never;

export interface Going {
  /** What is done, as it is said while it lasts: 'Passing'. */
  says: string;
  at: number;
  of: number;
}

export interface Ended {
  says: string;
  done: number;
  /** How many were not come to, because it was stopped or an answer did not come. */
  rest: number;
  left: DoneToArticles['left'];
  trouble: string | null;
}

/** A writer takes its time over each. */
const BY_ONE: ReadonlySet<string> = new Set(['put']);

/** So many are asked for in one go: between two it can be stopped, and it is seen how far it is. */
const AT_ONCE = 10;

/** Does one thing to many articles, a few at a time. */
export function useMany() {
  const [going, setGoing] = useState<Going | null>(null);
  const [ended, setEnded] = useState<Ended | null>(null);
  const stopped = useRef(false);
  const busy = useRef(false);
  const start = useCallback(async (says: string, articles: readonly Pick<Article, 'id'>[], act: Act) => {
    if (busy.current || articles.length === 0) return;
    busy.current = true;
    stopped.current = false;
    setEnded(null);
    const out: Ended = { says, done: 0, rest: 0, left: [], trouble: null };
    let at = 0;
    try {
      while (at < articles.length && !stopped.current) {
        setGoing({ says, at, of: articles.length });
        const atOnce = 'do' in act.body && BY_ONE.has(act.body.do) ? 1 : AT_ONCE;
        const some = articles.slice(at, at + atOnce).map(({ id }) => id);
        const { done, left } = await call('POST', `/articles/${act.path}`, {
          body: { articles: some, ...act.body },
          answer: DoneToArticles,
        });
        out.done += done;
        out.left.push(...left);
        at += some.length;
      }
    } catch (error) {
      out.trouble = inWords(error);
    }
    busy.current = false;
    setGoing(null);
    setEnded({ ...out, rest: articles.length - at });
    for (const key of ['articles', 'article', 'briefs', 'brief', 'today', 'slots', 'holds', 'blogs', 'labels'])
      void queryClient.invalidateQueries({ queryKey: [key] });
  }, []);
  return {
    going,
    ended,
    start,
    stop: () => {
      stopped.current = true;
    },
    forget: () => setEnded(null),
  };
}

export type Many = ReturnType<typeof useMany>;
