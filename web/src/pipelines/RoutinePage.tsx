import { type Routine, Routine as Whole } from '@grivo/contract';
import { type CheckContext, fieldsAtEnd, kindOf, type ProcedureDocument, readProcedure, type Step } from '@grivo/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useEffect } from 'react';
import { Link, useParams } from 'react-router';
import { call, inWords } from '../api/call.ts';
import { queryClient } from '../api/queries.ts';
import { Empty, ListEditor, Loading, TextEditor, Trouble, Word } from '../design/index.ts';
import { KeepMenu } from '../keeping/KeepMenu.tsx';
import { useViewKeys } from '../shell/keys.ts';
import { BesideLines } from './BesideLines.tsx';
import { useChecked } from './checked.ts';
import { DraftActions } from './DraftActions.tsx';
import { isChanged, useDraft } from './draft.ts';
import { InputsEditor } from './InputsEditor.tsx';
import { ProcedureLines } from './ProcedureLines.tsx';
import { whole } from './read.ts';
import { SaveTrouble } from './SaveTrouble.tsx';

/** A routine: steps kept under a name, what they are given, and what they give back to a procedure that uses them. */
export default function RoutinePage() {
  const { id = '' } = useParams();
  const routines = useQuery(whole.routines());
  const routine = routines.data?.routines.find((one) => one.id === id);
  const open = useDraft((store) => store.open);
  useEffect(() => {
    if (routine) open(id, routine.rev, routine.document);
  }, [id, routine, open]);
  if (routines.isPending)
    return (
      <div className="pt-8">
        <Loading rows={9} />
      </div>
    );
  if (routines.isError) return <Trouble>{inWords(routines.error)}</Trouble>;
  if (!routine)
    return (
      <Empty
        next={
          <Link className="act brackets" to="/pipelines">
            All pipelines and routines
          </Link>
        }
      >
        There is no such routine.
      </Empty>
    );
  return <RoutineLines routine={routine} />;
}

function keep(routine: Routine): void {
  queryClient.setQueryData(whole.routines().queryKey, (now) =>
    now ? { routines: now.routines.map((one) => (one.id === routine.id ? routine : one)) } : now,
  );
}

/** Saving a routine: as it was changed, and under another name. */
function useRoutineSave(routine: Routine) {
  const { saved } = useDraft();
  const put = ({ name, rev, document }: { name: string; rev: number; document: Routine['document'] }) =>
    call('PUT', `/routines/${routine.id}`, { body: { name, document }, rev, answer: Whole });
  const save = useMutation({
    mutationFn: put,
    onSuccess: (now) => {
      keep(now);
      saved(now.rev, now.document);
    },
  });
  const rename = useMutation({
    mutationFn: (name: string) => put({ name, rev: routine.rev, document: routine.document }),
    onSuccess: (now) => {
      keep(now);
      useDraft.getState().over(now.rev, now.document);
    },
  });
  return { save, rename };
}

function RoutineLines({ routine }: { routine: Routine }) {
  const { draft, undo, redo } = useDraft();
  const document = draft?.pipeline === routine.id ? draft.history.now : routine.document;
  const changed = isChanged(draft);
  const { choices, context, problems } = useChecked(null, document);
  const { save, rename } = useRoutineSave(routine);
  const keepIt = () => save.mutate({ name: routine.name, rev: draft?.rev ?? routine.rev, document });
  useViewKeys({ s: changed ? keepIt : null, z: undo, Z: redo, 'Ctrl+z': undo, 'Ctrl+Z': redo, 'Ctrl+y': redo });
  const steps = new Map(readProcedure(document, choices.names).map(({ step }) => [step.id, step as Step]));
  return (
    <>
      <div className="pt-2 pb-2">
        <RoutineHead routine={routine} onName={rename.mutate} />
        <GivenAndBack document={document} context={context} />
        <UsedBy routine={routine} />
        {rename.isError ? <Trouble>{inWords(rename.error)}</Trouble> : null}
      </div>
      <BesideLines>
        <div data-screen="" className="relative flex h-9 items-center gap-2.5 pr-4 pl-8 text-small whitespace-nowrap">
          <h2 className="text-base font-semibold">Steps</h2>
          <span className="ml-auto flex items-baseline gap-4">
            <DraftActions version={routine.version} save={save} onSave={keepIt} />
          </span>
        </div>
        <div data-screen="" className="relative flex h-9 items-center gap-2.5 pr-8 pl-5 text-small whitespace-nowrap">
          <h2 className="text-base font-semibold">What each gives</h2>
          <span className="ml-auto text-ink-3">fields marked here go back to who uses it</span>
        </div>
        {save.isError ? (
          <SaveTrouble
            error={save.error}
            read={(current) => Whole.safeParse(current).data ?? null}
            mine={document}
            names={choices.names}
            onChosen={(theirs) => {
              keep(theirs);
              save.reset();
            }}
          />
        ) : null}
        <ProcedureLines
          document={document}
          choices={choices}
          context={context}
          problems={problems}
          tools={() => null}
          beside={(id) => <Gives step={steps.get(id)} outputs={document.outputs ?? []} />}
        />
      </BesideLines>
    </>
  );
}

function RoutineHead({ routine, onName }: { routine: Routine; onName: (name: string) => void }) {
  return (
    <div className="flex items-center gap-3">
      <h1 className="truncate text-title font-semibold tracking-[-0.018em]">
        <Word
          label="Name of the routine"
          editor={(close) => <NameEditor name={routine.name} onName={onName} close={close} />}
        >
          {routine.name}
        </Word>
      </h1>
      <span className="text-ink-3">a routine, version {routine.version}</span>
      <span className="ml-auto flex flex-wrap text-small">
        <KeepMenu of="routines" it={routine} />
      </span>
    </div>
  );
}

/** What it is given by who uses it, and what it gives back. */
function GivenAndBack({ document, context }: { document: ProcedureDocument; context: CheckContext | null }) {
  const { edit } = useDraft();
  const inputs = document.inputs ?? [];
  const outputs = document.outputs ?? [];
  const given = new Set(inputs.map(({ name }) => name));
  const offered = context ? fieldsAtEnd(document, context).filter(({ name }) => !given.has(name)) : [];
  const names = [...new Set([...offered.map(({ name }) => name), ...outputs])];
  return (
    <p className="pt-1 text-proc leading-7">
      It is given{' '}
      <Word
        label="What it is given"
        editor={() => <InputsEditor value={inputs} onChange={(next) => edit((now) => ({ ...now, inputs: next }))} />}
      >
        {inputs.map(({ name }) => name).join(', ') || 'nothing'}
      </Word>{' '}
      and gives back{' '}
      <Word
        label="What it gives back"
        editor={() => (
          <ListEditor
            value={outputs}
            options={names.map((name) => ({ value: name, says: name }))}
            onChange={(next) => edit((now) => ({ ...now, outputs: next }))}
          />
        )}
      >
        {outputs.join(', ') || 'nothing yet'}
      </Word>
      .
    </p>
  );
}

function UsedBy({ routine: { usedBy } }: { routine: Routine }) {
  if (usedBy.length === 0) return <p className="text-small text-ink-2">No procedure uses it yet: a line ‘use’ does.</p>;
  return (
    <p className="text-small text-ink-2">
      Used by{' '}
      {usedBy.map(({ noun, id, name }, i) => (
        <span key={id}>
          {i === 0 ? '' : ', '}
          <Link className="act brackets" to={noun === 'pipeline' ? `/pipelines/${id}` : `/pipelines/routines/${id}`}>
            {name}
          </Link>
        </span>
      ))}
      . Briefs under way end on the version they began with.
    </p>
  );
}

/** The fields a step gives, those that go back marked. */
function Gives({ step, outputs }: { step: Step | undefined; outputs: readonly string[] }) {
  if (!step || step.off) return null;
  const kind = kindOf(step);
  const kept = kind.keeps?.(step);
  return (
    <p className="flex flex-wrap gap-x-4 py-2 text-small text-ink-2">
      {[...kind.gives, ...(kept ? [kept] : [])].map((name) => (
        <span key={name} className={outputs.includes(name) ? 'hl hl-rest font-medium text-ink' : ''}>
          {name}
        </span>
      ))}
    </p>
  );
}

function NameEditor({ name, onName, close }: { name: string; onName: (name: string) => void; close: () => void }) {
  let typed = name;
  return (
    <TextEditor
      label="Name of the routine"
      value={name}
      hint="Press Enter to save."
      onChange={(text) => {
        typed = text.trim();
      }}
      onDone={() => {
        if (typed !== '' && typed !== name) onName(typed);
        close();
      }}
    />
  );
}
