import { useState } from 'react';
import { Button, Tick } from '../design/index.ts';
import { MOST_TRIALS, sameSubject, type TrialSubject } from './useTrials.ts';

const SAYS = { new: '', taken: 'taken before', 'left out': 'left out' };

interface SubjectProps {
  value: readonly TrialSubject[];
  offered: readonly TrialSubject[];
  onChoose: (subjects: TrialSubject[]) => void;
  close: () => void;
}

/** What a trial is made on: one item or subject, or up to three to be compared. */
export function SubjectEditor({ value, offered, onChoose, close }: SubjectProps) {
  const [text, setText] = useState('');
  const isIn = (one: TrialSubject, some: readonly TrialSubject[]) => some.some((other) => sameSubject(one, other));
  const toggle = (subject: TrialSubject) =>
    onChoose(
      isIn(subject, value)
        ? value.filter((one) => !sameSubject(one, subject))
        : [...value, subject].slice(-MOST_TRIALS),
    );
  const all = [...value.filter((subject) => !isIn(subject, offered)), ...offered];
  return (
    <form
      className="w-96"
      onSubmit={(event) => {
        event.preventDefault();
        if (text.trim() !== '') onChoose([{ subject: text.trim(), units: [] }]);
        close();
      }}
    >
      <input
        className="field"
        aria-label="A subject for the trial"
        placeholder="Or type a subject"
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      <ul className="max-h-72 overflow-auto pt-2">
        {all.map((one) => (
          <li key={`${one.subject} ${one.units.flat().join()}`} className="flex min-h-6 items-center gap-2">
            <Tick label={`${one.subject}, beside the others`} state={isIn(one, value)} onChange={() => toggle(one)} />
            <button
              type="button"
              className="choice !flex min-w-0 items-baseline gap-2"
              onClick={() => {
                onChoose([one]);
                close();
              }}
            >
              <span className="truncate">{one.subject}</span>
              <span className="ml-auto whitespace-nowrap text-small text-ink-3">{SAYS[one.standing ?? 'new']}</span>
            </button>
          </li>
        ))}
      </ul>
      <p className="flex items-baseline justify-between pt-2 text-small text-ink-3">
        Tick up to {MOST_TRIALS} to compare them.
        <Button look="word" type="submit">
          {text.trim() === '' ? 'Done' : 'Use this one'}
        </Button>
      </p>
    </form>
  );
}
