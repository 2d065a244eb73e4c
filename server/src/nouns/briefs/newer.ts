import type { ProcedureDocument, Step } from '@grivo/core';
import type { Sql } from '../../ground/store/database.ts';
import { pinsFor } from '../routines/repository.ts';

/**
 * The id of the first step from which on a document runs otherwise than the one before it: one that reads differently, is
 * new there, or has moved up since one above it is gone. Null when nothing that was run reads otherwise.
 */
export function firstChange(before: readonly Step[], after: readonly Step[]): string | null {
  const [was, is] = [before, after].map((steps) => steps.filter((step) => step.kind !== 'take' && !step.off)) as [
    Step[],
    Step[],
  ];
  const at = is.findIndex((step, i) => i < was.length && JSON.stringify(step) !== JSON.stringify(was[i]));
  return at === -1 ? null : is[at]!.id;
}

/** Pins a brief to the routines its document uses, as they are now. */
export async function pinRoutines(sql: Sql, brief: string, document: ProcedureDocument): Promise<void> {
  const pins = await pinsFor(sql, document);
  if (pins.length > 0)
    await sql.run('INSERT INTO brief_pin (brief, procedure_id, version, main) VALUES ?', [
      pins.map((pin) => [brief, pin.procedure_id, pin.version, 0]),
    ]);
}
