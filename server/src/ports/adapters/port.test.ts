import { expect, test } from 'vitest';
import type { Reply } from '../../ground/network/network.ts';
import { failureOf, jsonOf, refusalOf } from './port.ts';

const reply = (status: number, headers: Record<string, string> = {}): Reply => ({
  status,
  headers,
  body: Buffer.from(''),
  address: 'https://service.example/',
});

test.each([
  [200, null, null],
  [204, null, null],
  [301, 'service-broken', 'no'],
  [302, 'service-broken', 'unknown'],
  [303, 'service-broken', 'unknown'],
  [308, 'service-broken', 'no'],
  [400, 'service-broken', 'no'],
  [401, 'key-refused', 'no'],
  [402, 'credit-used-up', 'no'],
  [403, 'key-refused', 'no'],
  [429, 'service-busy', 'no'],
  [500, 'service-broken', 'unknown'],
  [502, 'service-broken', 'unknown'],
  [503, 'service-busy', 'no'],
])('%i is %s, acted on: %s', (status, code, acted) => {
  const found = refusalOf(reply(status), 's1');
  expect([found?.failure.code ?? null, found?.acted ?? null]).toEqual([code, acted]);
});

test('how long to wait is believed as far as it makes sense', () => {
  const waits = (after: string | undefined) => {
    const found = refusalOf(reply(429, after === undefined ? {} : { 'retry-after': after }), 's1');
    return found?.failure.code === 'service-busy' ? found.failure.retryAfterMs : 'other';
  };
  expect(['5', '0', '99999', '-1', 'Wed, 25 Nov 2026 10:00:00 GMT', undefined].map(waits)).toEqual([
    5_000,
    0,
    3_600_000,
    null,
    null,
    null,
  ]);
});

test('what never left has not been acted on, what was cut may have been', () => {
  const acted = (outcome: Parameters<typeof failureOf>[0]) => {
    const { failure, acted } = failureOf(outcome, 's1', 'https://service.example/', 'create');
    return [failure.code, acted];
  };
  expect(acted({ kind: 'refused', reason: 'x' })).toEqual(['address-refused', 'no']);
  expect(acted({ kind: 'unsent', detail: 'x' })).toEqual(['service-unreachable', 'no']);
  expect(acted({ kind: 'unknown', detail: 'x' })).toEqual(['outcome-unknown', 'unknown']);
});

test('a body that is no JSON says so', () => {
  expect(jsonOf(Buffer.from('{"a":1}'))).toEqual({ ok: true, value: { a: 1 } });
  expect(jsonOf(Buffer.from('<html>'))).toMatchObject({ ok: false, problem: expect.stringMatching(/^no JSON: /) });
});
