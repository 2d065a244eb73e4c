import { DoneToBriefs, type PipelineWhole, PipelineWhole as Whole } from '@grivo/contract';
import { linesOf, type Names, type ProcedureDocument } from '@grivo/core';
import { useMutation } from '@tanstack/react-query';
import { call, inWords } from '../api/call.ts';
import { queryClient } from '../api/queries.ts';
import { Button, DoneHere, Trouble, Word } from '../design/index.ts';
import { useViewKeys } from '../shell/keys.ts';
import { count, plural } from '../words/figures.ts';
import { BesideLines } from './BesideLines.tsx';
import { CostWord } from './CostWord.tsx';
import { useChecked } from './checked.ts';
import { Costs } from './costs.ts';
import { DraftActions } from './DraftActions.tsx';
import { isChanged, useDraft } from './draft.ts';
import { FieldExamples, FillingTrial } from './FilledFor.tsx';
import { InputsEditor } from './InputsEditor.tsx';
import { ProcedureLines } from './ProcedureLines.tsx';
import { SaveTrouble } from './SaveTrouble.tsx';
import { WrittenBy } from './ServiceChoice.tsx';
import { TakeItems } from './TakeItems.tsx';
import { BesideLine, TrialFoot, TrialHead, TrialTools } from './TrialBeside.tsx';
import { useTrials } from './useTrials.ts';

/** The procedure as numbered sentences; beside each, on its own row, what the trial made of it. */
export function Procedure({ pipeline, now }: { pipeline: PipelineWhole; now: number }) {
  const { draft, edit } = useDraft();
  const document = draft?.pipeline === pipeline.id ? draft.history.now : pipeline.document;
  const changed = isChanged(draft);
  const { choices, context, problems } = useChecked(pipeline.id, document);
  const trial = useTrials(pipeline, document);
  const { examples, trials, run } = trial;
  const costs = trial.estimate ?? null;
  const save = useSave(pipeline, document);
  const one = trials.length === 1 ? trials[0]! : null;
  useProcedureKeys(trial, changed ? () => save.mutate() : null);
  const steps = linesOf(document).filter(({ step }) => step !== null).length;
  return (
    <Costs value={costs}>
      <BesideLines>
        <div data-screen="" className="relative flex h-9 items-center gap-2.5 pr-4 pl-8 text-small whitespace-nowrap">
          <h2 className="text-base font-semibold">Procedure</h2>
          <span className="text-ink-3">{plural(steps, 'step')}.</span>
          <span className="ml-auto flex items-baseline gap-4">
            <DraftActions version={pipeline.version} save={save} onSave={() => save.mutate()} />
          </span>
        </div>
        <TrialHead
          trial={trial}
          costs={(says) => (
            <CostWord says={says} estimate={costs} document={document} services={choices.services} edit={edit} />
          )}
        />
        <SaveSays pipeline={pipeline} document={document} save={save} changed={changed} names={choices.names} />
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
              tools={(step, first) => <TrialTools trial={trial} step={step} first={first} />}
              beside={(step, first) => <BesideLine trial={trial} step={step} first={first} />}
            />
          </FillingTrial>
        </FieldExamples>
        <div data-screen="" className="relative col-span-2 grid grid-cols-[minmax(0,716fr)_minmax(0,564fr)]">
          <div className="ml-8 border-t border-rule-soft py-4 pr-4">
            <WrittenBy document={document} services={choices.services} styles={choices.styles} edit={edit} />
            <AskedFor document={document} />
            <TakeItems pipeline={pipeline} unsaved={changed} now={now} />
          </div>
          <TrialFoot trial={trial} />
        </div>
      </BesideLines>
    </Costs>
  );
}

function useProcedureKeys({ subjects, go }: ReturnType<typeof useTrials>, save: (() => void) | null) {
  const { undo, redo } = useDraft();
  useViewKeys({
    r: subjects.length > 0 ? () => go('to the end') : null,
    n: subjects.length > 0 ? () => go('a step') : null,
    s: save,
    z: undo,
    Z: redo,
    'Ctrl+z': undo,
    'Ctrl+Z': redo,
    'Ctrl+y': redo,
  });
}

function useSave(pipeline: PipelineWhole, document: ProcedureDocument) {
  const { draft, saved } = useDraft();
  return useMutation({
    mutationFn: () =>
      call('PUT', `/pipelines/${pipeline.id}`, { body: { document }, rev: draft?.rev ?? pipeline.rev, answer: Whole }),
    onSuccess: (whole) => {
      saved(whole.rev, whole.document);
      queryClient.setQueryData(['pipeline', pipeline.id], whole);
      void queryClient.invalidateQueries({ queryKey: ['versions', pipeline.id] });
    },
  });
}

/** What a saving came to. */
function SaveSays({
  pipeline,
  document,
  save,
  changed,
  names,
}: {
  pipeline: PipelineWhole;
  document: ProcedureDocument;
  save: ReturnType<typeof useSave>;
  changed: boolean;
  names: Names;
}) {
  return (
    <>
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
          names={names}
          onChosen={(theirs) => {
            queryClient.setQueryData(['pipeline', pipeline.id], theirs);
            save.reset();
          }}
        />
      ) : null}
    </>
  );
}

function AskedFor({ document }: { document: ProcedureDocument }) {
  const { edit } = useDraft();
  const inputs = document.inputs ?? [];
  return (
    <p className="pb-2 text-small">
      Asked for at each run:{' '}
      <Word
        label="What is asked for at each run"
        editor={() => <InputsEditor value={inputs} onChange={(next) => edit((now) => ({ ...now, inputs: next }))} />}
      >
        {inputs.map(({ name }) => name).join(', ') || 'nothing'}
      </Word>
    </p>
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
