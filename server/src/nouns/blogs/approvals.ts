import { createHash, randomBytes } from 'node:crypto';
import type { NewApproval } from '@grivo/contract';
import type { Secrets } from '../../ground/config/secrets.ts';
import type { Ground } from '../../ground/ground.ts';
import {
  type ApprovalAt,
  type Asking,
  approvalAt,
  askAt,
  grantedFor,
  type NotApproved,
} from '../../ports/blogs/approval/indieAuth.ts';
import type { Tools } from '../../ports/tools.ts';
import { changeBlogSecret } from './change.ts';
import { createBlog } from './create.ts';
import { discoverBlog } from './discover.ts';
import { getBlog } from './repository.ts';

/** How long an approval is waited for. */
const WAITS_MINUTES = 15;

interface Ports {
  ground: Ground;
  secrets: Secrets;
  tools: Tools;
}

/** What is kept of an approval until its owner comes back; it holds what only this side may know. */
interface Kept {
  at: ApprovalAt;
  asking: Asking;
  endpoint: string;
  name: string;
  language: string;
  /** Where the blog is read. */
  address: string;
}

const digest = (state: string): string => createHash('sha256').update(state).digest('hex');

/** The place programs say they come from, and the one the owner comes back to. */
export interface Home {
  client: string;
  redirect: string;
}

/**
 * Begins an approval at a blog: its owner signs in there and says yes, and no secret is pasted anywhere (IndieAuth, with
 * PKCE). It is for the person who began it alone.
 * @returns where the owner approves
 */
export async function beginApproval(
  { ground, secrets, tools }: Ports,
  person: string,
  asked: NewApproval,
  { client, redirect }: Home,
): Promise<{ ok: true; address: string } | ({ ok: false } & NotApproved)> {
  const known = 'blog' in asked ? await getBlog(ground.db, asked.blog) : null;
  const typed = 'blog' in asked ? known?.address : asked.address;
  if (typed === undefined) return { ok: false, problem: 'There is no such blog.', mend: 'Look at the list of blogs.' };
  const found = await discoverBlog(tools, typed);
  if ('failed' in found) return { ok: false, problem: `${typed} ${found.failed}.`, mend: found.mend };
  const micropub = found.ways.find(({ way }) => way === 'micropub');
  const at = found.approves && micropub ? await approvalAt(tools, found.address) : null;
  if (!at || !micropub)
    return {
      ok: false,
      problem: 'The blog names no place where programs are approved.',
      mend: 'Paste a secret of the blog instead.',
    };
  const asking: Asking = {
    client,
    redirect,
    state: randomBytes(24).toString('base64url'),
    verifier: randomBytes(48).toString('base64url'),
  };
  const kept: Kept = {
    at,
    asking,
    endpoint: micropub.endpoint,
    name: found.name?.slice(0, 120) || new URL(found.address).hostname,
    language: found.language ?? 'en',
    address: found.address.replace(/\/$/, ''),
  };
  await ground.db.run('DELETE FROM approval WHERE made_at < UTC_TIMESTAMP(3) - INTERVAL 1 DAY');
  await ground.db.run('INSERT INTO approval (state, person, asked, kept) VALUES (?, ?, ?, ?)', [
    digest(asking.state),
    person,
    JSON.stringify(asked),
    secrets.seal(JSON.stringify(kept)),
  ]);
  return { ok: true, address: askAt(at, asking) };
}

/**
 * Ends an approval, once: takes what the owner came back with to the blog, and connects it with the secret it gives, or
 * gives it to the blog it was asked for.
 */
export async function endApproval(
  { ground, secrets, tools }: Ports,
  person: string,
  { state, code, error, iss }: { state: string; code: string; error: string; iss: string | null },
): Promise<
  { ok: true; id: string; joined: boolean; name: string; may: string[] | null } | ({ ok: false } & NotApproved)
> {
  const [row] = await ground.db.rows<{ asked: NewApproval; kept: Buffer }>(
    'SELECT asked, kept FROM approval WHERE state = ? AND person = ? AND made_at >= UTC_TIMESTAMP(3) - INTERVAL ? MINUTE',
    [digest(state), person, WAITS_MINUTES],
  );
  // Whatever comes of it, it is used once.
  const ours = row && (await ground.db.run('DELETE FROM approval WHERE state = ?', [digest(state)])) === 1;
  if (!ours)
    return {
      ok: false,
      problem: 'This approval is over: it was used, took too long, or somebody else began it.',
      mend: 'Connect the blog again.',
    };
  if (error !== '')
    return {
      ok: false,
      problem: error === 'access_denied' ? 'It was refused at the blog.' : `The blog said: ${error}.`,
      mend: 'Begin again and approve it there, or paste a secret of the blog.',
    };
  const kept = JSON.parse(secrets.open(row.kept)) as Kept;
  const granted = await grantedFor(tools, kept.at, kept.asking, { code, issuer: iss });
  if (!granted.ok) return granted;
  const { secret, may } = granted;
  const { asked } = row;
  if ('blog' in asked) {
    const blog = await getBlog(ground.db, asked.blog);
    if (!blog) return { ok: false, problem: 'There is no such blog any more.', mend: 'Connect it again.' };
    await changeBlogSecret(ground, secrets, asked.blog, { secret });
    return { ok: true, id: asked.blog, joined: true, name: blog.name, may };
  }
  const { name, address, endpoint, language } = kept;
  const made = await createBlog(tools, {
    name,
    address,
    way: 'micropub',
    endpoint,
    settings: {},
    secret,
    language,
    cadence: asked.cadence,
    timeLimitMs: 15_000,
  });
  return made.kind === 'made'
    ? { ok: true, id: made.id, joined: made.joined, name, may }
    : { ok: false, problem: made.problem, mend: made.mend };
}
