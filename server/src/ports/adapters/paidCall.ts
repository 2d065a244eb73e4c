import type { Secrets } from '../../ground/config/secrets.ts';
import { type Call, formBody, type Network, type Reply } from '../../ground/network/network.ts';
import type { Called } from '../answers/ask.ts';
import type { ServiceRow } from '../services/entity.ts';
import { modelRefusalOf, type SaidRefusal } from './modelRefusal.ts';
import { failureOf } from './port.ts';

export interface PaidCall {
  /** Behind the service's address: `chat/completions`. */
  path: string;
  /** JSON, or a form with files. */
  body: object | FormData;
  /** What it is, in a word, for those who read of its failure. */
  action: string;
  maxBytes?: number;
  /** The answer comes piece by piece: the service's time limit holds for each, ten times as long for all. */
  inPieces?: boolean;
  onPart?: Call['onPart'];
  signal: AbortSignal;
}

/** How much longer than one piece all of them may take. */
const PIECES = 10;

/**
 * Posts JSON or a form to a service that is paid for each call, with its key.
 * @returns the reply of a success, or how the call failed and whether it may be charged all the same. An outcome nobody
 *   knows counts as no answer: asking again harms nothing but the purse, and is booked so.
 */
export async function paidCall(
  { network, secrets }: { network: Network; secrets: Secrets },
  service: ServiceRow,
  { path, body, action, maxBytes, inPieces = false, onPart, signal }: PaidCall,
): Promise<{ kind: 'reply'; reply: Reply } | (Extract<Called, { kind: 'failed' }> & { said?: SaidRefusal })> {
  const sent =
    body instanceof FormData ? await formBody(body) : { body: JSON.stringify(body), type: 'application/json' };
  const outcome = await network.call({
    method: 'POST',
    address: `${service.address.replace(/\/$/, '')}/${path}`,
    headers: {
      'content-type': sent.type,
      ...(service.secret ? { authorization: `Bearer ${secrets.open(service.secret)}` } : {}),
    },
    body: sent.body,
    timeLimitMs: service.time_limit_ms * (inPieces ? PIECES : 1),
    quietLimitMs: service.time_limit_ms,
    ...(maxBytes === undefined ? {} : { maxBytes }),
    ...(onPart ? { onPart } : {}),
    signal,
  });
  if (outcome.kind === 'reply') {
    const secret = service.secret ? secrets.open(service.secret) : null;
    const refusal = modelRefusalOf(outcome.reply, service.id, secret);
    return refusal
      ? { kind: 'failed', failure: refusal.failure, charged: refusal.acted, said: refusal.said }
      : { kind: 'reply', reply: outcome.reply };
  }
  const { failure, acted } = failureOf(outcome, service.id, service.address, action);
  return {
    kind: 'failed',
    failure:
      outcome.kind === 'unknown'
        ? { code: 'service-unreachable', service: service.id, detail: outcome.detail }
        : failure,
    charged: acted,
  };
}
