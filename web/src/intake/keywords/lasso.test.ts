import { expect, test } from 'vitest';
import { isInside, placeLabel } from './lasso.ts';

const SQUARE = [
  { x: 0, y: 0 },
  { x: 10, y: 0 },
  { x: 10, y: 10 },
  { x: 0, y: 10 },
];

test('what a line goes round is inside, also when it is not convex', () => {
  expect(isInside({ x: 5, y: 5 }, SQUARE)).toBe(true);
  expect(isInside({ x: 15, y: 5 }, SQUARE)).toBe(false);
  const bay = [...SQUARE.slice(0, 3), { x: 5, y: 2 }, { x: 0, y: 10 }];
  expect(isInside({ x: 5, y: 8 }, bay)).toBe(false);
  expect(isInside({ x: 1, y: 5 }, bay)).toBe(true);
  expect(isInside({ x: 5, y: 5 }, [])).toBe(false);
});

test('a label stands right of its point, left where there is no room, and nowhere when both are taken', () => {
  const room = { x: 0, y: 0, width: 100, height: 100 };
  const size = { width: 40, height: 10 };
  expect(placeLabel({ x: 20, y: 50 }, size, [], room)).toMatchObject({ x: 28, y: 45 });
  const right = { x: 60, y: 40, width: 40, height: 20 };
  expect(placeLabel({ x: 55, y: 50 }, size, [right], room)).toMatchObject({ x: 7 });
  expect(placeLabel({ x: 55, y: 50 }, size, [right, { ...right, x: 0 }], room)).toBeNull();
  expect(placeLabel({ x: 95, y: 50 }, size, [], room)).toMatchObject({ x: 47 });
});
