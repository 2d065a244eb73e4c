import { type BriefStanding, PipelineWhole, Routines, Sheet } from '@grivo/contract';
import { infiniteQueryOptions, keepPreviousData, queryOptions } from '@tanstack/react-query';
import { call } from '../api/call.ts';

/** Whole procedures, read only where they are shown: their schema brings every kind of step along. */
export const whole = {
  pipeline: (id: string) =>
    queryOptions({
      queryKey: ['pipeline', id],
      queryFn: () => call('GET', `/pipelines/${id}`, { answer: PipelineWhole }),
    }),
  routines: () =>
    queryOptions({ queryKey: ['routines'], queryFn: () => call('GET', '/routines', { answer: Routines }) }),
  /** Briefs against steps, page by page as they are scrolled to. */
  sheet: (pipeline: string, standing: BriefStanding | null, find: string) =>
    infiniteQueryOptions({
      queryKey: ['briefs', pipeline, 'sheet', standing, find],
      queryFn: ({ pageParam, signal }) => {
        const query = new URLSearchParams({ limit: '200' });
        if (pageParam) query.set('before', pageParam);
        if (standing) query.set('standing', standing);
        if (find !== '') query.set('find', find);
        return call('GET', `/pipelines/${pipeline}/sheet?${query}`, { answer: Sheet, signal });
      },
      initialPageParam: '',
      getNextPageParam: (last) => last.more ?? undefined,
      placeholderData: keepPreviousData,
      // Comparing thousands of rows with themselves at every page takes longer than drawing those in sight.
      structuralSharing: false,
    }),
};
