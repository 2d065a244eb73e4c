import type { Brief, PipelineWhole } from '@grivo/contract';
import { useMutation, useQuery } from '@tanstack/react-query';
import { memo, useCallback, useDeferredValue } from 'react';
import { Link, useSearchParams } from 'react-router';
import { call, inWords } from '../api/call.ts';
import { queryClient, read } from '../api/queries.ts';
import { Button, Empty, Loading, Mark, saysOf, stateOf, Trouble } from '../design/index.ts';
import { amount, plural } from '../words/figures.ts';
import { moment } from '../words/time.ts';
import { HeldStep } from './HeldStep.tsx';
import { TrialResult } from './TrialResult.tsx';

/** Every brief with how it stands; the open one with all its steps. */
export function Briefs({ pipeline, now }: { pipeline: PipelineWhole; now: number }) {
  const briefs = useQuery(read.briefs(pipeline.id));
  const [search, setSearch] = useSearchParams();
  const open = search.get('brief');
  const rows = useDeferredValue(briefs.data?.briefs);
  const choose = useCallback((brief: string) => setSearch({ show: 'briefs', brief }), [setSearch]);
  return (
    <div className="-mx-8 grid flex-1 grid-cols-[minmax(0,716fr)_minmax(0,564fr)] content-start border-t border-ink">
      <div className="px-8">
        <p className="flex h-9 items-center text-small text-ink-3">
          {rows ? `${plural(rows.length, 'brief')}, newest first` : ''}
        </p>
        {briefs.isPending ? <Loading /> : null}
        {briefs.isError ? <Trouble>{inWords(briefs.error)}</Trouble> : null}
        {rows?.length === 0 ? <Empty>No brief yet. Take items on the procedure page.</Empty> : null}
        <ul>
          {rows?.map((brief) => (
            <BriefRow
              key={brief.id}
              brief={brief}
              made={moment(brief.madeDesk, now)}
              open={open === brief.id}
              choose={choose}
            />
          ))}
        </ul>
      </div>
      <div className="border-l border-rule-strong bg-sheet px-5 pr-8">
        {open ? (
          <OpenBrief id={open} pipeline={pipeline} brief={rows?.find((row) => row.id === open)} />
        ) : (
          <p className="pt-2 text-small text-ink-3">Choose a brief to see what each step made of it.</p>
        )}
      </div>
    </div>
  );
}

const BriefRow = memo(function BriefRow({
  brief,
  made,
  open,
  choose,
}: {
  brief: Brief;
  made: string;
  open: boolean;
  choose: (brief: string) => void;
}) {
  return (
    <li className={`row ${open ? 'picked' : ''}`}>
      <button
        type="button"
        className="brackets grid h-7 w-full grid-cols-[20px_1fr_120px_140px] items-center text-left"
        aria-expanded={open}
        onClick={() => choose(brief.id)}
      >
        <Mark state={stateOf(brief.standing)} />
        <span className="truncate">{brief.subject}</span>
        <span className={brief.standing === 'stopped' ? 'text-red' : 'text-ink-3'}>{saysOf(brief.standing)}</span>
        <span className="fig text-right text-ink-3">{made}</span>
      </button>
    </li>
  );
});

function OpenBrief({ id, pipeline, brief }: { id: string; pipeline: PipelineWhole; brief: Brief | undefined }) {
  const whole = useQuery(read.brief(id));
  const holds = useQuery(read.holds(id)).data?.holds ?? [];
  const act = useMutation({
    mutationFn: ({ path, body = {} }: { path: string; body?: object }) =>
      call('POST', `/briefs/${id}/${path}`, { body }),
    onSettled: () => {
      void queryClient.invalidateQueries({ queryKey: ['brief', id] });
      void queryClient.invalidateQueries({ queryKey: ['briefs', pipeline.id] });
    },
  });
  if (!whole.data) return <Loading />;
  const { runs, subject, standing, articles, micros } = whole.data;
  const latest = [...new Map(runs.filter((run) => run.state !== 'cancelled').map((run) => [run.path, run])).values()];
  const ended = standing === 'out' || standing === 'set aside';
  return (
    <>
      <div className="flex h-9 items-center gap-3 text-small">
        <h2 className="truncate text-base font-semibold">{subject}</h2>
        <span className="fig ml-auto text-ink-3">{amount(micros)} €</span>
      </div>
      <p className="flex flex-wrap gap-4 border-b border-rule-soft pb-2 text-small">
        <span>
          <Mark state={stateOf(brief?.standing ?? standing)} /> {saysOf(brief?.standing ?? standing)}
        </span>
        {standing === 'stopped' ? (
          <Button look="word" onClick={() => act.mutate({ path: 'release' })}>
            Go on from there
          </Button>
        ) : null}
        {ended ? null : (
          <Button look="word" onClick={() => act.mutate({ path: 'ahead' })}>
            Put ahead
          </Button>
        )}
        {ended ? null : (
          <Button look="word" onClick={() => act.mutate({ path: 'set-aside' })}>
            Set aside
          </Button>
        )}
        {articles.map((article) => (
          <Link key={article.id} to={`/articles/${article.id}`} className="act brackets">
            Read the article
          </Link>
        ))}
      </p>
      {act.isError ? <Trouble>{inWords(act.error)}</Trouble> : null}
      {holds.map((hold) => (
        <HeldStep key={hold.run} hold={hold} />
      ))}
      <ul>
        {latest.map((run) => (
          <li key={run.id} className="group border-b border-rule-soft pt-1">
            <p className="flex text-small text-ink-2">
              {run.kind}
              {run.round > 0 ? <span className="pl-2 text-ink-3">round {run.round + 1}</span> : null}
              {run.attempts > 1 ? <span className="pl-2 text-ink-3">{run.attempts} attempts</span> : null}
              {ended || standing === 'waiting' ? null : (
                <Button
                  look="quiet"
                  className="ml-auto opacity-0 group-focus-within:opacity-100 group-hover:opacity-100"
                  onClick={() => act.mutate({ path: 'again', body: { step: run.path } })}
                >
                  again from here
                </Button>
              )}
            </p>
            <TrialResult run={run} until="" />
          </li>
        ))}
      </ul>
    </>
  );
}
