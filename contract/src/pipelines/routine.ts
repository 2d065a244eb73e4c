import { ProcedureDocument } from '@grivo/core';
import { z } from 'zod';
import { Id, Name } from '../id.ts';

/** Steps kept under a name; `inputs` is what they are given, `outputs` the fields they give back. */
export const Routine = z.object({
  id: Id,
  name: z.string(),
  version: z.int(),
  rev: z.int(),
  document: ProcedureDocument,
  sentences: z.array(z.string()),
  /** Pipelines and other routines whose procedure uses it now. */
  usedBy: z.array(z.object({ noun: z.enum(['pipeline', 'routine']), id: Id, name: z.string() })),
});
export type Routine = z.infer<typeof Routine>;
export const Routines = z.object({ routines: z.array(Routine) });
export const NewRoutine = z.strictObject({ name: Name, document: ProcedureDocument });

export const ProcedureText = z.strictObject({ yaml: z.string().max(5_000_000) });
export const ReadProcedure = z.object({ document: ProcedureDocument });
