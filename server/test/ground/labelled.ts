import type { World } from './world.ts';

/** The source a pipeline takes from. */
export async function sourceAt(w: World, pipeline: string): Promise<string> {
  const [row] = await w.product.ground.db.rows<{ source: string }>(
    "SELECT JSON_VALUE(v.document, '$.steps[0].sources[0]') AS source FROM pipeline p JOIN procedure_version v ON v.procedure_id = p.procedure_id WHERE p.id = ?",
    [pipeline],
  );
  return row!.source;
}
