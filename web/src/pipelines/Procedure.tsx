import { DoneToBriefs, type Estimate, type PipelineWhole, PipelineWhole as Whole } from '@grivo/contract';
import { linesOf } from '@grivo/core';
import { useMutation } from '@tanstack/react-query';
import { call, inWords } from '../api/call.ts';
import { queryClient } from '../api/queries.ts';
import { Button, DoneHere, Trouble, Word } from '../design/index.ts';
import { useViewKeys } from '../shell/keys.ts';
import { useWidth } from '../shell/useWidth.ts';
import { amount, count, plural } from '../words/figures.ts';
import { BesideLines } from './BesideLines.tsx';
import { useChecked } from './checked.ts';
import { DraftActions } from './DraftActions.tsx';
import { isChanged, useDraft } from './draft.ts';
import { FieldExamples, FillingTrial } from './FilledFor.tsx';
import { InputsEditor } from './InputsEditor.tsx';
import { ProcedureLines } from './ProcedureLines.tsx';
import { SaveTrouble } from './SaveTrouble.tsx';
import { WrittenBy } from './ServiceChoice.tsx';
import { TakeItems } from './TakeItems.tsx';
import { TrialResult } from './TrialResult.tsx';
import { SubjectEditor } from './TrialSubject.tsx';
import { latestRun, useTrials } from './useTrials.ts';

/** Up to this width what a trial costs stands in a line of its own. */
const NARROW = 1_100;

/** The procedure as numbered sentences; beside each, on its own row, what the trial made of it. */
export function Procedure({ pipeline, now }: { pipeline: PipelineWhole; now: number }) {
  const { draft, edit, undo, redo, saved } = useDraft();
  const document = draft?.pipeline === pipeline.id ? draft.history.now : pipeline.document;
  const changed = isChanged(draft);
  const { choices, context, problems } = useChecked(pipeline.id, document);
  const { subjects, offered, examples, choose, trials, run, running, canRun, next, go, waiting, estimate } = useTrials(
    pipeline,
    document,
  );
  const save = useMutation({
    mutationFn: () =>
      call('PUT', `/pipelines/${pipeline.id}`, { body: { document }, rev: draft?.rev ?? pipeline.rev, answer: Whole }),
    onSuccess: (whole) => {
      saved(whole.rev, whole.document);
      queryClient.setQueryData(['pipeline', pipeline.id], whole);
      void queryClient.invalidateQueries({ queryKey: ['versions', pipeline.id] });
    },
  });
  const one = trials.length === 1 ? trials[0]! : null;
  const begun = trials.some((trial) => trial !== null);
  useViewKeys({
    r: subjects.length > 0 ? () => go('to the end') : null,
    n: subjects.length > 0 ? () => go('a step') : null,
    s: changed ? () => save.mutate() : null,
    z: undo,
    Z: redo,
    'Ctrl+z': undo,
    'Ctrl+Z': redo,
    'Ctrl+y': redo,
  });
  const narrow = useWidth() <= NARROW;
  const cost = begun
    ? `${amount(trials.reduce((sum, trial) => sum + (trial?.micros ?? 0), 0))} €`
    : estimate
      ? expected(estimate, subjects.length)
      : '';
  const steps = linesOf(document).filter(({ step }) => step !== null).length;
  return (
    <BesideLines>
      <div data-screen="" className="relative flex h-9 items-center gap-2.5 pr-4 pl-8 text-small whitespace-nowrap">
        <h2 className="text-base font-semibold">Procedure</h2>
        <span className="text-ink-3">{plural(steps, 'step')}.</span>
        <span className="ml-auto flex items-baseline gap-4">
          <DraftActions version={pipeline.version} save={save} onSave={() => save.mutate()} />
        </span>
      </div>
      <div
        data-screen=""
        className={`relative flex h-9 items-center gap-2.5 pr-8 pl-5 text-small whitespace-nowrap ${begun ? '[&_.word>span]:max-w-[112px] max-[1100px]:[&_.word>span]:max-w-[64px]' : ''}`}
      >
        <h2 className="text-base font-semibold">Trial on</h2>
        <Word
          label="Trial on"
          editor={(close) => <SubjectEditor value={subjects} offered={offered} onChoose={choose} close={close} />}
        >
          {subjects.length > 1 ? `${subjects.length} subjects` : (subjects[0]?.subject ?? 'a subject')}
        </Word>
        <span className="fig ml-auto truncate text-ink-3">{narrow ? '' : cost}</span>
        {begun && next ? (
          <Button look="quiet" hint="N" disabled={!canRun} onClick={() => go('a step')}>
            one step on
          </Button>
        ) : null}
        <Button
          look={begun ? 'line' : 'solid'}
          hint="R"
          disabled={!canRun}
          busy={running || run.isPending ? (waiting > 0 ? `Running, then ${waiting} more` : 'Running') : null}
          onClick={() => go('to the end')}
        >
          {begun ? 'Run what changed' : 'Run it'}
        </Button>
      </div>
      {/* Beside the subject there is no room for it in a narrow window. */}
      {narrow ? (
        <p data-screen="" className="fig relative col-start-2 px-5 pb-1 text-ink-3">
          {cost}
        </p>
      ) : null}
      {save.data && !changed ? (
        <div data-screen="" className="relative col-span-2 px-8">
          <Saved pipeline={save.data} />
        </div>
      ) : null}
      {save.isError ? (
        <SaveTrouble
          error={save.error}
          read={(current) => Whole.safeParse(current).data ?? null}
          mine={document}
          names={choices.names}
          onChosen={(theirs) => {
            queryClient.setQueryData(['pipeline', pipeline.id], theirs);
            save.reset();
          }}
        />
      ) : null}
      {run.isError ? (
        <div className="relative col-start-2 px-5">
          <Trouble>{inWords(run.error)}</Trouble>
        </div>
      ) : null}
      <FieldExamples value={examples}>
        <FillingTrial value={one ? { brief: one.id, subject: one.subject } : null}>
          <ProcedureLines
            document={document}
            choices={choices}
            context={context}
            problems={problems}
            tools={(step, first) => (
              <>
                {first ? null : (
                  <Button look="quiet" tabIndex={-1} disabled={!canRun} onClick={() => run.mutate({ until: step })}>
                    run to here
                  </Button>
                )}
                {trials.some((trial) => trial?.runs.some((one) => one.path === step)) ? (
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
            beside={(step, first) => (
              <div
                className="grid gap-x-4"
                style={{ gridTemplateColumns: `repeat(${Math.max(1, trials.length)}, minmax(0, 1fr))` }}
              >
                {first ? (
                  subjects.length === 0 ? (
                    <p className="py-2.5 text-small text-ink-3">choose an item above, or type a subject</p>
                  ) : (
                    subjects.map(({ subject: name }, i) => (
                      <p key={`${i} ${name}`} className="truncate py-2.5 text-small" title={name}>
                        <b className={trials[i] ? 'font-semibold' : 'font-normal text-ink-3'}>{name}</b>
                        {trials.length > 1 && trials[i] ? (
                          <span className="fig pl-2 text-ink-3">{amount(trials[i].micros)} €</span>
                        ) : null}
                      </p>
                    ))
                  )
                ) : (
                  trials.map((trial, i) => (
                    <TrialResult
                      key={`${i} ${subjects[i]?.subject}`}
                      run={latestRun(trial, step)}
                      until={
                        trial === null
                          ? ''
                          : trial.standing === 'set aside'
                            ? 'not run: it was set aside above'
                            : 'not run yet'
                      }
                      narrow={trials.length > 1}
                    />
                  ))
                )}
              </div>
            )}
          />
        </FillingTrial>
      </FieldExamples>
      <div data-screen="" className="relative col-span-2 grid grid-cols-[minmax(0,716fr)_minmax(0,564fr)]">
        <div className="ml-8 border-t border-rule-soft py-4 pr-4">
          <WrittenBy document={document} services={choices.services} edit={edit} />
          <p className="pb-2 text-small">
            Asked for at each run:{' '}
            <Word
              label="What is asked for at each run"
              editor={() => (
                <InputsEditor
                  value={document.inputs ?? []}
                  onChange={(inputs) => edit((now) => ({ ...now, inputs }))}
                />
              )}
            >
              {document.inputs?.map(({ name }) => name).join(', ') || 'nothing'}
            </Word>
          </p>
          <TakeItems pipeline={pipeline} unsaved={changed} now={now} />
        </div>
        <div className="mr-8 border-t border-rule-soft py-3 pl-5 text-small text-ink-3">
          {one?.standing === 'out'
            ? `The trial is done, ${plural(one.runs.filter((run) => run.state === 'done').length, 'step')}. Nothing was published.`
            : begun
              ? ''
              : 'A trial publishes nothing; effects outside are shown as what would be done.'}
        </div>
      </div>
    </BesideLines>
  );
}

/** What a saving means for the briefs there are: those that wait begin with it, those that have begun when asked. */
function Saved({ pipeline: { id, version, counts, older } }: { pipeline: PipelineWhole }) {
  const bring = useMutation({
    mutationFn: () =>
      call('POST', '/briefs/many', {
        body: { do: 'bring to the newest', matching: { pipeline: id } },
        answer: DoneToBriefs,
      }),
    onSettled: () => {
      for (const key of ['pipeline', 'briefs', 'brief']) void queryClient.invalidateQueries({ queryKey: [key] });
    },
  });
  return (
    <>
      <DoneHere>
        Version {version} is saved.
        {counts.waiting > 0
          ? ` ${counts.waiting === 1 ? 'The brief that waits begins' : `${count(counts.waiting)} waiting briefs begin`} with it.`
          : ''}
        {older > 0 && !bring.data
          ? ` ${plural(older, 'brief')} already begun ${older === 1 ? 'goes' : 'go'} by an older version. `
          : ''}
        {older > 0 && !bring.data ? (
          <Button look="word" busy={bring.isPending ? 'Bringing them' : null} onClick={() => bring.mutate()}>
            {older === 1 ? 'Bring it to the newest' : 'Bring them to the newest'}
          </Button>
        ) : null}
        {bring.data
          ? ` ${plural(bring.data.done, 'brief')} of those begun ${bring.data.done === 1 ? 'goes' : 'go'} on by it now.`
          : ''}
      </DoneHere>
      {bring.isError ? <Trouble>{inWords(bring.error)}</Trouble> : null}
    </>
  );
}

/** About what so many trials will cost, with its spread where there is one worth saying. */
function expected({ micros, fromMicros, toMicros }: Estimate, times: number): string {
  const [from, to] = [amount(fromMicros * times), amount(toMicros * times)];
  return from === to ? `about ${amount(micros * times)} €` : `about ${from} to ${to} €`;
}
