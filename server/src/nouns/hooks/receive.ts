import { type HookOutcome, type HookTaken, SourceSettings } from '@grivo/contract';
import { Procedures } from '../../engine/briefState.ts';
import type { Bell } from '../../engine/ring.ts';
import type { Ground } from '../../ground/ground.ts';
import { sha } from '../../ground/sha.ts';
import { errnoOf } from '../../ground/store/database.ts';
import type { Tools } from '../../ports/tools.ts';
import { type TakePorts, takeFor } from '../sources/look.ts';
import { putIn } from '../sources/putIn.ts';
import { type Refusal, readCall, refused } from './call.ts';
import { type CallRow, callBy, hookBy, hookSecret, outcomeOf } from './repository.ts';
import { checkSignature } from './signature.ts';

export interface HookPorts {
  tools: Tools;
  bell: Bell;
}

export type Received = { ok: true; taken: Omit<HookTaken, 'ask'> } | { ok: false; refusal: Refusal };

const NO_HOOK = refused(
  404,
  'No such hook',
  'There is no hook at this address.',
  'Copy its address again; it may have been replaced.',
);

/** A call of a hook: checked, kept once by its key, and given to the pipelines that take from it. */
export async function receive(
  { tools, bell }: HookPorts,
  token: string,
  body: string,
  headers: Readonly<Record<string, string | string[] | undefined>>,
): Promise<Received> {
  const { ground, secrets } = tools;
  const { db } = ground;
  const hook = await hookBy(db, token);
  const [row] = hook
    ? await db.rows<{ settings: unknown }>('SELECT settings FROM source WHERE id = ?', [hook.source])
    : [];
  const settings = row ? SourceSettings.parse(row.settings) : null;
  if (!hook || settings?.kind !== 'hook') return NO_HOOK;
  let signedId: string | null = null;
  if (settings.signed) {
    const signed = checkSignature(
      headers,
      body,
      hookSecret(secrets, hook.source, hook.n),
      Math.floor(ground.now() / 1_000),
    );
    if (!signed.ok) return refused(401, 'Not let in', signed.problem, signed.mend);
    signedId = signed.id;
  }
  const read = readCall(body, settings);
  if (!read.ok) return read;
  const { call, fields } = read;
  const header = headers['idempotency-key'];
  const key =
    call.key ?? signedId ?? (typeof header === 'string' && header !== '' ? header.slice(0, 100) : ground.ids());
  const digest = sha(body);
  const before = await callBy(db, hook.source, key);
  if (before) return again({ tools, bell }, hook.source, before, digest);
  // Open until its pipelines have looked: a crash in between leaves it to be found again.
  const open = !settings.confirm || 'run' in call ? ground.now() : null;
  const subject = 'run' in call ? null : call.subject;
  const kept = await keepCall(ground, hook.source, { key, digest, open, subject, fields, toConfirm: settings.confirm });
  // The same call came twice at once: the other was faster.
  if (kept === 'there already')
    return again({ tools, bell }, hook.source, (await callBy(db, hook.source, key))!, digest);
  const { item } = kept;
  if (open !== null) await carryOut(tools, bell, { source: hook.source, key, item });
  bell.ring({ kind: 'event' });
  const outcome = await outcomeOf(db, (await callBy(db, hook.source, key))!);
  return { ok: true, taken: { key, repeated: false, standing: outcome.standing } };
}

interface OpenCall {
  source: string;
  key: string;
  item: string | null;
}

/** Has the pipelines of a hook take what a call brought, or look where it said so; what is taken is written down with it. */
async function carryOut(ports: TakePorts, bell: Pick<Bell, 'ring'>, { source, key, item }: OpenCall): Promise<void> {
  const briefs = await takeFor(ports, new Procedures(), source, item, (sql, taken) =>
    sql
      .run(
        "UPDATE hook_call SET briefs = JSON_MERGE_PRESERVE(COALESCE(briefs, '[]'), ?) WHERE source = ? AND key_ = ?",
        [JSON.stringify(item === null ? taken : []), source, key],
      )
      .then(() => undefined),
  );
  await ports.ground.db.run('UPDATE hook_call SET run_at = NULL WHERE source = ? AND key_ = ?', [source, key]);
  if (briefs.length > 0) bell.ring({ kind: 'admit' });
}

/** A call that is being carried out takes no longer. */
const LATE_MS = 20_000;

/** Carries out what calls asked for whose receiver went away before it was done. */
export async function finishCalls(ports: TakePorts, bell: Pick<Bell, 'ring'>): Promise<number> {
  const { db, now } = ports.ground;
  const left = await db.rows<{ source: string; key_: string; item: string | null }>(
    'SELECT source, key_, item FROM hook_call WHERE run_at < ? LIMIT 50',
    [now() - LATE_MS],
  );
  for (const { source, key_, item } of left) await carryOut(ports, bell, { source, key: key_, item });
  return left.length;
}

/** A call that came before: nothing of it is done twice, but what a fault kept from being done is. */
async function again({ tools, bell }: HookPorts, source: string, before: CallRow, digest: string): Promise<Received> {
  if (before.body !== digest)
    return refused(
      409,
      'Key used before',
      `The key ‘${before.key}’ came with another call already.`,
      'Give each call a key of its own, and repeat a call just as it was.',
    );
  const { db, now } = tools.ground;
  const [open] = await db.rows('SELECT 1 FROM hook_call WHERE source = ? AND key_ = ? AND run_at < ?', [
    source,
    before.key,
    now() - LATE_MS,
  ]);
  if (open) await carryOut(tools, bell, { source, key: before.key, item: before.item });
  const { standing } = await outcomeOf(db, before);
  return { ok: true, taken: { key: before.key, repeated: true, standing } };
}

/** What became of a call, for its caller. */
export async function askedLater({ tools }: HookPorts, token: string, key: string): Promise<HookOutcome | null> {
  const { db } = tools.ground;
  const hook = await hookBy(db, token);
  const call = hook ? await callBy(db, hook.source, key) : null;
  return call ? outcomeOf(db, call) : null;
}

interface CallToKeep {
  key: string;
  digest: string;
  open: number | null;
  /** Null where it only lets the pipelines look. */
  subject: string | null;
  fields: Parameters<typeof putIn>[3]['fields'];
  toConfirm: boolean;
}

/** Notes a call, with the item it brings. */
async function keepCall(
  ground: Ground,
  source: string,
  { key, digest, open, subject, fields, toConfirm }: CallToKeep,
): Promise<{ item: string | null } | 'there already'> {
  try {
    return await ground.db.transaction(async (sql) => {
      const item =
        subject === null
          ? null
          : await putIn(sql, ground, source, { identity: `call ${key}`, subject, fields, toConfirm });
      await sql.run('INSERT INTO hook_call (source, key_, body, item, at_desk, run_at) VALUES (?)', [
        [source, key, digest, item, ground.desk.now(), open],
      ]);
      return { item };
    });
  } catch (error) {
    if (errnoOf(error) === 1062) return 'there already';
    throw error;
  }
}
