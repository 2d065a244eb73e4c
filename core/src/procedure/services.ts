import type { CheckContext, Problem, ServiceRole } from './kind.ts';
import type { Step } from './registry.ts';
import { type Names, optional, type SentencePart } from './sentence.ts';
import { kindOf } from './tree.ts';

/** Services a procedure may choose for all its steps, and a step for itself. */
export const CHOSEN_ROLES = ['writer', 'illustrator', 'transcriber', 'look-up'] as const satisfies ServiceRole[];
export type ChosenRole = (typeof CHOSEN_ROLES)[number];

type Services = { services?: Partial<Record<ChosenRole, string>> | undefined };

function chosenRole(step: Step): ChosenRole | null {
  const { calls } = kindOf(step);
  return CHOSEN_ROLES.find((role) => role === calls) ?? null;
}

/** The service a step names, or its procedure for it; null when the installation's is meant. */
export function serviceNamed(step: Step, procedure: Services): string | null {
  const role = chosenRole(step);
  return role === null ? null : (step.service ?? procedure.services?.[role] ?? null);
}

const SAYS: Record<ChosenRole, { by: string; add: string }> = {
  writer: { by: ', by ', add: 'another writer' },
  illustrator: { by: ', drawn by ', add: 'another illustrator' },
  transcriber: { by: ', heard by ', add: 'another transcriber' },
  'look-up': { by: ', found by ', add: 'another look-up service' },
};

/** The words that name the service of a step: in the sentence when it names one, else offered where there are several. */
export function serviceWords(step: Step, names: Names): SentencePart[] {
  const role = chosenRole(step);
  if (role === null || (step.service === undefined && names.choosable?.(role) !== true)) return [];
  const word = names.service?.(step.service ?? '') ?? step.service ?? '';
  return optional(
    step.service !== undefined,
    SAYS[role].by,
    { word, field: 'service', editor: { type: 'service', role } },
    SAYS[role].add,
  );
}

/** A service that is named and is not there, or does something else. */
export function serviceProblems(step: Step, { hasService }: CheckContext): Problem[] {
  const role = chosenRole(step);
  if (!hasService || step.service === undefined || (role !== null && hasService(step.service, role))) return [];
  return [
    {
      step: step.id,
      field: 'service',
      grade: 'error',
      sentence: role === null ? 'This step calls no service.' : `The ${role} it names is not there.`,
      mend: role === null ? 'Take the service out.' : 'Choose another.',
    },
  ];
}
