import { type BriefWhole, Made, type PipelineWhole, PipelineWhole as Whole } from '@grivo/contract';
import { checkProcedure, fieldsSeen, readProcedure, readSteps, sentenceText, stepIdOf } from '@grivo/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import { call, inWords, Refused } from '../api/call.ts';
import { queryClient, read } from '../api/queries.ts';
import { Button, DoneHere, Trouble, Word } from '../design/index.ts';
import { useViewKeys } from '../shell/keys.ts';
import { amount, plural } from '../words/figures.ts';
import { isChanged, useDraft } from './draft.ts';
import { whole } from './read.ts';
import { type Choices, OwnInstruction, StepSentence } from './StepSentence.tsx';
import { TakeItems } from './TakeItems.tsx';
import { TrialResult } from './TrialResult.tsx';

/** Kinds with nothing to be held: they only say what comes next, or hold already. */
const NO_HOLD: ReadonlySet<string> = new Set(['when', 'for each', 'meanwhile', 'use', 'wait', 'hold', 'publish']);

/** The procedure as numbered sentences; beside each, on its own row, what the trial made of it. */
export function Procedure({ pipeline, now }: { pipeline: PipelineWhole; now: number }) {
  const { draft, change, undo, redo, drop, saved } = useDraft();
  const document = draft?.pipeline === pipeline.id ? draft.now : pipeline.document;
  const changed = isChanged(draft);
  const blogs = useQuery(read.blogs()).data?.blogs;
  const sources = useQuery(read.sources()).data?.sources;
  const routines = useQuery(whole.routines()).data?.routines;
  const choices = useMemo((): Choices => {
    const nameIn = (rows: readonly { id: string; name: string }[] | undefined) => (id: string) =>
      rows?.find((row) => row.id === id)?.name ?? '…';
    return {
      blogs: blogs ?? [],
      sources: sources ?? [],
      routines: routines ?? [],
      names: { blog: nameIn(blogs), source: nameIn(sources), routine: nameIn(routines) },
    };
  }, [blogs, sources, routines]);
  const problems = useMemo(
    () =>
      blogs && sources && routines
        ? checkProcedure(document, {
            names: choices.names,
            hasBlog: (id) => blogs.some((blog) => blog.id === id),
            hasSource: (id) => sources.some((source) => source.id === id),
            routine: (id) => {
              const found = routines.find((routine) => routine.id === id)?.document;
              return found ? { inputs: found.inputs ?? [], outputs: found.outputs ?? [] } : null;
            },
          })
        : [],
    [document, choices, blogs, sources, routines],
  );
  const [search, setSearch] = useSearchParams();
  const trialId = search.get('trial');
  const trial = useQuery({ ...read.brief(trialId ?? ''), enabled: trialId !== null }).data;
  const subject = useTrialSubject(document.steps[0], sources);
  const save = useMutation({
    mutationFn: () =>
      call('PUT', `/pipelines/${pipeline.id}`, { body: { document }, rev: draft?.rev ?? pipeline.rev, answer: Whole }),
    onSuccess: (whole) => {
      saved(whole.rev, whole.document);
      queryClient.setQueryData(['pipeline', pipeline.id], whole);
      void queryClient.invalidateQueries({ queryKey: ['versions', pipeline.id] });
    },
  });
  const run = useMutation({
    mutationFn: async ({ until, from }: { until: string | null; from?: string }) => {
      const body = { document, ...(until ? { until } : {}), ...(from ? { from } : {}) };
      if (trial && trial.subject === subject.now) {
        await call('PUT', `/trials/${trial.id}`, { body });
        return trial.id;
      }
      return (
        await call('POST', `/pipelines/${pipeline.id}/trials`, {
          body: { ...body, subject: subject.now },
          answer: Made,
        })
      ).id;
    },
    onSuccess: (id) => {
      setSearch({ trial: id }, { replace: true });
      void queryClient.invalidateQueries({ queryKey: ['brief', id] });
    },
  });
  const running = trial?.standing === 'in work';
  const canRun = subject.now !== '' && !running && !run.isPending;
  const goOn = () => canRun && run.mutate({ until: null });
  useViewKeys({
    r: canRun ? goOn : null,
    s: changed ? () => save.mutate() : null,
    z: undo,
    Z: redo,
  });
  const rows = readSteps(document.steps);
  return (
    <div className="relative -mx-8 grid flex-1 grid-cols-[minmax(0,716fr)_minmax(0,564fr)] content-start border-t border-ink">
      <div aria-hidden className="absolute inset-y-0 right-0 w-[44.0625%] border-l border-rule-strong bg-sheet" />
      <div className="relative flex h-9 items-center gap-2.5 pr-4 pl-8 text-small">
        <h2 className="text-base font-semibold">Procedure</h2>
        <span className="text-ink-3">{rows.length} steps. Marked words can be changed.</span>
        <span className="ml-auto flex items-baseline gap-4">
          {changed ? (
            <>
              <Button look="quiet" onClick={undo} disabled={!draft || draft.past.length === 0} hint="Z">
                Take back
              </Button>
              <Button look="quiet" onClick={drop}>
                Drop changes
              </Button>
              <Button look="word" onClick={() => save.mutate()} busy={save.isPending ? 'Saving' : null} hint="S">
                Save as version {pipeline.version + 1}
              </Button>
            </>
          ) : save.isSuccess ? (
            <DoneHere>Saved as version {pipeline.version}.</DoneHere>
          ) : null}
        </span>
      </div>
      <div className="relative flex h-9 items-center gap-2.5 pr-8 pl-5 text-small whitespace-nowrap">
        <h2 className="text-base font-semibold">Trial on</h2>
        <Word
          label="Trial on"
          editor={(close) => (
            <SubjectEditor value={subject.now} offered={subject.offered} onChoose={subject.choose} close={close} />
          )}
        >
          {subject.now || 'a subject'}
        </Word>
        <span className="fig ml-auto text-ink-3 max-[1100px]:sr-only">
          {trial ? `${amount(trial.micros)} €` : 'publishes nothing'}
        </span>
        <Button
          look={trial ? 'line' : 'solid'}
          hint="R"
          disabled={!canRun}
          busy={running || run.isPending ? 'Running' : null}
          onClick={goOn}
        >
          {trial && trial.subject === subject.now ? 'Run what changed' : 'Run it'}
        </Button>
      </div>
      {save.isError ? (
        <SaveTrouble
          error={save.error}
          onTheirs={drop}
          pipeline={pipeline}
          mine={readProcedure(document, choices.names).map(({ sentence }) => sentenceText(sentence))}
        />
      ) : null}
      {run.isError ? (
        <div className="relative col-start-2 px-5">
          <Trouble>{inWords(run.error)}</Trouble>
        </div>
      ) : null}
      {rows.map(({ step, depth, under }, i) => {
        const own = problems.filter((found) => found.step === step.id);
        return (
          <div key={step.id} className="relative col-span-2 grid grid-cols-[minmax(0,716fr)_minmax(0,564fr)]">
            <div className="group relative ml-8 grid min-h-9 grid-cols-[28px_1fr] border-t border-rule-soft py-1.5 pr-4">
              <span className="fig leading-6 text-ink-3">{i + 1}</span>
              <div
                className={depth > 0 ? 'border-l border-rule pl-3' : ''}
                style={depth > 0 ? { marginLeft: (depth - 1) * 20 + 6 } : undefined}
              >
                {under === 'otherwise' ? <span className="block text-small text-ink-3">otherwise</span> : null}
                <StepSentence
                  step={step}
                  choices={choices}
                  fields={fieldsSeen(document, step.id)}
                  problems={own}
                  onChange={(field, value) => change(step.id, field, value)}
                />
                {own
                  .filter((found) => found.field === undefined || found.grade === 'warning')
                  .map((found) => (
                    <p
                      key={found.sentence}
                      className={`text-small ${found.grade === 'error' ? 'text-red' : 'text-ink-2'}`}
                    >
                      {found.sentence} {found.mend}
                    </p>
                  ))}
              </div>
              {i > 0 ? (
                <span className="absolute right-4 -bottom-3 z-10 flex items-start gap-3 bg-paper pl-2 text-small opacity-0 group-focus-within:opacity-100 group-hover:opacity-100 has-[[data-state=open]]:opacity-100">
                  <Button look="quiet" disabled={!canRun} onClick={() => run.mutate({ until: step.id })}>
                    run to here
                  </Button>
                  {'instruction' in step && step.kind !== 'answer' && step.instruction.trim() === '' ? (
                    <OwnInstruction
                      step={step}
                      own=""
                      fields={fieldsSeen(document, step.id)}
                      onChange={(field, value) => change(step.id, field, value)}
                    />
                  ) : null}
                  {NO_HOLD.has(step.kind) ? null : (
                    <Button look="quiet" onClick={() => change(step.id, 'hold', step.hold ? undefined : true)}>
                      {step.hold ? 'do not hold' : 'hold here'}
                    </Button>
                  )}
                  {depth === 0 && trial?.runs.some((one) => one.path === step.id) ? (
                    <Button look="quiet" disabled={!canRun} onClick={() => run.mutate({ until: null, from: step.id })}>
                      again from here
                    </Button>
                  ) : null}
                </span>
              ) : null}
            </div>
            <div className="mr-8 border-t border-rule-soft pl-5">
              {i === 0 ? (
                <p className="truncate py-2.5 text-small">
                  {trial ? (
                    <b className="font-semibold">{trial.subject}</b>
                  ) : (
                    <span className="text-ink-3">one subject, chosen or typed above</span>
                  )}
                </p>
              ) : (
                <TrialResult run={latest(trial, step.id)} until={trial ? 'not run yet' : ''} />
              )}
            </div>
          </div>
        );
      })}
      <div className="relative col-span-2 grid grid-cols-[minmax(0,716fr)_minmax(0,564fr)]">
        <div className="ml-8 border-t border-rule-soft py-4 pr-4">
          <TakeItems pipeline={pipeline} unsaved={changed} now={now} />
        </div>
        <div className="mr-8 border-t border-rule-soft py-3 pl-5 text-small text-ink-3">
          {trial && trial.standing === 'out'
            ? `The trial is done, ${plural(trial.runs.filter((one) => one.state === 'done').length, 'step')}.`
            : ''}
        </div>
      </div>
    </div>
  );
}

/** The run that counts at a step: of its latest round. */
function latest(trial: BriefWhole | undefined, step: string) {
  return (
    trial?.runs
      .filter((run) => stepIdOf(run.path) === step && run.state !== 'cancelled')
      .sort((a, b) => b.round - a.round)[0] ?? null
  );
}

function useTrialSubject(
  take: PipelineWhole['document']['steps'][number] | undefined,
  sources: Choices['sources'] | undefined,
) {
  const [typed, setTyped] = useState<string | null>(null);
  const source = take?.kind === 'take' ? take.sources.find((id) => sources?.some((one) => one.id === id)) : undefined;
  const items = useQuery({ ...read.items(source ?? ''), enabled: source !== undefined }).data?.items ?? [];
  const offered = items
    .filter((item) => item.taken.length === 0)
    .slice(0, 8)
    .map((item) => item.subject);
  return { now: typed ?? offered[0] ?? '', offered, choose: setTyped };
}

function SubjectEditor({
  value,
  offered,
  onChoose,
  close,
}: {
  value: string;
  offered: string[];
  onChoose: (subject: string) => void;
  close: () => void;
}) {
  const [text, setText] = useState(value);
  return (
    <form
      className="w-72"
      onSubmit={(event) => {
        event.preventDefault();
        if (text.trim() !== '') onChoose(text.trim());
        close();
      }}
    >
      <input
        className="field"
        aria-label="A subject for the trial"
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      <ul className="pt-2">
        {offered.map((subject) => (
          <li key={subject}>
            <button
              type="button"
              className="choice !block truncate"
              onClick={() => {
                onChoose(subject);
                close();
              }}
            >
              {subject}
            </button>
          </li>
        ))}
      </ul>
    </form>
  );
}

/** Somebody else saved first: both are looked at before one is chosen. */
function SaveTrouble({
  error,
  onTheirs,
  pipeline,
  mine,
}: {
  error: unknown;
  onTheirs: () => void;
  pipeline: PipelineWhole;
  mine: readonly string[];
}) {
  const current =
    error instanceof Refused && error.problem.status === 412 ? Whole.safeParse(error.problem.current) : null;
  return (
    <div className="relative col-span-2 px-8 pb-2">
      <Trouble
        actions={
          current?.success ? (
            <>
              <Button
                look="word"
                onClick={() => {
                  onTheirs();
                  queryClient.setQueryData(['pipeline', pipeline.id], current.data);
                }}
              >
                Take theirs
              </Button>{' '}
              or{' '}
              <Button
                look="word"
                onClick={() => {
                  useDraft.setState(({ draft }) =>
                    draft ? { draft: { ...draft, rev: current.data.rev, saved: current.data.document } } : {},
                  );
                  queryClient.setQueryData(['pipeline', pipeline.id], current.data);
                }}
              >
                keep mine and save again
              </Button>
              .
            </>
          ) : null
        }
      >
        {inWords(error)}
      </Trouble>
      {current?.success ? (
        <ul className="pt-1 text-small text-ink-2">
          {current.data.sentences.map((sentence, i) =>
            sentence === mine[i] ? null : (
              <li key={i}>
                Theirs, {i + 1}: {sentence}
              </li>
            ),
          )}
        </ul>
      ) : null}
    </div>
  );
}
