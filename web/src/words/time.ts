/** Desk moments as people read them, in the zone of the person's browser. */

const LOCALE = 'en-GB';
const format = (options: Intl.DateTimeFormatOptions) => {
  const made = new Map<string, Intl.DateTimeFormat>();
  return (ms: number, zone?: string) => {
    const key = zone ?? '';
    let one = made.get(key);
    if (!one) {
      one = new Intl.DateTimeFormat(LOCALE, zone ? { ...options, timeZone: zone } : options);
      made.set(key, one);
    }
    return one.format(ms);
  };
};

export const clock = format({ hour: '2-digit', minute: '2-digit', hour12: false });
export const dayLong = format({ weekday: 'short', day: 'numeric', month: 'short' });
const weekday = format({ weekday: 'short' });
const dayNumber = format({ day: 'numeric' });
const dateKey = format({ year: 'numeric', month: '2-digit', day: '2-digit' });

/** 'Wed 27'. */
export function dayShort(ms: number, zone?: string): string {
  return `${weekday(ms, zone)} ${dayNumber(ms, zone)}`;
}

/** 'Thu 28 Nov 09:00', 'today 09:00'. */
export function moment(ms: number, now: number, zone?: string): string {
  const day = sameDay(ms, now, zone) ? 'today' : dayLong(ms, zone).replace(',', '');
  return `${day} ${clock(ms, zone)}`;
}

export function sameDay(a: number, b: number, zone?: string): boolean {
  return dateKey(a, zone) === dateKey(b, zone);
}

/** The first midnight at or before a moment, by the browser's zone. */
export function dayStart(ms: number): number {
  const date = new Date(ms);
  date.setHours(0, 0, 0, 0);
  return date.getTime();
}

/** '8 h 20 min', '3 days'. */
export function span(ms: number): string {
  const minutes = Math.max(0, Math.round(ms / 60_000));
  if (minutes < 60) return `${minutes} min`;
  if (minutes < 48 * 60) return `${Math.floor(minutes / 60)} h ${minutes % 60} min`;
  return `${Math.round(minutes / 1_440)} days`;
}

/** How long a step took: '2 s', '1 m 52'. */
export function took(ms: number): string {
  const seconds = Math.max(0, Math.round(ms / 1_000));
  if (ms < 950) return `${Math.max(1, Math.round(ms / 10) * 10)} ms`;
  return seconds < 60 ? `${seconds} s` : `${Math.floor(seconds / 60)} m ${String(seconds % 60).padStart(2, '0')}`;
}

/** A time of day as people type it (8, 8:30, 8.30, 4 pm, noon) as 08:30; null when it is none. 24 is the end of the day. */
export function clockFrom(typed: string): string | null {
  const text = typed.trim().toLowerCase();
  if (text === 'noon') return '12:00';
  if (text === 'midnight') return '00:00';
  const read = /^(\d{1,2})(?:[:.h]?(\d{2}))?\s*(am|pm|h)?$/.exec(text);
  if (!read) return null;
  const [, hours = '', minutes = '00', half] = read;
  let hour = Number(hours);
  if (half === 'am' || half === 'pm') {
    if (hour < 1 || hour > 12) return null;
    hour = (hour % 12) + (half === 'pm' ? 12 : 0);
  }
  const well = Number(minutes) < 60 && (hour < 24 || (hour === 24 && Number(minutes) === 0));
  return well ? `${String(hour).padStart(2, '0')}:${minutes}` : null;
}

/** A month as 2026-11, in words. */
export function monthWords(month: string): string {
  return new Date(`${month}-01T12:00:00Z`).toLocaleDateString('en-GB', { month: 'long', year: 'numeric' });
}
