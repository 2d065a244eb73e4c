import type { StepRun } from '@grivo/contract';
import type { ReactNode } from 'react';
import { Mark, stateOf } from '../design/index.ts';
import { amount } from '../words/figures.ts';
import { clock, dayLong, took } from '../words/time.ts';
import { Given } from './Given.tsx';

/** What one step of a trial gave, beside its sentence: state, time, cost, the real thing. */
export function TrialResult({
  run,
  until,
  narrow = false,
}: {
  run: StepRun | null;
  until: string;
  /** Beside others: time and cost stand under the result. */
  narrow?: boolean;
}) {
  if (!run)
    return (
      <Line state="plan" time="" cost="" narrow={narrow}>
        <span className="text-ink-3">{until}</span>
      </Line>
    );
  const ms = run.startedAt && run.endedAt ? Date.parse(String(run.endedAt)) - Date.parse(String(run.startedAt)) : null;
  return (
    <Line
      narrow={narrow}
      state={stateOf(run.state)}
      time={run.state === 'running' ? 'now' : ms === null ? '' : took(ms)}
      cost={run.state === 'done' ? amount(run.micros) : ''}
    >
      {run.failure ? (
        <span className="text-red">
          {run.failure.sentence} {run.failure.mend}
        </span>
      ) : run.state === 'done' || run.state === 'held' ? (
        <Given gave={run.gave ?? {}} />
      ) : (
        <span className="text-ink-3">{standsFor(run)}</span>
      )}
    </Line>
  );
}

/** What a step that has not ended is about. */
function standsFor(run: StepRun): string {
  if (run.state === 'waiting' && run.dueDesk !== null)
    return `${run.kind === 'publish' ? 'waits for its slot,' : 'waits until'} ${dayLong(run.dueDesk).replace(',', '')} ${clock(run.dueDesk)}`;
  if (run.state === 'waiting') return 'tried again in a moment';
  return run.state === 'ready' ? 'about to begin' : 'being done';
}

function Line({
  state,
  time,
  cost,
  narrow,
  children,
}: {
  narrow: boolean;
  state: Parameters<typeof Mark>[0]['state'];
  time: string;
  cost: string;
  children: ReactNode;
}) {
  if (narrow)
    return (
      <div className="grid grid-cols-[16px_minmax(0,1fr)] py-2 text-small [&_.columns-2]:columns-1 [&_.truncate]:whitespace-normal">
        <Mark state={state} />
        <div className="min-w-0">
          {children}
          <span className="fig block text-ink-3">
            {time} {cost}
          </span>
        </div>
      </div>
    );
  return (
    <div className="grid grid-cols-[18px_54px_50px_minmax(0,1fr)] py-2 text-small">
      <span className="-mt-px">
        <Mark state={state} />
      </span>
      <span className="fig text-ink-3">{time}</span>
      <span className="fig text-ink-3">{cost}</span>
      <div className="min-w-0 pl-1">{children}</div>
    </div>
  );
}
