import type { BlogMistake, Failure } from '@grivo/core';
import type { Secrets } from '../../../ground/config/secrets.ts';
import type { Call, CallOutcome, Network, Reply } from '../../../ground/network/network.ts';
import type { ReadingRoom } from '../../../ground/reading/room.ts';
import { failureOf, refusalOf } from '../../adapters/port.ts';
import { bad, type Effect, good, type Result } from '../../outcome/outcome.ts';
import type { BlogTarget } from '../blog.ts';

/** What every way over the network works with. */
export interface WayPorts {
  network: Network;
  secrets: Secrets;
  reader: ReadingRoom;
  /** Wall time in milliseconds. */
  now: () => number;
  /** The moment it is for who publishes, in milliseconds: posts are dated by it. */
  desk: () => number;
}

/** What is asked of a blog, but for its limits. */
export type Asked = Omit<Call, 'timeLimitMs' | 'signal'>;

/** A refusal, and whether the blog may have done what was asked all the same. */
export interface Refusal {
  failure: Failure;
  acted: 'no' | 'unknown';
}

/** Finds in a reply what the protocol itself says is wrong; null when it is well. */
export type Refuses = (reply: Reply, blog: BlogTarget) => Refusal | null;

/** Clocks that differ by more are told. */
const CLOCKS_MS = 5 * 60_000;
const LONGEST_SAID = 300;

/** Calls to blogs: what came of each, with the usual mistakes told by how it was answered. */
export class BlogCalls {
  constructor(private readonly ports: Pick<WayPorts, 'network' | 'now' | 'desk'>) {}

  /** Asks for something that changes nothing. @param shape reads the answer; null when it cannot be used */
  async look<T>(
    blog: BlogTarget,
    asked: Asked,
    signal: AbortSignal,
    { refuses, read }: { refuses?: Refuses; read: (reply: Reply) => Promise<Result<T>> | Result<T> },
  ): Promise<Result<T>> {
    const outcome = await this.call(blog, asked, signal);
    if (outcome.kind === 'unknown')
      return bad({ code: 'service-unreachable', service: blog.id, detail: outcome.detail, ...mistakeIn(outcome) });
    if (outcome.kind !== 'reply') return bad(unreached(outcome, blog, asked));
    const refusal = this.refusal(outcome.reply, blog, refuses);
    return refusal ? bad(refusal.failure) : read(outcome.reply);
  }

  /** Asks for a change. @param read makes of the answer what was done; null when the answer does not say */
  async change<T>(
    blog: BlogTarget,
    asked: Asked,
    signal: AbortSignal,
    {
      action,
      refuses,
      read,
    }: { action: string; refuses?: Refuses; read: (reply: Reply) => Promise<T | null> | T | null },
  ): Promise<Effect<T>> {
    // By which a blog can tell that a post is dated ahead, whatever its own clock says (RFC 9110, section 6.6.1).
    const date = new Date(this.ports.desk()).toUTCString();
    const outcome = await this.call(blog, { ...asked, headers: { date, ...asked.headers } }, signal);
    if (outcome.kind !== 'reply') {
      const { acted } = failureOf(outcome, blog.id, asked.address, action);
      return acted === 'unknown'
        ? unknown(blog, action)
        : { kind: 'not done', failure: unreached(outcome, blog, asked) };
    }
    const refusal = this.refusal(outcome.reply, blog, refuses);
    if (refusal)
      return refusal.acted === 'unknown' ? unknown(blog, action) : { kind: 'not done', failure: refusal.failure };
    const made = await read(outcome.reply);
    return made === null ? unknown(blog, action) : { kind: 'done', value: made };
  }

  /** Whether readers find a page, who have no secret. */
  async isRead(blog: BlogTarget, address: string, signal: AbortSignal): Promise<Result<boolean>> {
    const outcome = await this.ports.network.call({ method: 'GET', address, timeLimitMs: blog.timeLimitMs, signal });
    if (outcome.kind !== 'reply')
      return bad({ code: 'service-unreachable', service: blog.id, detail: 'its pages cannot be read' });
    const { status } = outcome.reply;
    return status >= 500 ? bad({ code: 'service-broken', service: blog.id, status }) : good(status < 300);
  }

  private call(blog: BlogTarget, asked: Asked, signal: AbortSignal): Promise<CallOutcome> {
    // A secret goes to where it is for, and is not sent on.
    return this.ports.network.call({ redirects: 0, ...asked, timeLimitMs: blog.timeLimitMs, signal });
  }

  private refusal(reply: Reply, blog: BlogTarget, refuses: Refuses = () => null): Refusal | null {
    const found = refuses(reply, blog) ?? plainRefusal(reply, blog);
    if (!found || !isRefused(found.failure)) return found;
    const theirs = Date.parse(reply.headers['date'] ?? '');
    const apart = Math.abs(theirs - this.ports.now()) > CLOCKS_MS;
    return apart ? { ...found, failure: { ...found.failure, mistake: 'clock' } } : found;
  }
}

/** Failures a wrong clock may be the cause of. */
const isRefused = (failure: Failure): failure is Extract<Failure, { code: 'key-refused' | 'blog-refuses' }> =>
  (failure.code === 'key-refused' || failure.code === 'blog-refuses') && [400, 401, 403].includes(failure.status);

/** There is nothing at the place that is to be changed. */
export const noSuchPost = ({ id: service }: BlogTarget): Effect<never> => ({
  kind: 'not done',
  failure: { code: 'blog-refuses', service, status: 404, said: 'there is no such post' },
});

const unknown = (blog: BlogTarget, action: string): Effect<never> => ({
  kind: 'unknown',
  failure: { code: 'outcome-unknown', service: blog.id, action },
});

function unreached(outcome: Exclude<CallOutcome, { kind: 'reply' }>, blog: BlogTarget, { address }: Asked): Failure {
  const { failure } = failureOf(outcome, blog.id, address, 'look');
  return failure.code === 'service-unreachable' ? { ...failure, ...mistakeIn(outcome) } : failure;
}

/** The mistake behind a call that brought no answer. */
export function mistakeIn(outcome: Exclude<CallOutcome, { kind: 'reply' }>): { mistake?: BlogMistake } {
  if (outcome.kind === 'refused') return {};
  const { detail } = outcome;
  if (/certificate/.test(detail)) return { mistake: 'certificate' };
  if (detail === 'there is no such host') return { mistake: 'unknown host' };
  if (/in time/.test(detail)) return { mistake: 'no answer in time' };
  return outcome.kind === 'unsent' ? { mistake: 'no connection' } : {};
}

/** Whether an answer is a page for people. */
export const isPage = (reply: Reply): boolean =>
  /^(?:text\/html|application\/xhtml)/i.test(reply.headers['content-type'] ?? '') ||
  /^\s*(?:<!doctype html|<html)/i.test(reply.body.toString('latin1', 0, 200));

/** Words of the guards before blogs, in their pages that answer in the place of the blog. */
const GUARD =
  /firewall|captcha|are you (?:a )?(?:human|robot)|checking your browser|access denied|request blocked|security (?:check|service|rule)|not acceptable|bot protection/i;

export const isGuard = (reply: Reply): boolean => isPage(reply) && GUARD.test(reply.body.toString('latin1', 0, 20_000));

/** A refusal by status, the same for all ways. */
function plainRefusal(reply: Reply, blog: BlogTarget): Refusal | null {
  const { status } = reply;
  const service = blog.id;
  if (status >= 400 && status < 500 && isGuard(reply))
    return { failure: { code: 'blog-refuses', service, status, said: '', mistake: 'firewall' }, acted: 'no' };
  // A guard may ask to wait too; then its page is still not the blog's.
  if (status === 503 && isGuard(reply))
    return { failure: { code: 'blog-refuses', service, status, said: '', mistake: 'firewall' }, acted: 'no' };
  const refusal = refusalOf(reply, service);
  if (!refusal) return null;
  const { failure, acted } = refusal;
  const said = movedTo(reply) ?? saidIn(reply);
  if (failure.code === 'key-refused')
    return { failure: { ...failure, ...(said ? { said } : {}), ...keyMistake(status, said) }, acted };
  if (failure.code !== 'service-broken') return refusal;
  const mistake = statusMistake(reply, blog);
  if (acted === 'unknown') return mistake ? { failure: { ...failure, mistake }, acted } : refusal;
  return {
    failure: {
      code: 'blog-refuses',
      service,
      status,
      said: said || 'no reason given',
      ...(mistake ? { mistake } : {}),
    },
    acted: 'no',
  };
}

/** Where a call is sent on to. */
export function movedTo({ status, headers, address }: Reply): string | null {
  const to = headers['location'] ?? '';
  return status >= 300 && status < 400 && URL.canParse(to, address) ? new URL(to, address).href : null;
}

function statusMistake(reply: Reply, blog: BlogTarget): BlogMistake | null {
  const { status } = reply;
  if (status >= 300 && status < 400) return 'moved';
  if (status === 404 || status === 410) return isPage(reply) || reply.body.length === 0 ? notFound(blog) : null;
  if (status === 405 || status === 501 || status === 426 || status === 505) return 'too old';
  if (status === 413 || status === 415) return 'pictures refused';
  return null;
}

/** An address the blog itself named and its server does not know is one it does not rewrite. */
const notFound = ({ address, endpoint }: BlogTarget): BlogMistake =>
  endpoint.startsWith(`${address.replace(/\/$/, '')}/`) ? 'addresses not rewritten' : 'wrong folder';

/** What a refused secret lacks, by the words of OAuth (RFC 6750, section 3.1) and plain ones. */
export function keyMistake(status: number, said: string): { mistake: BlogMistake } {
  if (/expire/i.test(said)) return { mistake: 'secret expired' };
  if (
    /insufficient|scope|permission|not allowed|read.only|forbidden|rights?\b/i.test(said) ||
    (status === 403 && said === '')
  )
    return { mistake: 'may only read' };
  if (/user|login|account|password/i.test(said)) return { mistake: 'wrong user' };
  return { mistake: 'secret unknown' };
}

/** What a refusal says in words: by JSON (`error_description`), by a challenge, or as short plain text. */
export function saidIn(reply: Reply): string {
  const text = reply.body.toString('utf8', 0, 4_000).trim();
  const json =
    /^\{/.test(text) &&
    /"(?:error_description|error|message|detail)"\s*:\s*"((?:[^"\\]|\\.){1,300})"/.exec(described(text));
  if (json) return unquoted(json[1]!);
  const challenge = /error_description="([^"]{1,300})"/.exec(reply.headers['www-authenticate'] ?? '');
  if (challenge) return challenge[1]!;
  return isPage(reply) || /^[<{]/.test(text) ? '' : text.replace(/\s+/g, ' ').slice(0, LONGEST_SAID);
}

/** The part of a reply that is read first: a description before a bare code. */
function described(text: string): string {
  const at = text.indexOf('"error_description"');
  return at < 0 ? text : text.slice(at);
}

function unquoted(text: string): string {
  try {
    return String(JSON.parse(`"${text}"`));
  } catch {
    return text;
  }
}

/** An answer that should have said something and did not, or said it to people. */
export function unusable(reply: Reply, blog: BlogTarget, problem: string): Result<never> {
  const { id: service } = blog;
  if (isGuard(reply))
    return bad({ code: 'blog-refuses', service, status: reply.status, said: '', mistake: 'firewall' });
  const mistake: BlogMistake | null =
    reply.body.toString('latin1', 0, 1_000).trim() === ''
      ? 'empty answer'
      : isPage(reply)
        ? 'a page instead of an answer'
        : null;
  return bad({ code: 'reply-unusable', service, problem, ...(mistake ? { mistake } : {}) });
}
