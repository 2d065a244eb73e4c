import type { Blog, BlogSlots, Slot } from '@grivo/contract';
import { Link } from 'react-router';
import { Mark, saysOf, stateOf, useDrag } from '../design/index.ts';
import { atColon } from '../words/figures.ts';
import { clock, dayLong } from '../words/time.ts';
import { RIGHT_FROM } from './hung.ts';
import type { Places } from './places.ts';
import { DAY, DAYS } from './useMover.ts';

const DAY_WIDTH = `${100 / DAYS}%`;

/** Days and hours of a blog, those it publishes on lighter, and where now is. */
export function Ground({
  blog,
  from,
  now,
  places,
}: {
  blog: Blog | undefined;
  from: number;
  now: number;
  places: Places;
}) {
  const hour = 'fig absolute right-full pr-1 text-[11px] text-ink-3';
  return (
    <>
      <div className="absolute inset-x-0 top-1 h-[76px] bg-well" />
      {Array.from({ length: DAYS }, (_, i) => (
        <span
          key={i}
          className={`absolute top-[20px] h-[44px] ${isPublishing(blog, from + i * DAY) ? 'bg-sheet' : ''}`}
          style={{ left: `${(i / DAYS) * 100}%`, width: DAY_WIDTH }}
        />
      ))}
      {Array.from({ length: DAYS + 1 }, (_, i) => (
        <span
          key={i}
          className={`absolute top-1 w-px ${i % 7 === 0 ? 'bottom-0 bg-rule-strong' : 'h-[76px] bg-rule-soft'}`}
          style={{ left: `${(i / DAYS) * 100}%` }}
        />
      ))}
      <span className="absolute inset-x-0 top-[20px] h-px bg-rule-strong" />
      <span className="absolute inset-x-0 top-[64px] h-px bg-rule-strong" />
      <span className={`${hour} top-[13px]`}>{blog?.cadence.hours.from}</span>
      <span className={`${hour} top-[57px]`}>{blog?.cadence.hours.to}</span>
      {now >= from && now < from + DAYS * DAY ? (
        <span
          className="absolute top-0 h-[84px] w-0.5 bg-ink"
          style={{ left: `${places.x(now)}%` }}
          title={`now ${clock(now)}`}
        />
      ) : null}
    </>
  );
}

/** The day an article would land on. */
export function Landing({ at, places }: { at: number; places: Places }) {
  return (
    <span
      className="absolute top-[18px] z-10 h-12 border border-marker-edge bg-marker-wash"
      style={{ left: `${(places.column(at) / DAYS) * 100}%`, width: DAY_WIDTH }}
    />
  );
}

/** One slot; an article that is ready can be moved from it, by pointer or by keys. */
export function SlotMark({
  slot,
  lane,
  now,
  places,
  dragged,
  onStep,
}: {
  slot: Slot;
  lane: BlogSlots;
  now: number;
  places: Places;
  dragged: boolean;
  /** To the next free slot after, or before. */
  onStep: (by: 1 | -1) => void;
}) {
  const movable = slot.standing === 'ready' && slot.article !== null && slot.at > now;
  const drag = useDrag(String(slot.at), movable);
  const says = `${slot.title ?? 'empty'}, ${dayLong(slot.at).replace(',', '')} ${clock(slot.at, lane.zone)}, ${saysOf(slot.standing)}${slot.pinned ? ', put there by hand' : ''}`;
  const mark = <Mark state={stateOf(slot.standing)} size="slot" />;
  const style = { left: `calc(${places.left(slot.at)} - 4px)`, top: places.y(slot.at) };
  if (!movable)
    return (
      <span className="absolute leading-none" style={style} title={says} role="img" aria-label={says}>
        {mark}
      </span>
    );
  return (
    <button
      type="button"
      aria-label={`${says}. Arrow keys move it.`}
      title={says}
      className={`brackets absolute z-20 block cursor-grab touch-none border-0 bg-transparent p-0 leading-none ${dragged ? 'outline outline-4 outline-marker' : ''}`}
      style={style}
      onKeyDown={(event) => {
        if (event.key !== 'ArrowRight' && event.key !== 'ArrowLeft') return;
        event.preventDefault();
        onStep(event.key === 'ArrowRight' ? 1 : -1);
      }}
      {...drag}
    >
      {mark}
    </button>
  );
}

/** A title below its slot, on the side of it that has room. */
export function Hanging({ slot, row, places }: { slot: Slot; row: number; places: Places }) {
  const right = places.x(slot.at) > RIGHT_FROM;
  const left = places.left(slot.at);
  const stem = (sides: string) => (
    <span aria-hidden className={`${sides} w-1.5 border-b border-rule-strong`} style={{ height: 20 + row * 16 }} />
  );
  return (
    <span
      className="absolute flex items-end whitespace-nowrap"
      style={right ? { right: `calc(100% - ${left})`, top: 74 } : { left, top: 74 }}
    >
      {right ? null : stem('mr-1 border-l')}
      <Label slot={slot} />
      {right ? stem('ml-1 border-r') : null}
    </span>
  );
}

function Label({ slot }: { slot: Slot }) {
  const title = atColon(slot.title!);
  const look = `font-read text-[13px] leading-4 ${slot.standing === 'out' ? 'text-ink-3' : ''}`;
  return slot.article ? (
    <Link
      to={`/articles/${slot.article}`}
      className={`brackets relative z-[1] max-w-[230px] truncate bg-paper ${look}`}
    >
      {title}
    </Link>
  ) : (
    <span
      className={`relative z-[1] max-w-[230px] truncate bg-paper font-ui text-[13px] leading-4 ${slot.standing === 'stopped' ? 'text-red' : 'text-ink-2'}`}
    >
      {title}
    </span>
  );
}

function isPublishing(blog: Blog | undefined, day: number): boolean {
  if (!blog) return false;
  const weekday = ((new Date(day + DAY / 2).getDay() + 6) % 7) + 1;
  return blog.cadence.days.includes(weekday);
}
