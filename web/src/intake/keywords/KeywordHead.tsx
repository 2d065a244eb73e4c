import { FiguresLookedUp, type SourceWhole } from '@grivo/contract';
import { useMutation } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { call, inWords } from '../../api/call.ts';
import { queryClient } from '../../api/queries.ts';
import { Button, DoneHere, Trouble } from '../../design/index.ts';
import { count, counted, plural } from '../../words/figures.ts';
import { LookedHere, type Settings } from '../LookWords.tsx';
import { SourceHead } from '../SourceHead.tsx';
import { useChange, useLook } from '../useSource.ts';
import type { Panel } from './ListPanel.tsx';
import { ListWords } from './ListWords.tsx';
import { answerOf } from './units.ts';
import type { Units } from './useUnits.ts';

/** The list's name and what is in it, what can be done with it, and how it is read. */
export function KeywordHead({
  source,
  settings,
  list,
  onPanel,
}: {
  source: SourceWhole;
  settings: Settings<'keywords'>;
  list: Units;
  onPanel: (panel: Panel) => void;
}) {
  const { offered, units, grouped, measured } = list;
  const answered = units.filter((unit) => answerOf(unit) !== null).length;
  const figures = useMutation({
    mutationFn: () => call('POST', `/sources/${source.id}/figures`, { answer: FiguresLookedUp }),
    onSuccess: () => void queryClient.invalidateQueries({ queryKey: ['items', source.id] }),
  });
  return (
    <>
      <SourceHead
        source={source}
        says={
          <>
            keyword list, {plural(offered.length, 'phrase')}
            {grouped ? ` in ${plural(units.length, 'group')}` : ''}, {counted(source.taken)} taken
            {answered > 0 ? `, ${plural(answered, grouped ? 'group' : 'phrase')} answered already` : ''}
          </>
        }
      >
        <Button look="quiet" onClick={() => onPanel('paste')}>
          Paste more
        </Button>
        <Button look="quiet" onClick={() => onPanel('widen')}>
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
      <HowRead source={source} settings={settings}>
        <FiguresHere looked={figures.data} error={figures.isError ? inWords(figures.error) : null} />
      </HowRead>
    </>
  );
}

function HowRead({
  source,
  settings,
  children,
}: {
  source: SourceWhole;
  settings: Settings<'keywords'>;
  children: ReactNode;
}) {
  const change = useChange(source);
  const look = useLook(source.id);
  return (
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
      {children}
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
