import { HookSettings } from '@grivo/contract';
import { expect, test } from 'vitest';
import { signatureOf } from '../../ports/telling/hook.ts';
import { isCovered } from '../keys/repository.ts';
import { readCall } from './call.ts';
import { checkSignature } from './signature.ts';

const secret = Buffer.from('a secret of twenty-four b');
const body = '{"subject":"A"}';
const now = 1_800_000_000;

test('a signature holds for its body, its secret and five minutes', () => {
  const headers = signatureOf({ id: 'm1', at: now, body }, secret);
  expect(checkSignature(headers, body, secret, now + 299)).toEqual({ ok: true, id: 'm1' });
  expect(checkSignature(headers, body, secret, now + 301).ok).toBe(false);
  expect(checkSignature(headers, body, secret, now - 301).ok).toBe(false);
  expect(checkSignature(headers, `${body} `, secret, now).ok).toBe(false);
  expect(checkSignature(headers, body, Buffer.from('another'), now).ok).toBe(false);
  // Of several, as while a secret is changed, one is enough.
  const several = { ...headers, 'webhook-signature': `v1,AAAA ${headers['webhook-signature']}` };
  expect(checkSignature(several, body, secret, now).ok).toBe(true);
  for (const name of Object.keys(headers)) {
    const { [name]: _, ...less } = headers;
    expect(checkSignature(less, body, secret, now).ok, name).toBe(false);
  }
});

test('a call brings its fields along, its notes as text; its key is no field', () => {
  const settings = HookSettings.parse({ kind: 'hook', fields: [{ name: 'litres', type: 'number', needed: true }] });
  const read = readCall('{"subject":" A ","litres":3,"notes":"n","key":"k","link":"https://a.example"}', settings);
  expect(read).toMatchObject({
    ok: true,
    call: { subject: 'A', key: 'k' },
    fields: { litres: 3, text: 'n', link: 'https://a.example', about: 'by a program' },
  });
  const missing = readCall('{"subject":"A"}', settings);
  expect(missing.ok ? '' : missing.refusal.problem).toBe('litres: is missing.');
  expect(readCall('{"run":true}', settings)).toMatchObject({ ok: true, fields: {} });
  expect(readCall('{"run":true,"litres":3}', settings).ok).toBe(false);
});

test.each([
  ['look', 'GET', '/articles', true],
  ['look', 'POST', '/sources/a/requests', false],
  ['hand in', 'POST', '/sources/a/requests', true],
  ['hand in', 'POST', '/pipelines/a/take', true],
  ['hand in', 'POST', '/pipelines/a/take/more', false],
  ['hand in', 'DELETE', '/sources/a/requests', false],
  ['edit', 'PUT', '/pipelines/a', true],
] as const)('a key to %s: %s %s %s', (scope, method, path, covered) => {
  expect(isCovered(scope, method, path)).toBe(covered);
});
