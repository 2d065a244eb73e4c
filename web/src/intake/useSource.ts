import { Looked, type SourceSettings, SourceWhole } from '@grivo/contract';
import { useMutation } from '@tanstack/react-query';
import { call } from '../api/call.ts';
import { queryClient } from '../api/queries.ts';

/** Changes how a source is looked at, from the rev that was seen. */
export function useChange(source: SourceWhole) {
  return useMutation({
    mutationFn: (settings: SourceSettings) =>
      call('PUT', `/sources/${source.id}`, { body: { settings }, rev: source.rev, answer: SourceWhole }),
    onSuccess: (changed) => queryClient.setQueryData(['source', source.id], changed),
    onError: () => void queryClient.invalidateQueries({ queryKey: ['source', source.id] }),
  });
}

/** One look at a source, now. */
export function useLook(source: string) {
  return useMutation({
    mutationFn: () => call('POST', `/sources/${source}/look`, { answer: Looked }),
    onSettled: () => {
      for (const key of ['source', 'sources', 'items', 'looks', 'sheet'])
        void queryClient.invalidateQueries({ queryKey: [key] });
    },
  });
}
