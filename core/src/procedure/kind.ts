import type { z } from 'zod';
import type { Names, SentencePart } from './sentence.ts';

/** Fields a brief can carry. A step declares which of them it needs and gives. */
export type FieldName =
  | 'subject'
  | 'passages'
  | 'outline'
  | 'article'
  | 'title'
  | 'picture'
  | 'links'
  | 'check'
  | 'publication';

/** Something about a step that will not work or will surprise, found without running it. */
export interface Problem {
  step: string;
  /** The word of the sentence it concerns, when it concerns one. */
  field?: string;
  grade: 'error' | 'warning';
  sentence: string;
  mend: string;
}

export interface CheckContext {
  names: Names;
  hasBlog: (id: string) => boolean;
  hasSource: (id: string) => boolean;
}

export type ServiceRole = 'writer' | 'illustrator' | 'look-up';

/**
 * One kind of step as the core knows it: its document, its sentence, what it needs and gives, and what can be told wrong
 * without running it. How it is done stands on the server, under the same name.
 */
export interface StepKind<Kind extends string, Step> {
  kind: Kind;
  /** Strict schema of the step in a procedure document, `id` and `kind` included. */
  schema: z.ZodType<Step>;
  needs: readonly FieldName[];
  gives: readonly FieldName[];
  /** The service it calls, if any; decides the lane its runs wait in. */
  calls: ServiceRole | null;
  /** Whether it acts on something outside Grivo that a trial must leave alone. */
  effect: boolean;
  /** Whether 'write it again' goes back to it. */
  writes: boolean;
  /** A new step with values that work for most. */
  fresh: (id: string) => Step;
  sentence: (step: Step, names: Names) => SentencePart[];
  check: (step: Step, context: CheckContext) => Problem[];
}
