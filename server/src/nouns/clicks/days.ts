const DAY_MS = 86_400_000;

/** The day a moment is on in a zone, as `2026-05-31`. */
export function dayIn(moment: number, zone: string): string {
  // Canadian English writes dates as ISO 8601 does.
  return new Intl.DateTimeFormat('en-CA', { timeZone: zone }).format(moment);
}

/** The last days, as many as are asked for, the oldest first; the last is `last`. */
export function daysUntil(last: string, many: number): string[] {
  const end = Date.parse(`${last}T00:00:00Z`);
  return Array.from({ length: many }, (_, i) => new Date(end - (many - 1 - i) * DAY_MS).toISOString().slice(0, 10));
}
