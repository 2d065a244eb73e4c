import type { BriefAct, BriefStanding, PipelineWhole } from '@grivo/contract';
import type { ReactNode } from 'react';
import { inWords } from '../api/call.ts';
import { Button, DoneHere, Empty, Loading, Trouble, usePicked } from '../design/index.ts';
import { useViewKeys } from '../shell/keys.ts';
import { count, counted, plural } from '../words/figures.ts';
import { BriefBar } from './BriefBar.tsx';
import { BriefDrawer } from './BriefDrawer.tsx';
import { BriefSheet } from './BriefSheet.tsx';
import { DONE, type Many, STANDINGS, useMany } from './briefActs.ts';
import { type BriefView, useBriefView } from './useBriefView.ts';

/** Every brief against the steps of the procedure; one of its steps open below, or many picked for one act. */
export function Briefs({ pipeline, now }: { pipeline: PipelineWhole; now: number }) {
  const view = useBriefView(pipeline.id);
  const { sheet, rows, open, step, put, place } = view;
  const picks = usePicked(rows);
  const many = useMany(picks.none);
  const leave = () => put({ brief: null, step: null });
  const list = rows.length > 0;
  const pickOpen = (range: boolean) => () => place.current.open && picks.toggle(place.current.open, range);
  useViewKeys({
    j: list ? () => view.move(1) : null,
    k: list ? () => view.move(-1) : null,
    l: list ? () => view.across(1) : null,
    h: list ? () => view.across(-1) : null,
    x: list ? pickOpen(false) : null,
    X: list ? pickOpen(true) : null,
    a: list ? picks.pickAll : null,
    Escape: picks.any ? picks.none : open ? leave : null,
  });
  return (
    <div className="-mx-8 flex flex-1 flex-col border-t border-ink">
      <Filters pipeline={pipeline} view={view} many={many} />
      <Wide>{sheet.isError ? <Trouble>{inWords(sheet.error)}</Trouble> : null}</Wide>
      {sheet.isPending ? (
        <Wide>
          <Loading rows={12} />
        </Wide>
      ) : !list ? (
        <Wide>
          <None view={view} />
        </Wide>
      ) : (
        <BriefSheet
          columns={view.columns}
          rows={rows}
          now={now}
          newest={pipeline.version}
          open={open}
          step={step}
          picked={picks.picked}
          choose={view.choose}
          toggle={picks.toggle}
          below={picks.any ? '100vh - 52px' : open ? '54vh' : '100vh'}
          more={sheet.hasNextPage && !sheet.isFetchingNextPage ? () => void sheet.fetchNextPage() : null}
        />
      )}
      <Wide>
        {many.isError ? <Trouble>{inWords(many.error)}</Trouble> : null}
        {many.data ? <DoneToMany done={many.data} /> : null}
      </Wide>
      {picks.any ? (
        <BriefBar pipeline={pipeline} view={view} picks={picks} many={many} />
      ) : open ? (
        <BriefDrawer id={open} step={step} pipeline={pipeline.id} close={leave} />
      ) : null}
    </div>
  );
}

function Wide({ children }: { children: ReactNode }) {
  return <div className="px-8">{children}</div>;
}

/** Which standings are shown, what can be done to the whole queue, and a subject to find. */
function Filters({ pipeline, view, many }: { pipeline: PipelineWhole; view: BriefView; many: Many }) {
  const { standing, typed, setTyped, put } = view;
  const total = STANDINGS.reduce((sum, one) => sum + pipeline.counts[one], 0);
  return (
    <div className="flex h-10 flex-wrap items-center gap-x-4 px-8 text-small">
      <Filter says="all" n={total} on={standing === null} onChoose={() => put({ standing: null })} />
      {STANDINGS.map((one) => (
        <Filter
          key={one}
          says={one}
          n={pipeline.counts[one]}
          on={standing === one}
          onChoose={() => put({ standing: one })}
        />
      ))}
      <span className="ml-auto flex items-center gap-4">
        <WholeQueue
          pipeline={pipeline}
          run={(act, standing) => many.mutate({ act, on: { matching: { pipeline: pipeline.id, standing, find: '' } } })}
          busy={many.isPending}
        />
      </span>
      <input
        className="field !w-48"
        aria-label="Find a subject"
        placeholder="Find a subject"
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
      />
    </div>
  );
}

function None({ view: { find, standing, setTyped, put } }: { view: BriefView }) {
  if (find === '' && !standing) return <Empty>No brief yet. Take items at the foot of the procedure.</Empty>;
  const all = () => {
    setTyped('');
    put({ standing: null });
  };
  return (
    <Empty
      next={
        <Button look="word" onClick={all}>
          Show all
        </Button>
      }
    >
      No brief is like that.
    </Empty>
  );
}

function DoneToMany({ done: { act, done, left } }: { done: NonNullable<Many['data']> }) {
  if (done === 0) return <DoneHere>None of them is in a state where that can be done.</DoneHere>;
  return (
    <DoneHere>
      {`${plural(done, 'brief')} ${DONE[act]}`}
      {left > 0 ? `; ${count(left)} could not, and stay as they are` : ''}.
    </DoneHere>
  );
}

/** Stopping all of a pipeline, letting all go on, and bringing all to the newest version, with how many each is. */
function WholeQueue({
  pipeline: { counts, older, version },
  run,
  busy,
}: {
  pipeline: PipelineWhole;
  run: (act: BriefAct, standing: BriefStanding[]) => void;
  busy: boolean;
}) {
  const going = counts.waiting + counts['in work'];
  return (
    <>
      {older > 0 ? (
        <Button look="word" disabled={busy} onClick={() => run('bring to the newest', [])}>
          {`Bring ${plural(older, 'brief')} to version ${version}`}
        </Button>
      ) : null}
      {counts.stopped > 0 ? (
        <Button look="word" disabled={busy} onClick={() => run('go on', ['stopped'])}>
          {`Let ${counted(counts.stopped)} go on`}
        </Button>
      ) : null}
      {going > 0 ? (
        <Button look="word" disabled={busy} onClick={() => run('stop', ['waiting', 'in work'])}>
          {`Stop all ${counted(going)}`}
        </Button>
      ) : null}
    </>
  );
}

function Filter({ says, n, on, onChoose }: { says: string; n: number; on: boolean; onChoose: () => void }) {
  return (
    <button
      type="button"
      aria-pressed={on}
      disabled={n === 0 && !on}
      className={`brackets disabled:text-graphite ${on ? 'hl hl-full font-semibold' : 'text-ink-2'}`}
      onClick={onChoose}
    >
      {says} <span className="fig">{count(n)}</span>
    </button>
  );
}
