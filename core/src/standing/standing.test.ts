import { describe, expect, test } from 'vitest';
import { articleStanding, ownStanding } from './article.ts';
import { BRIEF, standingOf } from './brief.ts';
import { decide, mayBecome, waysOf } from './machine.ts';
import { MAY_BEGIN, PUBLICATION } from './publication.ts';
import { OPEN_RUNS, RUN, type StepState } from './run.ts';

describe('a run of a step', () => {
  test('that has ended stays ended, and only one that runs or is held can end well', () => {
    for (const to of OPEN_RUNS) {
      expect(mayBecome(RUN, 'done', to)).toBe(false);
      expect(mayBecome(RUN, 'cancelled', to)).toBe(false);
    }
    expect(waysOf(RUN).filter(([, to]) => to === 'done')).toEqual([
      ['running', 'done'],
      ['held', 'done'],
    ]);
  });

  test('is claimed once, and woken only while it waits', () => {
    expect(decide(RUN, 'ready', 'claim')).toBe('running');
    expect(decide(RUN, 'running', 'claim')).toBeNull();
    expect(decide(RUN, 'waiting', 'wake')).toBe('ready');
    expect(decide(RUN, 'stopped', 'wake')).toBeNull();
  });
});

describe('a brief', () => {
  test('stands as its most pressing open run', () => {
    const run = (state: StepState, forSlot = false) => ({ state, forSlot });
    expect(standingOf([run('waiting', true)], null)).toBe('ready');
    expect(standingOf([run('waiting', false)], null)).toBe('in work');
    expect(standingOf([run('stopped'), run('running')], null)).toBe('in work');
    expect(standingOf([run('stopped'), run('held')], null)).toBe('stopped');
    expect(standingOf([run('held'), run('waiting', true)], null)).toBe('held');
    expect(standingOf([], 'out')).toBe('out');
  });

  test('comes back from being set aside, and one that has gone out is not', () => {
    expect(mayBecome(BRIEF, 'set aside', 'in work')).toBe(true);
    expect(mayBecome(BRIEF, 'set aside', 'waiting')).toBe(true);
    expect(mayBecome(BRIEF, 'out', 'waiting')).toBe(false);
    expect(decide(BRIEF, 'out', 'set aside')).toBeNull();
  });
});

describe('a publication', () => {
  test('is not begun while it stands on the blog, and can be again once it is withdrawn', () => {
    expect(decide(PUBLICATION, 'live', 'begin')).toBeNull();
    expect(decide(PUBLICATION, 'draft', 'begin')).toBeNull();
    expect(decide(PUBLICATION, 'withdrawn', 'begin')).toBe('creating');
    expect(mayBecome(PUBLICATION, 'live', 'draft')).toBe(false);
  });

  test('is changed and withdrawn only where it stands', () => {
    for (const act of ['update', 'withdraw'] as const) expect(MAY_BEGIN[act]).toEqual(['draft', 'live']);
    expect(MAY_BEGIN.publish).not.toContain('live');
  });
});

describe('an article', () => {
  const facts = { outAs: null, aside: false, slot: false };
  test('is what it is on a blog before anything else', () => {
    expect(ownStanding({ outAs: 'live', aside: true, slot: true })).toBe('out');
    expect(ownStanding({ ...facts, outAs: 'withdrawn', slot: true })).toBe('withdrawn');
    expect(ownStanding({ ...facts, aside: true, slot: true })).toBe('set aside');
    expect(ownStanding({ ...facts, slot: true })).toBe('ready');
  });

  test('that is in work is kept by its brief', () => {
    expect(articleStanding(facts, 'held')).toBe('held');
    expect(articleStanding(facts, 'stopped')).toBe('stopped');
    expect(articleStanding(facts, 'out')).toBe('in work');
    expect(articleStanding({ ...facts, outAs: 'draft' }, 'held')).toBe('draft');
  });
});
