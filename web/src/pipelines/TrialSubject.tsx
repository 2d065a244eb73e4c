import type { PipelineWhole } from '@grivo/contract';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { read } from '../api/queries.ts';
import type { Choices } from './StepSentence.tsx';

/** What a trial is made on: an item not taken yet, or a subject typed by hand. */
export function useTrialSubject(
  take: PipelineWhole['document']['steps'][number] | undefined,
  sources: Choices['sources'] | undefined,
) {
  const [typed, setTyped] = useState<string | null>(null);
  const source = take?.kind === 'take' ? take.sources.find((id) => sources?.some((one) => one.id === id)) : undefined;
  const items = useQuery({ ...read.items(source ?? ''), enabled: source !== undefined }).data?.items ?? [];
  const offered = items
    .filter((item) => item.taken.length === 0)
    .slice(0, 8)
    .map((item) => item.subject);
  return { now: typed ?? offered[0] ?? '', offered, choose: setTyped };
}

export function SubjectEditor({
  value,
  offered,
  onChoose,
  close,
}: {
  value: string;
  offered: string[];
  onChoose: (subject: string) => void;
  close: () => void;
}) {
  const [text, setText] = useState(value);
  return (
    <form
      className="w-72"
      onSubmit={(event) => {
        event.preventDefault();
        if (text.trim() !== '') onChoose(text.trim());
        close();
      }}
    >
      <input
        className="field"
        aria-label="A subject for the trial"
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      <ul className="pt-2">
        {offered.map((subject) => (
          <li key={subject}>
            <button
              type="button"
              className="choice !block truncate"
              onClick={() => {
                onChoose(subject);
                close();
              }}
            >
              {subject}
            </button>
          </li>
        ))}
      </ul>
    </form>
  );
}
