import { createHmac } from 'node:crypto';
import type { Network } from '../../ground/network/network.ts';
import { failureOf, refusalOf } from '../adapters/port.ts';
import type { Effect } from '../outcome/outcome.ts';

export interface Posting {
  address: string;
  body: string;
  /** The same for every repeat, so that the receiver can tell them. */
  id: string;
  /** Seconds since 1970. */
  at: number;
  /** Signs it, when given. */
  secret: Buffer | null;
}

export const POST_TIME_LIMIT_MS = 10_000;

/**
 * The signature headers of the Standard Webhooks specification (version 1): HMAC-SHA256 over id, time and body, so that a
 * receiver knows who called, that nothing was changed, and that it is no old call played again.
 */
export function signatureOf(
  { id, at, body }: Pick<Posting, 'id' | 'at' | 'body'>,
  secret: Buffer,
): Record<string, string> {
  const signed = createHmac('sha256', secret).update(`${id}.${at}.${body}`).digest('base64');
  return { 'webhook-id': id, 'webhook-timestamp': String(at), 'webhook-signature': `v1,${signed}` };
}

/** The secret as it is shown to the receiver. */
export function shownSecret(secret: Buffer): string {
  return `whsec_${secret.toString('base64')}`;
}

/** Posts JSON to an address. A repeat after an unknown outcome carries the same id. */
export async function post(network: Network, posting: Posting, signal: AbortSignal): Promise<Effect<number>> {
  const outcome = await network.call({
    method: 'POST',
    address: posting.address,
    headers: {
      'content-type': 'application/json',
      ...(posting.secret ? signatureOf(posting, posting.secret) : {}),
    },
    body: posting.body,
    timeLimitMs: POST_TIME_LIMIT_MS,
    redirects: 0,
    signal,
  });
  const service = new URL(posting.address).host;
  if (outcome.kind !== 'reply') {
    const { failure, acted } = failureOf(outcome, service, posting.address, 'call the hook');
    return { kind: acted === 'no' ? 'not done' : 'unknown', failure };
  }
  const refusal = refusalOf(outcome.reply, service);
  if (!refusal) return { kind: 'done', value: outcome.reply.status };
  return { kind: refusal.acted === 'no' ? 'not done' : 'unknown', failure: refusal.failure };
}
