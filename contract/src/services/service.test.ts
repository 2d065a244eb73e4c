import { expect, test } from 'vitest';
import { NewService, ServiceChange } from './service.ts';

test('what a change of a service leaves out stays as it is; what a new one leaves out is as usual', () => {
  expect(ServiceChange.parse({ name: 'The writer' })).toEqual({ name: 'The writer' });
  expect(ServiceChange.parse({ callsAMinute: null })).toEqual({ callsAMinute: null });
  const price = { microsPerThousandIn: 0, microsPerThousandOut: 0, microsPerPicture: 0 };
  expect(
    NewService.parse({ role: 'writer', name: 'The writer', address: 'https://writer.example', price }),
  ).toMatchObject({ model: '', permits: 4, callsAMinute: null, timeLimitMs: 60_000, secret: null });
});
