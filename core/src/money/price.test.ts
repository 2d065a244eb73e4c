import { expect, test } from 'vitest';
import { textCeiling, textCost } from './price.ts';

const price = { microsPerThousandIn: 500, microsPerThousandOut: 1_500, microsPerPicture: 20_000 };

test('cost follows usage and is rounded up; the ceiling is never below what a full reply costs', () => {
  expect(textCost(price, { tokensIn: 1_000, tokensOut: 1_000 })).toBe(2_000);
  expect(textCost(price, { tokensIn: 1, tokensOut: 0 })).toBe(1);
  const prompt = 'word '.repeat(400);
  expect(textCeiling(price, prompt, 600)).toBeGreaterThan(textCost(price, { tokensIn: 500, tokensOut: 600 }));
});
