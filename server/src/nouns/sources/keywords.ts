import { type MeasuredPhrase, SourceSettings } from '@grivo/contract';
import { type CleanedKeywords, identityOf, type Measures } from '@grivo/core';
import { languageOf } from '../../formats/language/recognise.ts';
import type { Ground } from '../../ground/ground.ts';
import type { ReadingRoom } from '../../ground/reading/room.ts';
import { sha } from '../../ground/sha.ts';
import type { Sql } from '../../ground/store/database.ts';
import type { Tools } from '../../ports/tools.ts';
import { fingerprintOf } from './fingerprint.ts';
import { filterAnew } from './leaveOut.ts';

/** A text of phrases, or phrases already parted. */
export type Phrases = { paste: string } | { phrases: readonly MeasuredPhrase[] };

/** The language of a list, by the small words of its phrases. */
export function languageOfPhrases(phrases: readonly string[]): string {
  return languageOf(phrases.slice(0, 2_000).join(' ')) ?? 'en';
}

export type Added = CleanedKeywords & {
  /** Phrases that were there, and whose measures were brought up to date. */
  measured: number;
};

/** A description may be as long as an item's subject. */
const LONGEST_DESCRIPTION = 500;

/** How many of what was left out are told one by one. */
export const MOST_TOLD = 500;

/** Rows written by one statement: more at once, and whoever asks meanwhile waits while they are made ready. */
const ROWS_AT_ONCE = 200;

/** The phrases of a list: those it offers or has given away, and those that are left out of it. */
export interface HeldPhrases {
  held: readonly string[];
  leftOut: readonly string[];
}

/** What a paste would come to beside the phrases a list holds. */
export async function cleanedOf(
  reader: ReadingRoom,
  given: Phrases,
  { held, leftOut }: HeldPhrases,
  settings: SourceSettings,
  asIs = false,
): Promise<{ ok: true; cleaned: CleanedKeywords } | { ok: false; problem: string }> {
  const how = settings.kind === 'keywords' ? settings : null;
  const whole = 'paste' in given && how !== null && how.lines !== 'phrases';
  const parted = 'phrases' in given ? given.phrases.map(({ phrase }) => phrase) : null;
  const read = await reader.read('phrases', {
    given: parted ?? (whole ? linesOf(given.paste) : (given as { paste: string }).paste),
    held: [...held],
    how: {
      leftOut: [...leftOut],
      asIs,
      spelling: how === null || how.spelling === 'as typed' ? null : how.spelling,
      ...(how?.lines === 'descriptions' ? { longest: LONGEST_DESCRIPTION } : {}),
      // Measures of phrases that are there already are brought up to date: those are told all.
      ...('paste' in given ? { told: MOST_TOLD } : {}),
    },
  });
  return read.ok ? { ok: true, cleaned: read.value } : read;
}

function linesOf(text: string): string[] {
  return text.split(/\r\n|\r|\n/);
}

export type AddedOr = { ok: true; added: Added } | { ok: false; problem: string };

/** Times a list may change while a paste is cleaned, before that is done under its lock. */
const MOST_AGAIN = 5;

/**
 * Cleans a paste and adds what stays to a list; the same paste twice adds nothing twice. Measures of phrases that are there
 * already are brought up to date. The list is locked only to be written: cleaning a long paste takes its time.
 */
export async function addKeywords(
  { ground, reader }: Pick<Tools, 'ground' | 'reader'>,
  source: string,
  given: Phrases,
  asIs = false,
): Promise<AddedOr> {
  for (let again = 0; again < MOST_AGAIN; again++) {
    const seen = await listNow(ground.db, source, false);
    const read = await cleanedOf(reader, given, seen, seen.settings, asIs);
    if (!read.ok) return read;
    const added = await ground.db.transaction(async (sql) => {
      const now = await listNow(sql, source, true);
      const same =
        now.held.length === seen.held.length &&
        now.leftOut.length === seen.leftOut.length &&
        now.held.at(-1) === seen.held.at(-1) &&
        now.rev === seen.rev;
      return same ? write(sql, ground, source, given, now, read.cleaned, asIs) : null;
    });
    if (added) return { ok: true, added };
  }
  return { ok: false, problem: 'other people are changing the list just now' };
}

interface ListNow extends HeldPhrases {
  settings: SourceSettings;
  rev: number;
}

async function listNow(sql: Sql, source: string, locked: boolean): Promise<ListNow> {
  const [row] = await sql.rows<{ settings: unknown; rev: number }>(
    `SELECT settings, rev FROM source WHERE id = ?${locked ? ' FOR UPDATE' : ''}`,
    [source],
  );
  return {
    settings: SourceSettings.parse(row?.settings),
    rev: row?.rev ?? 0,
    ...(await heldPhrases(sql, source)),
  };
}

/** The phrases of a list in their order. */
export async function heldPhrases(sql: Sql, source: string): Promise<HeldPhrases> {
  const rows = await sql.rows<{ subject: string; left: number }>(
    'SELECT subject, left_out IS NOT NULL AS `left` FROM item WHERE source = ? ORDER BY id',
    [source],
  );
  const of = (left: number) => rows.filter((row) => Number(row.left) === left).map(({ subject }) => subject);
  return { held: of(0), leftOut: of(1) };
}

async function write(
  sql: Sql,
  ground: Ground,
  source: string,
  given: Phrases,
  { settings, held }: ListNow,
  cleaned: CleanedKeywords,
  asIs: boolean,
): Promise<Added> {
  const phrases = 'phrases' in given ? given.phrases : [];
  const fresh = cleaned.kept.map(({ phrase, identity, line }) => ({
    phrase,
    identity,
    fields: { ...fieldsOf(phrases[line - 1]), ...bringsAlong(phrase, settings) },
  }));
  const there = phrases.length === 0 ? new Set<string>() : new Set(held.map(identityOf));
  const again = cleaned.dropped.flatMap(({ reason, of, line }) => {
    const fields = fieldsOf(phrases[line - 1]);
    if (reason !== 'repeat' || of === undefined || Object.keys(fields).length === 0) return [];
    const identity = identityOf(of);
    return there.has(identity) ? [{ phrase: of, identity, fields }] : [];
  });
  const rows = [...fresh, ...again];
  for (let at = 0; at < rows.length; at += ROWS_AT_ONCE)
    await sql.run(
      `INSERT INTO item (id, source, identity, content_digest, fingerprint, subject, fields) VALUES ?
       ON DUPLICATE KEY UPDATE fields = JSON_MERGE_PATCH(fields, VALUES(fields))${asIs ? ", left_out = NULL, left_detail = '', by_hand = 1" : ''}`,
      [
        rows.slice(at, at + ROWS_AT_ONCE).map(({ phrase, identity, fields }) => {
          const known = sha(identity);
          const print = fingerprintOf(source, known);
          return [ground.ids(), source, known, sha(phrase), print, phrase, JSON.stringify(fields)];
        }),
      ],
    );
  if (cleaned.kept.length > 0 && settings.exclude.length > 0) await filterAnew(sql, source, settings);
  return { ...cleaned, measured: again.length };
}

/** What a line is besides a subject: a title stays the article's title, a description is there to be written from. */
function bringsAlong(line: string, settings: SourceSettings): Record<string, string | boolean> {
  if (settings.kind !== 'keywords' || settings.lines === 'phrases') return {};
  return settings.lines === 'titles' ? { title: line, titleStays: true } : { description: line };
}

/** What was measured, as fields a brief brings along. */
export function fieldsOf(phrase: Measures | undefined): Record<string, number> {
  return {
    ...(typeof phrase?.volume === 'number' ? { volume: phrase.volume } : {}),
    ...(typeof phrase?.difficulty === 'number' ? { difficulty: phrase.difficulty } : {}),
  };
}

/** What is known of a phrase, from its fields. */
export function measuresIn(fields: Readonly<Record<string, unknown>>): Measures {
  const figure = (value: unknown) => (typeof value === 'number' ? value : null);
  return { volume: figure(fields['volume']), difficulty: figure(fields['difficulty']) };
}
