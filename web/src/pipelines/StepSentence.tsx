import type { Blog, PipelineWhole, Routine, Service, Source } from '@grivo/contract';
import {
  beginning,
  expressionProblem,
  FUNCTIONS,
  IS,
  listWords,
  type Names,
  PARTS,
  PICKS,
  type SeenField,
  type SentenceWord,
  type Step,
  sentenceOf,
  sheetColumns,
  templateFields,
  type WordEditor,
} from '@grivo/core';
import { memo, useContext } from 'react';
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
  Word,
} from '../design/index.ts';
import { FieldExamples, FilledFor } from './FilledFor.tsx';
import { PastFigures } from './PastFigures.tsx';
import { ServiceChoice } from './ServiceChoice.tsx';

export interface Choices {
  /** Whose past briefs words are shown with. */
  /** Whose past runs tell about words; null of a routine. */
  pipeline: string | null;
  blogs: readonly Blog[];
  sources: readonly Source[];
  routines: readonly Routine[];
  services: readonly Service[];
  names: Names;
}

interface Shown {
  step: Step;
  choices: Choices;
  /** The fields the step can see. */
  fields: readonly SeenField[];
  onChange: (field: string, value: unknown) => void;
}

interface Sentence extends Shown {
  problems: PipelineWhole['problems'];
}

/** The stop after a word keeps to it: no line begins with a comma. */
const STOP = /^[,.;:]+/;

/** A step as its sentence, generated from its kind: plain words, and words that open their editors. */
export const StepSentence = memo(function StepSentence({ step, choices, fields, problems, onChange }: Sentence) {
  const all = sentenceOf(step, choices.names);
  const parts = all.filter((part) => 'text' in part || !part.add);
  const added = all.filter((part): part is SentenceWord => 'word' in part && part.add === true);
  const wrongAt = (field: string) => problems.find((found) => found.field === field && found.grade === 'error');
  const wordOf = (part: SentenceWord) => {
    const wrong = wrongAt(part.field);
    return (
      <Word
        label={`${step.kind}, ${part.field}`}
        wrong={wrong ? (wrong.mend.length < 40 ? wrong.mend : wrong.sentence) : null}
        editor={(close) => (
          <>
            <Editor
              editor={part.editor}
              field={part.field}
              value={(step as unknown as Record<string, unknown>)[part.field]}
              step={step}
              choices={choices}
              fields={fields}
              onChange={onChange}
              close={close}
            />
            {choices.pipeline === null ? null : (
              <PastFigures pipeline={choices.pipeline} step={step} field={part.field} />
            )}
          </>
        )}
      >
        {part.word}
      </Word>
    );
  };
  const own = 'instruction' in step && step.kind !== 'answer' ? step.instruction : null;
  const examples = 'examples' in step ? step.examples : [];
  return (
    <span className="text-proc tracking-[-0.003em]">
      {parts.map((part, i) => {
        if ('text' in part) {
          const before = parts[i - 1];
          return <span key={i}>{before && 'word' in before ? part.text.replace(STOP, '') : part.text}</span>;
        }
        const next = parts[i + 1];
        const word = wordOf(part);
        return (
          <span key={i} className="whitespace-nowrap">
            {word}
            {next && 'text' in next ? STOP.exec(next.text)?.[0] : null}
          </span>
        );
      })}
      {added.length > 0 ? (
        <span className="adding block text-small text-ink-3">
          add:{' '}
          {added.map((part, i) => (
            <span key={part.field}>
              {i > 0 ? ', ' : ''}
              {wordOf(part)}
            </span>
          ))}
        </span>
      ) : null}
      {own === null || own.trim() === '' ? null : (
        <span className="block text-small text-ink-3">
          also told:{' '}
          <OwnInstruction
            step={step}
            own={own}
            fields={fields}
            wrong={wrongAt('instruction')?.sentence}
            onChange={onChange}
          />
        </span>
      )}
      {examples.length === 0 ? null : (
        <span className="block text-small text-ink-3">
          in the style of: <Examples step={step} examples={examples} onChange={onChange} />
        </span>
      )}
    </span>
  );
}, saysTheSame);

/**
 * Typing in one sentence leaves the others as they are. Who is told of a change is the same for a step as long as it is
 * there, so that is not looked at.
 */
function saysTheSame(before: Sentence, after: Sentence): boolean {
  return (
    before.step === after.step &&
    before.choices === after.choices &&
    JSON.stringify([before.fields, before.problems]) === JSON.stringify([after.fields, after.problems])
  );
}

/** What is said to the writer besides, in one's own words. */
export function OwnInstruction({
  step,
  own,
  fields,
  wrong,
  onChange,
  onOpen,
}: Pick<Shown, 'step' | 'fields' | 'onChange'> & {
  own: string;
  wrong?: string | undefined;
  onOpen?: (open: boolean) => void;
}) {
  const line = own.replace(/\s+/g, ' ').trim();
  const named = useNamed(fields);
  return (
    <Word
      label={`${step.kind}, own instruction`}
      wrong={wrong ?? null}
      {...(onOpen ? { onOpen } : {})}
      editor={() => (
        <>
          <InstructionEditor
            label="Own instruction"
            value={own}
            fields={named}
            problemOf={(text) => textProblem(text, fields)}
            onChange={(text) => onChange('instruction', text)}
          />
          <FilledFor step={step.id} text={own} />
        </>
      )}
    >
      {line === '' ? 'own words' : `“${line.slice(0, 70)}${line.length > 70 ? '…' : ''}”`}
    </Word>
  );
}

/** Texts after whose manner the step works. */
export function Examples({
  step,
  examples,
  onChange,
  onOpen,
}: Pick<Shown, 'step' | 'onChange'> & { examples: readonly string[]; onOpen?: (open: boolean) => void }) {
  return (
    <Word
      label={`${step.kind}, examples`}
      {...(onOpen ? { onOpen } : {})}
      editor={() => (
        <>
          <ValuesEditor label="Examples" value={examples} most={5} onChange={(next) => onChange('examples', next)} />
          <p className="text-small text-ink-3">Their form and length are followed, not their content.</p>
        </>
      )}
    >
      {examples.length === 0 || onOpen
        ? 'examples'
        : listWords(
            examples.map((text) => `“${beginning(text, 34)}”`),
            '',
            2,
          )}
    </Word>
  );
}

/** Fields to choose from, each with what it holds in the item beside the procedure, else when it may be missing. */
function useNamed(fields: readonly SeenField[]) {
  const examples = useContext(FieldExamples);
  return fields.map(({ name, unsure }) => ({
    name,
    says: examples[name] === undefined ? (unsure ?? '') : `“${examples[name]}”`,
  }));
}

/** What is wrong with a text that speaks of fields. */
function textProblem(text: string, fields: readonly SeenField[]): string | null {
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

function Editor({
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
