import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { inWords } from '../api/call.ts';
import { read } from '../api/queries.ts';
import { Button, Empty, Key, Loading, Mark, saysOf, stateOf, Trouble } from '../design/index.ts';
import { useNow } from '../shell/useNow.ts';
import { count } from '../words/figures.ts';
import { dayLong, dayShort, dayStart } from '../words/time.ts';
import { Lane } from './Lane.tsx';
import { DAY, DAYS, useMover } from './useMover.ts';

/** Every blog's slots over four weeks, from the rule itself; articles move to other slots by pointer or by keys. */
export default function Cadence() {
  const [weeks, setWeeks] = useState(0);
  const band = useQuery(read.slots(null, 7));
  const now = useNow(band.data?.now, band.data?.speed) ?? Date.now();
  const monday = weekStart(band.data?.now ?? Date.now()) + weeks * 7 * DAY;
  const slots = useQuery({
    ...read.slots(monday, DAYS),
    enabled: band.data !== undefined,
    placeholderData: (before) => before,
  });
  const blogs = useQuery(read.blogs()).data?.blogs ?? [];
  const mover = useMover();
  if (!slots.data)
    return (
      <div className="pt-8">{slots.isError ? <Trouble>{inWords(slots.error)}</Trouble> : <Loading rows={10} />}</div>
    );
  const { from, to } = slots.data;
  const all = slots.data.blogs.flatMap((blog) => blog.slots);
  const of = (standing: string) =>
    all.filter((slot) => slot.standing === standing && (standing === 'out' || slot.at >= now)).length;
  const days = Array.from({ length: DAYS }, (_, i) => from + i * DAY);
  return (
    <>
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
          <Button look="quiet" anyone onClick={() => setWeeks(weeks - 1)}>
            Earlier
          </Button>
          {weeks === 0 ? null : (
            <Button look="quiet" anyone onClick={() => setWeeks(0)}>
              This week
            </Button>
          )}
          <Button look="quiet" anyone onClick={() => setWeeks(weeks + 1)}>
            Later
          </Button>
        </span>
      </div>
      {slots.data.blogs.length === 0 ? (
        <div className="border-t border-ink">
          <Empty
            next={
              <Link to="/blogs?new" className="act quiet">
                Connect a blog
              </Link>
            }
          >
            No blog yet, so there are no slots.
          </Empty>
        </div>
      ) : (
        <>
          <div
            className="sticky top-[100px] z-10 grid border-b border-ink bg-paper pl-10"
            style={{ gridTemplateColumns: `repeat(${DAYS}, minmax(0, 1fr))` }}
          >
            {days.map((day) => (
              <span
                key={day}
                className={`fig pb-1 text-center whitespace-nowrap ${new Date(day).getDay() === 1 ? 'font-semibold' : 'text-ink-3'}`}
              >
                {dayShort(day).slice(0, 2)} <span className="max-[1200px]:block">{dayShort(day).split(' ')[1]}</span>
              </span>
            ))}
          </div>
          {slots.data.blogs.map((lane) => (
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

function weekStart(ms: number): number {
  const date = new Date(dayStart(ms));
  date.setDate(date.getDate() - ((date.getDay() + 6) % 7));
  return date.getTime();
}
