import { type BriefWhole, Estimate, Made, type PipelineWhole } from '@grivo/contract';
import { linesOf, type ProcedureDocument, stepIdOf } from '@grivo/core';
import { keepPreviousData, useMutation, useQueries, useQuery } from '@tanstack/react-query';
import { useSearchParams } from 'react-router';
import { call } from '../api/call.ts';
import { queryClient, read } from '../api/queries.ts';
import { useSettled } from './useSettled.ts';

/** How far a trial goes, and from which step it is made anew. */
interface Range {
  until: string | null;
  from?: string;
}

/** Trials of a draft, one a subject; those already made go on and keep what stands above a change. */
export function useTrials(pipeline: PipelineWhole, document: ProcedureDocument, subjects: readonly string[]) {
  const [search, setSearch] = useSearchParams();
  const ids = search.getAll('trial');
  const made = useQueries({ queries: ids.map((id) => read.brief(id)) }).flatMap(({ data }) => (data ? [data] : []));
  /** The trial of each subject, in their order; nothing where none was made yet. */
  const trials = subjects.map((subject) => made.find((one) => one.subject === subject) ?? null);
  const run = useMutation({
    mutationFn: (range: Range) =>
      Promise.all(subjects.map((subject, i) => runOne(pipeline.id, document, subject, trials[i] ?? null, range))),
    onSuccess: (ids) => {
      setSearch(
        (before) => {
          before.delete('trial');
          for (const id of ids) before.append('trial', id);
          return before;
        },
        { replace: true },
      );
      for (const id of ids) void queryClient.invalidateQueries({ queryKey: ['brief', id] });
    },
  });
  const asked = useSettled(document, 600);
  const estimate = useQuery({
    queryKey: ['estimate', pipeline.id, asked],
    queryFn: () => call('POST', '/procedures/estimate', { body: { document: asked }, answer: Estimate }),
    staleTime: 60_000,
    placeholderData: keepPreviousData,
  }).data;
  const running = trials.some((trial) => trial?.standing === 'in work');
  return {
    trials,
    run,
    running,
    canRun: subjects.length > 0 && !running && !run.isPending,
    /** The step after those all trials have done, null when there is none. */
    next: nextStep(document, trials),
    estimate,
  };
}

async function runOne(
  pipeline: string,
  document: ProcedureDocument,
  subject: string,
  trial: BriefWhole | null,
  { until, from }: Range,
): Promise<string> {
  const body = { document, ...(until ? { until } : {}), ...(from ? { from } : {}) };
  if (trial) {
    await call('PUT', `/trials/${trial.id}`, { body });
    return trial.id;
  }
  return (
    await call('POST', `/pipelines/${pipeline}/trials`, {
      body: { document, ...(until ? { until } : {}), subject },
      answer: Made,
    })
  ).id;
}

function nextStep(document: ProcedureDocument, trials: readonly (BriefWhole | null)[]): string | null {
  const ran = (step: string) =>
    trials.every((trial) => trial?.runs.some((run) => stepIdOf(run.path) === step && run.state === 'done'));
  const steps = linesOf(document).flatMap(({ step }) => (step && step.kind !== 'take' && !step.off ? [step.id] : []));
  const last = steps.findLastIndex(ran);
  return steps[last + 1] ?? null;
}

/** The run that counts at a step: of its latest round. */
export function latestRun(trial: BriefWhole | null, step: string) {
  return (
    trial?.runs
      .filter((run) => stepIdOf(run.path) === step && run.state !== 'cancelled')
      .sort((a, b) => b.round - a.round)[0] ?? null
  );
}
