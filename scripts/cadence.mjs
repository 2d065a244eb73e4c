/** A cadence that stands in nobody's way: so many a day, any day, through the working hours. */
export const everyDay = (n, gapMinutes = 0, zone = 'UTC') => ({
  rate: { kind: 'count', n, per: 'day' },
  days: [1, 2, 3, 4, 5, 6, 7],
  hours: { from: '08:00', to: '18:00' },
  gapMinutes,
  start: '2024-01-01',
  pauses: [],
  zone,
});
