import { lookup as systemLookup } from 'node:dns';
import { isIP } from 'node:net';
import ipaddr from 'ipaddr.js';
import { Agent, request } from 'undici';

export interface Call {
  method: 'GET' | 'POST' | 'HEAD';
  address: string;
  headers?: Record<string, string>;
  body?: string | Buffer;
  timeLimitMs: number;
  /** How long nothing may come, where that is shorter: for answers that come piece by piece. */
  quietLimitMs?: number;
  maxBytes?: number;
  /** Redirects to follow; 0 gives the redirect itself. */
  redirects?: number;
  signal?: AbortSignal;
}

export interface Reply {
  status: number;
  headers: Record<string, string>;
  body: Buffer;
  /** The address that answered, after redirects. */
  address: string;
}

/**
 * What became of a call. `refused`: never sent, Grivo does not call this. `unsent`: nothing reached the other side.
 * `unknown`: it may have been acted on.
 */
export type CallOutcome =
  | { kind: 'reply'; reply: Reply }
  | { kind: 'refused'; reason: string }
  | { kind: 'unsent'; detail: string }
  | { kind: 'unknown'; detail: string };

/** Why a call brought no reply, in words that go on from ‘it cannot be read: ’. */
export function whyNot(outcome: Exclude<CallOutcome, { kind: 'reply' }>): string {
  return outcome.kind === 'refused' ? outcome.reason : outcome.detail;
}

const NOT_SENT = new Set([
  'ECONNREFUSED',
  'ENOTFOUND',
  'EAI_AGAIN',
  'EHOSTUNREACH',
  'ENETUNREACH',
  'UND_ERR_CONNECT_TIMEOUT',
  'ERR_REFUSED_ADDRESS',
]);

class RefusedAddress extends Error {
  readonly code = 'ERR_REFUSED_ADDRESS';
}

/** A form as the body of a post, with the type that names its parts' boundary. */
export async function formBody(form: FormData): Promise<{ body: Buffer; type: string }> {
  const response = new Response(form);
  return { body: Buffer.from(await response.arrayBuffer()), type: response.headers.get('content-type') ?? '' };
}

/** Whether an address belongs to the open internet. */
export function isPublic(address: string): boolean {
  const parsed = ipaddr.process(address);
  return parsed.range() === 'unicast';
}

/**
 * The one way out. Only http(s); the address a name resolves to is checked and is the one connected to; private networks
 * are refused unless the owner allowed that origin; size, time and redirects are limited.
 */
export class Network {
  private readonly guarded = new Agent({
    connect: {
      lookup: (host, options, done) => {
        systemLookup(host, { ...options, all: true }, (error, addresses) => {
          if (error) return done(error, []);
          const bad = addresses.find(({ address }) => !isPublic(address));
          if (bad) return done(new RefusedAddress(`${host} leads to ${bad.address}, a private network`), []);
          done(null, addresses);
        });
      },
    },
  });
  private readonly open = new Agent();

  /** @param isAllowed whether the owner allowed an origin on a private network */
  constructor(private readonly isAllowed: (origin: string) => boolean) {}

  async call(call: Call): Promise<CallOutcome> {
    let address = call.address;
    for (let hops = 0; ; hops++) {
      const outcome = await this.once({ ...call, address });
      if (outcome.kind !== 'reply') return outcome;
      const { status, headers } = outcome.reply;
      const next = headers['location'];
      if (![301, 302, 303, 307, 308].includes(status) || !next || call.redirects === 0) return outcome;
      if (call.method === 'POST') return outcome;
      if (hops >= (call.redirects ?? 5)) return { kind: 'refused', reason: 'it redirects too often' };
      if (!URL.canParse(next, address)) return { kind: 'refused', reason: 'it redirects to what is no address' };
      address = new URL(next, address).href;
    }
  }

  async close(): Promise<void> {
    await Promise.all([this.guarded.close(), this.open.close()]);
  }

  private async once(call: Call): Promise<CallOutcome> {
    if (!URL.canParse(call.address)) return { kind: 'refused', reason: 'it is no web address' };
    const url = new URL(call.address);
    if (url.protocol !== 'http:' && url.protocol !== 'https:')
      return { kind: 'refused', reason: 'only http and https are called' };
    const allowed = this.isAllowed(url.origin);
    const host = url.hostname.replace(/^\[|\]$/g, '');
    if (!allowed && isIP(host) && !isPublic(host))
      return { kind: 'refused', reason: `${host} is on a private network` };
    const limit = new AbortController();
    const late = () => limit.abort(new DOMException('it did not answer in time', 'TimeoutError'));
    const whole = setTimeout(late, call.timeLimitMs);
    let quiet = setTimeout(late, call.quietLimitMs ?? call.timeLimitMs);
    const heard = () => {
      clearTimeout(quiet);
      quiet = setTimeout(late, call.quietLimitMs ?? call.timeLimitMs);
    };
    const signal = call.signal ? AbortSignal.any([call.signal, limit.signal]) : limit.signal;
    try {
      const answer = await request(url, {
        method: call.method,
        headers: { 'user-agent': 'Grivo', ...call.headers },
        body: call.body ?? null,
        dispatcher: allowed ? this.open : this.guarded,
        signal,
        headersTimeout: call.timeLimitMs,
        bodyTimeout: call.timeLimitMs,
      });
      heard();
      const headers = Object.fromEntries(
        Object.entries(answer.headers).map(([name, value]) => [
          name,
          Array.isArray(value) ? value.join(', ') : String(value ?? ''),
        ]),
      );
      const body = await readUpTo(answer.body, call.maxBytes ?? 8_000_000, heard);
      if (body === null) {
        const reason = `its answer is longer than ${call.maxBytes ?? 8_000_000} bytes`;
        // Whoever answers a post at such length may well have done what it asked.
        return call.method === 'POST' ? { kind: 'unknown', detail: reason } : { kind: 'refused', reason };
      }
      return { kind: 'reply', reply: { status: answer.statusCode, headers, body, address: call.address } };
    } catch (error) {
      return outcomeOf(error, limit.signal);
    } finally {
      clearTimeout(whole);
      clearTimeout(quiet);
    }
  }
}

async function readUpTo(
  stream: AsyncIterable<Buffer> & { destroy(): void },
  most: number,
  heard: () => void,
): Promise<Buffer | null> {
  const parts: Buffer[] = [];
  let size = 0;
  for await (const part of stream) {
    heard();
    size += part.length;
    if (size > most) {
      stream.destroy();
      return null;
    }
    parts.push(part);
  }
  return Buffer.concat(parts);
}

function outcomeOf(error: unknown, limit: AbortSignal): CallOutcome {
  if (!(error instanceof Error)) throw error;
  const { code } = error as { code?: unknown };
  const causeCode = (error.cause as { code?: unknown } | undefined)?.code;
  if (error instanceof RefusedAddress) return { kind: 'refused', reason: error.message };
  if (limit.aborted) return { kind: 'unknown', detail: 'it did not answer in time' };
  const known = String(code ?? causeCode ?? '');
  if (NOT_SENT.has(known))
    return {
      kind: 'unsent',
      detail:
        known === 'ECONNREFUSED' ? 'nothing listens there' : known === 'ENOTFOUND' ? 'there is no such host' : known,
    };
  return {
    kind: 'unknown',
    detail: error.name === 'AbortError' ? 'the call was given up' : `the connection was cut (${known || error.name})`,
  };
}
