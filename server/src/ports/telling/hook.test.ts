import { createHmac } from 'node:crypto';
import { expect, test } from 'vitest';
import { shownSecret, signatureOf } from './hook.ts';

test('a signature is what the specification says: HMAC over id, time and body', () => {
  const secret = Buffer.from('a secret of some length');
  const headers = signatureOf({ id: 'msg_1', at: 1_700_000_000, body: '{"a":1}' }, secret);
  expect(headers).toEqual({
    'webhook-id': 'msg_1',
    'webhook-timestamp': '1700000000',
    'webhook-signature': `v1,${createHmac('sha256', secret).update('msg_1.1700000000.{"a":1}').digest('base64')}`,
  });
  expect(signatureOf({ id: 'msg_1', at: 1_700_000_000, body: '{"a":2}' }, secret)['webhook-signature']).not.toBe(
    headers['webhook-signature'],
  );
  expect(shownSecret(secret)).toMatch(/^whsec_/);
});
