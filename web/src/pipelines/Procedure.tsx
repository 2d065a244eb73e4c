import { type BriefWhole, Made, type PipelineWhole, PipelineWhole as Whole } from '@grivo/contract';
import { checkProcedure, linesOf, readProcedure, sentenceText, stepIdOf } from '@grivo/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { useSearchParams } from 'react-router';
import { call, inWords } from '../api/call.ts';
import { queryClient, read } from '../api/queries.ts';
import { Button, DoneHere, Trouble, Word } from '../design/index.ts';
import { useViewKeys } from '../shell/keys.ts';
import { amount, plural } from '../words/figures.ts';
import { isChanged, useDraft } from './draft.ts';
import { ProcedureLines } from './ProcedureLines.tsx';
import { whole } from './read.ts';
import { SaveTrouble } from './SaveTrouble.tsx';
import type { Choices } from './StepSentence.tsx';
import { TakeItems } from './TakeItems.tsx';
import { TrialResult } from './TrialResult.tsx';
import { SubjectEditor, useTrialSubject } from './TrialSubject.tsx';

/** The procedure as numbered sentences; beside each, on its own row, what the trial made of it. */
export function Procedure({ pipeline, now }: { pipeline: PipelineWhole; now: number }) {
  const { draft, undo, redo, drop, saved } = useDraft();
  const document = draft?.pipeline === pipeline.id ? draft.history.now : pipeline.document;
  const changed = isChanged(draft);
  const { choices, problems, sources } = useChecked(pipeline.id, document);
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
  const steps = linesOf(document).filter(({ step }) => step !== null).length;
  return (
    <div className="relative -mx-8 grid flex-1 grid-cols-[minmax(0,716fr)_minmax(0,564fr)] content-start border-t border-ink">
      <div
        aria-hidden
        data-screen=""
        className="absolute inset-y-0 right-0 w-[44.0625%] border-l border-rule-strong bg-sheet"
      />
      <div data-screen="" className="relative flex h-9 items-center gap-2.5 pr-4 pl-8 text-small whitespace-nowrap">
        <h2 className="text-base font-semibold">Procedure</h2>
        <span className="text-ink-3">{plural(steps, 'step')}.</span>
        <span className="ml-auto flex items-baseline gap-4">
          {changed ? (
            <>
              <Button look="quiet" onClick={undo} disabled={!draft || draft.history.past.length === 0} hint="Z">
                Take back
              </Button>
              {draft && draft.history.future.length > 0 ? (
                <Button look="quiet" onClick={redo} hint="⇧Z">
                  Again
                </Button>
              ) : null}
              <Button look="quiet" onClick={drop}>
                Drop changes
              </Button>
              <Button look="word" onClick={() => save.mutate()} busy={save.isPending ? 'Saving' : null} hint="S">
                Save as version {pipeline.version + 1}
              </Button>
            </>
          ) : save.isSuccess ? (
            <DoneHere>Saved as version {pipeline.version}.</DoneHere>
          ) : (
            <span className="text-ink-3">Marked words can be changed; a number moves its line.</span>
          )}
        </span>
      </div>
      <div data-screen="" className="relative flex h-9 items-center gap-2.5 pr-8 pl-5 text-small whitespace-nowrap">
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
          pipeline={pipeline}
          mine={readProcedure(document, choices.names).map(({ sentence }) => sentenceText(sentence))}
          onChosen={save.reset}
        />
      ) : null}
      {run.isError ? (
        <div className="relative col-start-2 px-5">
          <Trouble>{inWords(run.error)}</Trouble>
        </div>
      ) : null}
      <ProcedureLines
        document={document}
        choices={choices}
        problems={problems}
        tools={(step, first) => (
          <>
            {first ? null : (
              <Button look="quiet" tabIndex={-1} disabled={!canRun} onClick={() => run.mutate({ until: step })}>
                run to here
              </Button>
            )}
            {trial?.runs.some((one) => one.path === step) ? (
              <Button
                look="quiet"
                tabIndex={-1}
                disabled={!canRun}
                onClick={() => run.mutate({ until: null, from: step })}
              >
                again from here
              </Button>
            ) : null}
          </>
        )}
        beside={(step, first) =>
          first ? (
            <p className="truncate py-2.5 text-small">
              {trial ? (
                <b className="font-semibold">{trial.subject}</b>
              ) : (
                <span className="text-ink-3">one subject, chosen or typed above</span>
              )}
            </p>
          ) : (
            <TrialResult run={latest(trial, step)} until={trial ? 'not run yet' : ''} />
          )
        }
      />
      <div data-screen="" className="relative col-span-2 grid grid-cols-[minmax(0,716fr)_minmax(0,564fr)]">
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

/** What the words of a document can refer to, and what the checks find in it as it is now. */
function useChecked(pipeline: string, document: PipelineWhole['document']) {
  const blogs = useQuery(read.blogs()).data?.blogs;
  const sources = useQuery(read.sources()).data?.sources;
  const routines = useQuery(whole.routines()).data?.routines;
  const choices = useMemo((): Choices => {
    const nameIn = (rows: readonly { id: string; name: string }[] | undefined) => (id: string) =>
      rows?.find((row) => row.id === id)?.name ?? '…';
    return {
      pipeline,
      blogs: blogs ?? [],
      sources: sources ?? [],
      routines: routines ?? [],
      names: { blog: nameIn(blogs), source: nameIn(sources), routine: nameIn(routines) },
    };
  }, [pipeline, blogs, sources, routines]);
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
  return { choices, problems, sources };
}
