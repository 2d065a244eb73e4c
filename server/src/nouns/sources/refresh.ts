import { type Looked, SourceSettings } from '@grivo/contract';
import { type Failure, type Sketch, wordsOf } from '@grivo/core';
import { sha } from '../../ground/sha.ts';
import { isLostConnection, type Sql } from '../../ground/store/database.ts';
import { tellChange } from '../../ground/store/event.ts';
import type { LookPorts } from '../../ports/tools.ts';
import { nearRepeats, rememberWrites } from '../sketches/nearRepeats.ts';
import type { SourceRow } from './entity.ts';
import { fingerprintOf } from './fingerprint.ts';
import type { Found, SourceReader } from './kind.ts';
import { readers } from './kinds/index.ts';
import { leaveOut, offerFrom } from './leaveOut.ts';

/** A look that takes longer is given up. */
const LOOK_SECONDS = 300;
/** One that has shown no sign for so long is taken for dead, and another may begin. */
const SIGN_SECONDS = 75;
/** Items written by one transaction. */
const BATCH = 500;
/** Of sources with more items than this it is not said which are gone. */
const MOST_WATCHED = 20_000;

/** Whether there is anything to look at; other sources hold only what people put into them. */
function isOutside(settings: SourceSettings): boolean {
  if (settings.kind === 'keywords') return settings.site !== null;
  return settings.kind !== 'requests' && settings.kind !== 'hook';
}

export type Refreshed = { kind: 'looked'; looked: Looked } | { kind: 'busy' } | { kind: 'gone' };

interface Counts {
  found: number;
  fresh: number;
  changed: number;
  leftOut: number;
}

/**
 * One look at a source: reads it, and keeps what is new and what has changed. Items are known by their identity, so
 * looking twice, in any order, or again after a crash in the middle, adds nothing twice. Nothing is taken by it.
 */
export async function refreshSource(ports: LookPorts, id: string): Promise<Refreshed> {
  const { db, desk, ids } = ports.ground;
  const [source] = await db.rows<SourceRow>(
    'SELECT id, kind, name, settings, looked_desk, looked_with, rev FROM source WHERE id = ?',
    [id],
  );
  if (!source) return { kind: 'gone' };
  const settings = SourceSettings.parse(source.settings);
  const reader = readers[settings.kind] as SourceReader;
  if (!isOutside(settings))
    return { kind: 'looked', looked: { found: 0, fresh: 0, changed: 0, leftOut: 0, trouble: null, mend: null } };
  const mine = await db.run(
    'UPDATE source SET looking_until = UTC_TIMESTAMP(3) + INTERVAL ? SECOND, looking_by = ? WHERE id = ? AND (looking_until IS NULL OR looking_until < UTC_TIMESTAMP(3))',
    [SIGN_SECONDS, ports.holder?.() ?? null, id],
  );
  if (mine === 0) return { kind: 'busy' };
  const counts: Counts = { found: 0, fresh: 0, changed: 0, leftOut: 0 };
  try {
    const { failure, looked } = await read(ports, { ...source, settings }, reader, counts);
    await db.transaction(async (sql) => {
      await sql.run(
        'UPDATE source SET looking_until = NULL, looking_by = NULL, looked_desk = IF(?, ?, looked_desk), failure = ? WHERE id = ?',
        [looked ? 1 : 0, desk.now(), failure ? JSON.stringify(failure) : null, id],
      );
      await sql.run(
        'INSERT INTO look (id, source, pipeline, at_desk, found, fresh, changed, left_out, taken, failure) VALUES (?)',
        [
          [
            ids(),
            id,
            null,
            desk.now(),
            counts.found,
            counts.fresh,
            counts.changed,
            counts.leftOut,
            0,
            failure ? JSON.stringify(failure) : null,
          ],
        ],
      );
      await tellChange(sql, { ids }, 'source', id);
    });
    const words =
      failure && wordsOf(failure, (noun) => (noun === id ? source.name : (ports.services.get(noun)?.name ?? noun)));
    return { kind: 'looked', looked: { ...counts, trouble: words?.sentence ?? null, mend: words?.mend ?? null } };
  } catch (error) {
    await db.run('UPDATE source SET looking_until = NULL WHERE id = ?', [id]).catch(() => undefined);
    if (isLostConnection(error)) throw error;
    // A fault of ours: said at the source, so that it is looked at again when its time comes and not at once for ever.
    ports.ground.log.error({ err: error, source: id }, 'a look failed');
    const { message, stack } = error instanceof Error ? error : new Error(String(error));
    const failure: Failure = { code: 'defect', message: message.slice(0, 1_000), stack: stack?.slice(0, 8_000) ?? '' };
    await db.run('UPDATE source SET failure = ? WHERE id = ?', [JSON.stringify(failure), id]);
    const { sentence, mend } = wordsOf(failure);
    return { kind: 'looked', looked: { ...counts, trouble: sentence, mend } };
  }
}

const HALF = 32;

/** How items are read (first half) and what tells them apart (second half), each as a digest. */
function readingOf(settings: SourceSettings): string {
  if (settings.kind === 'keywords') return sha(settings.kind).slice(0, HALF) + sha('phrase').slice(0, HALF);
  const { startFrom: _, exclude: __, ...reading } = settings;
  const apart = settings.kind === 'sheet' ? settings.identity : [];
  return sha(JSON.stringify(reading)).slice(0, HALF) + sha(JSON.stringify(apart)).slice(0, HALF);
}

async function read(
  ports: LookPorts,
  source: SourceRow,
  reader: SourceReader,
  counts: Counts,
): Promise<{ failure: Failure | null; looked: boolean }> {
  const { db } = ports.ground;
  const looking = await reader.look(ports, source, AbortSignal.timeout(LOOK_SECONDS * 1_000));
  if (!looking.ok) return { failure: looking.failure, looked: false };
  const settings = looking.settings ?? source.settings;
  if (looking.settings)
    await db.run('UPDATE source SET settings = ?, rev = rev + 1 WHERE id = ? AND rev = ?', [
      JSON.stringify(looking.settings),
      source.id,
      source.rev,
    ]);
  const first = source.looked_desk === null;
  const reading = readingOf(settings);
  const before = source.looked_with;
  const how = {
    settings,
    reread: before !== null && before !== reading,
    // Told apart by something else, every item looks new; nobody wants all of them once more.
    aside: first || (before !== null && before.slice(HALF) !== reading.slice(HALF)),
  };
  const seen = new Set<string>();
  for await (const entries of looking.entries)
    for (let at = 0; at < entries.length; at += BATCH) {
      const batch = entries.slice(at, at + BATCH);
      counts.found += batch.length;
      const keyed = new Map(batch.map((found) => [sha(found.identity), found]));
      if (seen.size <= MOST_WATCHED) for (const identity of keyed.keys()) seen.add(identity);
      const sketched = await sketchesOf(ports, keyed);
      const kept = await db.transaction((sql) => keep(sql, ports, source.id, keyed, how, sketched));
      counts.fresh += kept.fresh;
      counts.changed += kept.changed;
      counts.leftOut += kept.leftOut;
      await db.run('UPDATE source SET looking_until = UTC_TIMESTAMP(3) + INTERVAL ? SECOND WHERE id = ?', [
        SIGN_SECONDS,
        source.id,
      ]);
    }
  await db.run('UPDATE source SET looked_with = ? WHERE id = ?', [reading, source.id]);
  if (first)
    await db.transaction((sql) =>
      offerFrom(sql, source.id, settings.startFrom, (day) => Date.parse(`${day}T00:00:00Z`)),
    );
  if (looking.ended.whole && seen.size <= MOST_WATCHED) await db.transaction((sql) => markGone(sql, source.id, seen));
  return { failure: looking.ended.partly, looked: true };
}

interface KnownItem {
  id: string;
  identity: string;
  content_digest: string;
  left_out: string | null;
  by_hand: number;
}

/** Sketches of what a batch tells, by identity: made where everything is read, not in the way of others. */
async function sketchesOf(
  { reader }: LookPorts,
  batch: ReadonlyMap<string, Found>,
): Promise<ReadonlyMap<string, Sketch | null>> {
  const out = new Map<string, Sketch | null>();
  const texts: { identity: string; text: string }[] = [];
  for (const [identity, { sketch, text }] of batch)
    if (sketch !== undefined) out.set(identity, sketch);
    else if (text) texts.push({ identity, text });
  if (texts.length === 0) return out;
  const made = await reader.read('sketches', { texts: texts.map(({ text }) => text) });
  for (const [i, { identity }] of texts.entries()) out.set(identity, made.ok ? (made.value[i] ?? null) : null);
  return out;
}

/** How a look reads what it finds. */
interface Reading {
  settings: SourceSettings;
  /** Whether it is read otherwise than before. */
  reread: boolean;
  /** Whether what is new lies before the start. */
  aside: boolean;
}

/** Why an item is left out. */
interface Left {
  reason: string;
  detail: string;
}

/** Keeps a batch: what is new is added, what has changed is brought up to date. */
async function keep(
  sql: Sql,
  { ground }: LookPorts,
  source: string,
  batch: ReadonlyMap<string, Found>,
  reading: Reading,
  sketched: ReadonlyMap<string, Sketch | null>,
): Promise<Omit<Counts, 'found'>> {
  const known = await knownOf(sql, source, [...batch.keys()]);
  const fresh = new Map(
    [...batch.keys()].filter((identity) => !known.has(identity)).map((identity) => [identity, ground.ids()] as const),
  );
  const { repeats, sketches } = await nearRepeats(
    sql,
    new Map(
      [...fresh].map(([identity, id]) => {
        return [id, { sketch: sketched.get(identity) ?? null, title: batch.get(identity)!.subject, identity }];
      }),
    ),
  );
  const counts = { fresh: fresh.size, changed: 0, leftOut: 0 };
  const rows: unknown[][] = [];
  for (const [identity, found] of batch) {
    const item = known.get(identity);
    const repeat = repeats.get(fresh.get(identity) ?? item!.id);
    const left: Left | undefined =
      leaveOut(found, reading.settings) ??
      (repeat && { reason: 'near repeat', detail: `${repeat.article ? 'the article ' : ''}“${repeat.title}”` });
    if (item) {
      const change = changeOf(source, identity, item, found, left, reading);
      if (!change) continue;
      if (change.otherContent) counts.changed++;
      await sql.run(change.text, change.parameters);
      continue;
    }
    if (left) counts.leftOut++;
    rows.push(rowOf(fresh.get(identity)!, source, identity, found, left, reading));
  }
  if (rows.length > 0)
    await sql.run(
      'INSERT IGNORE INTO item (id, source, identity, content_digest, fingerprint, subject, fields, left_out, left_detail, published_desk) VALUES ?',
      [rows],
    );
  for (const { text, parameters } of rememberWrites(sketches, 'item')) await sql.run(text, parameters);
  return counts;
}

async function knownOf(sql: Sql, source: string, identities: string[]): Promise<ReadonlyMap<string, KnownItem>> {
  const rows = await sql.rows<KnownItem>(
    'SELECT id, identity, content_digest, left_out, by_hand FROM item WHERE source = ? AND identity IN (?) FOR UPDATE',
    [source, identities],
  );
  return new Map(rows.map((row) => [row.identity, row]));
}

const digestOf = ({ subject, content }: Found) => sha(`${subject}\n${content}`);

function rowOf(
  id: string,
  source: string,
  identity: string,
  found: Found,
  left: Left | undefined,
  { aside }: Reading,
): unknown[] {
  return [
    id,
    source,
    identity,
    digestOf(found),
    fingerprintOf(source, identity),
    found.subject.slice(0, 500),
    JSON.stringify(found.fields()),
    left?.reason ?? (aside ? 'before the start' : null),
    left?.detail.slice(0, 300) ?? '',
    found.publishedDesk,
  ];
}

/** What brings an item up to date; null when it reads as it did. */
function changeOf(
  source: string,
  identity: string,
  item: KnownItem,
  found: Found,
  left: Left | undefined,
  { settings, reread }: Reading,
): { text: string; parameters: unknown[]; otherContent: boolean } | null {
  const digest = digestOf(found);
  const otherContent = item.content_digest !== digest;
  // What a person said of it, and what lay before the start, stays so whatever changes.
  const stays =
    item.by_hand === 1 || item.left_out === 'before the start' || (item.left_out === 'near repeat' && !left);
  if (!reread && !otherContent && (stays || (item.left_out ?? null) === (left?.reason ?? null))) return null;
  const again = settings.kind === 'sheet' && settings.changed && otherContent;
  return {
    otherContent,
    text: `UPDATE item SET content_digest = ?, subject = ?, fields = ?, published_desk = ?, gone = 0${stays ? '' : ', left_out = ?, left_detail = ?'}${again ? ', fingerprint = ?' : ''} WHERE id = ?`,
    parameters: [
      digest,
      found.subject.slice(0, 500),
      JSON.stringify(found.fields()),
      found.publishedDesk,
      ...(stays ? [] : [left?.reason ?? null, left?.detail.slice(0, 300) ?? '']),
      ...(again ? [fingerprintOf(source, `${identity}:${digest}`)] : []),
      item.id,
    ],
  };
}

async function markGone(sql: Sql, source: string, seen: ReadonlySet<string>): Promise<void> {
  const rows = await sql.rows<{ id: string; identity: string; gone: number }>(
    'SELECT id, identity, gone FROM item WHERE source = ?',
    [source],
  );
  for (const gone of [0, 1] as const) {
    const turned = rows.filter((row) => row.gone !== gone && (seen.has(row.identity) ? 0 : 1) === gone);
    if (turned.length > 0)
      await sql.run('UPDATE item SET gone = ? WHERE id IN (?)', [gone, turned.map(({ id }) => id)]);
  }
}
