import type { SourceWhole } from '@grivo/contract';
import { lazy, Suspense } from 'react';
import { Head, Loading } from '../../design/index.ts';
import { LeftOut } from '../LeftOut.tsx';
import type { Settings } from '../LookWords.tsx';
import { Paste } from '../Paste.tsx';
import type { Picked } from './usePicked.ts';
import type { Units } from './useUnits.ts';
import { Widen } from './Widen.tsx';

const Scatter = lazy(() => import('./Scatter.tsx'));

/** What can stand on the right. */
export type Panel = 'scatter' | 'paste' | 'widen';

/** What stands beside the list: the scatter of its figures, room to paste into, or what else people search for. */
export function ListPanel({
  source: { id },
  settings,
  list,
  pick,
  panel,
  asked,
  at,
  onAt,
  onPasted,
}: {
  source: SourceWhole;
  settings: Settings<'keywords'>;
  list: Units;
  pick: Picked;
  panel: Panel;
  /** Whether somebody asked for it. */
  asked: boolean;
  at: number;
  onAt: (at: number) => void;
  onPasted: () => void;
}) {
  const { all, shown, grouped } = list;
  return (
    <div className="min-w-0 overflow-auto border-l border-rule-strong bg-sheet px-6 pb-4">
      {panel === 'scatter' ? (
        <Suspense fallback={<Loading rows={6} />}>
          <Scatter
            units={shown}
            ticked={pick.ticked}
            takeable={pick.isOpen}
            formula={settings.opportunity}
            what={grouped ? 'group' : 'phrase'}
            onSelect={(ids) => pick.setTicked(new Set(ids))}
            onPoint={(point) => onAt(shown.findIndex((unit) => unit.id === point))}
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
              autoFocus={all.length === 0 || asked}
              onAdded={onPasted}
            />
          </div>
        </>
      ) : null}
      {panel === 'widen' ? <Widen source={id} seed={shown[at]?.head.subject ?? ''} /> : null}
      <LeftOut source={id} items={all.filter((item) => item.leftOut !== null)} />
    </div>
  );
}
