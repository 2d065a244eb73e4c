import { type BriefWhole, Estimate, Made, Offered, type OfferedUnit, type PipelineWhole } from '@grivo/contract';
import { beginning, linesOf, type ProcedureDocument, stepIdOf, textOf } from '@grivo/core';
import { keepPreviousData, useMutation, useQueries, useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { useSearchParams } from 'react-router';
import { call } from '../api/call.ts';
import { queryClient, read } from '../api/queries.ts';
import { useSettled } from '../design/useSettled.ts';

/** Trials beside each other: as many as can still be read. */
export const MOST_TRIALS = 3;

/** How far a trial goes, and from which step it is made anew. */
interface Range {
  until: string | null;
  from?: string;
}

/** What a trial is made on: what a run would take, or a subject typed in. */
export interface TrialSubject {
  subject: string;
  units: string[][];
  standing?: OfferedUnit['standing'];
}

/** Subjects are the same that are made of the same items, or are typed alike. */
export const sameSubject = (a: TrialSubject, b: TrialSubject) =>
  a.units.length + b.units.length === 0 ? a.subject === b.subject : keyOf(a.units.flat()) === keyOf(b.units.flat());

const keyOf = (items: readonly string[]) => [...items].sort().join();

/** What a run by the draft would take next, to choose from. */
function useOffered(pipeline: string, document: ProcedureDocument): Offered | null {
  const [take] = document.steps;
  const asked = useSettled(take, 300);
  const found = useQuery({
    queryKey: ['items', 'offered', pipeline, asked],
    queryFn: () => call('POST', `/pipelines/${pipeline}/offered`, { body: { document }, answer: Offered }),
    enabled: take?.kind === 'take' && take.sources.length > 0,
    placeholderData: keepPreviousData,
  });
  if (take?.kind !== 'take' || take.sources.length === 0) return NOTHING;
  return found.data ? { ...found.data, offered: [...found.data.offered].sort(newFirst) } : null;
}

const NOTHING: Offered = { offered: [], examples: {} };
const ORDER = { new: 0, taken: 1, 'left out': 2 };
const newFirst = (a: OfferedUnit, b: OfferedUnit) => ORDER[a.standing] - ORDER[b.standing];

/** Trials of a draft, one a subject; those already made go on and keep what stands above a change. */
export function useTrials(pipeline: PipelineWhole, document: ProcedureDocument) {
  const [ids, keepIds] = useKeptTrials(pipeline.id);
  const asked = useQueries({ queries: ids.map((id) => ({ ...read.brief(id), retry: false })) });
  const made = asked.flatMap(({ data }) => (data ? [data] : []));
  const would = useOffered(pipeline.id, document);
  const offered = would?.offered ?? [];
  const [chosen, choose] = useState<TrialSubject[] | null>(null);
  // A trial that was made before this page was opened says itself what it was made on.
  const before = made.map(({ subject, items }) => ({ subject, units: items.length > 0 ? [items] : [] }));
  const loading = asked.some(({ isPending }) => isPending);
  const subjects = chosen ?? (before.length > 0 || loading ? before : offered.slice(0, 1));
  /** The trial of each subject, in their order; nothing where none was made yet. */
  const trials = subjects.map(
    (subject) =>
      made.find((one) =>
        sameSubject(subject, { subject: one.subject, units: one.items.length > 0 ? [one.items] : [] }),
      ) ?? null,
  );
  const run = useMutation({
    mutationFn: (range: Range) =>
      Promise.all(subjects.map((subject, i) => runOne(pipeline.id, document, subject, trials[i] ?? null, range))),
    onSuccess: async (ids) => {
      keepIds(ids);
      await Promise.all(ids.map((id) => queryClient.invalidateQueries({ queryKey: ['brief', id] })));
    },
  });
  const estimate = useEstimate(pipeline.id, document);
  const running = trials.some((trial) => trial?.standing === 'in work');
  const canRun = subjects.length > 0 && !running && !run.isPending && !loading;
  /** The step after those all trials have done, null when there is none. */
  const next = nextStep(document, trials);
  const { go, waiting } = useAsked(canRun, next, run.mutate);
  return {
    subjects,
    offered,
    /** What fields hold, in the first trial or in what a run would take next. */
    examples: trials[0] ? fieldsOf(trials[0]) : (would?.examples ?? {}),
    choose,
    trials,
    run,
    running,
    canRun,
    next,
    /** Runs a step on or to the end, now or once what runs has ended. */
    go,
    waiting,
    estimate,
  };
}

/** What a brief by the draft costs, once it has come to rest. */
function useEstimate(pipeline: string, document: ProcedureDocument): Estimate | undefined {
  const settled = useSettled(document, 600);
  return useQuery({
    queryKey: ['estimate', pipeline, settled],
    queryFn: () => call('POST', '/procedures/estimate', { body: { document: settled }, answer: Estimate }),
    staleTime: 60_000,
    placeholderData: keepPreviousData,
  }).data;
}

/** Presses that wait for what runs. */
const MOST_ASKED = 10;

/** What was pressed: a key pressed while something runs is done once that has ended, none is lost. */
function useAsked(canRun: boolean, next: string | null, run: (range: Range) => void) {
  const [asking, setAsking] = useState<('a step' | 'to the end')[]>([]);
  useEffect(() => {
    const [how, ...rest] = asking;
    if (how === undefined || !canRun) return;
    setAsking(rest);
    if (how === 'to the end') run({ until: null });
    else if (next !== null) run({ until: next });
  }, [asking, canRun, next, run]);
  return {
    go: (how: 'a step' | 'to the end') => setAsking((before) => [...before, how].slice(-MOST_ASKED)),
    waiting: asking.length,
  };
}

function fieldsOf({ subject, fields, runs }: BriefWhole): Record<string, string> {
  const all = Object.assign({ subject }, fields, ...runs.map(({ gave }) => gave ?? {})) as Record<string, unknown>;
  return Object.fromEntries(
    Object.entries(all).flatMap(([name, value]) => {
      const text = textOf(value).replace(/\s+/g, ' ').trim();
      return text === '' ? [] : [[name, beginning(text, 60)]];
    }),
  );
}

const kept = (pipeline: string) => `grivo trials ${pipeline}`;

/** The trials shown: named in the address, else the last ones of this pipeline in this browser. */
function useKeptTrials(pipeline: string): [string[], (ids: readonly string[]) => void] {
  const [search, setSearch] = useSearchParams();
  const named = search.getAll('trial');
  const put = (ids: readonly string[]) =>
    setSearch(
      (before) => {
        before.delete('trial');
        for (const id of ids) before.append('trial', id);
        return before;
      },
      { replace: true },
    );
  // biome-ignore lint/correctness/useExhaustiveDependencies: once, when a pipeline is opened
  useEffect(() => {
    const last = localStorage.getItem(kept(pipeline));
    if (named.length === 0 && last) put(last.split(' '));
  }, [pipeline]);
  return [
    named,
    (ids) => {
      localStorage.setItem(kept(pipeline), ids.join(' '));
      put(ids);
    },
  ];
}

async function runOne(
  pipeline: string,
  document: ProcedureDocument,
  { subject, units }: TrialSubject,
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
      body: { document, ...(until ? { until } : {}), ...(units.length > 0 ? { units } : { subject }) },
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
