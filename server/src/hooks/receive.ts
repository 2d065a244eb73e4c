import { type HookOutcome, type HookSettings, type HookTaken, SourceSettings } from '@grivo/contract';
import { Procedures } from '../engine/briefState.ts';
import type { Product } from '../product.ts';
import { sha } from '../sources/fingerprint.ts';
import { takeFor } from '../sources/look.ts';
import { putIn } from '../sources/putIn.ts';
import { errnoOf } from '../store/database.ts';
import { type Refusal, readCall, refused } from './call.ts';
import { type CallRow, callBy, hookBy, hookSecret, outcomeOf } from './repository.ts';
import { checkSignature } from './signature.ts';

export type Received = { ok: true; taken: Omit<HookTaken, 'ask'> } | { ok: false; refusal: Refusal };

const NO_HOOK = refused(
  404,
  'No such hook',
  'There is no hook at this address.',
  'Copy its address again; it may have been renewed.',
);

/** A call of a hook: checked, kept once by its key, and given to the pipelines that take from it. */
export async function receive(
  product: Product,
  token: string,
  body: string,
  headers: Readonly<Record<string, string | string[] | undefined>>,
): Promise<Received> {
  const { ground, secrets } = product;
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
  if (before) return again(product, hook.source, settings, before, digest);
  try {
    if ('run' in call) {
      await db.run('INSERT INTO hook_call (source, key_, body, at_desk) VALUES (?)', [
        [hook.source, key, digest, ground.desk.now()],
      ]);
    } else
      await db.transaction(async (sql) => {
        const item = await putIn(sql, ground, hook.source, {
          identity: `call ${key}`,
          subject: call.subject,
          fields,
          toConfirm: settings.confirm,
        });
        await sql.run('INSERT INTO hook_call (source, key_, body, item, at_desk) VALUES (?)', [
          [hook.source, key, digest, item, ground.desk.now()],
        ]);
      });
  } catch (error) {
    if (errnoOf(error) !== 1062) throw error;
    // The same call came twice at once: the other was faster.
    return again(product, hook.source, settings, (await callBy(db, hook.source, key))!, digest);
  }
  if (!settings.confirm || 'run' in call) {
    const briefs = await takeFor(ground, new Procedures(), hook.source);
    if ('run' in call)
      await db.run('UPDATE hook_call SET briefs = ? WHERE source = ? AND key_ = ?', [
        JSON.stringify(briefs),
        hook.source,
        key,
      ]);
    if (briefs.length > 0) product.bell.ring({ kind: 'admit' });
  }
  product.bell.ring({ kind: 'event' });
  const outcome = await outcomeOf(db, (await callBy(db, hook.source, key))!);
  return { ok: true, taken: { key, repeated: false, standing: outcome.standing } };
}

/** A call that came before: nothing of it is done twice, but what a fault kept from being done is. */
async function again(
  product: Product,
  source: string,
  settings: HookSettings,
  before: CallRow,
  digest: string,
): Promise<Received> {
  if (before.body !== digest)
    return refused(
      409,
      'Key used before',
      `The key ‘${before.key}’ came with another call already.`,
      'Give each call a key of its own, and repeat a call just as it was.',
    );
  if (before.item !== null && !settings.confirm) {
    const briefs = await takeFor(product.ground, new Procedures(), source);
    if (briefs.length > 0) product.bell.ring({ kind: 'admit' });
  }
  const { standing } = await outcomeOf(product.ground.db, before);
  return { ok: true, taken: { key: before.key, repeated: true, standing } };
}

/** What became of a call, for its caller. */
export async function askedLater(product: Product, token: string, key: string): Promise<HookOutcome | null> {
  const { db } = product.ground;
  const hook = await hookBy(db, token);
  const call = hook ? await callBy(db, hook.source, key) : null;
  return call ? outcomeOf(db, call) : null;
}
