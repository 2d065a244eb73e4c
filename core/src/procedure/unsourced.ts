import type { ProcedureDocument } from './document.ts';
import { removeStep } from './edit.ts';
import { allSteps } from './tree.ts';

/**
 * The same procedure written from what is generally known: without the steps that look pages up or judge what was found,
 * its 'write' steps doing without sources.
 */
export function withoutSources(document: ProcedureDocument): ProcedureDocument {
  const needless = allSteps(document.steps).filter(
    (step) => step.kind === 'look up' || (step.kind === 'judge' && step.of === 'the sources'),
  );
  const left = needless.reduce((now, { id }) => removeStep(now, id) ?? now, document);
  const all = structuredClone(left);
  for (const step of allSteps(all.steps)) if (step.kind === 'write') step.unsourced = true;
  return all;
}
