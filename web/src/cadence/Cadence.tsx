import type { Slots } from '@grivo/contract';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { inWords } from '../api/call.ts';
import { read } from '../api/queries.ts';
import { Button, Empty, Key, Loading, Mark, saysOf, stateOf, Trouble } from '../design/index.ts';
import { useLabel } from '../labels/label.ts';
import { NoneCarries } from '../labels/NoneCarries.tsx';
import { useNow } from '../shell/useNow.ts';
import { count } from '../words/figures.ts';
import { dayLong, dayShort, dayStart } from '../words/time.ts';
import { Lane } from './Lane.tsx';
import { DAY, DAYS, useMover } from './useMover.ts';

/** Every blog's slots over four weeks, from the rule itself; articles move to other slots by pointer or by keys. */
export default function Cadence() {
  const [weeks, setWeeks] = useState(0);
  const { label } = useLabel();
  const band = useQuery(read.slots(null, 7));
  const now = useNow(band.data?.now, band.data?.speed) ?? Date.now();
  const monday = weekStart(band.data?.now ?? Date.now()) + weeks * 7 * DAY;
  const slots = useQuery({
    ...read.slots(monday, DAYS, label),
    enabled: band.data !== undefined,
    placeholderData: (before) => before,
  });
  const blogs = useQuery(read.blogs()).data?.blogs ?? [];
  const mover = useMover();
  if (!slots.data)
    return (
      <div className="pt-8">{slots.isError ? <Trouble>{inWords(slots.error)}</Trouble> : <Loading rows={10} />}</div>
    );
  const { from, blogs: lanes } = slots.data;
  return (
    <>
      <CadenceHead slots={slots.data} now={now} weeks={weeks} onWeeks={setWeeks} />
      {lanes.length === 0 ? (
        <NoLane />
      ) : (
        <>
          <Days from={from} />
          {lanes.map((lane) => (
            <Lane
              key={lane.blog}
              lane={lane}
              blog={blogs.find((one) => one.id === lane.blog)}
              from={from}
              now={now}
              mover={mover}
            />
          ))}
          <p className="py-3 text-small text-ink-3">
            Drag an article to another slot, or focus it and press <Key>←</Key> <Key>→</Key>. <Key>Z</Key> takes it
            back.
          </p>
        </>
      )}
    </>
  );
}

/** Which weeks are shown, how many slots stand how, and the way to other weeks. */
function CadenceHead({
  slots: { from, to, blogs },
  now,
  weeks,
  onWeeks,
}: {
  slots: Slots;
  now: number;
  weeks: number;
  onWeeks: (weeks: number) => void;
}) {
  const all = blogs.flatMap((blog) => blog.slots);
  const of = (standing: string) => all.filter((slot) => slot.standing === standing && slot.at >= now).length;
  return (
    <div className="flex h-[56px] items-center gap-4">
      <h1 className="text-title font-semibold tracking-[-0.018em]">Cadence</h1>
      <span className="text-ink-3">
        {dayLong(from).replace(',', '')} to {dayLong(to - DAY).replace(',', '')}
      </span>
      <span className="flex gap-5 pl-4 text-small text-ink-2">
        {(['ready', 'held', 'in work', 'stopped', 'planned'] as const).map((name) =>
          of(name) === 0 ? null : (
            <span key={name} className="flex items-center gap-2">
              <Mark state={stateOf(name)} /> {count(of(name))} {name === 'in work' ? 'being written' : saysOf(name)}
            </span>
          ),
        )}
      </span>
      <span className="ml-auto flex gap-5">
        <Button look="quiet" anyone onClick={() => onWeeks(weeks - 1)}>
          Earlier
        </Button>
        {weeks === 0 ? null : (
          <Button look="quiet" anyone onClick={() => onWeeks(0)}>
            This week
          </Button>
        )}
        <Button look="quiet" anyone onClick={() => onWeeks(weeks + 1)}>
          Later
        </Button>
      </span>
    </div>
  );
}

function NoLane() {
  return (
    <div className="border-t border-ink">
      <NoneCarries what="blog">
        <Empty
          next={
            <Link to="/blogs?new" className="act quiet">
              Connect a blog
            </Link>
          }
        >
          No blog yet, so there are no slots.
        </Empty>
      </NoneCarries>
    </div>
  );
}

/** The days of the chart, each above its column. */
function Days({ from }: { from: number }) {
  return (
    <div
      className="sticky top-[100px] z-10 grid border-b border-ink bg-paper pl-10"
      style={{ gridTemplateColumns: `repeat(${DAYS}, minmax(0, 1fr))` }}
    >
      {Array.from({ length: DAYS }, (_, i) => from + i * DAY).map((day) => (
        <span
          key={day}
          className={`fig pb-1 text-center whitespace-nowrap ${new Date(day).getDay() === 1 ? 'font-semibold' : 'text-ink-3'}`}
        >
          {dayShort(day).slice(0, 2)} <span className="max-[1200px]:block">{dayShort(day).split(' ')[1]}</span>
        </span>
      ))}
    </div>
  );
}

function weekStart(ms: number): number {
  const date = new Date(dayStart(ms));
  date.setDate(date.getDate() - ((date.getDay() + 6) % 7));
  return date.getTime();
}
