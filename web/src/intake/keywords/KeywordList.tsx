import type { SourceWhole } from '@grivo/contract';
import { useState } from 'react';
import { inWords } from '../../api/call.ts';
import { Empty, Loading, Trouble } from '../../design/index.ts';
import { useViewKeys } from '../../shell/keys.ts';
import type { Settings } from '../LookWords.tsx';
import { useChange } from '../useSource.ts';
import { KeywordBar } from './KeywordBar.tsx';
import { KeywordHead } from './KeywordHead.tsx';
import { ListPanel, type Panel } from './ListPanel.tsx';
import { FormulaWord } from './ListWords.tsx';
import { UnitHead } from './UnitHead.tsx';
import { UnitRows } from './UnitRows.tsx';
import { type Picked, usePicked } from './usePicked.ts';
import { type Units, useUnits } from './useUnits.ts';

interface ListProps {
  source: SourceWhole;
  settings: Settings<'keywords'>;
}

/** One keyword list: its phrases or groups of them, what was made of them, and taking the ticked ones into a pipeline. */
export function KeywordList({ source, settings }: ListProps) {
  const list = useUnits(source.id, settings);
  const pick = usePicked(source.id, list);
  const [at, setAt] = useState(0);
  const [chosenPanel, setPanel] = useState<Panel | null>(null);
  const { shown, measured, held } = list;
  const { into, picked, leave } = pick;
  useViewKeys({
    j: () => setAt((n) => Math.min(shown.length - 1, n + 1)),
    k: () => setAt((n) => Math.max(0, n - 1)),
    ' ': shown[at] ? () => pick.toggle(shown[at]!) : null,
    t: pick.canTake ? () => into.take.mutate(pick.chosen) : null,
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
  const panel = chosenPanel ?? (measured ? 'scatter' : 'paste');
  return (
    <div className="flex min-h-[560px] flex-col" style={{ height: 'calc(100vh - 101px)' }}>
      <KeywordHead
        source={source}
        settings={settings}
        list={list}
        onPanel={(next) => setPanel(next === panel ? null : next)}
      />
      <div className="-mx-8 grid min-h-0 flex-1 grid-cols-[808fr_472fr] grid-rows-[minmax(0,1fr)] border-t border-ink">
        <Listed source={source} settings={settings} list={list} pick={pick} at={at} onAt={setAt} />
        <ListPanel
          source={source}
          settings={settings}
          list={list}
          pick={pick}
          panel={panel}
          asked={chosenPanel === 'paste'}
          at={at}
          onAt={setAt}
          onPasted={() => setPanel('paste')}
        />
      </div>
      <KeywordBar source={source.id} list={list} pick={pick} />
    </div>
  );
}

function Listed({
  source,
  settings,
  list,
  pick,
  at,
  onAt,
}: ListProps & { list: Units; pick: Picked; at: number; onAt: (at: number) => void }) {
  const change = useChange(source);
  const { all, shown, grouped, measured, busy, filter } = list;
  return (
    <div className="flex min-h-0 min-w-0 flex-col px-8">
      <UnitHead list={list} pick={pick} onMoved={() => onAt(0)} />
      {all.length === 0 ? <Empty>No phrase yet. Paste or type some on the right.</Empty> : null}
      {all.length > 0 && shown.length === 0 ? <Empty>No phrase contains “{filter}”.</Empty> : null}
      <UnitRows
        key={grouped ? 'group' : 'phrase'}
        units={shown}
        columns={{ grouped, measured }}
        ticked={pick.ticked}
        at={at}
        takeable={pick.takeable}
        onToggle={pick.toggle}
        onAt={onAt}
      />
      <p className="flex h-8 shrink-0 items-center gap-2 border-t border-rule-soft text-small text-ink-3">
        {busy ? <span role="status">Finding groups…</span> : null}
        {measured ? (
          <span>
            Opportunity = <FormulaWord settings={settings} onChange={(next) => change.mutate(next)} />
          </span>
        ) : null}
        <a className="act quiet brackets ml-auto" href={`/api/sources/${source.id}/written-back`} download>
          Download with what was made
        </a>
      </p>
    </div>
  );
}
