import {
  type BriefAct,
  type BriefStanding,
  DoneToBriefs,
  type ManyBriefs,
  type PipelineWhole,
  type SheetRow,
} from '@grivo/contract';
import { useInfiniteQuery, useMutation } from '@tanstack/react-query';
import { useCallback, useMemo, useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import { call, inWords } from '../api/call.ts';
import { queryClient } from '../api/queries.ts';
import { Button, DoneHere, Empty, Loading, Trouble } from '../design/index.ts';
import { useViewKeys } from '../shell/keys.ts';
import { count, plural } from '../words/figures.ts';
import { BriefDrawer } from './BriefDrawer.tsx';
import { BriefSheet } from './BriefSheet.tsx';
import { whole } from './read.ts';
import { useSettled } from './useSettled.ts';

const STANDINGS: BriefStanding[] = ['held', 'stopped', 'in work', 'waiting', 'ready', 'out', 'set aside'];

interface Act {
  act: BriefAct;
  says: string;
  fits: (row: Pick<SheetRow, 'standing' | 'version'>, newest: number) => boolean;
}

const isOpen = (standing: BriefStanding) => standing !== 'out' && standing !== 'set aside';

const ACTS: Act[] = [
  { act: 'go on', says: 'Go on', fits: ({ standing }) => standing === 'stopped' },
  { act: 'begin now', says: 'Begin now', fits: ({ standing }) => standing === 'waiting' },
  { act: 'stop', says: 'Stop', fits: ({ standing }) => ['waiting', 'in work', 'ready'].includes(standing) },
  {
    act: 'bring to the newest',
    says: 'Bring to the newest version',
    fits: ({ standing, version }, newest) => isOpen(standing) && standing !== 'waiting' && version < newest,
  },
  { act: 'put ahead', says: 'Put ahead', fits: ({ standing }) => isOpen(standing) },
  { act: 'set aside', says: 'Set aside', fits: ({ standing }) => isOpen(standing) },
  { act: 'bring back', says: 'Bring back', fits: ({ standing }) => standing === 'set aside' },
];

/** What was done, in a sentence that goes on from how many. */
const DONE: Record<BriefAct, string> = {
  'go on': 'going on',
  'begin now': 'beginning now',
  stop: 'stopped',
  'bring to the newest': 'going on by the newest version',
  'put ahead': 'put ahead of the others',
  'set aside': 'set aside',
  'leave aside': 'left aside',
  'bring back': 'brought back',
};

/** What an act is done to: briefs picked, or all that match. */
type Chosen = { briefs: string[] } | { matching: NonNullable<ManyBriefs['matching']> };

/** Every brief against the steps of the procedure; one of its steps open below, or many picked for one act. */
export function Briefs({ pipeline, now }: { pipeline: PipelineWhole; now: number }) {
  const [search, setSearch] = useSearchParams();
  const open = search.get('brief');
  const step = search.get('step');
  const standing = STANDINGS.find((one) => one === search.get('standing')) ?? null;
  const [typed, setTyped] = useState('');
  const find = useSettled(typed.trim(), 200);
  const sheet = useInfiniteQuery(whole.sheet(pipeline.id, standing, find));
  const pages = sheet.data?.pages;
  const rows = useMemo(() => pages?.flatMap((page) => page.rows) ?? [], [pages]);
  const columns = pages?.[0]?.columns ?? [];
  const [picked, setPicked] = useState<ReadonlySet<string>>(new Set());
  const chosen = rows.filter((row) => picked.has(row.id));
  const put = useCallback(
    (next: Record<string, string | null>) =>
      setSearch(
        (before) => {
          for (const [name, value] of Object.entries({ show: 'briefs', ...next }))
            if (value === null) before.delete(name);
            else before.set(name, value);
          return before;
        },
        { replace: true },
      ),
    [setSearch],
  );
  // Keys come faster than the address is read again.
  const place = useRef({ open, step });
  place.current = { open, step };
  const choose = useCallback(
    (brief: string, step: string | null) => {
      place.current = { open: brief, step };
      put({ brief, step });
    },
    [put],
  );
  /** All that match, those among them that no page has brought yet. */
  const [all, setAll] = useState(false);
  const lastPicked = useRef<string | null>(null);
  const shown = useRef(rows);
  shown.current = rows;
  const pickNone = useCallback(() => {
    setPicked(new Set());
    setAll(false);
    lastPicked.current = null;
  }, []);
  const toggle = useCallback((id: string, range: boolean) => {
    setAll(false);
    const ids = shown.current.map((row) => row.id);
    const [from, to] = [range ? ids.indexOf(lastPicked.current ?? id) : -1, ids.indexOf(id)];
    lastPicked.current = id;
    setPicked((before) => {
      const after = new Set(before);
      if (from >= 0) for (const one of ids.slice(Math.min(from, to), Math.max(from, to) + 1)) after.add(one);
      else if (!after.delete(id)) after.add(id);
      return after;
    });
  }, []);
  const many = useMutation({
    mutationFn: async ({ act, on }: { act: BriefAct; on: Chosen }) => {
      const sum = { act, done: 0, left: 0 };
      // Of very many, so many at a time.
      for (;;) {
        const { done, left, more } = await call('POST', '/briefs/many', {
          body: { do: act, ...on },
          answer: DoneToBriefs,
        });
        sum.done += done;
        sum.left += left;
        if (more === 0 || done === 0) return sum;
      }
    },
    onSuccess: () => pickNone(),
    onSettled: () => {
      for (const key of ['briefs', 'brief', 'pipeline', 'pipelines', 'today'])
        void queryClient.invalidateQueries({ queryKey: [key] });
    },
  });
  const move = (by: number) => {
    const { open, step } = place.current;
    const at = rows.findIndex((row) => row.id === open);
    const next = rows[at === -1 ? 0 : Math.max(0, Math.min(rows.length - 1, at + by))];
    if (next) choose(next.id, step);
  };
  const across = (by: number) => {
    const { open, step } = place.current;
    if (!open || columns.length === 0) return;
    const here = columns.findIndex((column) => column.step === step);
    const next = columns[Math.max(0, Math.min(columns.length - 1, here === -1 ? (by > 0 ? 0 : -1) : here + by))];
    choose(open, next?.step ?? null);
  };
  const list = rows.length > 0;
  useViewKeys({
    j: list ? () => move(1) : null,
    k: list ? () => move(-1) : null,
    l: list ? () => across(1) : null,
    h: list ? () => across(-1) : null,
    x: list ? () => place.current.open && toggle(place.current.open, false) : null,
    X: list ? () => place.current.open && toggle(place.current.open, true) : null,
    a: list ? () => setAll(true) : null,
    Escape:
      open || picked.size > 0 || all
        ? () => (picked.size > 0 || all ? pickNone() : put({ brief: null, step: null }))
        : null,
  });
  const total = STANDINGS.reduce((sum, one) => sum + pipeline.counts[one], 0);
  const matching: Chosen = { matching: { pipeline: pipeline.id, standing: standing ? [standing] : [], find } };
  const nMatching = find === '' ? (standing ? pipeline.counts[standing] : total) : null;
  const anyPicked = picked.size > 0 || all;
  return (
    <div className="-mx-8 flex flex-1 flex-col border-t border-ink">
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
            run={(act, standing) =>
              many.mutate({ act, on: { matching: { pipeline: pipeline.id, standing, find: '' } } })
            }
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
      {sheet.isError ? (
        <div className="px-8">
          <Trouble>{inWords(sheet.error)}</Trouble>
        </div>
      ) : null}
      {sheet.isPending ? (
        <div className="px-8">
          <Loading rows={12} />
        </div>
      ) : rows.length === 0 ? (
        <div className="px-8">
          <Empty
            next={
              find !== '' || standing ? (
                <Button
                  look="word"
                  onClick={() => {
                    setTyped('');
                    put({ standing: null });
                  }}
                >
                  Show all
                </Button>
              ) : null
            }
          >
            {find !== '' || standing
              ? 'No brief is like that.'
              : 'No brief yet. Take items at the foot of the procedure.'}
          </Empty>
        </div>
      ) : (
        <BriefSheet
          columns={columns}
          rows={rows}
          now={now}
          newest={pipeline.version}
          open={open}
          step={step}
          picked={picked}
          choose={choose}
          toggle={toggle}
          below={anyPicked ? '100vh - 52px' : open ? '54vh' : '100vh'}
          more={sheet.hasNextPage && !sheet.isFetchingNextPage ? () => void sheet.fetchNextPage() : null}
        />
      )}
      {many.isError ? (
        <div className="px-8">
          <Trouble>{inWords(many.error)}</Trouble>
        </div>
      ) : null}
      {many.data ? (
        <div className="px-8">
          <DoneHere>
            {many.data.done === 0
              ? 'None of them is in a state where that can be done.'
              : `${plural(many.data.done, 'brief')} ${DONE[many.data.act]}`}
            {many.data.done > 0 && many.data.left > 0
              ? `; ${count(many.data.left)} could not, and stay as they are`
              : ''}
            {many.data.done > 0 ? '.' : ''}
          </DoneHere>
        </div>
      ) : null}
      {anyPicked ? (
        <div className="sticky bottom-0 z-10 flex h-13 items-center gap-5 border-t border-ink bg-sheet px-8">
          <span>
            {all
              ? nMatching === null
                ? 'All that match picked'
                : `All ${plural(nMatching, 'brief')} picked`
              : `${plural(picked.size, 'brief')} picked`}
          </span>
          {ACTS.map(({ act, says, fits }) => {
            const fitting = chosen.filter((row) => fits(row, pipeline.version));
            const could = all
              ? STANDINGS.some((one) => (!standing || one === standing) && fits({ standing: one, version: 0 }, 1))
              : fitting.length > 0;
            return (
              <Button
                key={act}
                disabled={!could || many.isPending}
                busy={many.isPending && many.variables.act === act ? 'Working' : null}
                onClick={() => many.mutate({ act, on: all ? matching : { briefs: fitting.map(({ id }) => id) } })}
              >
                {all || fitting.length === picked.size || fitting.length === 0 ? says : `${says} (${fitting.length})`}
              </Button>
            );
          })}
          {all ? null : (
            <Button look="quiet" className="ml-auto" hint="A" onClick={() => setAll(true)}>
              {nMatching === null ? 'Pick all that match' : `Pick all ${count(nMatching)}`}
            </Button>
          )}
          <Button look="quiet" className={all ? 'ml-auto' : ''} hint="Esc" onClick={pickNone}>
            Pick none
          </Button>
        </div>
      ) : open ? (
        <BriefDrawer id={open} step={step} pipeline={pipeline.id} close={() => put({ brief: null, step: null })} />
      ) : null}
    </div>
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
          {`Let ${count(counts.stopped)} go on`}
        </Button>
      ) : null}
      {going > 0 ? (
        <Button look="word" disabled={busy} onClick={() => run('stop', ['waiting', 'in work'])}>
          {`Stop all ${count(going)}`}
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
