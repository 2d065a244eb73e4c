import type { Blog, BlogSlots } from '@grivo/contract';
import { clock, dayStart } from '../words/time.ts';
import { DAY, DAYS } from './useMover.ts';

/** Height in pixels between the lines of the first and the last hour of a blog. */
const HOURS_PX = 42;
/** Where the line of the first hour is. */
const FIRST_PX = 20;

/** Where moments are in the chart of a blog that begins with a day. */
export interface Places {
  /** In hundredths of the width. */
  x: (at: number) => number;
  /** The day's column, from 0. */
  column: (at: number) => number;
  /** The middle of the day's column, as CSS says it. */
  left: (at: number) => string;
  /** Pixels from the top; what lies outside of the hours stands a little above or below their lines. */
  y: (at: number) => number;
}

export function placesOf(
  lane: Pick<BlogSlots, 'zone'>,
  hours: Blog['cadence']['hours'] | undefined,
  from: number,
): Places {
  const [opens, closes] = hours ? [minutesOf(hours.from), minutesOf(hours.to)] : [480, 600];
  const span = Math.max(60, closes - opens);
  const column = (at: number) => Math.floor((dayStart(at) - from + DAY / 2) / DAY);
  return {
    column,
    x: (at) => ((at - from) / (DAYS * DAY)) * 100,
    left: (at) => `${((column(at) + 0.5) / DAYS) * 100}%`,
    y: (at) => {
      const minutes = minutesOf(clock(at, lane.zone));
      return FIRST_PX + Math.max(-14, Math.min(HOURS_PX + 12, ((minutes - opens) / span) * HOURS_PX - 8));
    },
  };
}

function minutesOf(text: string): number {
  const [h = 0, m = 0] = text.split(':').map(Number);
  return h * 60 + m;
}
