import { z } from 'zod';
import type { PlanNode } from '../plan/node.ts';
import type { CheckContext, FieldName, Problem, StepKind } from './kind.ts';
import { type Step, type StepKindName, stepKinds } from './registry.ts';
import type { Names, SentencePart } from './sentence.ts';

const stepSchema = z.discriminatedUnion('kind', [
  stepKinds.take.schema as never,
  ...Object.values(stepKinds)
    .filter((kind) => kind.kind !== 'take')
    .map((kind) => kind.schema as never),
]) as unknown as z.ZodType<Step>;

/** A procedure: its steps as one document, the same in the database and in files. */
export const ProcedureDocument = z
  .strictObject({
    grivo: z.literal(1),
    /** Two-letter language the articles are written in. */
    language: z.string().regex(/^[a-z]{2}$/, 'a language as en'),
    steps: z.array(stepSchema).min(1).max(100),
  })
  .superRefine((document, context) => {
    const seen = new Set<string>();
    document.steps.forEach((step, at) => {
      if (seen.has(step.id))
        context.addIssue({ code: 'custom', path: ['steps', at, 'id'], message: `the id ${step.id} is used twice` });
      seen.add(step.id);
      if (step.kind === 'take' && at > 0)
        context.addIssue({ code: 'custom', path: ['steps', at, 'kind'], message: 'take must be the first step' });
    });
  });
export type ProcedureDocument = z.infer<typeof ProcedureDocument>;

function kindOf(step: Step): StepKind<StepKindName, Step> {
  return stepKinds[step.kind] as unknown as StepKind<StepKindName, Step>;
}

/** The sentence of a step, generated from its kind. */
export function sentenceOf(step: Step, names: Names): SentencePart[] {
  return kindOf(step).sentence(step, names);
}

/** The steps a brief runs: all but 'take', which made the brief. */
export function planNodes(document: ProcedureDocument): PlanNode[] {
  return document.steps
    .filter((step) => step.kind !== 'take')
    .map((step) => ({ type: 'step', id: step.id, off: step.off, writes: stepKinds[step.kind].writes }));
}

/** What can be told about a procedure without running it: missing fields, missing references, and what each kind finds. */
export function checkProcedure(document: ProcedureDocument, context: CheckContext): Problem[] {
  const given = new Set<FieldName>();
  const out: Problem[] = [];
  const first = document.steps[0];
  if (first && first.kind !== 'take') {
    out.push({
      step: first.id,
      grade: 'error',
      sentence: 'Nothing feeds this procedure.',
      mend: 'Begin with a step that takes items.',
    });
  }
  for (const step of document.steps) {
    if (step.off) continue;
    const kind = kindOf(step);
    for (const field of kind.needs) {
      if (given.has(field)) continue;
      out.push({
        step: step.id,
        grade: 'error',
        sentence: `It needs the ${field}, and no step above gives one.`,
        mend: giver(field),
      });
    }
    out.push(...kind.check(step, context));
    for (const field of kind.gives) given.add(field);
  }
  return out;
}

function giver(field: FieldName): string {
  const names = Object.values(stepKinds)
    .filter((kind) => (kind.gives as readonly FieldName[]).includes(field))
    .map((kind) => `‘${kind.kind}’`);
  return names.length === 0 ? 'Take this step out.' : `Add a step ${names.join(' or ')} above.`;
}
