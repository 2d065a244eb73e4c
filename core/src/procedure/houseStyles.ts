import type { CheckContext, Problem } from './kind.ts';
import type { Step, StepKindName } from './registry.ts';
import { type Names, optional, type SentencePart } from './sentence.ts';
import { allSteps } from './tree.ts';

/** Steps that keep to a house style. */
const STYLED: ReadonlySet<StepKindName> = new Set([
  'write',
  'title',
  'illustrate',
  'translate',
  'put',
  'link',
  'check',
]);

export const keepsToStyle = ({ kind }: Pick<Step, 'kind'>): boolean => STYLED.has(kind);

/**
 * The house style a step keeps to: the one it names, else the one of its procedure; null when that of the blog is meant.
 */
export function styleNamed(step: Step, procedure: { style?: string | undefined }): string | null {
  return step.style ?? procedure.style ?? null;
}

/** The blog whose house style is meant at a step: the next it is published to, else any it is published to; null without one. */
export function blogMeant(steps: readonly Step[], at: string): string | null {
  const all = allSteps(steps);
  const from = all.findIndex(({ id }) => id === at);
  const publishes = (some: readonly Step[]) =>
    some.find((step) => step.kind === 'publish' && !step.off && step.blog !== '');
  const found = publishes(all.slice(Math.max(0, from))) ?? publishes(all);
  return found?.kind === 'publish' ? found.blog : null;
}

/** The words that name the house style of a step: in the sentence when it names one, else offered where there is one. */
export function styleWords(step: Step, names: Names): SentencePart[] {
  if (!keepsToStyle(step) || (step.style === undefined && names.hasStyles !== true)) return [];
  const word = names.style?.(step.style ?? '') ?? step.style ?? '';
  return optional(
    step.style !== undefined,
    ', in the house style ',
    { word, field: 'style', editor: { type: 'reference', to: 'style' } },
    'another house style',
  );
}

/** A house style that is named and is not there. */
export function styleProblems(step: Step, { hasStyle }: CheckContext): Problem[] {
  if (!hasStyle || step.style === undefined || (keepsToStyle(step) && hasStyle(step.style))) return [];
  return [
    {
      step: step.id,
      field: 'style',
      grade: 'error',
      sentence: keepsToStyle(step) ? 'The house style it names is not there.' : 'This step keeps to no house style.',
      mend: keepsToStyle(step) ? 'Choose another.' : 'Take the house style out.',
    },
  ];
}
