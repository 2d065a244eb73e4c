import type { Blog, PipelineWhole, Source } from '@grivo/contract';
import { type Names, PARTS, type Step, sentenceOf, type WordEditor } from '@grivo/core';
import { ChoiceEditor, ListEditor, NumberEditor, RangeEditor, TextEditor, Word } from '../design/index.ts';

export interface Choices {
  blogs: readonly Blog[];
  sources: readonly Source[];
  names: Names;
}

/** A step as its sentence, generated from its kind: plain words, and words that open their editors. */
export function StepSentence({
  step,
  choices,
  problems,
  onChange,
}: {
  step: Step;
  choices: Choices;
  problems: PipelineWhole['problems'];
  onChange: (field: string, value: unknown) => void;
}) {
  const parts = sentenceOf(step, choices.names);
  return (
    <span className="text-proc tracking-[-0.003em]">
      {parts.map((part, i) => {
        if ('text' in part) {
          return <span key={i}>{part.text.replace(/^ | $/g, i === 0 ? '$&' : ' ')}</span>;
        }
        const wrong = problems.find((found) => found.field === part.field);
        return (
          <Word
            key={i}
            label={`${step.kind}, ${part.field}`}
            wrong={wrong ? wrong.mend : null}
            editor={(close) => (
              <Editor
                editor={part.editor}
                field={part.field}
                value={(step as unknown as Record<string, unknown>)[part.field]}
                choices={choices}
                onChange={(value) => onChange(part.field, value)}
                close={close}
              />
            )}
          >
            {part.word}
          </Word>
        );
      })}
    </span>
  );
}

/** Words for which giving no number means something. */
const NONE: Record<string, string> = { most: 'all that are new', atOnce: 'as many as may be open' };

function Editor({
  editor,
  field,
  value,
  choices,
  onChange,
  close,
}: {
  editor: WordEditor;
  field: string;
  value: unknown;
  choices: Choices;
  onChange: (value: unknown) => void;
  close: () => void;
}) {
  switch (editor.type) {
    case 'number':
      return (
        <NumberEditor
          label={field}
          value={typeof value === 'number' ? value : null}
          least={editor.least}
          most={editor.most}
          unit={editor.unit ?? ''}
          none={value === null || (NONE[field] && editor.most !== 200) ? NONE[field] : undefined}
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
            onChange(chosen);
            close();
          }}
        />
      );
    case 'reference':
      return (
        <ChoiceEditor
          value={String(value)}
          options={(editor.to === 'blog' ? choices.blogs : choices.sources).map((one) => ({
            value: one.id,
            says: one.name,
            does: 'cadenceSentence' in one ? one.cadenceSentence.split(',')[0]! : `${one.items} phrases`,
          }))}
          onChoose={(chosen) => {
            onChange(chosen);
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
              : PARTS.map((part) => ({ value: part, says: part }))
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
  subject: 'Fields in double braces: {{ subject }}.',
};
