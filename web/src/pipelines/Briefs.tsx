import { type BriefStanding, DoneToBriefs, type ManyBriefs, type PipelineWhole, type SheetRow } from '@grivo/contract';
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

const ACTS: { act: ManyBriefs['do']; says: string; fits: (row: SheetRow) => boolean }[] = [
  { act: 'go on', says: 'Go on', fits: ({ standing }) => standing === 'stopped' },
  { act: 'stop', says: 'Stop', fits: ({ standing }) => standing === 'in work' || standing === 'ready' },
  { act: 'put ahead', says: 'Put ahead', fits: ({ standing }) => !['out', 'set aside'].includes(standing) },
  { act: 'set aside', says: 'Set aside', fits: ({ standing }) => !['out', 'set aside'].includes(standing) },
  { act: 'bring back', says: 'Bring back', fits: ({ standing }) => standing === 'set aside' },
];

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
  const toggle = useCallback(
    (id: string) =>
      setPicked((before) => {
        const after = new Set(before);
        if (!after.delete(id)) after.add(id);
        return after;
      }),
    [],
  );
  const many = useMutation({
    mutationFn: ({ act, briefs }: { act: ManyBriefs['do']; briefs: string[] }) =>
      call('POST', '/briefs/many', { body: { do: act, briefs }, answer: DoneToBriefs }),
    onSuccess: () => setPicked(new Set()),
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
    x: list ? () => place.current.open && toggle(place.current.open) : null,
    Escape:
      open || picked.size > 0
        ? () => (picked.size > 0 ? setPicked(new Set()) : put({ brief: null, step: null }))
        : null,
  });
  const all = STANDINGS.reduce((sum, one) => sum + pipeline.counts[one], 0);
  return (
    <div className="-mx-8 flex flex-1 flex-col border-t border-ink">
      <div className="flex h-10 flex-wrap items-center gap-x-4 px-8 text-small">
        <Filter says="all" n={all} on={standing === null} onChoose={() => put({ standing: null })} />
        {STANDINGS.map((one) => (
          <Filter
            key={one}
            says={one}
            n={pipeline.counts[one]}
            on={standing === one}
            onChoose={() => put({ standing: one })}
          />
        ))}
        <input
          className="field ml-auto !w-56"
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
          open={open}
          step={step}
          picked={picked}
          choose={choose}
          toggle={toggle}
          below={picked.size > 0 ? '100vh - 52px' : open ? '54vh' : '100vh'}
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
            Done to {plural(many.data.done, 'brief')}
            {many.data.left > 0 ? `; ${count(many.data.left)} stood otherwise and are left as they were` : ''}.
          </DoneHere>
        </div>
      ) : null}
      {picked.size > 0 ? (
        <div className="sticky bottom-0 z-10 flex h-13 items-center gap-5 border-t border-ink bg-sheet px-8">
          <span>{plural(picked.size, 'brief')} picked</span>
          {ACTS.map(({ act, says, fits }) => {
            const fitting = chosen.filter(fits);
            return (
              <Button
                key={act}
                disabled={fitting.length === 0}
                busy={many.isPending && many.variables.act === act ? 'At it' : null}
                onClick={() => many.mutate({ act, briefs: fitting.map(({ id }) => id) })}
              >
                {fitting.length === picked.size || fitting.length === 0 ? says : `${says} (${fitting.length})`}
              </Button>
            );
          })}
          <Button look="quiet" className="ml-auto" hint="Esc" onClick={() => setPicked(new Set())}>
            Pick none
          </Button>
        </div>
      ) : open ? (
        <BriefDrawer id={open} step={step} pipeline={pipeline.id} close={() => put({ brief: null, step: null })} />
      ) : null}
    </div>
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
