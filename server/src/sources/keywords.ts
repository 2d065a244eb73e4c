import { createHash } from 'node:crypto';
import { type CleanedKeywords, cleanKeywords } from '@grivo/core';
import type { Ground } from '../engine/outside.ts';
import { fingerprintOf } from './fingerprint.ts';

/** Cleans a paste and adds what stays to a list; the same paste twice adds nothing twice. */
export async function addKeywords(ground: Ground, source: string, paste: string): Promise<CleanedKeywords> {
  return ground.db.transaction(async (sql) => {
    await sql.rows('SELECT id FROM source WHERE id = ? FOR UPDATE', [source]);
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
    return cleaned;
  });
}
