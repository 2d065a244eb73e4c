import type { Blog, Destination, HouseStyle, Routine, Service, Source } from '@grivo/contract';
import {
  ATTACHMENTS,
  expressionProblem,
  FUNCTIONS,
  IS,
  type Names,
  PARTS,
  PICKS,
  PRODUCT_COLUMNS,
  propertyIn,
  type SeenField,
  type Step,
  sheetColumns,
  templateFields,
  type WordEditor,
} from '@grivo/core';
import { type ReactNode, useContext } from 'react';
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
import { Variants } from '../parts/Propose.tsx';
import { counted, plural } from '../words/figures.ts';
import { FieldExamples, FilledFor } from './FilledFor.tsx';
import { ServiceChoice } from './ServiceChoice.tsx';

export interface Choices {
  /** Whose past runs tell about words; null of a routine. */
  pipeline: string | null;
  blogs: readonly Blog[];
  sources: readonly Source[];
  routines: readonly Routine[];
  services: readonly Service[];
  destinations: readonly Destination[];
  styles: readonly HouseStyle[];
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

/** Columns of sheets among the fields a step can see; of several items taken together those of any, which each item has itself. */
function columnsOf({ sources }: Choices, fields: readonly SeenField[]): string[] {
  const together = fields.some(({ name }) => name === 'items');
  const columns = new Set(
    sources.flatMap(({ kind, brings }) => {
      if (kind === 'sheet') return sheetColumns(brings);
      return together && kind === 'catalogue' ? PRODUCT_COLUMNS : [];
    }),
  );
  return together ? [...columns] : fields.flatMap(({ name }) => (columns.has(name) ? name : []));
}

/** Words for which giving no number means something. */
const NONE: Record<string, string> = {
  most: 'all that are new',
  atOnce: 'no limit',
  likeness: 'do not look',
  own: 'do not look',
  gather: 'a brief of each item',
  second: 'the still its host has',
};

const HINT: Record<string, string> = {
  country: 'Two letters as IE; empty for any.',
  since: 'A day as 2024-01-31; empty for any.',
  sheet: 'The address that gives the sheet as CSV and takes new rows.',
  cells: 'Column: text, a line each; fields in double braces are filled in for each brief.',
  body: 'The text itself; fields in double braces are filled in for each brief.',
  text: 'Sent word for word; fields in double braces are filled in for each brief.',
  subject: 'Fields in double braces: {{ subject }}.',
};

/** What a line of a list is, where its word does not say it. */
function lineHint(field: string, step: Step, { blogs }: Choices): string {
  if (step.kind !== 'publish' || field !== 'properties') return '';
  const told = blogs.find(({ id }) => id === step.blog)?.settings.told?.properties ?? [];
  const own = told.filter((name) => propertyIn(`${name}: x`) !== null);
  return `as reading-time: 5 minutes; fields in double braces are filled in.${own.length === 0 ? '' : ` The blog knows ${own.join(', ')}.`}`;
}

type Of<Type extends WordEditor['type']> = Extract<WordEditor, { type: Type }>;

interface Edited<Type extends WordEditor['type']> extends Shown {
  editor: Of<Type>;
  field: string;
  value: unknown;
  close: () => void;
  /** Puts the word itself. */
  put: (value: unknown) => void;
}

/** The editor of each type of word. */
const EDITORS: { readonly [Type in WordEditor['type']]: (word: Edited<Type>) => ReactNode } = {
  number: ({ editor, field, value, step, put }) => (
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
      onChange={put}
    />
  ),
  minutes: ({ editor, field, value, put }) => (
    <NumberEditor
      label={field}
      value={typeof value === 'number' ? value : null}
      least={editor.least}
      most={editor.most}
      unit="minutes"
      none={editor.least > 0 ? editor.none : undefined}
      onChange={put}
    />
  ),
  range: ({ editor, field, value, put }) => (
    <RangeEditor
      label={field}
      value={value as { from: number; to: number }}
      least={editor.least}
      most={editor.most}
      unit={editor.unit ?? ''}
      onChange={put}
    />
  ),
  choice: ({ editor, value, put, close }) => (
    <ChoiceEditor
      value={String(value)}
      options={editor.options}
      onChoose={(chosen) => {
        put(typeof value === 'boolean' ? chosen === 'true' : chosen);
        close();
      }}
    />
  ),
  reference: ({ editor, value, choices, put, close }) => (
    <ChoiceEditor
      value={String(value ?? '')}
      options={referencesOf(editor.to, choices)}
      onChoose={(chosen) => {
        put(chosen !== '' ? chosen : editor.to === 'style' ? undefined : null);
        close();
      }}
    />
  ),
  service: ({ editor, value, step, choices, put, close }) => (
    <ServiceChoice
      step={step.id}
      services={choices.services}
      role={editor.role}
      value={typeof value === 'string' ? value : ''}
      else={`the ${editor.role} of the procedure`}
      onChoose={(chosen) => {
        put(chosen === '' ? undefined : chosen);
        close();
      }}
    />
  ),
  list: ({ editor, value, choices, fields, put }) => (
    <ListEditor value={value as string[]} options={listed(editor.of, choices, fields)} onChange={put} />
  ),
  values: ({ editor, field, value, step, choices, put }) => (
    <ValuesEditor
      label={field}
      value={(value as string[]) ?? []}
      most={editor.most}
      hint={lineHint(field, step, choices)}
      {...(step.kind === 'vary' && field === 'variants'
        ? { more: (lines, add) => <Variants texts={lines} onProposed={add} /> }
        : {})}
      onChange={put}
    />
  ),
  instruction: (word) => <Instruction {...word} />,
  expression: ({ field, value, fields, put }) => (
    <ExpressionEditor
      label={field}
      value={String(value ?? '')}
      problemOf={expressionProblem}
      functions={Object.values(FUNCTIONS)}
      fields={fields.map(({ name }) => name)}
      onChange={put}
    />
  ),
  tests: ({ step, fields, put, onChange }) =>
    step.kind === 'when' ? (
      <TestsEditor
        value={step.tests}
        join={step.join}
        kinds={IS}
        fields={fields.map(({ name }) => name)}
        onChange={put}
        onJoin={(join) => onChange('join', join)}
      />
    ) : null,
  record: ({ step, value, choices, put }) => {
    const routine = choices.routines.find(({ id }) => step.kind === 'use' && id === step.routine);
    return (
      <RecordEditor
        value={(value as Record<string, string>) ?? {}}
        names={routine?.document.inputs?.map(({ name, asks }) => ({ name, says: asks })) ?? []}
        onChange={put}
      />
    );
  },
  text: ({ field, value, put, close }) => (
    <TextEditor
      label={field}
      value={typeof value === 'string' ? value : ''}
      hint={HINT[field] ?? ''}
      onChange={(text) => put(field === 'country' || field === 'since' ? text.trim() || null : text)}
      onDone={close}
    />
  ),
};

function Instruction({ step, field, value, fields, put }: Edited<'instruction'>) {
  return (
    <>
      <InstructionEditor
        label={field}
        value={String(value ?? '')}
        fields={useNamed(fields)}
        problemOf={(text) => textProblem(text, fields)}
        hint={HINT[field]}
        onChange={put}
      />
      <FilledFor step={step.id} text={String(value ?? '')} />
    </>
  );
}

/** The editor of one word of a step's sentence, by what the word is of. */
export function StepWordEditor(word: Shown & { editor: WordEditor; field: string; value: unknown; close: () => void }) {
  const Editor = EDITORS[word.editor.type] as (word: Edited<WordEditor['type']>) => ReactNode;
  return Editor({ ...word, put: (next) => word.onChange(word.field, next) });
}

/** What a list is chosen from. */
function listed(of: Of<'list'>['of'], choices: Choices, fields: readonly SeenField[]) {
  if (of === 'source') return choices.sources.map(({ id, name }) => ({ value: id, says: name }));
  const names =
    of === 'column' ? columnsOf(choices, fields) : of === 'pick' ? PICKS : of === 'attachment' ? ATTACHMENTS : PARTS;
  return names.map((name) => ({ value: name, says: name }));
}

/** What a step can refer to, each with a word on it. */
function referencesOf(
  to: Extract<WordEditor, { type: 'reference' }>['to'],
  { blogs, sources, routines, destinations, styles }: Choices,
): { value: string; says: string; does: string }[] {
  switch (to) {
    case 'blog':
      return blogs.map(({ id, name, cadenceSentence }) => ({
        value: id,
        says: name,
        does: cadenceSentence.split(',')[0]!,
      }));
    case 'source':
      return sources.map(({ id, name, items }) => ({ value: id, says: name, does: `${counted(items)} phrases` }));
    case 'routine':
      return routines.map(({ id, name, sentences }) => ({ value: id, says: name, does: `${sentences.length} steps` }));
    case 'style':
      return [
        { value: '', says: 'the house style of the procedure', does: 'else that of the blog it is published to' },
        ...styles.map(({ id, name, texts }) => ({
          value: id,
          says: name,
          does: `learnt from ${plural(texts, 'text')}`,
        })),
      ];
    case 'destination':
      return [
        { value: '', says: 'an address typed in the step', does: 'kept nowhere else' },
        ...destinations.map(({ id, name, kind, address }) => ({ value: id, says: name, does: `${kind}, ${address}` })),
      ];
  }
}
