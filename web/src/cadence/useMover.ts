import { useMutation } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { call, inWords, Refused } from '../api/call.ts';
import { queryClient } from '../api/queries.ts';
import { useViewKeys } from '../shell/keys.ts';

export const DAY = 86_400_000;
/** Days the chart shows. */
export const DAYS = 28;

interface Move {
  article: string;
  blog: string;
  at: number;
  from: number;
  force?: boolean;
}

export type Mover = ReturnType<typeof useMover>;

/** Moving articles, with the way back and what breaks a rule said at the article. */
export function useMover() {
  const last = useRef<Move | null>(null);
  const [refused, setRefused] = useState<{ move: Move; says: string; rule: boolean } | null>(null);
  const move = useMutation({
    mutationFn: ({ article, blog, at, force = false }: Move) =>
      call('PUT', `/articles/${article}/slot`, { body: { blog, at, force } }),
    onSuccess: (_done, made) => {
      last.current = made;
      setRefused(null);
      for (const key of ['slots', 'articles', 'today']) void queryClient.invalidateQueries({ queryKey: [key] });
    },
    onError: (error, made) =>
      setRefused({ move: made, says: inWords(error), rule: error instanceof Refused && error.problem.status === 422 }),
  });
  const back = () => {
    const made = last.current;
    if (made) move.mutate({ ...made, at: made.from, from: made.at, force: true });
  };
  useViewKeys({ z: last.current ? back : null });
  return { move: (made: Move) => move.mutate(made), refused, dismiss: () => setRefused(null), moving: move.isPending };
}
