import { lookup as systemLookup } from 'node:dns';
import { lookup } from 'node:dns/promises';
import { isIP } from 'node:net';
import ipaddr from 'ipaddr.js';
import { Agent, request } from 'undici';

export interface Call {
  method: 'GET' | 'HEAD' | 'POST' | 'PUT' | 'DELETE';
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
  /** Told of what comes while it comes, before the reply is whole. */
  onPart?: (part: Buffer, reply: Pick<Reply, 'status' | 'headers'>) => void;
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

/** A reply whose body is still to come. */
export interface OpenReply {
  status: number;
  headers: Record<string, string>;
  address: string;
  /** Breaks off with an error when it grows longer than was said, or takes longer. */
  body: AsyncIterable<Buffer> & { destroy(error?: Error): unknown };
}

/** Headers that hold secrets: they are for the origin they were made for and no other (RFC 9110, section 15.4, note 1). */
const SECRET_HEADERS =
  /^(?:authorization|proxy-authorization|cookie|x-api-key|api-key|x-.*(?:token|secret|key|signature).*)$/i;

/** Why a call brought no reply, in words that go on from ‘it cannot be read: ’. */
export function whyNot(outcome: Exclude<CallOutcome, { kind: 'reply' }>): string {
  if (outcome.kind !== 'refused') return outcome.detail;
  return /private network/.test(outcome.reason)
    ? `${outcome.reason}, which only GRIVO_ALLOWED_ORIGINS lets through`
    : outcome.reason;
}

/** What is read of an answer where nothing else is said. */
const MOST_BYTES = 8_000_000;

/** Whether a call asks for something to be done: what is sent elsewhere may have been done, and is not sent again. */
const changes = ({ method }: Call): boolean => method !== 'GET' && method !== 'HEAD';

/** What keeps a call from being sent, in words. */
const NOT_SENT: Readonly<Record<string, string>> = {
  ECONNREFUSED: 'nothing listens there',
  ENOTFOUND: 'there is no such host',
  EAI_AGAIN: 'the name of the host cannot be looked up just now',
  EHOSTUNREACH: 'no way leads to that host',
  ENETUNREACH: 'no way leads to that network',
  UND_ERR_CONNECT_TIMEOUT: 'no connection was made in time',
  ERR_REFUSED_ADDRESS: 'it is on a private network',
  // The connection ends before anything is said over it.
  CERT_HAS_EXPIRED: 'its certificate is out of date',
  CERT_NOT_YET_VALID: 'its certificate is not valid yet',
  ERR_TLS_CERT_ALTNAME_INVALID: 'its certificate is for another name',
  DEPTH_ZERO_SELF_SIGNED_CERT: 'its certificate is signed by itself alone',
  SELF_SIGNED_CERT_IN_CHAIN: 'its certificate is signed by nobody known',
  UNABLE_TO_VERIFY_LEAF_SIGNATURE: 'its certificate is signed by nobody known',
  UNABLE_TO_GET_ISSUER_CERT_LOCALLY: 'its certificate is signed by nobody known',
};

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
  private readonly unguarded = new Agent();

  /** @param isAllowed whether the owner allowed an origin on a private network */
  constructor(private readonly isAllowed: (origin: string) => boolean) {}

  /**
   * Where a site is, for a program that may go there and nowhere else: what its name leads to now.
   * @returns null where it may not
   */
  async placeOf({ origin, hostname, port, protocol }: URL): Promise<{ address: string; port: number } | null> {
    const at = port !== '' ? Number(port) : protocol === 'https:' ? 443 : 80;
    const host = hostname.replace(/^\[|\]$/g, '');
    const found = await lookup(host, { all: true }).catch(() => []);
    const [first] = found;
    if (!first) return null;
    const isFree = this.isAllowed(origin) || found.every(({ address }) => isPublic(address));
    return isFree ? { address: first.address, port: at } : null;
  }

  async call(call: Call): Promise<CallOutcome> {
    const outcome = await this.follow(call);
    if (outcome.kind !== 'open') return outcome;
    const { body: stream, ...reply } = outcome.reply;
    try {
      const heard = (part: Buffer) => {
        outcome.heard();
        call.onPart?.(part, reply);
      };
      const body = await readUpTo(stream, call.maxBytes ?? MOST_BYTES, heard);
      if (body === null) {
        const reason = `its answer is longer than ${call.maxBytes ?? MOST_BYTES} bytes`;
        // Whoever answers at such length may well have done what was asked.
        return changes(call) ? { kind: 'unknown', detail: reason } : { kind: 'refused', reason };
      }
      return { kind: 'reply', reply: { ...reply, body } };
    } catch (error) {
      return outcomeOf(error, outcome.limit);
    } finally {
      outcome.end();
    }
  }

  /**
   * Calls and hands the body on as it comes, so that none is ever whole in memory. The time limit holds until `end` is
   * called, which has to be done.
   */
  async open(
    call: Call,
  ): Promise<{ kind: 'open'; reply: OpenReply; end: () => void } | Exclude<CallOutcome, { kind: 'reply' }>> {
    const outcome = await this.follow(call);
    if (outcome.kind !== 'open') return outcome;
    const { reply, end, heard } = outcome;
    const most = call.maxBytes ?? MOST_BYTES;
    const { body } = reply;
    const limited = async function* () {
      let size = 0;
      for await (const part of body) {
        heard();
        size += part.length;
        if (size > most) throw new Error(`longer than ${most} bytes`);
        yield part;
      }
    };
    const destroy = (error?: Error) => body.destroy(error);
    return { kind: 'open', reply: { ...reply, body: Object.assign(limited(), { destroy }) }, end };
  }

  /** Follows redirects; whatever is secret goes no further than the origin it is for. */
  private async follow(call: Call): Promise<Opened | Exclude<CallOutcome, { kind: 'reply' }>> {
    let { address, headers } = call;
    for (let hops = 0; ; hops++) {
      const outcome = await this.once({ ...call, address, ...(headers ? { headers } : {}) });
      if (outcome.kind !== 'open') return outcome;
      const { status, headers: said } = outcome.reply;
      const next = said['location'];
      if (![301, 302, 303, 307, 308].includes(status) || !next || call.redirects === 0) return outcome;
      if (changes(call)) return outcome;
      outcome.reply.body.destroy();
      outcome.end();
      if (hops >= (call.redirects ?? 5)) return { kind: 'refused', reason: 'it redirects too often' };
      if (!URL.canParse(next, address)) return { kind: 'refused', reason: 'it redirects to what is not an address' };
      const to = new URL(next, address);
      if (to.origin !== new URL(address).origin && headers)
        headers = Object.fromEntries(Object.entries(headers).filter(([name]) => !SECRET_HEADERS.test(name)));
      address = to.href;
    }
  }

  async close(): Promise<void> {
    await Promise.all([this.guarded.close(), this.unguarded.close()]);
  }

  private async once(call: Call): Promise<Opened | Exclude<CallOutcome, { kind: 'reply' }>> {
    if (!URL.canParse(call.address)) return { kind: 'refused', reason: 'it is no web address' };
    const url = new URL(call.address);
    if (url.protocol !== 'http:' && url.protocol !== 'https:')
      return { kind: 'refused', reason: 'only http and https are called' };
    if (url.username !== '' || url.password !== '')
      return { kind: 'refused', reason: 'it holds a name and a password, which do not belong into an address' };
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
    const end = () => {
      clearTimeout(whole);
      clearTimeout(quiet);
    };
    try {
      const answer = await request(url, {
        method: call.method,
        headers: { 'user-agent': 'Grivo', ...call.headers },
        body: call.body ?? null,
        dispatcher: allowed ? this.unguarded : this.guarded,
        signal,
        headersTimeout: call.timeLimitMs,
        bodyTimeout: call.timeLimitMs,
      });
      heard();
      // One that is let go of breaks off with an error that is nobody's; whoever reads it gets theirs all the same.
      answer.body.on('error', () => undefined);
      const headers = Object.fromEntries(
        Object.entries(answer.headers).map(([name, value]) => [
          name,
          Array.isArray(value) ? value.join(', ') : String(value ?? ''),
        ]),
      );
      const reply = { status: answer.statusCode, headers, body: answer.body, address: call.address };
      return { kind: 'open', reply, heard, limit: limit.signal, end };
    } catch (error) {
      end();
      return outcomeOf(error, limit.signal);
    }
  }
}

interface Opened {
  kind: 'open';
  reply: OpenReply;
  heard: () => void;
  limit: AbortSignal;
  end: () => void;
}

async function readUpTo(
  stream: OpenReply['body'],
  most: number,
  heard: (part: Buffer) => void,
): Promise<Buffer | null> {
  const parts: Buffer[] = [];
  let size = 0;
  for await (const part of stream) {
    size += part.length;
    if (size > most) {
      stream.destroy();
      return null;
    }
    heard(part);
    parts.push(part);
  }
  return Buffer.concat(parts);
}

function outcomeOf(error: unknown, limit: AbortSignal): Exclude<CallOutcome, { kind: 'reply' }> {
  if (!(error instanceof Error)) throw error;
  const { code } = error as { code?: unknown };
  const causeCode = (error.cause as { code?: unknown } | undefined)?.code;
  if (error instanceof RefusedAddress) return { kind: 'refused', reason: error.message };
  if (limit.aborted) return { kind: 'unknown', detail: 'it did not answer in time' };
  const known = String(code ?? causeCode ?? '');
  const unsent = NOT_SENT[known];
  if (unsent) return { kind: 'unsent', detail: unsent };
  return {
    kind: 'unknown',
    detail: error.name === 'AbortError' ? 'the call was given up' : `the connection was cut (${known || error.name})`,
  };
}
