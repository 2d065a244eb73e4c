import type { BlogSlots, Slot, Slots } from '@grivo/contract';
import { useQuery } from '@tanstack/react-query';
import { memo, useDeferredValue, useMemo, useState } from 'react';
import { Link } from 'react-router';
import { read } from '../api/queries.ts';
import { Flag, Mark, saysOf, stateOf } from '../design/index.ts';
import { useLabel } from '../labels/label.ts';
import { slotKey } from '../words/slots.ts';
import { clock, dayLong, dayShort, dayStart, moment } from '../words/time.ts';
import { useNow } from './useNow.ts';

const DAYS = 7;
const DAY = 86_400_000;
const LINE = 12;
const SHOWN = 3;

/** The strip under the masthead: every blog's slots of the next seven days. */
export function Band() {
  const { label, name } = useLabel();
  const slots = useQuery({ ...read.slots(null, DAYS, label), refetchInterval: 60_000 });
  // Drawn in slices: while many briefs run it changes several times a second.
  const data = useDeferredValue(slots.data);
  const now = useNow(data?.now, data?.speed);
  const blogs = useMemo(() => lanesOf(data), [data]);
  const from = now ?? Date.now();
  const [listed, list] = useState(false);
  const isEmpty = data !== undefined && data.blogs.length === 0;
  return (
    <div className="relative">
      <section
        aria-label="The next seven days"
        className="grid border-b border-rule-strong bg-sheet px-8 text-micro"
        style={{ gridTemplateColumns: '84px minmax(0, 876fr) minmax(208px, 256fr)', minHeight: 52 }}
      >
        <div className="overflow-hidden pt-px whitespace-nowrap">
          <span className="block font-mono text-[10.5px] leading-[13px] font-medium tracking-tight">
            {now === undefined ? '' : `now ${clock(now)}`}
          </span>
          {blogs.map(({ blog, name, also }) => (
            <Link key={blog} to={`/blogs/${blog}`} className="brackets block truncate leading-3" title={also ?? name}>
              {also ? also : shortName(name)}
            </Link>
          ))}
        </div>
        <div className="relative overflow-hidden border-l-2 border-ink">
          <Week from={from} blogs={blogs} />
          {isEmpty ? (
            <p className="absolute top-6 left-36 bg-sheet px-1 text-base text-ink-3">
              {name === null
                ? 'Your blogs and their slots for the next seven days stand here.'
                : `No blog carries the label ‘${name}’.`}
            </p>
          ) : null}
          {slots.isError && !data ? (
            <p className="absolute top-6 left-36 bg-sheet px-1 text-base text-red">
              The slots cannot be read just now.
            </p>
          ) : null}
        </div>
        <div className="overflow-hidden border-l border-rule-strong pt-px pl-4 whitespace-nowrap">
          <span className="block leading-[13px] text-ink-3">cover</span>
          {blogs.map((lane) => (
            <Cover key={lane.blog} lane={lane} now={from} />
          ))}
          {isEmpty ? (
            <span className="block leading-3">
              {name === null ? 'No blog yet, so nothing is planned.' : 'Nothing is shown.'}
            </span>
          ) : null}
        </div>
      </section>
      {blogs.length > 0 ? <ListButton listed={listed} onList={() => list(!listed)} /> : null}
      {listed ? <BandList blogs={data?.blogs ?? []} now={from} /> : null}
    </div>
  );
}

/** Days from now on, and in each blog's lane its slots. */
function Week({ from, blogs }: { from: number; blogs: readonly Lane[] }) {
  const to = from + DAYS * DAY;
  const left = (at: number) => `${((at - from) / (to - from)) * 100}%`;
  const days = Array.from({ length: DAYS + 1 }, (_, i) => nextDay(from, i)).filter((day) => day < to);
  return (
    <>
      {Array.from({ length: 3 }, (_, i) => (
        <span key={i} className="absolute inset-x-0 h-px bg-rule-soft" style={{ top: 13 + LINE * (i + 1) }} />
      ))}
      {days.map((day, i) => (
        <span key={day}>
          <span className="absolute inset-y-0 w-px bg-rule-strong" style={{ left: left(day) }} />
          <span className="absolute top-4 bottom-0 w-px bg-rule-soft" style={{ left: left(day + DAY / 2) }} />
          <span
            className="absolute top-px bg-sheet pr-1 pl-1.5 leading-3 whitespace-nowrap text-ink-2"
            style={{ left: left(day) }}
          >
            {i === 0 || new Date(day).getDate() === 1 ? dayLong(day).replace(',', '') : dayShort(day)}
          </span>
        </span>
      ))}
      {days[0] !== undefined && days[0] - from > DAY * 0.76 ? (
        <span className="absolute top-px left-2 leading-3 whitespace-nowrap text-ink-2">
          {dayLong(from).replace(',', '')}
        </span>
      ) : null}
      {blogs.map((lane, i) =>
        lane.slots.map((slot) => (
          <BandSlot
            key={`${lane.blog} ${slotKey(slot)}`}
            slot={slot}
            says={saysSlot(lane, slot, from)}
            left={left(slot.at)}
            top={14 + LINE * i}
          />
        )),
      )}
    </>
  );
}

function ListButton({ listed, onList }: { listed: boolean; onList: () => void }) {
  return (
    <button
      type="button"
      aria-expanded={listed}
      className="act quiet brackets absolute top-0.5 right-8 h-6 min-w-6 px-1 text-small"
      onClick={onList}
    >
      {listed ? 'close' : 'list'}
    </button>
  );
}

/** The same as rows: every blog, and every slot of the seven days with what stands in it. */
function BandList({ blogs, now }: { blogs: readonly BlogSlots[]; now: number }) {
  return (
    <section
      aria-label="The next seven days, as a list"
      className="grid max-h-[50vh] grid-cols-[repeat(auto-fill,minmax(300px,1fr))] gap-x-8 overflow-auto border-b border-rule-strong bg-sheet px-8 pb-2 text-small"
    >
      {blogs.map((lane) => (
        <div key={lane.blog}>
          <Link to={`/blogs/${lane.blog}`} className="brackets block truncate leading-6 font-semibold">
            {lane.name}
          </Link>
          <ul>
            {lane.slots.map((slot) => (
              <li
                key={slotKey(slot)}
                className="row grid h-6 grid-cols-[14px_104px_minmax(0,1fr)] items-center gap-x-2"
              >
                <Mark state={stateOf(slot.standing)} label={saysOf(slot.standing)} />
                <span className="fig text-ink-3">{moment(slot.at, now, lane.zone)}</span>
                {slot.title === null ? (
                  <span className="text-ink-3">empty</span>
                ) : (
                  <Link to={toOf(slot)} className="brackets truncate leading-6">
                    {slot.title}
                  </Link>
                )}
              </li>
            ))}
          </ul>
        </div>
      ))}
    </section>
  );
}

/** Where a slot leads. */
function toOf(slot: Slot): string {
  return slot.article ? `/articles/${slot.article}` : slot.brief ? '/pipelines' : '/cadence';
}

interface Lane extends BlogSlots {
  /** Set on the lane that stands for several blogs. */
  also: string | null;
}

/** Three lanes fit; with more blogs the third stands for all that are left. */
function lanesOf(data: Slots | undefined): Lane[] {
  const blogs = (data?.blogs ?? []).map((blog) => ({ ...blog, also: null }));
  if (blogs.length <= SHOWN) return blogs;
  const rest = blogs.slice(SHOWN - 1);
  const dry = rest.map((blog) => blog.dryFrom).filter((at) => at !== null);
  return [
    ...blogs.slice(0, SHOWN - 1),
    {
      ...rest[0]!,
      slots: rest.flatMap((blog) => blog.slots),
      dryFrom: dry.length > 0 ? Math.min(...dry) : null,
      also: `${rest.length} more`,
    },
  ];
}

function saysSlot(lane: Lane, slot: Slot, now: number): string {
  return `${slot.title ?? 'Empty slot'}, ${lane.name}, ${moment(slot.at, now, lane.zone)}, ${saysOf(slot.standing)}${slot.foreseen ? ', expected' : ''}`;
}

const BandSlot = memo(function BandSlot({
  slot,
  says,
  left,
  top,
}: {
  slot: Slot;
  says: string;
  left: string;
  top: number;
}) {
  return (
    <Flag says={says}>
      <Link
        to={toOf(slot)}
        aria-label={says}
        className="brackets absolute h-[10px] w-[6px] leading-none"
        style={{ left, top }}
      >
        <Mark state={stateOf(slot.standing)} size="tiny" />
      </Link>
    </Flag>
  );
});

function Cover({ lane, now }: { lane: Lane; now: number }) {
  const name = lane.also ?? shortName(lane.name);
  const first = lane.slots.find((slot) => slot.at >= now);
  if (lane.dryFrom === null)
    return (
      <span className="block leading-3">
        {name}: {first || lane.ahead > 0 ? 'covered for eight weeks' : 'no slots'}
      </span>
    );
  const soon = lane.dryFrom - now < 4 * DAY;
  return (
    <span className={`block leading-3 ${soon ? 'font-bold' : ''}`}>
      {name}:{' '}
      {soon ? (
        'dry from'
      ) : (
        // Its head says ‘cover’ already, and in a narrow window there is no room to say it again.
        <>
          <span className="max-[1100px]:sr-only">covered</span> until
        </>
      )}{' '}
      {dayLong(lane.dryFrom).replace(',', '')}
    </span>
  );
}

/** The last word of a long name that still tells which blog it is. */
function shortName(name: string): string {
  return name.length <= 14 ? name : (name.split(' ').at(-1) ?? name);
}

function nextDay(from: number, i: number): number {
  const day = new Date(dayStart(from));
  day.setDate(day.getDate() + i + 1);
  return day.getTime();
}
