import type { Problem } from './kind.ts';
import type { Step } from './registry.ts';
import { allSteps, kindOf } from './tree.ts';

/** A block whose turns would all do the same, since nothing in it speaks of the value. */
export function turnProblems(step: Step): Problem[] {
  if (step.kind !== 'for each') return [];
  const inner = allSteps(step.steps).filter((one) => !one.off);
  if (
    inner.length === 0 ||
    inner.some((one) =>
      kindOf(one)
        .uses?.(one)
        .some(({ text }) => text.split(/[^\p{L}\p{N}]+/u).includes(step.as)),
    )
  )
    return [];
  const translates = inner.find((one) => one.kind === 'translate');
  return [
    {
      step: translates?.id ?? step.id,
      field: translates ? 'into' : 'as',
      grade: 'warning',
      sentence: `Every turn does the same: nothing in it speaks of ‘${step.as}’.`,
      mend: translates
        ? `Put it into {{ ${step.as} }}, so that each turn has its own language.`
        : `Write {{ ${step.as} }} in a step under it, where the value belongs.`,
    },
  ];
}
