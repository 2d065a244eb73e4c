import type { PipelineWhole } from '@grivo/contract';
import { beginning, listWords, type SentenceWord, sentenceOf } from '@grivo/core';
import { memo } from 'react';
import { InstructionEditor, ValuesEditor, Word } from '../design/index.ts';
import { FilledFor } from './FilledFor.tsx';
import { PastFigures } from './PastFigures.tsx';
import { type Shown, StepWordEditor, textProblem, useNamed } from './StepWordEditor.tsx';

interface Sentence extends Shown {
  problems: PipelineWhole['problems'];
  /** Whether what it does not say yet is offered; it is where nothing else is said. */
  adds?: boolean;
}

/** The stop after a word keeps to it: no line begins with a comma. */
const STOP = /^[,.;:]+/;

/** A step as its sentence, generated from its kind: plain words, and words that open their editors. */
export const StepSentence = memo(function StepSentence({
  step,
  choices,
  fields,
  problems,
  adds = true,
  onChange,
}: Sentence) {
  const all = sentenceOf(step, choices.names);
  const parts = all.filter((part) => 'text' in part || !part.add);
  const added = all.filter((part): part is SentenceWord => 'word' in part && part.add === true);
  const wrongAt = (field: string) => problems.find((found) => found.field === field && found.grade === 'error');
  const wordOf = (part: SentenceWord) => (
    <StepWord
      part={part}
      step={step}
      choices={choices}
      fields={fields}
      wrong={wrongAt(part.field)}
      onChange={onChange}
    />
  );
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
      {adds && added.length > 0 ? (
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

/** One word of it, with its editor and what past runs tell about it. */
function StepWord({
  part: { field, word, editor },
  step,
  choices,
  fields,
  wrong,
  onChange,
}: Shown & { part: SentenceWord; wrong: Sentence['problems'][number] | undefined }) {
  return (
    <Word
      label={`${step.kind}, ${field}`}
      wrong={wrong ? (wrong.mend.length < 40 ? wrong.mend : wrong.sentence) : null}
      editor={(close) => (
        <>
          <StepWordEditor
            editor={editor}
            field={field}
            value={(step as unknown as Record<string, unknown>)[field]}
            step={step}
            choices={choices}
            fields={fields}
            onChange={onChange}
            close={close}
          />
          {choices.pipeline === null ? null : <PastFigures pipeline={choices.pipeline} step={step} field={field} />}
        </>
      )}
    >
      {word}
    </Word>
  );
}

/**
 * Typing in one sentence leaves the others as they are. Who is told of a change is the same for a step as long as it is
 * there, so that is not looked at.
 */
function saysTheSame(before: Sentence, after: Sentence): boolean {
  return (
    before.step === after.step &&
    before.choices === after.choices &&
    before.adds === after.adds &&
    same(before.fields, after.fields) &&
    same(before.problems, after.problems)
  );
}

function same(before: unknown, after: unknown): boolean {
  return before === after || JSON.stringify(before) === JSON.stringify(after);
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
