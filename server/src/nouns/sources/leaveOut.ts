import type { LeftOut, SourceSettings, StartFrom } from '@grivo/contract';
import { excludedBy } from '@grivo/core';
import type { Sql } from '../../ground/store/database.ts';
import type { Found } from './kind.ts';

export type LeftOutReason = LeftOut;

/** Why an item is not offered, by what the source says; null when nothing speaks against it. */
export function leaveOut(found: Pick<Found, 'subject' | 'leftOut'>, settings: SourceSettings): Found['leftOut'] {
  if (found.leftOut) return found.leftOut;
  const word = excludedBy(found.subject, settings.exclude);
  if (word !== null) return { reason: 'filtered', detail: word };
  return null;
}

/**
 * What of a first look is offered: everything, nothing, the last of it, or what came out since a day. Everything else is
 * there, left out as before the start, and can be offered by hand.
 */
export async function offerFrom(
  sql: Sql,
  source: string,
  start: StartFrom,
  zoneDay: (day: string) => number,
): Promise<void> {
  const offer = "UPDATE item SET left_out = NULL WHERE source = ? AND left_out = 'before the start'";
  switch (start.at) {
    case 'the beginning':
      await sql.run(offer, [source]);
      return;
    case 'now':
      return;
    case 'a day':
      await sql.run(`${offer} AND (published_desk IS NULL OR published_desk >= ?)`, [source, zoneDay(start.day)]);
      return;
    case 'the last': {
      const last = await sql.rows<{ id: string }>(
        "SELECT id FROM item WHERE source = ? AND (left_out IS NULL OR left_out = 'before the start') ORDER BY id DESC LIMIT ?",
        [source, start.n],
      );
      for (let at = 0; at < last.length; at += 1_000)
        await sql.run(`${offer} AND id IN (?)`, [source, last.slice(at, at + 1_000).map(({ id }) => id)]);
    }
  }
}

/** Holds what a list has against its words anew; what a person said of an item stays. */
export async function filterAnew(sql: Sql, source: string, settings: SourceSettings): Promise<void> {
  const rows = await sql.rows<{ id: string; subject: string; left_out: string | null; left_detail: string }>(
    "SELECT id, subject, left_out, left_detail FROM item WHERE source = ? AND by_hand = 0 AND (left_out IS NULL OR left_out = 'filtered') FOR UPDATE",
    [source],
  );
  const changed = new Map<string, string[]>();
  for (const row of rows) {
    const left = leaveOut({ subject: row.subject, leftOut: null }, settings);
    const word = left?.detail ?? null;
    if (word !== (row.left_out === null ? null : row.left_detail))
      changed.set(word ?? '', [...(changed.get(word ?? '') ?? []), row.id]);
  }
  for (const [word, ids] of changed)
    for (let at = 0; at < ids.length; at += 1_000)
      await sql.run('UPDATE item SET left_out = ?, left_detail = ? WHERE id IN (?)', [
        word === '' ? null : 'filtered',
        word,
        ids.slice(at, at + 1_000),
      ]);
}
