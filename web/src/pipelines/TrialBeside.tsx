import type { Estimate } from '@grivo/contract';
import type { ReactNode } from 'react';
import { Button, Word } from '../design/index.ts';
import { useWidth } from '../shell/useWidth.ts';
import { amount, plural } from '../words/figures.ts';
import { TrialResult } from './TrialResult.tsx';
import { SubjectEditor } from './TrialSubject.tsx';
import { latestRun, type useTrials } from './useTrials.ts';

type Trials = ReturnType<typeof useTrials>;

/** Up to this width what a trial costs stands in a line of its own. */
const NARROW = 1_100;

const hasBegun = ({ trials }: Trials) => trials.some((trial) => trial !== null);

/**
 * What the trial is on, what it costs, and the way to run it.
 * @param costs shows what a cost is made of, where it is pressed
 */
export function TrialHead({ trial, costs }: { trial: Trials; costs: (says: string) => ReactNode }) {
  const { subjects, offered, choose, trials, run, running, canRun, next, go, waiting, estimate } = trial;
  const begun = hasBegun(trial);
  const narrow = useWidth() <= NARROW;
  const spent = trials.reduce((sum, one) => sum + (one?.micros ?? 0), 0);
  const cost = begun ? `${amount(spent)} €` : estimate ? expected(estimate, subjects.length) : '';
  return (
    <>
      <div
        data-screen=""
        className={`relative flex h-9 items-center gap-2.5 pr-8 pl-5 text-small whitespace-nowrap ${begun ? '[&_.word>span]:max-w-[112px] max-[1100px]:[&_.word>span]:max-w-[64px]' : ''}`}
      >
        <h2 className="text-base font-semibold">Trial on</h2>
        <Word
          label="Trial on"
          editor={(close) => <SubjectEditor value={subjects} offered={offered} onChoose={choose} close={close} />}
        >
          {subjects.length > 1 ? `${subjects.length} subjects` : (subjects[0]?.subject ?? 'a subject')}
        </Word>
        <span className="fig ml-auto truncate text-ink-3">{narrow ? '' : costs(cost)}</span>
        {begun && next ? (
          <Button look="quiet" hint="N" disabled={!canRun} onClick={() => go('a step')}>
            one step on
          </Button>
        ) : null}
        <Button
          look={begun ? 'line' : 'solid'}
          hint="R"
          disabled={!canRun}
          busy={running || run.isPending ? (waiting > 0 ? `Running, then ${waiting} more` : 'Running') : null}
          onClick={() => go('to the end')}
        >
          {begun ? 'Run what changed' : 'Run it'}
        </Button>
      </div>
      {/* Beside the subject there is no room for it in a narrow window. */}
      {narrow ? (
        <p data-screen="" className="fig relative col-start-2 px-5 pb-1 text-ink-3">
          {costs(cost)}
        </p>
      ) : null}
    </>
  );
}

/** What can be done with the trial at one line. */
export function TrialTools({
  trial: { trials, run, canRun },
  step,
  first,
}: {
  trial: Trials;
  step: string;
  first: boolean;
}) {
  return (
    <>
      {first ? null : (
        <Button look="quiet" tabIndex={-1} disabled={!canRun} onClick={() => run.mutate({ until: step })}>
          run to here
        </Button>
      )}
      {trials.some((trial) => trial?.runs.some((one) => one.path === step)) ? (
        <Button look="quiet" tabIndex={-1} disabled={!canRun} onClick={() => run.mutate({ until: null, from: step })}>
          again from here
        </Button>
      ) : null}
    </>
  );
}

/** What each trial made of one line; beside the first, what the trials are on. */
export function BesideLine({
  trial: { trials, subjects },
  step,
  first,
}: {
  trial: Trials;
  step: string;
  first: boolean;
}) {
  return (
    <div
      className="grid gap-x-4"
      style={{ gridTemplateColumns: `repeat(${Math.max(1, trials.length)}, minmax(0, 1fr))` }}
    >
      {first && subjects.length === 0 ? (
        <p className="py-2.5 text-small text-ink-3">choose an item above, or type a subject</p>
      ) : null}
      {first
        ? subjects.map(({ subject: name }, i) => (
            <p key={`${i} ${name}`} className="truncate py-2.5 text-small" title={name}>
              <b className={trials[i] ? 'font-semibold' : 'font-normal text-ink-3'}>{name}</b>
              {trials.length > 1 && trials[i] ? (
                <span className="fig pl-2 text-ink-3">{amount(trials[i].micros)} €</span>
              ) : null}
            </p>
          ))
        : trials.map((trial, i) => (
            <TrialResult
              key={`${i} ${subjects[i]?.subject}`}
              run={latestRun(trial, step)}
              until={
                trial === null ? '' : trial.standing === 'set aside' ? 'not run: it was set aside above' : 'not run yet'
              }
              narrow={trials.length > 1}
            />
          ))}
    </div>
  );
}

/** What a trial came to, or what it will not do. */
export function TrialFoot({ trial }: { trial: Trials }) {
  const one = trial.trials.length === 1 ? trial.trials[0]! : null;
  const done = one?.runs.filter(({ state }) => state === 'done').length ?? 0;
  return (
    <div className="mr-8 border-t border-rule-soft py-3 pl-5 text-small text-ink-3">
      {one?.standing === 'out'
        ? `The trial is done, ${plural(done, 'step')}. Nothing was published.`
        : hasBegun(trial)
          ? ''
          : 'A trial publishes nothing; effects outside are shown as what would be done.'}
    </div>
  );
}

/** About what so many trials will cost, with its spread where there is one worth saying. */
function expected({ micros, fromMicros, toMicros }: Estimate, times: number): string {
  const [from, to] = [amount(fromMicros * times), amount(toMicros * times)];
  return from === to ? `about ${amount(micros * times)} €` : `about ${from} to ${to} €`;
}
