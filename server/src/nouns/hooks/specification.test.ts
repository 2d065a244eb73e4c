import { Webhook } from 'standardwebhooks';
import { describe, expect, it } from 'vitest';
import { signatureOf } from '../../ports/telling/hook.ts';
import { checkSignature } from './signature.ts';

describe('the library of the specification', () => {
  const secret = Buffer.from('a secret, long enough');
  const theirs = new Webhook(secret, { format: 'raw' });
  const at = Math.floor(Date.now() / 1_000);

  it('takes what is signed here, and not what was changed', () => {
    const headers = signatureOf({ id: 'msg_2', at, body: '{"litres":2}' }, secret);
    expect(theirs.verify('{"litres":2}', headers)).toEqual({ litres: 2 });
    expect(() => theirs.verify('{"litres":3}', headers)).toThrow();
  });

  it('signs what is taken here', () => {
    const signature = theirs.sign('msg_3', new Date(at * 1_000), 'salt');
    const headers = { 'webhook-id': 'msg_3', 'webhook-timestamp': String(at), 'webhook-signature': signature };
    expect(checkSignature(headers, 'salt', secret, at)).toEqual({ ok: true, id: 'msg_3' });
    expect(checkSignature(headers, 'brine', secret, at).ok).toBe(false);
  });
});
