import type { Failure } from '@grivo/core';
import type { CallOutcome, Reply } from '../../ground/network/network.ts';
import { readJson } from '../../ground/reading/json.ts';
import { bad, good, type Result } from '../outcome/outcome.ts';

export { bad, good, type Result };

/** One thing a test of a connection tried: what came back, and what to change when it is not well. */
export interface TestLine {
  tried: string;
  came: string;
  well: boolean;
  change: string | null;
  ms: number;
}

/** What a call that reached no usable answer means, the same for every service. `charged` says whether it may have cost or done something. */
export function failureOf(
  outcome: Exclude<CallOutcome, { kind: 'reply' }>,
  service: string,
  address: string,
  action: string,
): { failure: Failure; acted: 'no' | 'unknown' } {
  switch (outcome.kind) {
    case 'refused':
      return { failure: { code: 'address-refused', address, reason: outcome.reason }, acted: 'no' };
    case 'unsent':
      return { failure: { code: 'service-unreachable', service, detail: outcome.detail }, acted: 'no' };
    case 'unknown':
      return { failure: { code: 'outcome-unknown', service, action }, acted: 'unknown' };
  }
}

/**
 * A refusal by status, or null for a success. 5xx may have acted, and so may 302 and 303, which send a program elsewhere to
 * read what came of its post (RFC 9110, section 15.4); the others have not.
 */
export function refusalOf(reply: Reply, service: string): { failure: Failure; acted: 'no' | 'unknown' } | null {
  const { status } = reply;
  if (status >= 200 && status < 300) return null;
  if (status === 401 || status === 403) return { failure: { code: 'key-refused', service, status }, acted: 'no' };
  if (status === 402) return { failure: { code: 'credit-used-up', service }, acted: 'no' };
  if (status === 429 || status === 503)
    return {
      failure: { code: 'service-busy', service, retryAfterMs: retryAfter(reply.headers['retry-after']) },
      acted: 'no',
    };
  return {
    failure: { code: 'service-broken', service, status },
    acted: status >= 500 || status === 302 || status === 303 ? 'unknown' : 'no',
  };
}

/** Retry-After in seconds (RFC 9110, section 10.2.3); dates are not used by the services called here. */
function retryAfter(header: string | undefined): number | null {
  const seconds = Number(header);
  return header !== undefined && Number.isFinite(seconds) && seconds >= 0 ? Math.min(seconds, 3_600) * 1_000 : null;
}

/** JSON of a reply, or what is wrong with it. */
export function jsonOf(body: Buffer): Result<unknown> | { ok: false; problem: string } {
  const read = readJson(body.toString('utf8'));
  return read.ok ? good(read.value) : { ok: false, problem: `no JSON: ${read.problem}` };
}
