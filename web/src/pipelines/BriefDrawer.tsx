import { type BriefWhole, RunWhole } from '@grivo/contract';
import { stepIdOf } from '@grivo/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { call, inWords } from '../api/call.ts';
import { queryClient, read } from '../api/queries.ts';
import { Button, Loading, Mark, Only, saysOf, stateOf, Trouble } from '../design/index.ts';
import { amount, plural } from '../words/figures.ts';
import { clock, took } from '../words/time.ts';
import { HeldStep } from './HeldStep.tsx';
import { TrialResult } from './TrialResult.tsx';

type Run = BriefWhole['runs'][number];

interface BriefDrawerProps {
  id: string;
  step: string | null;
  pipeline: string;
  close: () => void;
}

/** One step of a brief: what went in, what came out, each round and attempt, and what can be done. */
export function BriefDrawer({ id, step, pipeline, close }: BriefDrawerProps) {
  const asked = useQuery(read.brief(id));
  return (
    <section
      aria-label="The step chosen"
      className="sticky bottom-0 z-10 grid h-[46vh] min-h-[230px] grid-cols-[300px_minmax(0,1fr)_minmax(0,1fr)] overflow-auto border-t border-ink bg-paper px-8 py-3"
    >
      {asked.data ? (
        <OpenBrief brief={asked.data} step={step} pipeline={pipeline} close={close} />
      ) : asked.isError ? (
        <div className="col-span-3">
          <Trouble>{inWords(asked.error)}</Trouble>
          <Button look="word" anyone onClick={() => void asked.refetch()}>
            Read it again
          </Button>
        </div>
      ) : (
        <Loading rows={3} />
      )}
    </section>
  );
}

function OpenBrief({ brief, step, pipeline, close }: Omit<BriefDrawerProps, 'id'> & { brief: BriefWhole }) {
  const holds = useQuery(read.holds(brief.id)).data?.holds ?? [];
  const [chosen, setChosen] = useState<string | null>(null);
  const runs = runsOf(brief, step);
  const run = runs.find((one) => one.id === chosen) ?? runs[0] ?? null;
  const detail = useQuery({
    queryKey: ['brief', brief.id, 'run', run?.id, run?.state],
    queryFn: () => call('GET', `/runs/${run?.id}`, { answer: RunWhole }),
    enabled: run !== null,
  });
  const hold = holds.find((one) => one.run === run?.id) ?? (step === null ? holds[0] : undefined);
  return (
    <>
      <div className="pr-6">
        <div className="flex justify-between gap-3 text-small text-ink-3">
          <span className="truncate">{brief.subject}</span>
          <Button look="quiet" anyone hint="Esc" onClick={close}>
            close
          </Button>
        </div>
        <h2 className="text-base font-semibold first-letter:uppercase">{run?.kind ?? 'Not begun'}</h2>
        {run ? <HowItRan run={run} /> : <p className="text-small text-ink-3">No step has run yet.</p>}
        <Acts brief={brief} run={run} pipeline={pipeline} />
        <Rounds runs={runs} run={run} onChoose={setChosen} />
        {detail.data?.attempts.map((attempt) => (
          <p key={attempt.n} className="text-small text-ink-2">
            <span className="fig text-ink-3">attempt {attempt.n}</span> {attempt.says}
          </p>
        ))}
      </div>
      <WentIn detail={detail.data} error={detail.error} reads={run !== null} />
      <div className="border-l border-rule pl-6">
        <h3 className="pb-1 text-base font-semibold">{hold ? 'Came out, held' : 'Came out'}</h3>
        {hold ? (
          // Whoever proofreads decides.
          <Only if>
            <HeldStep key={hold.run} hold={hold} />
          </Only>
        ) : run ? (
          <TrialResult run={run} until="" narrow />
        ) : null}
      </div>
    </>
  );
}

function WentIn({ detail, error, reads }: { detail: RunWhole | undefined; error: Error | null; reads: boolean }) {
  return (
    <div className="border-l border-rule px-6">
      <h3 className="pb-1 text-base font-semibold">Went in</h3>
      {detail ? (
        <dl className="text-small">
          {detail.wentIn.map(({ name, text }) => (
            <div key={name} className="grid grid-cols-[88px_1fr] border-b border-rule-soft py-0.5">
              <dt className="truncate text-ink-3">{name}</dt>
              <dd className="line-clamp-6 min-w-0 break-words">{text}</dd>
            </div>
          ))}
        </dl>
      ) : error ? (
        <Trouble>{inWords(error)}</Trouble>
      ) : reads ? (
        <Loading rows={3} />
      ) : null}
    </div>
  );
}

/** Runs of a step, the newest that counts first; without one, or where it has not come to it, those where the brief stands. */
function runsOf(brief: BriefWhole, step: string | null): Run[] {
  const newest = (a: Run, b: Run) => b.round - a.round || (a.id < b.id ? 1 : -1);
  const own = step === null ? [] : brief.runs.filter((run) => stepIdOf(run.path) === step);
  if (own.length > 0) return own.sort(newest);
  const at =
    brief.runs.find(({ state }) => state === 'held' || state === 'stopped') ??
    brief.runs.find(({ state }) => state === 'running' || state === 'waiting') ??
    brief.runs.filter(({ state }) => state === 'done').at(-1) ??
    brief.runs.at(-1);
  return at ? brief.runs.filter(({ path }) => path === at.path).sort(newest) : [];
}

function HowItRan({ run }: { run: Run }) {
  const from = run.startedAt ? Date.parse(String(run.startedAt)) : null;
  const to = run.endedAt ? Date.parse(String(run.endedAt)) : null;
  return (
    <p className="text-small">
      <Mark state={stateOf(run.state)} /> {saysOf(run.state)}
      {from !== null && to !== null ? `, ran ${took(to - from)} at ${clock(from)}` : ''}
      {run.micros > 0 ? `, ${run.endedAt ? 'cost ' : ''}${amount(run.micros)} €${run.endedAt ? '' : ' so far'}` : ''}
      {run.attempts > 1 ? `, ${plural(run.attempts, 'attempt')}` : run.state === 'done' ? ', first try' : ''}
    </p>
  );
}

function Rounds({ runs, run, onChoose }: { runs: Run[]; run: Run | null; onChoose: (run: string) => void }) {
  const paths = new Set(runs.map(({ path }) => path));
  if (runs.length < 2) return null;
  return (
    <p className="flex flex-wrap gap-x-3 pt-1 text-small">
      {runs.map((one) => (
        <button
          key={one.id}
          type="button"
          aria-pressed={one.id === run?.id}
          className={`brackets ${one.id === run?.id ? 'hl hl-full' : 'text-ink-2'}`}
          onClick={() => onChoose(one.id)}
        >
          {paths.size > 1 ? `${one.path}, ` : ''}round {one.round + 1}
        </button>
      ))}
    </p>
  );
}

function Acts({ brief, run, pipeline }: { brief: BriefWhole; run: Run | null; pipeline: string }) {
  const act = useMutation({
    mutationFn: ({ path, body = {} }: { path: string; body?: object }) =>
      call('POST', `/briefs/${brief.id}/${path}`, { body }),
    onSettled: () => {
      void queryClient.invalidateQueries({ queryKey: ['brief', brief.id] });
      void queryClient.invalidateQueries({ queryKey: ['briefs', pipeline] });
    },
  });
  const { standing } = brief;
  const ended = standing === 'out' || standing === 'set aside';
  return (
    <>
      <p className="flex flex-wrap gap-x-4 gap-y-1 py-1.5 text-small">
        {standing === 'stopped' ? (
          <Button look="word" onClick={() => act.mutate({ path: 'release' })}>
            Go on from there
          </Button>
        ) : null}
        {standing === 'in work' || standing === 'ready' ? (
          <Button look="word" onClick={() => act.mutate({ path: 'stop' })}>
            Stop it
          </Button>
        ) : null}
        {run && standing !== 'out' && standing !== 'waiting' ? (
          <Button look="word" onClick={() => act.mutate({ path: 'again', body: { step: run.path } })}>
            Run again from here
          </Button>
        ) : null}
        {standing === 'set aside' ? (
          <Button look="word" onClick={() => act.mutate({ path: 'bring-back' })}>
            Bring it back
          </Button>
        ) : null}
        {ended ? null : (
          <>
            <Button look="quiet" onClick={() => act.mutate({ path: 'ahead' })}>
              Put ahead
            </Button>
            <Button look="quiet" onClick={() => act.mutate({ path: 'set-aside' })}>
              Set aside
            </Button>
          </>
        )}
        {brief.articles.map((article) => (
          <Link key={article.id} to={`/articles/${article.id}`} className="act quiet brackets">
            {brief.articles.length > 1 ? article.title.slice(0, 30) || 'an article' : 'Read the article'}
          </Link>
        ))}
      </p>
      {act.isError ? <Trouble>{inWords(act.error)}</Trouble> : null}
    </>
  );
}
