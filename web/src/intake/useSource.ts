import { Looked, type SourceSettings, SourceWhole } from '@grivo/contract';
import { useMutation } from '@tanstack/react-query';
import { call } from '../api/call.ts';
import { changeOfSource, queryClient } from '../api/queries.ts';

/**
 * Changes how a source is looked at. A change shows at once; several made in a row are sent one after the other, each from
 * the rev the one before gave, so that quick typing never meets itself.
 */
export function useChange({ id }: SourceWhole) {
  const key = ['source', id];
  const change = changeOfSource(id);
  const now = () => queryClient.getQueryData<SourceWhole>(key);
  return useMutation({
    mutationKey: change,
    scope: { id: change.join(' ') },
    onMutate: (settings: SourceSettings) =>
      void queryClient.setQueryData<SourceWhole>(key, (source) => source && { ...source, settings }),
    mutationFn: (settings: SourceSettings) => {
      const rev = now()?.rev;
      return call('PUT', `/sources/${id}`, {
        body: { settings },
        ...(rev === undefined ? {} : { rev }),
        answer: SourceWhole,
      });
    },
    onSuccess: (changed) => {
      // What was changed since is on its way, and stays as it shows.
      const later = queryClient.isMutating({ mutationKey: change }) > 1 ? now()?.settings : undefined;
      queryClient.setQueryData(key, later ? { ...changed, settings: later } : changed);
    },
    onError: () => void queryClient.invalidateQueries({ queryKey: key }),
  });
}

/** One look at a source, once every change of it is made. */
export function useLook(source: string) {
  return useMutation({
    scope: { id: changeOfSource(source).join(' ') },
    mutationFn: () => call('POST', `/sources/${source}/look`, { answer: Looked }),
    onSettled: () => {
      for (const key of ['source', 'sources', 'items', 'looks', 'sheet'])
        void queryClient.invalidateQueries({ queryKey: [key] });
    },
  });
}
