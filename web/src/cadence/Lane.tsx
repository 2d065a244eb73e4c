import type { Blog, BlogSlots, Slot } from '@grivo/contract';
import { useQuery } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { Link } from 'react-router';
import { read } from '../api/queries.ts';
import { Button, Mark, Only, saysOf, stateOf, Trouble } from '../design/index.ts';
import { useWidth } from '../shell/useWidth.ts';
import { atColon, plural } from '../words/figures.ts';
import { clock, dayLong, dayStart } from '../words/time.ts';
import { CadenceSentence } from './CadenceSentence.tsx';
import { BESIDE_CHART_PX, hung, RIGHT_FROM } from './hung.ts';
import { DAY, DAYS, type Mover } from './useMover.ts';

const HOUR = 42;
/** A blog's slots over four weeks, its rule above them and the titles below. */
export function Lane({
  lane,
  blog,
  from,
  now,
  mover,
}: {
  lane: BlogSlots;
  blog: Blog | undefined;
  from: number;
  now: number;
  mover: Mover;
}) {
  const owner = useQuery(read.session()).data?.role === 'owner';
  const chart = useRef<HTMLDivElement>(null);
  const [dragged, setDragged] = useState<{ slot: Slot; over: Slot | null } | null>(null);
  const hours = blog ? [minutesOf(blog.cadence.hours.from), minutesOf(blog.cadence.hours.to)] : [480, 600];
  const [opens, closes] = hours as [number, number];
  const span = Math.max(60, closes - opens);
  const x = (at: number) => ((at - from) / (DAYS * DAY)) * 100;
  const column = (at: number) => Math.floor((dayStart(at) - from + DAY / 2) / DAY);
  const y = (at: number) => {
    const minutes = minutesIn(at, lane.zone);
    return 20 + Math.max(-14, Math.min(HOUR + 12, ((minutes - opens) / span) * HOUR - 8));
  };
  const left = (at: number) => `${((column(at) + 0.5) / DAYS) * 100}%`;
  const free = lane.slots.filter((slot) => slot.standing === 'planned' && slot.at > now);
  const nearest = (clientX: number) => {
    const box = chart.current?.getBoundingClientRect();
    if (!box) return null;
    const at = from + ((clientX - box.left) / box.width) * DAYS * DAY;
    return free.reduce<Slot | null>(
      (best, slot) =>
        best === null || Math.abs(slot.at + DAY / 2 - at) < Math.abs(best.at + DAY / 2 - at) ? slot : best,
      null,
    );
  };
  const put = (slot: Slot, at: number) => mover.move({ article: slot.article!, blog: lane.blog, at, from: slot.at });
  const stepTo = (slot: Slot, by: number) => {
    const later = free.filter((one) => (by > 0 ? one.at > slot.at : one.at < slot.at));
    const next = by > 0 ? later[0] : later.at(-1);
    if (next) put(slot, next.at);
  };
  const named = lane.slots.filter((slot) => slot.title !== null);
  const width = useWidth();
  const labelled = hung(
    named.map((slot) => ({ slot, x: x(slot.at) })),
    width - BESIDE_CHART_PX,
  );
  const labelRows = Math.max(1, ...labelled.map(({ row }) => row + 1));
  return (
    <section aria-label={lane.name} className="border-b border-rule pb-2">
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
        <span
          className={`ml-auto whitespace-nowrap ${lane.dryFrom !== null && lane.dryFrom - now < 4 * DAY ? 'font-bold' : 'text-ink-2'}`}
        >
          {lane.dryFrom === null
            ? 'covered for eight weeks'
            : lane.dryFrom - now < 4 * DAY
              ? `dry from ${dayLong(lane.dryFrom).replace(',', '')}`
              : `covered until ${dayLong(lane.dryFrom).replace(',', '')}`}
        </span>
      </div>
      <div data-chart="" className="relative ml-10" ref={chart} style={{ height: 92 + labelRows * 16 }}>
        <div className="absolute inset-x-0 top-1 h-[76px] bg-well" />
        {Array.from({ length: DAYS }, (_, i) => (
          <span
            key={i}
            className={`absolute top-[20px] h-[44px] ${isPublishing(blog, from + i * DAY) ? 'bg-sheet' : ''}`}
            style={{ left: `${(i / DAYS) * 100}%`, width: `${100 / DAYS}%` }}
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
        <span className="fig absolute top-[13px] right-full pr-1 text-[11px] text-ink-3">
          {blog?.cadence.hours.from}
        </span>
        <span className="fig absolute top-[57px] right-full pr-1 text-[11px] text-ink-3">{blog?.cadence.hours.to}</span>
        {now >= from && now < from + DAYS * DAY ? (
          <span
            className="absolute top-0 h-[84px] w-0.5 bg-ink"
            style={{ left: `${x(now)}%` }}
            title={`now ${clock(now)}`}
          />
        ) : null}
        {dragged?.over ? (
          <span
            className="absolute top-[18px] z-10 h-12 border border-marker-edge bg-marker-wash"
            style={{ left: `${(column(dragged.over.at) / DAYS) * 100}%`, width: `${100 / DAYS}%` }}
          />
        ) : null}
        {lane.slots.map((slot) => {
          const movable = slot.standing === 'ready' && slot.article !== null && slot.at > now;
          const says = `${slot.title ?? 'empty'}, ${dayLong(slot.at).replace(',', '')} ${clock(slot.at, lane.zone)}, ${saysOf(slot.standing)}${slot.pinned ? ', put there by hand' : ''}`;
          const mark = <Mark state={stateOf(slot.standing)} size="slot" />;
          const style = { left: `calc(${left(slot.at)} - 4px)`, top: y(slot.at) };
          return movable ? (
            <button
              key={slot.at}
              type="button"
              aria-label={`${says}. Arrow keys move it.`}
              title={says}
              className={`brackets absolute z-20 block cursor-grab touch-none border-0 bg-transparent p-0 leading-none ${dragged?.slot === slot ? 'outline outline-4 outline-marker' : ''}`}
              style={style}
              onKeyDown={(event) => {
                if (event.key === 'ArrowRight' || event.key === 'ArrowLeft') {
                  event.preventDefault();
                  stepTo(slot, event.key === 'ArrowRight' ? 1 : -1);
                }
              }}
              onPointerDown={(event) => {
                event.currentTarget.setPointerCapture(event.pointerId);
                setDragged({ slot, over: null });
              }}
              onPointerMove={(event) => {
                if (dragged) setDragged({ slot, over: nearest(event.clientX) });
              }}
              onPointerUp={() => {
                if (dragged?.over) put(slot, dragged.over.at);
                setDragged(null);
              }}
              onPointerCancel={() => setDragged(null)}
            >
              {mark}
            </button>
          ) : (
            <span
              key={slot.at}
              className="absolute leading-none"
              style={style}
              title={says}
              role="img"
              aria-label={says}
            >
              {mark}
            </span>
          );
        })}
        {labelled.map(({ slot, row }) => {
          const right = x(slot.at) > RIGHT_FROM;
          return (
            <span
              key={slot.at}
              className="absolute flex items-end whitespace-nowrap"
              style={right ? { right: `calc(100% - ${left(slot.at)})`, top: 74 } : { left: left(slot.at), top: 74 }}
            >
              {right ? null : (
                <span
                  aria-hidden
                  className="mr-1 w-1.5 border-b border-l border-rule-strong"
                  style={{ height: 20 + row * 16 }}
                />
              )}
              <Label slot={slot} />
              {right ? (
                <span
                  aria-hidden
                  className="ml-1 w-1.5 border-r border-b border-rule-strong"
                  style={{ height: 20 + row * 16 }}
                />
              ) : null}
            </span>
          );
        })}
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
          <p key={slot.at} className="ml-10 text-small text-red">
            {slot.title}: {slot.faults.join('; ')}.
          </p>
        ))}
      {mover.refused?.move.blog === lane.blog ? (
        <div className="ml-10">
          <Trouble
            actions={
              <>
                {mover.refused.rule ? (
                  <>
                    <Button
                      look="word"
                      onClick={() => mover.refused && mover.move({ ...mover.refused.move, force: true })}
                    >
                      Allow it once
                    </Button>{' '}
                    or{' '}
                  </>
                ) : null}
                <Button look="word" onClick={mover.dismiss}>
                  leave it
                </Button>
                .
              </>
            }
          >
            {mover.refused.says}
          </Trouble>
        </div>
      ) : null}
    </section>
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
          <li key={slot.at} className="row grid h-6 grid-cols-[14px_112px_minmax(0,1fr)] items-center gap-x-2">
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

function minutesOf(text: string): number {
  const [h = 0, m = 0] = text.split(':').map(Number);
  return h * 60 + m;
}

function minutesIn(at: number, zone: string): number {
  return minutesOf(clock(at, zone));
}
