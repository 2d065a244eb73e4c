import { inWords } from '../../api/call.ts';
import { ActionBar, Button, Key, Trouble } from '../../design/index.ts';
import { plural } from '../../words/figures.ts';
import { LeaveOut } from '../items/LeaveOut.tsx';
import { IntoWords, TakeButton, TakenHere } from '../TakeInto.tsx';
import { itemsOf } from './units.ts';
import type { Picked } from './usePicked.ts';
import type { Units } from './useUnits.ts';

/** What is done with the ticked phrases or groups. */
export function KeywordBar({ source, list, pick }: { source: string; list: Units; pick: Picked }) {
  const { ticked, setTicked, into, takeable, picked, chosen, leave } = pick;
  const phrases = picked.reduce((sum, unit) => sum + 1 + unit.rest.length, 0);
  return (
    <ActionBar
      keys={
        <>
          <span>
            <Key>J</Key> <Key>K</Key> {list.grouped ? 'group' : 'phrase'}
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
        {list.grouped && picked.length > 0 ? `${plural(phrases, 'phrase')}, ` : ''}
        <IntoWords into={into} n={picked.length} />
      </span>
      {picked.length > 0 ? (
        <LeaveOut
          source={source}
          ticked={[]}
          others={list.units
            .filter((unit) => takeable(unit) && !ticked.has(unit.id))
            .flatMap((unit) => itemsOf(unit).map((item) => item.id))}
          onDone={() => setTicked(new Set())}
        />
      ) : null}
      <TakenHere into={into} />
      {leave.isError ? <Trouble>{inWords(leave.error)}</Trouble> : null}
    </ActionBar>
  );
}
