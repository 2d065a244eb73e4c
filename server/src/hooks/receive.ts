import { HookCall, type HookOutcome, type HookSettings, type HookTaken, SourceSettings } from '@grivo/contract';
import { Procedures } from '../engine/briefState.ts';
import type { Product } from '../product.ts';
import { sha } from '../sources/fingerprint.ts';
import { takeFor } from '../sources/look.ts';
import { putIn } from '../sources/putIn.ts';
import { errnoOf } from '../store/database.ts';
import { type CallRow, callBy, hookBy, hookSecret, outcomeOf } from './repository.ts';
import { checkSignature } from './signature.ts';

/** What a call is refused with. */
export interface Refusal {
  status: 401 | 404 | 409 | 422;
  title: string;
  problem: string;
  mend: string;
  places?: { place: string; problem: string }[];
}

export type Received = { ok: true; taken: Omit<HookTaken, 'ask'> } | { ok: false; refusal: Refusal };

const refused = (
  status: Refusal['status'],
  title: string,
  problem: string,
  mend: string,
  places?: Refusal['places'],
): { ok: false; refusal: Refusal } => ({
  ok: false,
  refusal: { status, title, problem, mend, ...(places ? { places } : {}) },
});

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

const OWN = new Set(['subject', 'notes', 'link', 'key']);

type ReadCall = { ok: true; call: HookCall; fields: Record<string, unknown> } | { ok: false; refusal: Refusal };

/** A call's body by the hook's own schema: each field it names of its type, none it does not know. */
function readCall(body: string, settings: HookSettings): ReadCall {
  let value: unknown;
  try {
    value = JSON.parse(body);
  } catch (error) {
    if (error instanceof SyntaxError || error instanceof RangeError)
      return refused(
        422,
        'Not JSON',
        'The body of the call is no JSON.',
        'Send JSON, with the content type application/json.',
      );
    throw error;
  }
  const read = HookCall.safeParse(value);
  if (!read.success) {
    const issues = read.error.issues.flatMap((issue) =>
      issue.code === 'invalid_union' ? (issue.errors[0] ?? []) : [issue],
    );
    const places = issues.map((issue) => ({ place: issue.path.join('.') || 'the call', problem: issue.message }));
    return refused(
      422,
      'Of another shape',
      `${places[0]?.place ?? 'the call'}: ${places[0]?.problem ?? 'it does not fit'}.`,
      'Send {"subject": "…"}, with the fields this hook takes, or {"run": true}.',
      places,
    );
  }
  const call = read.data;
  if ('run' in call) return { ok: true, call, fields: {} };
  const own = call as Record<string, unknown>;
  const known = new Map(settings.fields.map((one) => [one.name, one]));
  const places = [
    ...Object.keys(own)
      .filter((name) => !OWN.has(name) && !known.has(name))
      .map((name) => ({
        place: name,
        problem: `there is no such field; there are subject, notes, link${[...known.keys()].map((one) => `, ${one}`).join('')}`,
      })),
    ...settings.fields.flatMap(({ name, type, needed }) => {
      const given = own[name];
      if (given === undefined || given === null) return needed ? [{ place: name, problem: 'is missing' }] : [];
      return fits(given, type) ? [] : [{ place: name, problem: `is no ${type}` }];
    }),
  ];
  if (places.length > 0)
    return refused(
      422,
      'Of another shape',
      `${places[0]!.place}: ${places[0]!.problem}.`,
      'Correct the places named and send it again; nothing was kept.',
      places,
    );
  const { subject: _, key: __, notes, ...fields } = own;
  // Notes are what a step makes; what came with an item is its text.
  return {
    ok: true,
    call,
    fields: { ...fields, ...(notes === undefined ? {} : { text: notes }), about: 'by a program' },
  };
}

function fits(value: unknown, type: HookSettings['fields'][number]['type']): boolean {
  switch (type) {
    case 'text':
      return typeof value === 'string' && value.length <= 100_000;
    case 'number':
      return typeof value === 'number' && Number.isFinite(value);
    case 'yes or no':
      return typeof value === 'boolean';
    case 'address':
      return typeof value === 'string' && /^https?:\/\//i.test(value) && URL.canParse(value);
  }
}

/** What became of a call, for its caller. */
export async function askedLater(product: Product, token: string, key: string): Promise<HookOutcome | null> {
  const { db } = product.ground;
  const hook = await hookBy(db, token);
  const call = hook ? await callBy(db, hook.source, key) : null;
  return call ? outcomeOf(db, call) : null;
}
