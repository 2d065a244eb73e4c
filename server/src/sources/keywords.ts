import { createHash } from 'node:crypto';
import { SourceSettings } from '@grivo/contract';
import { type CleanedKeywords, cleanKeywords } from '@grivo/core';
import type { Ground } from '../engine/outside.ts';
import { fingerprintOf } from './fingerprint.ts';
import { filterAnew } from './leaveOut.ts';

/** Cleans a paste and adds what stays to a list; the same paste twice adds nothing twice. */
export async function addKeywords(ground: Ground, source: string, paste: string): Promise<CleanedKeywords> {
  return ground.db.transaction(async (sql) => {
    const [row] = await sql.rows<{ settings: unknown }>('SELECT settings FROM source WHERE id = ? FOR UPDATE', [
      source,
    ]);
    const settings = SourceSettings.parse(row?.settings);
    const held = await sql.rows<{ subject: string }>('SELECT subject FROM item WHERE source = ?', [source]);
    const cleaned = cleanKeywords(
      paste,
      held.map((row) => row.subject),
    );
    const sha = (text: string) => createHash('sha256').update(text).digest('hex');
    for (let at = 0; at < cleaned.kept.length; at += 1_000) {
      const rows = cleaned.kept.slice(at, at + 1_000).map(({ phrase, identity }) => {
        const known = sha(identity);
        return [ground.ids(), source, known, sha(phrase), fingerprintOf(source, known), phrase, '{}'];
      });
      await sql.run(
        'INSERT IGNORE INTO item (id, source, identity, content_digest, fingerprint, subject, fields) VALUES ?',
        [rows],
      );
    }
    if (cleaned.kept.length > 0 && settings.exclude.length > 0) await filterAnew(sql, source, settings);
    return cleaned;
  });
}
