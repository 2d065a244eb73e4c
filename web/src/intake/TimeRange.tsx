import type { VideoText } from '@grivo/contract';
import { clockOf } from '@grivo/core';
import { useMemo, useRef } from 'react';

export interface Range {
  from: number;
  to: number;
}

/** A recording and the part of it that is to be read. */
export interface RangeProps {
  video: VideoText;
  range: Range;
  onChange: (range: Range) => void;
}

/** Strokes that show how much is said. */
const STROKES = 110;

/** The length of a recording as a ruler: chapters above it, how much is said on it, and the part that is to be read between two handles. */
export function TimeRange({ video, range, onChange }: RangeProps) {
  const { seconds, chapters, lines } = video;
  const place = (at: number) => `${Math.min(100, (at / seconds) * 100)}%`;
  const said = useMemo(() => {
    const out = new Array<number>(STROKES).fill(0);
    for (const { start, end, text } of lines) {
      // The words of a sentence lie over all of its time.
      const first = Math.floor((start / seconds) * STROKES);
      const last = Math.max(first, Math.floor((end / seconds) * STROKES));
      const each = text.split(' ').length / (last - first + 1);
      for (let at = first; at <= last; at++) out[Math.min(STROKES - 1, at)]! += each;
    }
    const most = Math.max(...out, 1);
    return out.map((words) => words / most);
  }, [lines, seconds]);
  const step = [10, 30, 60, 120, 300, 600, 1_200].find((one) => seconds / one <= 16) ?? 3_600;
  const ticks = Array.from({ length: Math.floor(seconds / step) + 1 }, (_, i) => i * step);
  const within = (at: number) => at >= range.from && at <= range.to;
  return (
    <div className="relative h-[112px]">
      {chapters.map(({ start, title }, i) => {
        const end = chapters[i + 1]?.start ?? seconds;
        return (
          <button
            key={start}
            type="button"
            className={`brackets absolute top-0 h-10 overflow-hidden border-l border-ink pl-1.5 text-left text-small leading-4 ${within((start + end) / 2) ? 'text-ink' : 'text-ink-3'}`}
            style={{ left: place(start), width: `calc(${place(end - start)} - 6px)` }}
            title={`Only ‘${title}’`}
            onClick={() => onChange({ from: Math.floor(start), to: Math.ceil(end) })}
          >
            {title || 'from the start'}
          </button>
        );
      })}
      <span
        aria-hidden
        className="absolute top-12 h-8 bg-marker"
        style={{ left: place(range.from), width: place(range.to - range.from) }}
      />
      <span aria-hidden className="absolute inset-x-0 top-12 flex h-8 items-end">
        {said.map((share, i) => (
          <span
            key={i}
            className={`mx-px flex-1 ${within(((i + 0.5) / STROKES) * seconds) ? 'bg-ink' : 'bg-graphite-soft'}`}
            style={{ height: `${Math.max(4, share * 90)}%` }}
          />
        ))}
      </span>
      <span aria-hidden className="absolute inset-x-0 top-20 h-px bg-rule-strong" />
      {ticks.map((at) => (
        <span key={at} className="absolute top-20" style={{ left: place(at) }}>
          <span aria-hidden className="absolute h-2 w-px bg-rule-strong" />
          {at === 0 || at > seconds * 0.97 ? null : (
            <span className="fig absolute top-2.5 -translate-x-1/2 text-ink-3">{clockOf(at)}</span>
          )}
        </span>
      ))}
      <End
        at={range.from}
        seconds={seconds}
        label="From"
        onChange={(from) => onChange({ from: Math.min(from, range.to - 1), to: range.to })}
      />
      <End
        at={range.to}
        seconds={seconds}
        label="To"
        onChange={(to) => onChange({ from: range.from, to: Math.max(to, range.from + 1) })}
      />
    </div>
  );
}

function End({
  at,
  seconds,
  label,
  onChange,
}: {
  at: number;
  seconds: number;
  label: string;
  onChange: (at: number) => void;
}) {
  const own = useRef<HTMLSpanElement>(null);
  const put = (next: number) => onChange(Math.max(0, Math.min(Math.ceil(seconds), Math.round(next))));
  const byPointer = (clientX: number) => {
    const box = own.current?.parentElement?.getBoundingClientRect();
    if (box) put(((clientX - box.left) / box.width) * seconds);
  };
  return (
    <span
      ref={own}
      role="slider"
      tabIndex={0}
      aria-label={label}
      aria-valuemin={0}
      aria-valuemax={Math.ceil(seconds)}
      aria-valuenow={Math.round(at)}
      aria-valuetext={clockOf(at)}
      className="brackets absolute top-11 h-14 w-[9px] cursor-ew-resize touch-none"
      style={{ left: `calc(${Math.min(100, (at / seconds) * 100)}% - 4.5px)` }}
      onPointerDown={(event) => event.currentTarget.setPointerCapture(event.pointerId)}
      onPointerMove={(event) => event.buttons === 1 && byPointer(event.clientX)}
      onKeyDown={(event) => {
        const by = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1, PageUp: 10, PageDown: -10 }[event.key];
        if (by === undefined) return;
        event.preventDefault();
        put(at + by);
      }}
    >
      <span className="absolute left-1 top-0 block h-10 w-px bg-ink" />
      <span className="absolute top-9 block h-[9px] w-[9px] border border-ink bg-marker" />
      <span className={`fig absolute top-8 font-semibold ${label === 'From' ? 'left-3' : 'right-3'} bg-sheet px-0.5`}>
        {clockOf(at)}
      </span>
    </span>
  );
}
