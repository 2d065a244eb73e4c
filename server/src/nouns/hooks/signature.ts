import { timingSafeEqual } from 'node:crypto';
import { signatureOf } from '../../ports/telling/hook.ts';

/** How far the clock of a caller may be off, in seconds. */
const MOST_OFF = 300;

export type Signed = { ok: true; id: string } | { ok: false; problem: string; mend: string };

/**
 * Whether a call is signed as the Standard Webhooks (version 1) say: by this secret, over just this body, and lately, so
 * that no old call can be played again.
 * @param now seconds since 1970
 */
export function checkSignature(
  headers: Readonly<Record<string, string | string[] | undefined>>,
  body: string,
  secret: Buffer,
  now: number,
): Signed {
  const text = (name: string) => {
    const value = headers[name];
    return typeof value === 'string' ? value : '';
  };
  const id = text('webhook-id');
  const time = text('webhook-timestamp');
  const given = text('webhook-signature');
  if (id === '' || time === '' || given === '')
    return {
      ok: false,
      problem: 'The call is not signed: ‘webhook-id’, ‘webhook-timestamp’ and ‘webhook-signature’ are needed.',
      mend: 'Sign it with the hook’s secret, or let the hook take calls without.',
    };
  const at = Number(time);
  if (!Number.isInteger(at) || Math.abs(now - at) > MOST_OFF)
    return {
      ok: false,
      problem: `The call’s time is more than ${MOST_OFF / 60} minutes off.`,
      mend: 'Sign each call anew with the time it is made at, in seconds since 1970; set the caller’s clock.',
    };
  const own = signatureOf({ id, at, body }, secret)['webhook-signature']!;
  const fits = given
    .split(' ')
    .some((one) => one.length === own.length && timingSafeEqual(Buffer.from(one), Buffer.from(own)));
  return fits
    ? { ok: true, id }
    : {
        ok: false,
        problem: 'The signature is wrong.',
        mend: 'Sign ‘id.time.body’ with HMAC-SHA256 by the hook’s secret, over the body just as it is sent.',
      };
}
