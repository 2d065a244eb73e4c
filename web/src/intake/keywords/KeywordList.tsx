import { FiguresLookedUp, type Item, type SourceWhole } from '@grivo/contract';
import { languageOf, opportunityBy } from '@grivo/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { lazy, Suspense, useCallback, useMemo, useState } from 'react';
import { call, inWords } from '../../api/call.ts';
import { queryClient, read } from '../../api/queries.ts';
import { ActionBar, Button, DoneHere, Empty, Head, Key, Loading, Tick, Trouble } from '../../design/index.ts';
import { useViewKeys } from '../../shell/keys.ts';
import { count, plural } from '../../words/figures.ts';
import { LeaveOut } from '../items/LeaveOut.tsx';
import { LeftOut } from '../LeftOut.tsx';
import { LookedHere, type Settings } from '../LookWords.tsx';
import { Paste } from '../Paste.tsx';
import { SourceHead } from '../SourceHead.tsx';
import { IntoWords, TakeButton, TakenHere, useTakingInto } from '../TakeInto.tsx';
import { useChange, useLook } from '../useSource.ts';
import { FormulaWord, ListWords } from './ListWords.tsx';
import { columnsOf, UnitRows } from './UnitRows.tsx';
import { answerOf, itemsOf, ORDERS, type Order, ordered, type Unit, unitsOf } from './units.ts';
import { useGroups } from './useGroups.ts';
import { Widen } from './Widen.tsx';

const Scatter = lazy(() => import('./Scatter.tsx'));

/** What stands on the right. */
type Panel = 'scatter' | 'paste' | 'widen';

const NONE: readonly Item[] = [];

/** One keyword list: its phrases or groups of them, what was made of them, and taking the ticked ones into a pipeline. */
export function KeywordList({ source, settings }: { source: SourceWhole; settings: Settings<'keywords'> }) {
  const { id } = source;
  const change = useChange(source);
  const look = useLook(id);
  const held = useQuery(read.items(id));
  const all = held.data?.items ?? NONE;
  const [filter, setFilter] = useState('');
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set());
  const [at, setAt] = useState(0);
  const [chosenOrder, setOrder] = useState<Order | 'none' | null>(null);
  const [chosenPanel, setPanel] = useState<Panel | null>(null);
  const into = useTakingInto(id, 'keywords', () => setTicked(new Set()));
  const { pipeline } = into;
  const offered = useMemo(() => all.filter((item) => item.leftOut === null), [all]);
  const language = useMemo(
    () =>
      languageOf(
        offered
          .slice(0, 2_000)
          .map(({ subject }) => subject)
          .join(' '),
      ) ?? 'en',
    [offered],
  );
  const { groups, busy } = useGroups(offered, settings.group, language);
  const grouped = groups !== null;
  const units = useMemo(
    () => unitsOf(offered, groups, opportunityBy(settings.opportunity)),
    [offered, groups, settings.opportunity],
  );
  const measured = useMemo(() => all.some((item) => item.volume !== null || item.difficulty !== null), [all]);
  // Groups are gone through from the most promising on; phrases stay as they were given until an order is chosen.
  const order = chosenOrder === 'none' ? null : (chosenOrder ?? (grouped && measured ? 'opportunity' : null));
  const shown = useMemo(() => {
    const words = filter.trim().toLowerCase();
    const some = units.filter((unit) => itemsOf(unit).some(({ subject }) => subject.toLowerCase().includes(words)));
    return ordered(some, order);
  }, [units, filter, order]);
  const figures = useMutation({
    mutationFn: () => call('POST', `/sources/${id}/figures`, { answer: FiguresLookedUp }),
    onSuccess: () => void queryClient.invalidateQueries({ queryKey: ['items', id] }),
  });
  const taker = pipeline?.id;
  const takeable = useCallback(
    (unit: Unit) => !itemsOf(unit).some(({ taken }) => taken.some((one) => one.pipeline === taker)),
    [taker],
  );
  // What an article of ours answers is ticked by hand only.
  const isOpen = useCallback((unit: Unit) => takeable(unit) && answerOf(unit) === null, [takeable]);
  const toggle = (unit: Unit) => {
    if (!takeable(unit)) return;
    const next = new Set(ticked);
    if (!next.delete(unit.id)) next.add(unit.id);
    setTicked(next);
  };
  const picked = units.filter((unit) => ticked.has(unit.id) && takeable(unit));
  const phrases = picked.reduce((sum, unit) => sum + 1 + unit.rest.length, 0);
  const chosen = grouped
    ? { groups: picked.map((unit) => itemsOf(unit).map((item) => item.id)) }
    : { items: picked.map((unit) => unit.id) };
  const leave = useMutation({
    mutationFn: () =>
      call('POST', `/sources/${id}/offer`, {
        body: { items: picked.flatMap((unit) => itemsOf(unit).map((item) => item.id)), offer: false },
      }),
    onSuccess: () => {
      setTicked(new Set());
      void queryClient.invalidateQueries({ queryKey: ['items', id] });
    },
  });
  const canTake = picked.length > 0 && pipeline !== undefined && !into.take.isPending;
  useViewKeys({
    j: () => setAt((n) => Math.min(shown.length - 1, n + 1)),
    k: () => setAt((n) => Math.max(0, n - 1)),
    ' ': shown[at] ? () => toggle(shown[at]!) : null,
    t: canTake ? () => into.take.mutate(chosen) : null,
    x: picked.length > 0 && !leave.isPending ? () => leave.mutate() : null,
    w: () => setPanel('widen'),
  });
  if (held.isPending)
    return (
      <div className="pt-8">
        <Loading rows={10} />
      </div>
    );
  if (!held.data) return <Trouble>{inWords(held.error)}</Trouble>;
  const open = shown.filter(isOpen);
  const left = all.filter((item) => item.leftOut !== null);
  const answered = units.filter((unit) => answerOf(unit) !== null).length;
  const everything = open.length > 0 && open.every((unit) => ticked.has(unit.id));
  const panel = chosenPanel ?? (measured ? 'scatter' : 'paste');
  const one = grouped ? 'group' : 'phrase';
  const columns = { grouped, measured };
  const pick = (next: Panel) => setPanel(next === panel ? null : next);
  return (
    <div className="flex min-h-[560px] flex-col" style={{ height: 'calc(100vh - 101px)' }}>
      <SourceHead
        source={source}
        says={
          <>
            keyword list, {plural(offered.length, 'phrase')}
            {grouped ? ` in ${plural(units.length, 'group')}` : ''}, {count(source.taken)} taken
            {answered > 0 ? `, ${plural(answered, one)} answered already` : ''}
          </>
        }
      >
        <Button look="quiet" onClick={() => pick('paste')}>
          Paste more
        </Button>
        <Button look="quiet" onClick={() => pick('widen')}>
          Widen from a phrase
        </Button>
        <Button
          look="line"
          disabled={offered.length === 0}
          busy={figures.isPending ? 'Looking figures up' : null}
          onClick={() => figures.mutate()}
        >
          {measured ? 'Look figures up again' : 'Look figures up'}
        </Button>
      </SourceHead>
      <div className="-mx-8 border-t border-rule bg-sheet px-8 py-1.5 text-proc">
        <ListWords settings={settings} onChange={(next) => change.mutate(next)} />.
        {settings.site === null ? null : (
          <span className="pl-3">
            <Button look="quiet" busy={look.isPending ? 'Looking' : null} onClick={() => look.mutate()}>
              Look now
            </Button>
          </span>
        )}
        {change.isError ? <Trouble>{inWords(change.error)}</Trouble> : null}
        <LookedHere looked={look.data} error={look.isError ? inWords(look.error) : null} />
        <FiguresHere looked={figures.data} error={figures.isError ? inWords(figures.error) : null} />
      </div>
      <div className="-mx-8 grid min-h-0 flex-1 grid-cols-[808fr_472fr] grid-rows-[minmax(0,1fr)] border-t border-ink">
        <div className="flex min-h-0 min-w-0 flex-col px-8">
          <div
            className={`grid h-9 shrink-0 items-center border-b border-ink text-small text-ink-3 ${columnsOf(columns)}`}
          >
            <Tick
              label="All that are shown"
              state={everything ? true : picked.length > 0 ? 'some' : false}
              onChange={(on) => setTicked(on ? new Set(open.map((unit) => unit.id)) : new Set())}
            />
            <input
              className={`field !h-7 !border-0 ${measured || grouped ? '!w-full' : '!w-72'}`}
              placeholder={grouped ? 'Groups with…' : 'Phrases with…'}
              aria-label="Show phrases with"
              value={filter}
              onChange={(event) => {
                setFilter(event.target.value);
                setAt(0);
              }}
            />
            {grouped ? (
              <>
                <span title="What its readers want to do">wants to</span>
                <span className="text-right">phrases</span>
              </>
            ) : null}
            {measured
              ? (Object.keys(ORDERS) as Order[]).map((by) => (
                  <span key={by} className="text-right">
                    <button
                      type="button"
                      className={`brackets ${order === by ? 'hl hl-full text-ink' : ''}`}
                      aria-pressed={order === by}
                      title={ORDERS[by].does}
                      onClick={() => {
                        setOrder(order === by ? 'none' : by);
                        setAt(0);
                      }}
                    >
                      {ORDERS[by].says}
                    </button>
                  </span>
                ))
              : null}
            {grouped ? null : (
              <>
                {measured ? <span /> : null}
                <span>what was made of it</span>
              </>
            )}
          </div>
          {all.length === 0 ? <Empty>No phrase yet. Paste or type some on the right.</Empty> : null}
          {all.length > 0 && shown.length === 0 ? <Empty>No phrase contains “{filter}”.</Empty> : null}
          <UnitRows
            key={one}
            units={shown}
            columns={columns}
            ticked={ticked}
            at={at}
            takeable={takeable}
            onToggle={toggle}
            onAt={setAt}
          />
          <p className="flex h-8 shrink-0 items-center gap-2 border-t border-rule-soft text-small text-ink-3">
            {busy ? <span role="status">Finding groups…</span> : null}
            {measured ? (
              <span>
                Opportunity = <FormulaWord settings={settings} onChange={(next) => change.mutate(next)} />
              </span>
            ) : null}
            <a className="act quiet brackets ml-auto" href={`/api/sources/${id}/written-back`} download>
              Download with what was made
            </a>
          </p>
        </div>
        <div className="min-w-0 overflow-auto border-l border-rule-strong bg-sheet px-6 pb-4">
          {panel === 'scatter' ? (
            <Suspense fallback={<Loading rows={6} />}>
              <Scatter
                units={shown}
                ticked={ticked}
                takeable={isOpen}
                formula={settings.opportunity}
                what={one}
                onSelect={(ids) => setTicked(new Set(ids))}
                onPoint={(point) => setAt(shown.findIndex((unit) => unit.id === point))}
              />
            </Suspense>
          ) : null}
          {panel === 'paste' ? (
            <>
              <Head
                title="Paste more"
                right={settings.lines === 'phrases' ? 'any mixture of commas, tabs and lines' : 'one a line'}
              />
              <div className="pt-3">
                <Paste
                  into={() => Promise.resolve(id)}
                  byLine={settings.lines !== 'phrases'}
                  autoFocus={all.length === 0 || chosenPanel === 'paste'}
                  onAdded={() => setPanel('paste')}
                />
              </div>
            </>
          ) : null}
          {panel === 'widen' ? <Widen source={id} seed={shown[at]?.head.subject ?? ''} /> : null}
          <LeftOut source={id} items={left} />
        </div>
      </div>
      <ActionBar
        keys={
          <>
            <span>
              <Key>J</Key> <Key>K</Key> {one}
            </span>
            <span>
              <Key>Space</Key> tick
            </span>
            <span>
              <Key>W</Key> widen
            </span>
          </>
        }
      >
        <TakeButton
          into={into}
          chosen={picked.length === 0 ? null : chosen}
          says={
            picked.length === 0
              ? 'Take what is ticked'
              : `Take ${picked.length} as brief${picked.length === 1 ? '' : 's'}`
          }
        />
        {picked.length > 0 ? (
          <Button look="line" hint="X" busy={leave.isPending ? 'Leaving out' : null} onClick={() => leave.mutate()}>
            Leave {picked.length} out
          </Button>
        ) : null}
        <span className="text-small">
          {grouped && picked.length > 0 ? `${plural(phrases, 'phrase')}, ` : ''}
          <IntoWords into={into} n={picked.length} />
        </span>
        {picked.length > 0 ? (
          <LeaveOut
            source={id}
            ticked={[]}
            others={units
              .filter((unit) => takeable(unit) && !ticked.has(unit.id))
              .flatMap((unit) => itemsOf(unit).map((item) => item.id))}
            onDone={() => setTicked(new Set())}
          />
        ) : null}
        <TakenHere into={into} />
        {leave.isError ? <Trouble>{inWords(leave.error)}</Trouble> : null}
      </ActionBar>
    </div>
  );
}

/** What looking figures up has brought. */
function FiguresHere({ looked, error }: { looked: FiguresLookedUp | undefined; error: string | null }) {
  if (error) return <Trouble>{error}</Trouble>;
  if (!looked) return null;
  return (
    <>
      {looked.known + looked.unknown > 0 ? (
        <DoneHere>
          Figures of {plural(looked.known, 'phrase')} looked up
          {looked.unknown > 0 ? `; nothing is known of ${count(looked.unknown)}` : ''}
          {looked.left > 0 ? `; ${count(looked.left)} not asked for` : ''}.
        </DoneHere>
      ) : null}
      {looked.trouble ? <Trouble>{`${looked.trouble} ${looked.mend ?? ''}`}</Trouble> : null}
    </>
  );
}
