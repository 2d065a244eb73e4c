import type { Item } from '@grivo/contract';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useRef } from 'react';
import { Mark, saysOf, stateOf, Tick } from '../../design/index.ts';
import { dayLong } from '../../words/time.ts';
import { leftOutWords } from '../LookWords.tsx';

const ROW = 26;

/** Items in rows: what each is, where it is from, when it came out, and how it stands. */
export function ItemRows({
  items,
  label,
  ticked,
  takeable,
  chosen,
  onToggle,
  onChoose,
}: {
  items: readonly Item[];
  label: string;
  ticked: ReadonlySet<string>;
  takeable: (item: Item) => boolean;
  chosen: string | null;
  onToggle: (id: string) => void;
  onChoose: (id: string) => void;
}) {
  const frame = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({
    count: items.length,
    getScrollElement: () => frame.current,
    estimateSize: () => ROW,
    overscan: 12,
  });
  const at = items.findIndex(({ id }) => id === chosen);
  useEffect(() => {
    if (at >= 0) rows.scrollToIndex(at);
  }, [at, rows]);
  return (
    <div ref={frame} className="-mx-2 min-h-0 flex-1 overflow-auto px-2" tabIndex={0} role="group" aria-label={label}>
      <ul className="relative mt-1" style={{ height: rows.getTotalSize() }}>
        {rows.getVirtualItems().map(({ index, start }) => {
          const item = items[index]!;
          return (
            <li
              key={item.id}
              className={`row absolute inset-x-0 border-b border-rule-soft ${ticked.has(item.id) ? 'picked' : ''} ${item.id === chosen ? 'brackets bracketed' : ''}`}
              style={{ transform: `translateY(${start}px)`, height: ROW }}
            >
              <Row
                item={item}
                open={takeable(item)}
                ticked={ticked.has(item.id)}
                onToggle={() => onToggle(item.id)}
                onChoose={() => onChoose(item.id)}
              />
            </li>
          );
        })}
      </ul>
    </div>
  );
}

function Row({
  item,
  open,
  ticked,
  onToggle,
  onChoose,
}: {
  item: Item;
  open: boolean;
  ticked: boolean;
  onToggle: () => void;
  onChoose: () => void;
}) {
  const last = item.taken.at(-1);
  const said = last
    ? saysOf(last.standing)
    : item.leftOut
      ? leftOutWords(item.leftOut, item.leftDetail)
      : item.gone
        ? 'not there any more'
        : '';
  return (
    <div className="grid h-full grid-cols-[26px_minmax(0,1.7fr)_minmax(0,0.8fr)_88px_minmax(0,1fr)] items-center gap-x-3">
      {open ? <Tick label={item.subject} state={ticked} onChange={onToggle} /> : <span />}
      <button
        type="button"
        className={`truncate text-left leading-6 ${open || last ? '' : 'text-ink-3'}`}
        title={item.subject}
        onClick={onChoose}
      >
        {item.subject}
      </button>
      <span className="truncate text-small text-ink-3" title={item.about}>
        {item.about}
      </span>
      <span className="fig text-right text-ink-3">
        {item.publishedDesk === null ? '' : dayLong(item.publishedDesk).replace(',', '')}
      </span>
      <span className="flex min-w-0 items-center gap-1.5 text-small text-ink-3" title={said}>
        {last || item.leftOut ? <Mark state={last ? stateOf(last.standing) : 'aside'} /> : null}
        <span className="truncate">{said}</span>
      </span>
    </div>
  );
}
