import { createHmac, timingSafeEqual } from 'node:crypto';
import type { Secrets } from '../../ground/config/secrets.ts';
import { sha } from '../../ground/sha.ts';
import type { Sql } from '../../ground/store/database.ts';
import type { LookPorts } from '../tools.ts';

const LEASE_SECONDS = 10 * 86_400;
const TIME_LIMIT_MS = 10_000;

const tokenOf = (secrets: Secrets, source: string, topic: string) =>
  secrets.derive(`websub address ${source} ${topic}`).toString('base64url');
const secretOf = (secrets: Secrets, source: string, topic: string) =>
  secrets.derive(`websub secret ${source} ${topic}`).toString('hex');

/**
 * Asks a feed's hub to push it here (WebSub, W3C Recommendation of 23 January 2018, section 5.1), unless it was asked
 * lately and its lease runs on. A hub that refuses changes nothing: the feed is looked at all the same.
 */
export async function keepSubscribed(
  { ground, network, secrets, publicUrl }: LookPorts,
  source: string,
  { topic, hub }: { topic: string; hub: string },
  signal: AbortSignal,
): Promise<void> {
  if (publicUrl === null || topic.length > 500 || hub.length > 500) return;
  const token = tokenOf(secrets, source, topic);
  const asks = await ground.db.run(
    `INSERT INTO subscription (source, topic, hub, token, asked_at) VALUES (?, ?, ?, ?, UTC_TIMESTAMP(3))
     ON DUPLICATE KEY UPDATE hub = VALUES(hub), asked_at = IF(until_at > UTC_TIMESTAMP(3) + INTERVAL 2 DAY OR asked_at > UTC_TIMESTAMP(3) - INTERVAL 10 MINUTE, asked_at, UTC_TIMESTAMP(3))`,
    [source, topic, hub, sha(token)],
  );
  if (asks === 0) return;
  const form = new URLSearchParams({
    'hub.mode': 'subscribe',
    'hub.topic': topic,
    'hub.callback': `${publicUrl.replace(/\/$/, '')}/pushed/${token}`,
    'hub.secret': secretOf(secrets, source, topic),
    'hub.lease_seconds': String(LEASE_SECONDS),
  });
  const outcome = await network.call({
    method: 'POST',
    address: hub,
    headers: { 'content-type': 'application/x-www-form-urlencoded' },
    body: form.toString(),
    timeLimitMs: TIME_LIMIT_MS,
    redirects: 0,
    signal,
  });
  if (outcome.kind !== 'reply' || outcome.reply.status >= 300)
    ground.log.info({ source, hub }, 'a hub was asked to push and did not take it');
}

interface SubscriptionRow {
  source: string;
  topic: string;
}

/** The subscription a hub pushes for at an address. */
export async function subscriptionBy(sql: Sql, token: string): Promise<SubscriptionRow | null> {
  const [row] = await sql.rows<SubscriptionRow>('SELECT source, topic FROM subscription WHERE token = ?', [sha(token)]);
  return row ?? null;
}

/**
 * A hub asks whether it was meant (section 5.3).
 * @returns what to answer with, or null when nobody asked it
 */
export async function verified(
  sql: Sql,
  token: string,
  asked: { mode: string; topic: string; challenge: string; leaseSeconds: number },
): Promise<string | null> {
  const row = await subscriptionBy(sql, token);
  if (!row || row.topic !== asked.topic || asked.mode !== 'subscribe') return null;
  const lease = Number.isFinite(asked.leaseSeconds)
    ? Math.max(60, Math.min(asked.leaseSeconds, 90 * 86_400))
    : LEASE_SECONDS;
  await sql.run('UPDATE subscription SET until_at = UTC_TIMESTAMP(3) + INTERVAL ? SECOND WHERE token = ?', [
    lease,
    sha(token),
  ]);
  return asked.challenge;
}

/**
 * The source something was pushed for, when it is signed with the secret the hub was given (section 8). What is pushed is
 * only a hint: the feed itself is read again.
 */
export async function pushedFor(
  sql: Sql,
  secrets: Secrets,
  token: string,
  body: Buffer,
  signature: string,
): Promise<string | null> {
  const row = await subscriptionBy(sql, token);
  if (!row) return null;
  const [method = '', given = ''] = signature.split('=');
  if (!['sha256', 'sha384', 'sha512', 'sha1'].includes(method)) return null;
  const own = createHmac(method, secretOf(secrets, row.source, row.topic))
    .update(body)
    .digest('hex');
  return own.length === given.length && timingSafeEqual(Buffer.from(own), Buffer.from(given)) ? row.source : null;
}
