import { PipelineWhole, Routines } from '@grivo/contract';
import { queryOptions } from '@tanstack/react-query';
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
};
