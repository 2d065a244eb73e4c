import { type BriefAct, type BriefStanding, DoneToBriefs, type ManyBriefs, type SheetRow } from '@grivo/contract';
import { useMutation } from '@tanstack/react-query';
import { call } from '../api/call.ts';
import { queryClient } from '../api/queries.ts';

/** In the order in which they want somebody. */
export const STANDINGS: BriefStanding[] = ['held', 'stopped', 'in work', 'waiting', 'ready', 'out', 'set aside'];

interface Act {
  act: BriefAct;
  says: string;
  fits: (row: Pick<SheetRow, 'standing' | 'version'>, newest: number) => boolean;
}

const isOpen = (standing: BriefStanding) => standing !== 'out' && standing !== 'set aside';

/** What can be done to many at once. */
export const ACTS: Act[] = [
  { act: 'go on', says: 'Go on', fits: ({ standing }) => standing === 'stopped' },
  { act: 'begin now', says: 'Begin now', fits: ({ standing }) => standing === 'waiting' },
  { act: 'stop', says: 'Stop', fits: ({ standing }) => ['waiting', 'in work', 'ready'].includes(standing) },
  {
    act: 'bring to the newest',
    says: 'Bring to the newest version',
    fits: ({ standing, version }, newest) => isOpen(standing) && standing !== 'waiting' && version < newest,
  },
  { act: 'put ahead', says: 'Put ahead', fits: ({ standing }) => isOpen(standing) },
  { act: 'set aside', says: 'Set aside', fits: ({ standing }) => isOpen(standing) },
  { act: 'bring back', says: 'Bring back', fits: ({ standing }) => standing === 'set aside' },
];

/** What was done, in a sentence that goes on from how many. */
export const DONE: Record<BriefAct, string> = {
  'go on': 'going on',
  'begin now': 'beginning now',
  stop: 'stopped',
  'bring to the newest': 'going on by the newest version',
  'put ahead': 'put ahead of the others',
  'set aside': 'set aside',
  'leave aside': 'left aside',
  'bring back': 'brought back',
};

/** What an act is done to: briefs picked, or all that match. */
export type Chosen = { briefs: string[] } | { matching: NonNullable<ManyBriefs['matching']> };

/** Doing one thing to many briefs; of very many, so many at a time until none is left. */
export function useMany(onDone: () => void) {
  return useMutation({
    mutationFn: async ({ act, on }: { act: BriefAct; on: Chosen }) => {
      const sum = { act, done: 0, left: 0 };
      for (;;) {
        const { done, left, more } = await call('POST', '/briefs/many', {
          body: { do: act, ...on },
          answer: DoneToBriefs,
        });
        sum.done += done;
        sum.left += left;
        if (more === 0 || done === 0) return sum;
      }
    },
    onSuccess: onDone,
    onSettled: () => {
      for (const key of ['briefs', 'brief', 'pipeline', 'pipelines', 'today'])
        void queryClient.invalidateQueries({ queryKey: [key] });
    },
  });
}

export type Many = ReturnType<typeof useMany>;
