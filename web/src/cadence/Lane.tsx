import type { Blog, BlogSlots, Slot } from '@grivo/contract';
import { useQuery } from '@tanstack/react-query';
import { type RefObject, useRef, useState } from 'react';
import { Link } from 'react-router';
import { read } from '../api/queries.ts';
import { Button, type Drag, DragGround, Mark, Only, saysOf, stateOf, Trouble } from '../design/index.ts';
import { useWidth } from '../shell/useWidth.ts';
import { plural } from '../words/figures.ts';
import { slotKey } from '../words/slots.ts';
import { clock, dayLong } from '../words/time.ts';
import { CadenceSentence } from './CadenceSentence.tsx';
import { Ground, Hanging, Landing, SlotMark } from './Chart.tsx';
import { BESIDE_CHART_PX, hung } from './hung.ts';
import { placesOf } from './places.ts';
import { DAY, DAYS, type Mover } from './useMover.ts';

interface LaneProps {
  lane: BlogSlots;
  blog: Blog | undefined;
  from: number;
  now: number;
  mover: Mover;
}

/** A blog's slots over four weeks, its rule above them and the titles below. */
export function Lane({ lane, blog, from, now, mover }: LaneProps) {
  const chart = useRef<HTMLDivElement>(null);
  const places = placesOf(lane, blog?.cadence.hours, from);
  const { dragged, step, ground } = useSlotDrag(lane, from, now, mover, chart);
  const named = lane.slots.filter((slot) => slot.title !== null);
  const width = useWidth();
  const labelled = hung(
    named.map((slot) => ({ slot, x: places.x(slot.at) })),
    width - BESIDE_CHART_PX,
  );
  const labelRows = Math.max(1, ...labelled.map(({ row }) => row + 1));
  return (
    <section aria-label={lane.name} className="border-b border-rule pb-2">
      <LaneHead lane={lane} blog={blog} now={now} />
      <div data-chart="" className="relative ml-10" ref={chart} style={{ height: 92 + labelRows * 16 }}>
        <Ground blog={blog} from={from} now={now} places={places} />
        {dragged?.over ? <Landing at={dragged.over.at} places={places} /> : null}
        <DragGround byKeys="Arrow keys move it to the next free slot." {...ground}>
          {lane.slots.map((slot) => (
            <SlotMark
              key={slotKey(slot)}
              slot={slot}
              lane={lane}
              now={now}
              places={places}
              dragged={dragged?.slot === slot}
              onStep={(by) => step(slot, by)}
            />
          ))}
        </DragGround>
        {labelled.map(({ slot, row }) => (
          <Hanging key={slotKey(slot)} slot={slot} row={row} places={places} />
        ))}
      </div>
      {dragged?.over ? (
        <p className="ml-10 text-small">
          <span className="hl hl-full font-semibold">{dragged.slot.title}</span> lands{' '}
          {dayLong(dragged.over.at).replace(',', '')} {clock(dragged.over.at, lane.zone)}
        </p>
      ) : null}
      <SlotList lane={lane} now={now} />
      {lane.slots
        .filter((slot) => slot.faults.length > 0)
        .map((slot) => (
          <p key={slotKey(slot)} className="ml-10 text-small text-red">
            {slot.title}: {slot.faults.join('; ')}.
          </p>
        ))}
      <NotMoved lane={lane} mover={mover} />
    </section>
  );
}

/** Moving a lane's articles to its free slots, by pointer and by keys. */
function useSlotDrag(
  lane: BlogSlots,
  from: number,
  now: number,
  mover: Mover,
  chart: RefObject<HTMLDivElement | null>,
) {
  const [dragged, setDragged] = useState<{ slot: Slot; over: Slot | null } | null>(null);
  const free = lane.slots.filter((slot) => slot.standing === 'planned' && slot.at > now);
  const put = (slot: Slot, at: number) => mover.move({ article: slot.article!, blog: lane.blog, at, from: slot.at });
  const over = ({ id, x }: Drag) => {
    const slot = lane.slots.find(({ at }) => String(at) === id);
    return slot ? { slot, over: nearest(chart.current, free, from, x) } : null;
  };
  return {
    dragged,
    /** To the next free slot after, or before. */
    step: (slot: Slot, by: 1 | -1) => {
      const next = by > 0 ? free.find(({ at }) => at > slot.at) : free.findLast(({ at }) => at < slot.at);
      if (next) put(slot, next.at);
    },
    ground: {
      onMove: (drag: Drag) => setDragged(over(drag)),
      onDrop: (drag: Drag) => {
        const there = over(drag);
        if (there?.over) put(there.slot, there.over.at);
        setDragged(null);
      },
      onLeave: () => setDragged(null),
    },
  };
}

/** The free slot that is nearest to where the pointer is. */
function nearest(chart: HTMLElement | null, free: readonly Slot[], from: number, clientX: number): Slot | null {
  const box = chart?.getBoundingClientRect();
  if (!box) return null;
  const at = from + ((clientX - box.left) / box.width) * DAYS * DAY;
  const far = (slot: Slot) => Math.abs(slot.at + DAY / 2 - at);
  return free.reduce<Slot | null>((best, slot) => (best === null || far(slot) < far(best) ? slot : best), null);
}

/** Whose slots they are, by which rule, and how far they are filled. */
function LaneHead({ lane, blog, now }: { lane: BlogSlots; blog: Blog | undefined; now: number }) {
  const owner = useQuery(read.session()).data?.role === 'owner';
  const { dryFrom } = lane;
  const soon = dryFrom !== null && dryFrom - now < 4 * DAY;
  const day = dryFrom === null ? '' : dayLong(dryFrom).replace(',', '');
  return (
    <div className="flex items-baseline gap-4 pt-2">
      <h2 className="w-[150px] shrink-0 truncate text-head font-semibold">
        <Link to={`/blogs/${lane.blog}`} className="brackets">
          {lane.name}
        </Link>
      </h2>
      {blog ? (
        <Only if={owner}>
          <CadenceSentence blog={blog} />
        </Only>
      ) : null}
      <span className={`ml-auto whitespace-nowrap ${soon ? 'font-bold' : 'text-ink-2'}`}>
        {dryFrom === null ? 'covered for eight weeks' : soon ? `dry from ${day}` : `covered until ${day}`}
      </span>
    </div>
  );
}

/** Why an article was not moved, and the way to move it all the same where only a rule is against it. */
function NotMoved({ lane, mover }: { lane: BlogSlots; mover: Mover }) {
  const { refused } = mover;
  if (refused?.move.blog !== lane.blog) return null;
  const leave = (
    <Button look="word" onClick={mover.dismiss}>
      leave it
    </Button>
  );
  return (
    <div className="ml-10">
      <Trouble
        actions={
          refused.rule ? (
            <>
              <Button look="word" onClick={() => mover.move({ ...refused.move, force: true })}>
                Allow it once
              </Button>{' '}
              or {leave}.
            </>
          ) : (
            <>{leave}.</>
          )
        }
      >
        {refused.says}
      </Trouble>
    </div>
  );
}

/** What the chart shows, a row each: for those who read rather than look, and for what has no room beside its mark. */
function SlotList({ lane, now }: { lane: BlogSlots; now: number }) {
  const filled = lane.slots.filter((slot) => slot.title !== null);
  if (filled.length === 0) return null;
  return (
    <details className="ml-10 text-small">
      <summary className="brackets h-6 w-fit cursor-pointer leading-6 text-ink-2">
        {plural(filled.length, 'article')} of these weeks, as a list
      </summary>
      <ul className="columns-2 gap-8 pb-2 max-[1100px]:columns-1">
        {filled.map((slot) => (
          <li key={slotKey(slot)} className="row grid h-6 grid-cols-[14px_112px_minmax(0,1fr)] items-center gap-x-2">
            <Mark state={stateOf(slot.standing)} label={saysOf(slot.standing)} />
            <span className="fig text-ink-3">{`${dayLong(slot.at).replace(',', '')} ${clock(slot.at, lane.zone)}`}</span>
            {slot.article ? (
              <Link
                to={`/articles/${slot.article}`}
                className={`brackets truncate leading-6 ${slot.at < now ? 'text-ink-3' : ''}`}
              >
                {slot.title}
              </Link>
            ) : (
              <span className="truncate text-ink-2">{slot.title}</span>
            )}
          </li>
        ))}
      </ul>
    </details>
  );
}
