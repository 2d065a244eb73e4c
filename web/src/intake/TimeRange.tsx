import type { VideoText } from '@grivo/contract';
import { clockOf } from '@grivo/core';
import { Slider } from 'radix-ui';
import { useMemo } from 'react';

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

/** How much is said along a recording, each stroke a share of the most. */
function strokesOf({ lines, seconds }: VideoText): number[] {
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
}

/** The length of a recording as a ruler: chapters above it, how much is said on it, and the part that is to be read between two handles. */
export function TimeRange(props: RangeProps) {
  const { video, range, onChange } = props;
  const { seconds } = video;
  const most = Math.ceil(seconds);
  const said = useMemo(() => strokesOf(video), [video]);
  const place = (at: number) => `${Math.min(100, (at / seconds) * 100)}%`;
  const within = (at: number) => at >= range.from && at <= range.to;
  return (
    <div className="relative h-[112px]">
      <Chapters {...props} place={place} within={within} />
      <Slider.Root
        className="absolute inset-x-0 top-11 block h-16 cursor-ew-resize touch-none"
        min={0}
        max={most}
        step={1}
        minStepsBetweenThumbs={1}
        value={[range.from, Math.min(most, range.to)]}
        onValueChange={([from, to]) => onChange({ from: from!, to: to! })}
      >
        <span
          aria-hidden
          className="absolute top-1 h-8 bg-marker"
          style={{ left: place(range.from), width: place(range.to - range.from) }}
        />
        <span aria-hidden className="absolute inset-x-0 top-1 flex h-8 items-end">
          {said.map((share, i) => (
            <span
              key={i}
              className={`mx-px flex-1 ${within(((i + 0.5) / STROKES) * seconds) ? 'bg-ink' : 'bg-graphite-soft'}`}
              style={{ height: `${Math.max(4, share * 90)}%` }}
            />
          ))}
        </span>
        <Scale seconds={seconds} place={place} />
        <End at={range.from} label="From" />
        <End at={range.to} label="To" />
      </Slider.Root>
    </div>
  );
}

function Chapters({
  video: { chapters, seconds },
  onChange,
  place,
  within,
}: RangeProps & { place: (at: number) => string; within: (at: number) => boolean }) {
  return chapters.map(({ start, title }, i) => {
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
  });
}

/** The baseline with its times. */
function Scale({ seconds, place }: { seconds: number; place: (at: number) => string }) {
  const step = [10, 30, 60, 120, 300, 600, 1_200].find((one) => seconds / one <= 16) ?? 3_600;
  return (
    <>
      <span aria-hidden className="absolute inset-x-0 top-9 h-px bg-rule-strong" />
      {Array.from({ length: Math.floor(seconds / step) + 1 }, (_, i) => i * step).map((at) => (
        <span key={at} className="absolute top-9" style={{ left: place(at) }}>
          <span aria-hidden className="absolute h-2 w-px bg-rule-strong" />
          {at === 0 || at > seconds * 0.97 ? null : (
            <span className="fig absolute top-2.5 -translate-x-1/2 text-ink-3">{clockOf(at)}</span>
          )}
        </span>
      ))}
    </>
  );
}

/** One end of the part: without a width, so that it stands just at its second. */
function End({ at, label }: { at: number; label: 'From' | 'To' }) {
  return (
    <Slider.Thumb aria-label={label} aria-valuetext={clockOf(at)} className="brackets relative block h-14 w-0">
      <span className="absolute -left-[5px] top-0 block h-14 w-[10px]" />
      <span className="absolute -left-px top-0 block h-10 w-px bg-ink" />
      <span className="absolute -left-[5px] top-9 block h-[9px] w-[9px] border border-ink bg-marker" />
      <span className={`fig absolute top-8 font-semibold ${label === 'From' ? 'left-2' : 'right-2'} bg-sheet px-0.5`}>
        {clockOf(at)}
      </span>
    </Slider.Thumb>
  );
}
