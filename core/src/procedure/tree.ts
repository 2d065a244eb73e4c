import type { InnerSteps, StepKind } from './kind.ts';
import { type Step, type StepKindName, stepKinds } from './registry.ts';

export function kindOf(step: Step): StepKind<StepKindName, Step> {
  return stepKinds[step.kind] as unknown as StepKind<StepKindName, Step>;
}

/** The sequences directly inside a step; none for a step that is no block. */
export function innerSteps(step: Step): InnerSteps[] {
  return kindOf(step).inner?.(step) ?? [];
}

/** Every step with how deep it stands, in the order they are read. */
export function readSteps(steps: readonly Step[], depth = 0): { step: Step; depth: number; under: string | null }[] {
  return steps.flatMap((step) => [
    { step, depth, under: null },
    ...innerSteps(step).flatMap(({ under, steps }) =>
      readSteps(steps, depth + 1).map((line, i) => (i === 0 ? { ...line, under: line.under ?? under } : line)),
    ),
  ]);
}

export function allSteps(steps: readonly Step[]): Step[] {
  return readSteps(steps).map(({ step }) => step);
}

/** The document's steps with one step changed, wherever it stands. */
export function mapSteps(steps: readonly Step[], change: (step: Step) => Step): Step[] {
  return steps.map((step) => {
    const changed = change(step);
    const inner = innerSteps(changed);
    if (inner.length === 0) return changed;
    return { ...changed, ...Object.fromEntries(inner.map(({ under, steps }) => [under, mapSteps(steps, change)])) };
  });
}
