import type { z } from 'zod';
import type { ItemField } from './itemFields.ts';
import type { Step } from './registry.ts';
import type { Names, SentencePart } from './sentence.ts';

/** Something about a step that will not work or will surprise, found without running it. */
export interface Problem {
  step: string;
  /** The word of the sentence it concerns, when it concerns one. */
  field?: string;
  grade: 'error' | 'warning';
  sentence: string;
  mend: string;
}

/** What a routine looks like from outside. */
export interface RoutineForm {
  inputs: readonly { name: string; otherwise: string | null }[];
  outputs: readonly string[];
}

export interface CheckContext {
  names: Names;
  hasBlog: (id: string) => boolean;
  /** Whether a service fills a role; absent where services are not known. */
  hasService?: (id: string, role: ServiceRole) => boolean;
  hasSource: (id: string) => boolean;
  /** Absent where house styles are not known. */
  hasStyle?: (id: string) => boolean;
  /** Absent where destinations are not known. */
  hasDestination?: (id: string) => boolean;
  /** What items of a source bring along; null when it is not known. */
  brings?: (source: string) => readonly ItemField[] | null;
  /** What a routine takes and gives, null when it is not there. */
  routine?: (id: string) => RoutineForm | null;
}

export type ServiceRole =
  | 'writer'
  | 'illustrator'
  | 'look-up'
  | 'video host'
  | 'keyword service'
  | 'transcriber'
  | 'picture library';

/** A text of a step that speaks of fields: a Liquid text, an expression, or the plain name of a field or a part of one. */
export interface FieldUse {
  /** The word of the sentence it stands in. */
  field: string;
  as: 'template' | 'expression' | 'name';
  text: string;
}

/** Steps inside a step. */
export interface InnerSteps {
  /** The property of the document they stand under. */
  under: string;
  steps: readonly Step[];
}

/** A figure a step gives, by which one of its words lets a brief through or not. */
export interface PastMeasure<S> {
  /** The word, as the figure's limit. */
  field: keyof S & string;
  /** What the figures are, as in 'of the last 40 scores'. */
  of: string;
  /** The figure in what a run of the step gave, null when it gave none. */
  figure: (gave: Readonly<Record<string, unknown>>) => number | null;
  /** Whether the step as it is now would let the figure pass. */
  passes: (step: S, figure: number) => boolean;
}

/** What a step looked at in past briefs, by which its words lead a brief one way or the other. */
export interface PastFilter<S> {
  field: keyof S & string;
  /** The values a run of the step looked at, by field, null when they were not kept. */
  seen: (gave: Readonly<Record<string, unknown>>) => Readonly<Record<string, unknown>> | null;
  /** Which way the step as it is now would lead, null when it looks at something it did not look at then. */
  holds: (step: S, seen: Readonly<Record<string, unknown>>) => boolean | null;
}

/**
 * One kind of step as the core knows it: its document, its sentence, what it needs and gives, and what can be told wrong
 * without running it. How it is done stands on the server, under the same name.
 */
export interface StepKind<Kind extends string, S> {
  kind: Kind;
  /** What it does, in a line that goes on from its name: 'writes the article section by section'. */
  does: string;
  /** Strict schema of the step in a procedure document, `id` and `kind` included. */
  schema: z.ZodType<S>;
  needs: readonly string[];
  gives: readonly string[];
  /** What it gives besides in some cases: a text may speak of it, a step may not rest on it. */
  also?: readonly string[];
  /** The name a step keeps its result under, when that is chosen in the document. */
  keeps?: (step: S) => string;
  /** Texts that speak of fields. */
  uses?: (step: S) => FieldUse[];
  /** Steps inside it, for blocks. */
  inner?: (step: S) => InnerSteps[];
  /** The service it calls, if any; decides the lane its runs wait in. */
  calls: ServiceRole | null;
  /** Whether it acts on something outside Grivo that a trial must leave alone. */
  effect: boolean;
  /** Whether 'write it again' goes back to it. */
  writes: boolean;
  /** A new step with values that work for most. */
  fresh: (id: string) => S;
  /** Figures of past briefs that tell what another value of a word would have done. */
  past?: readonly PastMeasure<S>[];
  /** What was looked at in past briefs, for words that part them. */
  pastFilter?: PastFilter<S>;
  sentence: (step: S, names: Names) => SentencePart[];
  check: (step: S, context: CheckContext) => Problem[];
}
