import type { Blog, Routine, Service, Source } from '@grivo/contract';
import {
  expressionProblem,
  FUNCTIONS,
  IS,
  type Names,
  PARTS,
  PICKS,
  type SeenField,
  type Step,
  sheetColumns,
  templateFields,
  type WordEditor,
} from '@grivo/core';
import { useContext } from 'react';
import {
  ChoiceEditor,
  ExpressionEditor,
  InstructionEditor,
  ListEditor,
  NumberEditor,
  RangeEditor,
  RecordEditor,
  TestsEditor,
  TextEditor,
  ValuesEditor,
} from '../design/index.ts';
import { FieldExamples, FilledFor } from './FilledFor.tsx';
import { ServiceChoice } from './ServiceChoice.tsx';

export interface Choices {
  /** Whose past runs tell about words; null of a routine. */
  pipeline: string | null;
  blogs: readonly Blog[];
  sources: readonly Source[];
  routines: readonly Routine[];
  services: readonly Service[];
  names: Names;
}

/** A step as it is shown and changed. */
export interface Shown {
  step: Step;
  choices: Choices;
  /** The fields the step can see. */
  fields: readonly SeenField[];
  onChange: (field: string, value: unknown) => void;
}

/** Fields to choose from, each with what it holds in the item beside the procedure, else when it may be missing. */
export function useNamed(fields: readonly SeenField[]) {
  const examples = useContext(FieldExamples);
  return fields.map(({ name, unsure }) => ({
    name,
    says: examples[name] === undefined ? (unsure ?? '') : `“${examples[name]}”`,
  }));
}

/** What is wrong with a text that speaks of fields. */
export function textProblem(text: string, fields: readonly SeenField[]): string | null {
  const read = templateFields(text);
  if (!read.ok) return `This cannot be read: ${read.problem}.`;
  const strange = read.fields.find((name) => !fields.some((field) => field.name === name));
  return strange === undefined ? null : `No step above gives ‘${strange}’.`;
}

/** Columns of sheets among the fields a step can see. */
function columnsOf({ sources }: Choices, fields: readonly SeenField[]): string[] {
  const columns = new Set(sources.filter(({ kind }) => kind === 'sheet').flatMap(({ brings }) => sheetColumns(brings)));
  return fields.flatMap(({ name }) => (columns.has(name) ? name : []));
}

/** Words for which giving no number means something. */
const NONE: Record<string, string> = {
  most: 'all that are new',
  atOnce: 'no limit',
  likeness: 'do not look',
  gather: 'a brief of each item',
};

/** The editor of one word of a step's sentence, by what the word is of. */
export function StepWordEditor({
  editor,
  field,
  value,
  step,
  choices,
  fields,
  onChange: put,
  close,
}: Shown & { editor: WordEditor; field: string; value: unknown; close: () => void }) {
  const onChange = (next: unknown) => put(field, next);
  const named = useNamed(fields);
  switch (editor.type) {
    case 'number':
      return (
        <NumberEditor
          label={field}
          value={typeof value === 'number' ? value : null}
          least={editor.least}
          most={editor.most}
          unit={editor.unit ?? ''}
          none={
            value === null || (NONE[field] && editor.most !== 200 && (field !== 'most' || step.kind === 'take'))
              ? NONE[field]
              : undefined
          }
          onChange={onChange}
        />
      );
    case 'minutes':
      return (
        <NumberEditor
          label={field}
          value={typeof value === 'number' ? value : null}
          least={editor.least}
          most={editor.most}
          unit="minutes"
          none={editor.least > 0 ? editor.none : undefined}
          onChange={onChange}
        />
      );
    case 'range':
      return (
        <RangeEditor
          label={field}
          value={value as { from: number; to: number }}
          least={editor.least}
          most={editor.most}
          unit={editor.unit ?? ''}
          onChange={onChange}
        />
      );
    case 'choice':
      return (
        <ChoiceEditor
          value={String(value)}
          options={editor.options}
          onChoose={(chosen) => {
            onChange(typeof value === 'boolean' ? chosen === 'true' : chosen);
            close();
          }}
        />
      );
    case 'reference':
      return (
        <ChoiceEditor
          value={String(value)}
          options={(editor.to === 'blog'
            ? choices.blogs
            : editor.to === 'routine'
              ? choices.routines
              : choices.sources
          ).map((one) => ({
            value: one.id,
            says: one.name,
            does:
              'cadenceSentence' in one
                ? one.cadenceSentence.split(',')[0]!
                : 'items' in one
                  ? `${one.items} phrases`
                  : `${one.sentences.length} steps`,
          }))}
          onChoose={(chosen) => {
            onChange(chosen);
            close();
          }}
        />
      );
    case 'service':
      return (
        <ServiceChoice
          services={choices.services}
          role={editor.role}
          value={typeof value === 'string' ? value : ''}
          else={`the ${editor.role} of the procedure`}
          onChoose={(chosen) => {
            onChange(chosen === '' ? undefined : chosen);
            close();
          }}
        />
      );
    case 'list':
      return (
        <ListEditor
          value={value as string[]}
          options={
            editor.of === 'source'
              ? choices.sources.map((source) => ({ value: source.id, says: source.name }))
              : editor.of === 'column'
                ? columnsOf(choices, fields).map((name) => ({ value: name, says: name }))
                : (editor.of === 'pick' ? PICKS : PARTS).map((part) => ({ value: part, says: part }))
          }
          onChange={onChange}
        />
      );
    case 'values':
      return <ValuesEditor label={field} value={(value as string[]) ?? []} most={editor.most} onChange={onChange} />;
    case 'instruction':
      return (
        <>
          <InstructionEditor
            label={field}
            value={String(value ?? '')}
            fields={named}
            problemOf={(text) => textProblem(text, fields)}
            hint={HINT[field]}
            onChange={onChange}
          />
          <FilledFor step={step.id} text={String(value ?? '')} />
        </>
      );
    case 'expression':
      return (
        <ExpressionEditor
          label={field}
          value={String(value ?? '')}
          problemOf={expressionProblem}
          functions={Object.values(FUNCTIONS)}
          fields={fields.map(({ name }) => name)}
          onChange={onChange}
        />
      );
    case 'tests':
      return step.kind === 'when' ? (
        <TestsEditor
          value={step.tests}
          join={step.join}
          kinds={IS}
          fields={fields.map(({ name }) => name)}
          onChange={onChange}
          onJoin={(join) => put('join', join)}
        />
      ) : null;
    case 'record':
      return (
        <RecordEditor
          value={(value as Record<string, string>) ?? {}}
          names={
            choices.routines
              .find((routine) => step.kind === 'use' && routine.id === step.routine)
              ?.document.inputs?.map(({ name, asks }) => ({ name, says: asks })) ?? []
          }
          onChange={onChange}
        />
      );
    case 'text':
      return (
        <TextEditor
          label={field}
          value={typeof value === 'string' ? value : ''}
          hint={HINT[field] ?? ''}
          onChange={(text) => onChange(field === 'country' || field === 'since' ? text.trim() || null : text)}
          onDone={close}
        />
      );
  }
}

const HINT: Record<string, string> = {
  country: 'Two letters as IE; empty for any.',
  since: 'A day as 2024-01-31; empty for any.',
  sheet: 'The address that gives the sheet as CSV and takes new rows.',
  cells: 'Column: text, a line each; fields in double braces are filled in for each brief.',
  body: 'The text itself; fields in double braces are filled in for each brief.',
  text: 'Sent word for word; fields in double braces are filled in for each brief.',
  subject: 'Fields in double braces: {{ subject }}.',
};
