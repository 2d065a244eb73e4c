import type { Item } from '@grivo/contract';
import { opportunityBy } from '@grivo/core';
import { expect, test } from 'vitest';
import { answerOf, lastTaken, ordered, unitsOf } from './units.ts';

const item = (subject: string, more: Partial<Item> = {}): Item => ({
  id: subject,
  subject,
  leftOut: null,
  leftDetail: '',
  gone: false,
  publishedDesk: null,
  about: '',
  answeredBy: null,
  volume: null,
  difficulty: null,
  results: [],
  taken: [],
  ...more,
});

const ITEMS = [
  item('white film', { volume: 300, difficulty: 10 }),
  item('kahm yeast', { volume: 900, difficulty: 50 }),
  item('how to make kimchi', { volume: 100, difficulty: null }),
  item('pellicle', { answeredBy: { id: 'a', title: 'Kahm' } }),
];
const group = (...members: number[]) => ({ members, want: 'learn' as const });
const units = unitsOf(ITEMS, [group(1, 0, 3), group(2)], opportunityBy());

test('a group is called by its first phrase, adds volumes up and weighs difficulties by them', () => {
  expect(units[0]).toMatchObject({ id: 'kahm yeast', want: 'learn', volume: 1_200, difficulty: 40, opportunity: 720 });
  expect(units[0]!.rest.map(({ subject }) => subject)).toEqual(['white film', 'pellicle']);
  expect(units[1]).toMatchObject({ volume: 100, difficulty: null, opportunity: null });
});

test('without groups each phrase is by itself', () => {
  expect(unitsOf(ITEMS, null, opportunityBy()).map(({ id }) => id)).toEqual(ITEMS.map(({ id }) => id));
});

test('a group is answered with its head or half of its phrases, and what was made of it last stands', () => {
  const kahm = { id: 'a', title: 'Kahm' };
  const answered = (...who: boolean[]) =>
    answerOf(
      unitsOf(
        who.map((one, i) => item(`phrase ${i}`, { volume: 10 - i, answeredBy: one ? kahm : null })),
        [group(...who.keys())],
        opportunityBy(),
      )[0]!,
    );
  expect(answered(true, false, false)).toEqual(kahm);
  expect(answered(false, true, true, false)).toEqual(kahm);
  expect(answered(false, true, false, false)).toBeNull();
  expect(answerOf(units[1]!)).toBeNull();
  const taken = (brief: string) => ({ pipeline: 'p', brief, standing: 'out' });
  const [unit] = unitsOf(
    [item('a', { taken: [taken('2')] }), item('b', { taken: [taken('1')] })],
    [group(0, 1)],
    opportunityBy(),
  );
  expect(lastTaken(unit!)?.brief).toBe('2');
});

test('in an order what nothing is known of comes last, whichever way it goes', () => {
  const ids = (order: 'volume' | 'difficulty') => ordered(units, order).map(({ id }) => id);
  expect(ids('volume')).toEqual(['kahm yeast', 'how to make kimchi']);
  expect(ids('difficulty')).toEqual(['kahm yeast', 'how to make kimchi']);
  expect(ordered([...units].reverse(), 'difficulty').map(({ id }) => id)).toEqual(['kahm yeast', 'how to make kimchi']);
});
