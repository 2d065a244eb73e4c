import fc from 'fast-check';
import rrulePackage from 'rrule';
import { Temporal } from 'temporal-polyfill';
import { describe, expect, test } from 'vitest';
import { shortfall, shortfallWords } from './kept.ts';
import { nextFreeSlot, placementFaults, reflow } from './placement.ts';
import { CadenceRule, cadenceSentence } from './rule.ts';
import { slotsBetween, slotsFrom } from './slots.ts';

const { RRule } = rrulePackage;
const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
const DAY = 24 * HOUR;
const at = (iso: string) => Date.parse(iso);
const local = (ms: number, zone: string) => Temporal.Instant.fromEpochMilliseconds(ms).toZonedDateTimeISO(zone);

const base: CadenceRule = {
  rate: { kind: 'count', n: 1, per: 'day' },
  days: [1, 2, 3, 4, 5, 6, 7],
  hours: { from: '09:00', to: '17:00' },
  gapMinutes: 0,
  start: '2024-01-01',
  pauses: [],
  zone: 'Europe/Dublin',
};

const clock = fc
  .integer({ min: 0, max: 1_439 })
  .map((m) => `${String(Math.floor(m / 60)).padStart(2, '0')}:${String(m % 60).padStart(2, '0')}`);
const zones = fc.constantFrom('Europe/Dublin', 'America/New_York', 'Australia/Lord_Howe', 'Asia/Kolkata', 'UTC');
const rules: fc.Arbitrary<CadenceRule> = fc.record({
  rate: fc.oneof(
    fc.record({
      kind: fc.constant('count' as const),
      n: fc.integer({ min: 1, max: 12 }),
      per: fc.constantFrom('day' as const, 'week' as const, 'month' as const),
    }),
    fc.record({
      kind: fc.constant('every' as const),
      n: fc.integer({ min: 5, max: 300 }),
      unit: fc.constantFrom('minutes' as const, 'hours' as const),
    }),
  ),
  days: fc.uniqueArray(fc.integer({ min: 1, max: 7 }), { minLength: 1 }),
  hours: fc.record({ from: clock, to: clock }),
  gapMinutes: fc.constantFrom(0, 20, 90, 240, 1_440, 4_000),
  start: fc.constantFrom('2024-01-01', '2024-02-29', '2024-03-30', '2024-10-27'),
  pauses: fc.constantFrom([], [{ from: '2024-04-02', to: '2024-04-05' }]),
  zone: zones,
});
const moments = fc.integer({ min: at('2024-01-01T00:00Z'), max: at('2024-12-31T00:00Z') });

describe('properties over any rule', () => {
  test('slots ascend, keep the gap in real minutes, and lie on permitted days within the hours', () => {
    fc.assert(
      fc.property(rules, moments, (rule, from) => {
        const slots = slotsBetween(rule, from, from + 20 * DAY);
        slots.forEach((slot, i) => {
          expect(slot).toBeGreaterThanOrEqual(from);
          if (i > 0) expect(slot - slots[i - 1]!).toBeGreaterThanOrEqual(Math.max(1, rule.gapMinutes * MINUTE));
          const here = local(slot, rule.zone);
          const wraps = rule.hours.to < rule.hours.from;
          const time = here.toPlainTime().toString({ smallestUnit: 'minute' });
          // A time that the spring change leaves out may land behind the window's opening, never before it.
          const inWindow =
            rule.hours.from === rule.hours.to ||
            (wraps ? time >= rule.hours.from || time < rule.hours.to : time >= rule.hours.from && time < rule.hours.to);
          const shifted = here.offset !== local(slot - 3 * HOUR, rule.zone).offset;
          expect(inWindow || shifted, `${time} in ${rule.hours.from}–${rule.hours.to}`).toBe(true);
          const owner = wraps && time < rule.hours.to ? here.toPlainDate().subtract({ days: 1 }) : here.toPlainDate();
          expect(rule.days.includes(owner.dayOfWeek) || shifted).toBe(true);
          expect(owner.toString() >= rule.start).toBe(true);
          expect(rule.pauses.some((p) => owner.toString() >= p.from && owner.toString() <= p.to)).toBe(false);
        });
      }),
      { numRuns: 300 },
    );
  });

  test('the slots are the same from wherever one looks, when no gap pushes them', () => {
    fc.assert(
      fc.property(rules, moments, fc.integer({ min: 0, max: 9 * DAY }), (anyRule, from, later) => {
        const rule = { ...anyRule, gapMinutes: 0 };
        const to = from + 12 * DAY;
        expect(slotsBetween(rule, from + later, to)).toEqual(
          slotsBetween(rule, from, to).filter((slot) => slot >= from + later),
        );
      }),
      { numRuns: 200 },
    );
  });

  test('a free slot holds no placement and keeps the gap to all of them', () => {
    fc.assert(
      fc.property(
        rules,
        moments,
        fc.array(fc.integer({ min: 0, max: 15 * DAY }), { maxLength: 12 }),
        (rule, now, offsets) => {
          const taken = offsets.map((offset) => ({ at: now + offset }));
          const slot = nextFreeSlot(rule, taken, now);
          if (slot === null) return;
          for (const other of taken)
            expect(Math.abs(other.at - slot)).toBeGreaterThanOrEqual(Math.max(1, rule.gapMinutes * MINUTE));
        },
      ),
      { numRuns: 200 },
    );
  });

  test('placing one after another fills slots without ever putting two on one', () => {
    fc.assert(
      fc.property(rules, moments, (rule, now) => {
        const taken: { at: number }[] = [];
        for (let i = 0; i < 8; i++) {
          const slot = nextFreeSlot(rule, taken, now);
          if (slot === null) break;
          taken.push({ at: slot });
        }
        expect(new Set(taken.map((t) => t.at)).size).toBe(taken.length);
        expect([...taken].sort((a, b) => a.at - b.at)).toEqual(taken);
      }),
      { numRuns: 100 },
    );
  });
});

describe('counts', () => {
  test('n a day, week and month give exactly n, spread evenly', () => {
    const week = slotsBetween(
      { ...base, rate: { kind: 'count', n: 3, per: 'week' } },
      at('2024-06-03T00:00Z'),
      at('2024-06-10T00:00Z'),
    );
    expect(week.map((s) => local(s, base.zone).dayOfWeek)).toEqual([1, 3, 5]);
    const month = slotsBetween(
      { ...base, rate: { kind: 'count', n: 4, per: 'month' } },
      at('2024-05-31T23:00Z'),
      at('2024-06-30T23:00Z'),
    );
    expect(month.map((s) => local(s, base.zone).day)).toEqual([1, 8, 16, 23]);
    const day = slotsBetween(
      { ...base, rate: { kind: 'count', n: 4, per: 'day' } },
      at('2024-06-03T00:00Z'),
      at('2024-06-04T00:00Z'),
    );
    expect(day.map((s) => local(s, base.zone).toPlainTime().toString())).toEqual([
      '09:00:00',
      '11:00:00',
      '13:00:00',
      '15:00:00',
    ]);
  });

  test('every month gets its count, whatever its length, the leap day among its days', () => {
    const rule: CadenceRule = { ...base, zone: 'UTC', rate: { kind: 'count', n: 31, per: 'month' } };
    for (const [from, to] of [
      ['2024-02-01', '2024-03-01'],
      ['2023-02-01', '2023-03-01'],
      ['2024-04-01', '2024-05-01'],
    ] as const) {
      expect(slotsBetween({ ...rule, start: '2023-01-01' }, at(`${from}T00:00Z`), at(`${to}T00:00Z`))).toHaveLength(31);
    }
    const daily = slotsBetween({ ...base, zone: 'UTC' }, at('2024-02-28T00:00Z'), at('2024-03-02T00:00Z'));
    expect(daily.map((s) => new Date(s).toISOString().slice(5, 10))).toEqual(['02-28', '02-29', '03-01']);
  });
});

describe('both changes of the clock', () => {
  // Zone, the day of the spring change, the day of the autumn change, in 2024.
  const changes = [
    ['Europe/Berlin', '2024-03-31', '2024-10-27'],
    ['America/New_York', '2024-03-10', '2024-11-03'],
    ['Australia/Lord_Howe', '2024-10-06', '2024-04-07'],
  ] as const;

  test.each(changes)('%s: a daily slot keeps its local time on both days', (zone, spring, autumn) => {
    for (const day of [spring, autumn]) {
      const from = Temporal.PlainDate.from(day)
        .subtract({ days: 2 })
        .toZonedDateTime({ timeZone: zone }).epochMilliseconds;
      const slots = slotsBetween({ ...base, zone }, from, from + 5 * DAY - HOUR);
      expect(slots.map((s) => local(s, zone).toPlainTime().toString())).toEqual(Array(5).fill('09:00:00'));
    }
  });

  test.each(changes)(
    '%s: a local time left out in spring moves behind the change; one made twice in autumn is taken once',
    (zone, spring, autumn) => {
      const rule: CadenceRule = { ...base, zone, hours: { from: '02:10', to: '02:10' } };
      const midnight = (day: string) =>
        Temporal.PlainDate.from(day).toZonedDateTime({ timeZone: zone }).epochMilliseconds;
      const inSpring = slotsBetween(rule, midnight(spring), midnight(spring) + 22 * HOUR);
      expect(inSpring).toHaveLength(1);
      const early: CadenceRule = { ...base, zone, hours: { from: '01:40', to: '01:40' } };
      expect(slotsBetween(early, midnight(autumn), midnight(autumn) + 22 * HOUR)).toHaveLength(1);
    },
  );

  test.each(changes)('%s: every 30 minutes counts real time over both changes', (zone, spring, autumn) => {
    const rule: CadenceRule = {
      ...base,
      zone,
      hours: { from: '00:00', to: '24:00' },
      rate: { kind: 'every', n: 30, unit: 'minutes' },
    };
    for (const day of [spring, autumn]) {
      const from = Temporal.PlainDate.from(day).toZonedDateTime({ timeZone: zone }).epochMilliseconds;
      const slots = slotsBetween(rule, from, from + 20 * HOUR);
      expect(slots).toHaveLength(40);
      expect(slots).toEqual(slots.map((_, i) => from + i * 30 * MINUTE));
    }
  });

  test.each(changes)('%s: the gap is kept in real minutes over both changes', (zone, spring, autumn) => {
    const rule: CadenceRule = {
      ...base,
      zone,
      hours: { from: '00:00', to: '24:00' },
      rate: { kind: 'count', n: 8, per: 'day' },
      gapMinutes: 170,
    };
    for (const day of [spring, autumn]) {
      const from = Temporal.PlainDate.from(day).toZonedDateTime({ timeZone: zone }).epochMilliseconds;
      const slots = slotsBetween(rule, from - DAY, from + 2 * DAY);
      expect(slots.slice(1).filter((slot, i) => slot - slots[i]! < 170 * MINUTE)).toEqual([]);
    }
  });
});

describe('agreement with a recurrence library on what it can express', () => {
  /** The library's answer in floating local time, put into the zone. */
  function recurrence(
    options: ConstructorParameters<typeof RRule>[0],
    zone: string,
    from: number,
    to: number,
  ): number[] {
    return new RRule(options)
      .between(new Date('2023-12-31T00:00Z'), new Date('2025-02-01T00:00Z'), true)
      .map(
        (floating) =>
          Temporal.PlainDateTime.from(floating.toISOString().slice(0, 19)).toZonedDateTime(zone).epochMilliseconds,
      )
      .filter((ms) => ms >= from && ms < to);
  }
  const from = at('2024-01-15T00:00Z');
  const to = at('2024-12-15T00:00Z');

  test('once a day on chosen weekdays', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.integer({ min: 1, max: 7 }), { minLength: 1 }),
        clock,
        zones,
        (days, time, zone) => {
          const [hour, minute] = time.split(':').map(Number);
          const expected = recurrence(
            {
              freq: RRule.WEEKLY,
              dtstart: new Date('2024-01-01T00:00Z'),
              byweekday: days.map((d) => d - 1),
              byhour: [hour!],
              byminute: [minute!],
              bysecond: [0],
            },
            zone,
            from,
            to,
          );
          expect(slotsBetween({ ...base, days, zone, hours: { from: time, to: time } }, from, to)).toEqual(expected);
        },
      ),
      { numRuns: 60 },
    );
  });

  test('several times a day', () => {
    const expected = recurrence(
      {
        freq: RRule.DAILY,
        dtstart: new Date('2024-01-01T00:00Z'),
        byhour: [9, 11, 13, 15],
        byminute: [0],
        bysecond: [0],
      },
      'Europe/Berlin',
      from,
      to,
    );
    expect(
      slotsBetween({ ...base, zone: 'Europe/Berlin', rate: { kind: 'count', n: 4, per: 'day' } }, from, to),
    ).toEqual(expected);
  });

  test('the first of each month, and every n hours without a change of the clock', () => {
    const monthly = recurrence(
      { freq: RRule.MONTHLY, dtstart: new Date('2024-01-01T09:00Z'), bymonthday: 1 },
      'America/New_York',
      from,
      to,
    );
    expect(
      slotsBetween({ ...base, zone: 'America/New_York', rate: { kind: 'count', n: 1, per: 'month' } }, from, to),
    ).toEqual(monthly);
    const hourly = recurrence(
      { freq: RRule.HOURLY, interval: 3, dtstart: new Date('2024-01-01T00:00Z') },
      'UTC',
      from,
      to,
    );
    expect(
      slotsBetween(
        { ...base, zone: 'UTC', hours: { from: '00:00', to: '24:00' }, rate: { kind: 'every', n: 3, unit: 'hours' } },
        from,
        to,
      ),
    ).toEqual(hourly);
  });
});

describe('placing', () => {
  test('an impossible rule gives no slot instead of searching for ever', () => {
    expect(nextFreeSlot({ ...base, start: '2199-01-01' }, [], at('2024-06-01T00:00Z'))).toBeNull();
    expect(
      slotsFrom({ ...base, pauses: [{ from: '2024-01-01', to: '2099-01-01' }] }, at('2024-06-01T00:00Z')).next().done,
    ).toBe(true);
  });

  test('after a change of rule pinned and due articles stay, the rest keep their order', () => {
    const now = at('2024-06-03T12:00Z');
    const day = (n: number, hour = 8) => at(`2024-06-0${n}T0${hour}:00Z`);
    const moved = reflow(
      { ...base, hours: { from: '10:00', to: '12:00' } },
      [
        { article: 'due', at: day(3), pinned: false },
        { article: 'b', at: day(6), pinned: false },
        { article: 'a', at: day(5), pinned: false },
        { article: 'pinned', at: at('2024-06-04T09:00Z'), pinned: true },
      ],
      now,
    );
    expect(moved).toEqual([
      { article: 'a', at: at('2024-06-05T09:00Z') },
      { article: 'b', at: at('2024-06-06T09:00Z') },
    ]);
  });

  test('what breaks a rule says so', () => {
    const slot = at('2024-06-03T08:00Z');
    expect(placementFaults({ ...base, gapMinutes: 60 }, [{ at: slot + 20 * MINUTE }], slot, [slot])).toEqual([
      '20 min from the next post, 60 min are asked',
    ]);
    expect(placementFaults(base, [], slot + 1, [slot])).toHaveLength(1);
  });
});

test('the rule reads as a sentence', () => {
  expect(
    cadenceSentence({
      ...base,
      rate: { kind: 'count', n: 3, per: 'week' },
      days: [2, 4, 6],
      hours: { from: '08:00', to: '10:00' },
      gapMinutes: 240,
    }),
  ).toBe('3 a week, Tue, Thu, Sat between 08:00 and 10:00 Europe/Dublin, at least 4 h apart');
  expect(
    cadenceSentence({ ...base, rate: { kind: 'every', n: 1, unit: 'hours' }, gapMinutes: 45, days: [1, 2, 3, 4, 5] }),
  ).toBe('one every 1 hour, Mon to Fri between 09:00 and 17:00 Europe/Dublin, at least 45 min apart');
  expect(CadenceRule.safeParse({ ...base, zone: 'Mars/Olympus' }).success).toBe(false);
});

describe('one every so many hours', () => {
  const every = (n: number, more: Partial<CadenceRule> = {}): CadenceRule => ({
    ...base,
    rate: { kind: 'every', n, unit: 'hours' },
    zone: 'UTC',
    ...more,
  });
  const days = (rule: CadenceRule, from: string, n: number) =>
    slotsBetween(rule, at(from), at(from) + n * DAY).map((slot) => new Date(slot).toISOString().slice(5, 16));

  test('counts on over days in real time; what falls outside the hours moves to the next opening', () => {
    expect(days(every(30), '2024-01-01T00:00Z', 6)).toEqual([
      '01-01T09:00',
      '01-02T15:00',
      // 21:00 of the third is closed.
      '01-04T09:00',
      '01-05T15:00',
    ]);
    expect(days(every(60, { hours: { from: '00:00', to: '24:00' } }), '2024-01-01T00:00Z', 8)).toEqual([
      '01-01T00:00',
      '01-03T12:00',
      '01-06T00:00',
      '01-08T12:00',
    ]);
    expect(days(every(5), '2024-01-01T00:00Z', 2)).toEqual([
      '01-01T09:00',
      '01-01T14:00',
      '01-02T09:00',
      '01-02T14:00',
    ]);
  });

  test('comes out the same from wherever one looks, first or last', () => {
    const rule = every(31, { days: [1, 2, 4, 6], start: '2024-01-05' });
    const late = slotsBetween(rule, at('2024-11-20T00:00Z'), at('2024-12-01T00:00Z'));
    const whole = slotsBetween(rule, at('2024-01-01T00:00Z'), at('2024-12-01T00:00Z'));
    expect(late.length).toBeGreaterThan(3);
    expect(whole.slice(-late.length)).toEqual(late);
    for (const [i, slot] of whole.entries()) if (i > 0) expect(slot - whole[i - 1]!).toBeGreaterThanOrEqual(31 * HOUR);
  });
});

describe('a rule that cannot be kept', () => {
  test.each([
    [{ rate: { kind: 'count', n: 15, per: 'week' }, days: [1, 2, 3, 4, 5], gapMinutes: 1_440 }, 15, 5, 'week'],
    [{ rate: { kind: 'count', n: 10, per: 'day' }, gapMinutes: 240 }, 10, 2, 'day'],
    [{ rate: { kind: 'count', n: 40, per: 'month' }, days: [6], gapMinutes: 1_440 }, 40, 4.3, 'month'],
  ] as const)('%j: %s asked, %s kept a %s', (more, asked, kept, per) => {
    const rule = { ...base, ...more } as CadenceRule;
    expect(shortfall(rule)).toEqual({ asked, kept, per });
    expect(shortfallWords(rule)).toMatch(new RegExp(`^It asks for ${asked} a ${per}; .* leave ${kept}\\.`));
  });

  test('is told of no rule that is kept, whatever its start and pauses', () => {
    expect(shortfall({ ...base, start: '2030-01-01', pauses: [{ from: '2023-01-01', to: '2023-12-31' }] })).toBeNull();
    expect(shortfall({ ...base, rate: { kind: 'count', n: 5, per: 'week' }, days: [1, 2, 3, 4, 5] })).toBeNull();
    expect(shortfall({ ...base, rate: { kind: 'every', n: 3, unit: 'hours' } })).toBeNull();
  });
});
