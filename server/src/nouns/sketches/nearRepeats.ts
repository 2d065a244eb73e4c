import { NEAR, type Sketch, sketchLikeness, sketchOf } from '@grivo/core';
import type { Sql } from '../../ground/store/database.ts';

/** What a text is a near repeat of. */
export interface Nearest {
  title: string;
  article: boolean;
}

/** What is sketched: what an item tells, an article's text, its title. */
type Sketched = 'item' | 'text' | 'title';

interface Candidate {
  band: number;
  of: string;
  hashes: Buffer;
  title: string;
  identity: string | null;
  what: Sketched;
}

/** Texts that have one band the same, looked at for each text. */
const MOST_MET = 200;

/**
 * Texts held against everything that was offered or taken before, from any source, and every article that stands: those
 * as alike as NEAR are near repeats. Texts of one batch are held against each other too, the earlier stays. The same thing
 * at another source is none: who listed it twice means it.
 * @param texts sketches by the id their item gets; null says too little
 * @returns what each near repeat repeats
 */
export async function nearRepeats(
  sql: Sql,
  texts: ReadonlyMap<string, { sketch: Sketch | null; title: string; identity: string }>,
): Promise<{ repeats: Map<string, Nearest>; sketches: Map<string, Sketch> }> {
  const sketches = new Map<string, Sketch>();
  for (const [id, { sketch }] of texts) if (sketch) sketches.set(id, sketch);
  const repeats = new Map<string, Nearest>();
  if (sketches.size === 0) return { repeats, sketches };
  const met = await metBy(sql, sketches);
  for (const [id, sketch] of sketches) {
    let nearest: Nearest | null = null;
    let most = NEAR;
    for (const candidate of sketch.bands.flatMap((band) => met.get(band) ?? []).slice(0, MOST_MET)) {
      const alike = sketchLikeness(sketch.hashes, candidate.hashes);
      if (alike < most || candidate.identity === texts.get(id)!.identity) continue;
      most = alike;
      nearest = { title: candidate.title, article: candidate.article };
    }
    if (nearest) repeats.set(id, nearest);
    else
      for (const band of sketch.bands)
        met.set(band, [...(met.get(band) ?? []), { ...texts.get(id)!, hashes: sketch.hashes, article: false }]);
  }
  for (const id of repeats.keys()) sketches.delete(id);
  return { repeats, sketches };
}

type Met = Map<number, { hashes: Uint32Array; title: string; identity: string | null; article: boolean }[]>;

async function metBy(sql: Sql, sketches: ReadonlyMap<string, Sketch>): Promise<Met> {
  const rows = await sql.rows<Candidate>(
    `SELECT b.band, b.of, s.hashes, s.what, COALESCE(a.title, i.subject) AS title, i.identity FROM sketch_band b JOIN sketch s ON s.of = b.of
     LEFT JOIN item i ON s.what = 'item' AND i.id = b.of LEFT JOIN article a ON s.what <> 'item' AND a.id = b.of
     WHERE b.band IN (?) AND (a.standing IN ('out', 'draft') OR i.left_out IS NULL AND i.id IS NOT NULL OR EXISTS (SELECT 1 FROM taken t WHERE t.item = i.id))`,
    [[...new Set([...sketches.values()].flatMap(({ bands }) => bands))]],
  );
  const met: Met = new Map();
  for (const { band, hashes, title, identity, what } of rows) {
    const list = met.get(Number(band)) ?? [];
    if (list.length < MOST_MET) list.push({ hashes: unpacked(hashes), title, identity, article: what !== 'item' });
    met.set(Number(band), list);
  }
  return met;
}

/** The statements that remember sketches by what they are of. */
export function rememberWrites(
  sketches: ReadonlyMap<string, Sketch>,
  what: Sketched,
): { text: string; parameters: unknown[] }[] {
  if (sketches.size === 0) return [];
  return [
    {
      text: 'INSERT INTO sketch (of, what, hashes) VALUES ? ON DUPLICATE KEY UPDATE hashes = VALUES(hashes)',
      parameters: [[...sketches].map(([of, { hashes }]) => [of, what, packed(hashes)])],
    },
    {
      text: 'INSERT IGNORE INTO sketch_band (band, of) VALUES ?',
      parameters: [[...sketches].flatMap(([of, { bands }]) => bands.map((band) => [band, of]))],
    },
  ];
}

function packed(hashes: Uint32Array): Buffer {
  const buffer = Buffer.alloc(hashes.length * 4);
  for (const [i, hash] of hashes.entries()) buffer.writeUInt32LE(hash, i * 4);
  return buffer;
}

function unpacked(buffer: Buffer): Uint32Array {
  return Uint32Array.from({ length: buffer.length / 4 }, (_, i) => buffer.readUInt32LE(i * 4));
}

/** The statements that remember an article that stands, by its text and by its title. */
export function articleWrites(
  id: string,
  { title, text, language }: { title: string; text: string; language: string },
) {
  return (['text', 'title'] as const).flatMap((what) => {
    const sketch = sketchOf(what === 'text' ? text : title, language);
    return sketch ? rememberWrites(new Map([[id, sketch]]), what) : [];
  });
}
