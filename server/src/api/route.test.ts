import { expect, test } from 'vitest';
import { z } from 'zod';
import { asPromised, type Route } from './route.ts';

const of = (answer?: z.ZodType): Route => ({
  method: 'get',
  path: '/things',
  says: 'Things',
  role: 'proofreader',
  ...(answer ? { answer } : {}),
  handle: async () => undefined,
});

test('an answer is held against what its route promises, as JSON', () => {
  const promised = of(z.object({ at: z.iso.datetime(), n: z.number() }));
  expect(() => asPromised(promised, { at: new Date(0), n: 1 })).not.toThrow();
  expect(() => asPromised(promised, { at: new Date(0), n: '1' })).toThrow(z.ZodError);
  // What JSON cannot say is gone when it is read.
  expect(() => asPromised(promised, { at: new Date(0), n: Number.NaN })).toThrow(z.ZodError);
  expect(() => asPromised(promised, undefined)).toThrow(z.ZodError);
});

test('a route that promises nothing answers nothing', () => {
  expect(() => asPromised(of(), undefined)).not.toThrow();
  expect(() => asPromised(of(), { n: 1 })).toThrow('get /things answers something and promises nothing');
});
