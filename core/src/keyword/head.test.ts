import { expect, it } from 'vitest';
import { headOf } from './group.ts';

const of = (...group: [string, number | null][]) => {
  const all = group.map(([phrase, volume]) => ({ phrase, volume }));
  return all[headOf(all)]!.phrase;
};

it.each([
  [
    'the one searched for most',
    [
      ['salt jar', 10],
      ['jar of salt', 90],
      ['salt', 20],
    ],
    'jar of salt',
  ],
  [
    'one that is known to be searched for before one that is not',
    [
      ['salt jar', null],
      ['jar of salt', 0],
    ],
    'jar of salt',
  ],
  [
    'the one whose words the others share, where all are searched for alike',
    [
      ['old blue jar', 5],
      ['jar', 5],
      ['red jar', 5],
    ],
    'jar',
  ],
  [
    'the shorter of equals',
    [
      ['salted jars', null],
      ['salt jar', null],
    ],
    'salt jar',
  ],
  [
    'the first of what is the same',
    [
      ['salt jar', 3],
      ['salt jar', 3],
    ],
    'salt jar',
  ],
  [
    'the more searched for though its words are shared less',
    [
      ['jar', 5],
      ['old blue jar', 6],
      ['red jar', 5],
    ],
    'old blue jar',
  ],
] as [string, [string, number | null][], string][])('a group is called by %s', (_why, group, head) =>
  expect(of(...group)).toBe(head),
);
