import { readdirSync, readFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { BRIEF, type Events, RUN } from '@grivo/core';
import { expect, test } from 'vitest';
import { briefMoves, checkedStanding, ENDS, type Move, runMoves } from './moves.ts';

const SRC = join(import.meta.dirname, '..');

test('a state is set by a move and nowhere by hand', () => {
  const byHand =
    /\b(?:UPDATE\s+(?:step_run|brief|publication|article)\b[^;]*?\bSET\b(?:(?!\bWHERE\b)[\s\S])*?\b(?:state|standing)\s*=\s*['?])/;
  const files = readdirSync(SRC, { recursive: true, encoding: 'utf8' })
    .map((name) => join(SRC, name))
    .filter((path) => path.endsWith('.ts') && !path.endsWith('.test.ts') && !path.includes('/migrations/'));
  const found = files.filter((path) => {
    const texts = readFileSync(path, 'utf8').match(/`[^`]*`|'[^'\n]*'|"[^"\n]*"/g) ?? [];
    return texts.some((text) => byHand.test(text.replace(/\$\{[^}]*\}/g, '')));
  });
  // The standing a plan gives is checked before it is written.
  expect(found.map((path) => relative(SRC, path))).toEqual(['engine/commitBatch.ts']);
});

test('every event of a run and a brief is a move that says where it can happen', () => {
  const all: [Events<string, string>, Record<string, Move>, string][] = [
    [RUN, runMoves, 'state'],
    [BRIEF, briefMoves, 'standing'],
  ];
  for (const [events, moves, column] of all)
    for (const [event, { from, to }] of Object.entries(events)) {
      const move = moves[event]!;
      expect(move.set.startsWith(`${column} = '${to}', `)).toBe(true);
      expect(move.from).toBe(`${column} IN (${from.map((state) => `'${state}'`).join(', ')})`);
    }
});

test('only a run that is ready has a lane, only one that runs keeps its holder, and what has ended has its time', () => {
  for (const [event, { to }] of Object.entries(RUN)) {
    const { set } = runMoves[event as keyof typeof RUN];
    expect(set.includes('lane = home_lane'), event).toBe(to === 'ready');
    expect(set.includes('lane = NULL'), event).toBe(to !== 'ready');
    expect(set.includes('holder = NULL'), event).toBe(to !== 'running');
    expect(set.includes('ended_at = UTC_TIMESTAMP(3)'), event).toBe(to === 'done' || to === 'cancelled');
  }
});

test('how a run in hand ends leads from running to that very state', () => {
  for (const [state, event] of Object.entries(ENDS)) {
    expect(RUN[event].to).toBe(state);
    expect(RUN[event].from).toContain('running');
  }
});

test('a standing no event leads to is refused before it is written', () => {
  expect(checkedStanding('in work', 'out')).toBe('out');
  expect(checkedStanding('held', 'held')).toBe('held');
  expect(() => checkedStanding('out', 'waiting')).toThrow('a brief that is ‘out’ cannot become ‘waiting’');
});
