import type { PipelineWhole } from '@grivo/contract';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { read } from '../api/queries.ts';
import { Button, Tick } from '../design/index.ts';
import type { Choices } from './StepSentence.tsx';

/** Trials beside each other: as many as can still be read. */
export const MOST_TRIALS = 3;

/** What trials are made on: items not taken yet, or subjects typed by hand. */
export function useTrialSubjects(
  take: PipelineWhole['document']['steps'][number] | undefined,
  sources: Choices['sources'] | undefined,
) {
  const [chosen, choose] = useState<string[] | null>(null);
  const source = take?.kind === 'take' ? take.sources.find((id) => sources?.some((one) => one.id === id)) : undefined;
  const items = useQuery({ ...read.items(source ?? ''), enabled: source !== undefined }).data?.items ?? [];
  const offered = items
    .filter((item) => item.taken.length === 0)
    .slice(0, 8)
    .map((item) => item.subject);
  return { now: chosen ?? offered.slice(0, 1), offered, choose };
}

/** One subject by its name, or up to three to be compared. */
export function SubjectEditor({
  value,
  offered,
  onChoose,
  close,
}: {
  value: readonly string[];
  offered: readonly string[];
  onChoose: (subjects: string[]) => void;
  close: () => void;
}) {
  const [text, setText] = useState('');
  const toggle = (subject: string) =>
    onChoose(
      value.includes(subject) ? value.filter((one) => one !== subject) : [...value, subject].slice(-MOST_TRIALS),
    );
  const all = [...value.filter((subject) => !offered.includes(subject)), ...offered];
  return (
    <form
      className="w-80"
      onSubmit={(event) => {
        event.preventDefault();
        if (text.trim() !== '') onChoose([text.trim()]);
        close();
      }}
    >
      <input
        className="field"
        aria-label="A subject for the trial"
        placeholder="A subject typed by hand"
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      <ul className="pt-2">
        {all.map((subject) => (
          <li key={subject} className="flex items-center gap-2">
            <Tick
              label={`${subject}, beside the others`}
              state={value.includes(subject)}
              onChange={() => toggle(subject)}
            />
            <button
              type="button"
              className="choice !block truncate"
              onClick={() => {
                onChoose([subject]);
                close();
              }}
            >
              {subject}
            </button>
          </li>
        ))}
      </ul>
      <p className="flex items-baseline justify-between pt-2 text-small text-ink-3">
        Tick up to {MOST_TRIALS} to see them beside each other.
        <Button look="word" type="submit">
          {text.trim() === '' ? 'Done' : 'Use this one'}
        </Button>
      </p>
    </form>
  );
}
