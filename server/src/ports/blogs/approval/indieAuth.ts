import { createHash } from 'node:crypto';
import { z } from 'zod';
import type { Network, Reply } from '../../../ground/network/network.ts';
import type { ReadingRoom } from '../../../ground/reading/room.ts';
import { jsonOf } from '../../adapters/port.ts';
import { namedIn } from '../named.ts';

/** Where a blog lets programs be approved by its owner. */
export interface ApprovalAt {
  /** What the answer must say it is from; null where the blog has no metadata. */
  issuer: string | null;
  authorization: string;
  token: string;
  /** The address it was found from. */
  me: string;
}

/** Something that did not come about, in words for whoever waits for it. */
export interface NotApproved {
  problem: string;
  mend: string;
}

/** What a program may do once it is approved (scopes of Micropub, section 5.6 and its extensions). */
export const SCOPES = ['create', 'update', 'delete', 'media'] as const;

/** What one approval is known by, on both sides. */
export interface Asking {
  client: string;
  redirect: string;
  state: string;
  /** Kept here; the blog is told its digest first and this at the end (RFC 7636). */
  verifier: string;
}

const Metadata = z.object({
  issuer: z.string(),
  authorization_endpoint: z.string(),
  token_endpoint: z.string(),
});
const Granted = z.object({
  access_token: z.string().min(1).max(1_000),
  scope: z.string().optional(),
  me: z.string().optional(),
});
const Refused = z.object({ error: z.string(), error_description: z.string().optional() });

const TIME_LIMIT_MS = 15_000;
const MOST_BYTES = 200_000;
const AGAIN = 'Begin again; if it stays so, paste a secret of the blog instead.';

interface Ports {
  network: Network;
  reader: ReadingRoom;
}

/** Finds where the owner of a blog approves programs (IndieAuth, sections 4.1 and 4.1.1); null where nowhere is named. */
export async function approvalAt(ports: Ports, address: string): Promise<ApprovalAt | null> {
  const page = await read(ports, address, 'text/html');
  if (!page || page.status >= 400) return null;
  const found = await namedIn(ports.reader, page);
  if (!found) return null;
  const { named } = found;
  const metadata = named('indieauth-metadata');
  if (metadata) return fromMetadata(ports, metadata, page.address);
  const [authorization, token] = [named('authorization_endpoint'), named('token_endpoint')];
  return authorization && token ? { issuer: null, authorization, token, me: page.address } : null;
}

async function fromMetadata(ports: Ports, address: string, me: string): Promise<ApprovalAt | null> {
  const reply = await read(ports, address, 'application/json');
  const parsed = reply && reply.status < 300 ? jsonOf(reply.body) : null;
  const fit = parsed?.ok ? Metadata.safeParse(parsed.value) : null;
  if (!reply || !fit?.success) return null;
  const { issuer, authorization_endpoint: authorization, token_endpoint: token } = fit.data;
  // Whoever answers can only speak for addresses that its own begins with (section 4.1.1).
  const speaksFor = URL.canParse(issuer) && reply.address.startsWith(issuer);
  const ends = [authorization, token].map((one) =>
    URL.canParse(one, reply.address) ? new URL(one, reply.address).href : '',
  );
  return speaksFor && ends.every((one) => /^https?:/.test(one))
    ? { issuer, authorization: ends[0]!, token: ends[1]!, me }
    : null;
}

/** Where the owner is sent to, to approve (section 5.2). */
export function askAt({ authorization, me }: ApprovalAt, { client, redirect, state, verifier }: Asking): string {
  const address = new URL(authorization);
  const query = {
    response_type: 'code',
    client_id: client,
    redirect_uri: redirect,
    state,
    code_challenge: createHash('sha256').update(verifier).digest('base64url'),
    code_challenge_method: 'S256',
    scope: SCOPES.join(' '),
    me,
  };
  for (const [name, value] of Object.entries(query)) address.searchParams.set(name, value);
  return address.href;
}

/**
 * Takes the code the owner came back with to the blog, which gives the secret for it (section 5.3). Who the secret speaks
 * for must be the blog that was asked, or name the same place of approval itself (section 5.4).
 */
export async function grantedFor(
  ports: Ports,
  at: ApprovalAt,
  { client, redirect, verifier }: Asking,
  { code, issuer }: { code: string; issuer: string | null },
): Promise<{ ok: true; secret: string; may: string[] | null } | ({ ok: false } & NotApproved)> {
  if (at.issuer !== null && issuer !== at.issuer)
    return {
      ok: false,
      problem: 'The answer is not from the place that was asked.',
      mend: 'Begin again, and look closely at the address in the browser while you approve.',
    };
  const form = new URLSearchParams({
    grant_type: 'authorization_code',
    code,
    client_id: client,
    redirect_uri: redirect,
    code_verifier: verifier,
  });
  const outcome = await ports.network.call({
    method: 'POST',
    address: at.token,
    headers: { accept: 'application/json', 'content-type': 'application/x-www-form-urlencoded' },
    body: form.toString(),
    redirects: 0,
    timeLimitMs: TIME_LIMIT_MS,
    maxBytes: MOST_BYTES,
    signal: AbortSignal.timeout(TIME_LIMIT_MS + 5_000),
  });
  if (outcome.kind !== 'reply')
    return { ok: false, problem: 'The blog did not answer when it was asked.', mend: AGAIN };
  const parsed = jsonOf(outcome.reply.body);
  if (outcome.reply.status >= 300) {
    const said = parsed.ok ? Refused.safeParse(parsed.value).data : undefined;
    const words = said?.error_description ?? said?.error;
    return { ok: false, problem: `The blog gave no secret${words ? `: ${words.slice(0, 200)}` : ''}.`, mend: AGAIN };
  }
  const fit = parsed.ok ? Granted.safeParse(parsed.value) : null;
  if (!fit?.success) return { ok: false, problem: 'What the blog answered holds no secret.', mend: AGAIN };
  const { access_token: secret, scope, me } = fit.data;
  if (me !== undefined && !(await speaksFor(ports, at, me)))
    return {
      ok: false,
      problem: `The secret is for ${me.slice(0, 200)}, which is another blog.`,
      mend: 'Sign in at the blog you mean, then begin again.',
    };
  return { ok: true, secret, may: scope === undefined ? null : scope.split(/\s+/).filter((one) => one !== '') };
}

const plain = (address: string): string => new URL(address).href.replace(/\/$/, '');

async function speaksFor(ports: Ports, at: ApprovalAt, me: string): Promise<boolean> {
  if (!URL.canParse(me)) return false;
  if (plain(me) === plain(at.me)) return true;
  const there = await approvalAt(ports, me);
  return there?.authorization === at.authorization;
}

async function read({ network }: Ports, address: string, accept: string): Promise<Reply | null> {
  const outcome = await network.call({
    method: 'GET',
    address,
    headers: { accept },
    timeLimitMs: TIME_LIMIT_MS,
    maxBytes: 2_000_000,
    signal: AbortSignal.timeout(TIME_LIMIT_MS + 5_000),
  });
  return outcome.kind === 'reply' ? outcome.reply : null;
}
