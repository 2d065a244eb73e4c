import { Tick } from '../../design/index.ts';
import { columnsOf } from './UnitRows.tsx';
import { ORDERS, type Order } from './units.ts';
import type { Picked } from './usePicked.ts';
import type { Units } from './useUnits.ts';

/** The head of the list: all ticked at once, words to find by, and the columns it can be ordered by. */
export function UnitHead({ list, pick, onMoved }: { list: Units; pick: Picked; onMoved: () => void }) {
  const { shown, grouped, measured, filter, setFilter } = list;
  const open = shown.filter(pick.isOpen);
  const everything = open.length > 0 && open.every((unit) => pick.ticked.has(unit.id));
  return (
    <div
      className={`grid h-9 shrink-0 items-center border-b border-ink text-small text-ink-3 ${columnsOf({ grouped, measured })}`}
    >
      <Tick
        label="All that are shown"
        state={everything ? true : pick.picked.length > 0 ? 'some' : false}
        onChange={(on) => pick.setTicked(on ? new Set(open.map((unit) => unit.id)) : new Set())}
      />
      <input
        className={`field !h-7 !border-0 ${measured || grouped ? '!w-full' : '!w-72'}`}
        placeholder={grouped ? 'Groups with…' : 'Phrases with…'}
        aria-label="Show phrases with"
        value={filter}
        onChange={(event) => {
          setFilter(event.target.value);
          onMoved();
        }}
      />
      {grouped ? (
        <>
          <span title="What its readers want to do">wants to</span>
          <span className="text-right">phrases</span>
        </>
      ) : null}
      {measured ? <Orders list={list} onMoved={onMoved} /> : null}
      {grouped ? null : (
        <>
          {measured ? <span /> : null}
          <span>what was made of it</span>
        </>
      )}
    </div>
  );
}

function Orders({ list: { order, setOrder }, onMoved }: { list: Units; onMoved: () => void }) {
  return (Object.keys(ORDERS) as Order[]).map((by) => (
    <span key={by} className="text-right">
      <button
        type="button"
        className={`brackets ${order === by ? 'hl hl-full text-ink' : ''}`}
        aria-pressed={order === by}
        title={ORDERS[by].does}
        onClick={() => {
          setOrder(order === by ? 'none' : by);
          onMoved();
        }}
      >
        {ORDERS[by].says}
      </button>
    </span>
  ));
}
