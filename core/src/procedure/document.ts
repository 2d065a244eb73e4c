import { z } from 'zod';
import { LanguageTag } from '../language/tag.ts';
import type { PlanNode } from '../plan/node.ts';
import { MOST_IN_SEQUENCE } from './anySteps.ts';
import { fieldName } from './fields.ts';
import { styleWords } from './houseStyles.ts';
import { AnyStep, type Step, stepKinds } from './registry.ts';
import type { Names, SentencePart } from './sentence.ts';
import { CHOSEN_ROLES, serviceWords } from './services.ts';
import { innerSteps, kindOf, mapSteps, readSteps } from './tree.ts';

/** Blocks inside blocks, at most. */
export const DEEPEST = 8;
export const MOST_STEPS = 300;

/** Something the person is asked for at each run; it becomes a field. */
export const ProcedureInput = z.strictObject({
  name: z.string().regex(/^[a-z][A-Za-z0-9]{0,39}$/, 'a name as audience'),
  /** How it is asked for. */
  asks: z.string().trim().min(1).max(200),
  /** Given when nothing is typed; null makes it one that must be given. */
  otherwise: z.string().max(5_000).nullable(),
});
export type ProcedureInput = z.infer<typeof ProcedureInput>;

/** A procedure: its steps as one document, the same in the database and in files. */
export const ProcedureDocument = z
  .strictObject({
    grivo: z.literal(1),
    /** Two-letter language the articles are written in. */
    language: LanguageTag,
    /** Asked for at each run; of a routine, what it is given. */
    inputs: z.array(ProcedureInput).max(20).optional(),
    /** Of a routine: the fields it gives back. */
    outputs: z.array(fieldName).max(20).optional(),
    /** The services its steps use, where they name none; absent, those of the installation. */
    services: z.partialRecord(z.enum(CHOSEN_ROLES), z.string().max(20)).optional(),
    /** The house style its steps keep to, where they name none; absent, that of the blog. */
    style: z.string().max(20).optional(),
    steps: z.array(AnyStep).min(1).max(MOST_IN_SEQUENCE),
  })
  .superRefine((document, context) => {
    const seen = new Set<string>();
    const walk = (steps: readonly Step[], path: (string | number)[], depth: number): void => {
      for (const [at, step] of steps.entries()) {
        const place = [...path, at];
        const issue = (where: string, message: string) =>
          context.addIssue({ code: 'custom', path: [...place, where], message });
        if (seen.has(step.id)) issue('id', `the id ${step.id} is used twice`);
        seen.add(step.id);
        if (step.kind === 'take' && (at > 0 || depth > 0)) issue('kind', 'take must be the first step');
        if (depth >= DEEPEST && innerSteps(step).length > 0)
          issue('kind', `blocks may stand at most ${DEEPEST} deep in one another`);
        else for (const { under, steps } of innerSteps(step)) walk(steps, [...place, under], depth + 1);
      }
    };
    walk(document.steps, ['steps'], 0);
    if (seen.size > MOST_STEPS)
      context.addIssue({ code: 'custom', path: ['steps'], message: `more than ${MOST_STEPS} steps` });
  });
export type ProcedureDocument = z.infer<typeof ProcedureDocument>;

/** The sentence of a step, generated from its kind. */
export function sentenceOf(step: Step, names: Names): SentencePart[] {
  const own = [...kindOf(step).sentence(step, names), ...serviceWords(step, names), ...styleWords(step, names)];
  return step.hold ? [...own, { text: '; hold here for me' }] : own;
}

/** Every step as it is read: how deep it stands, under which word of its block, and its sentence. */
export function readProcedure(document: ProcedureDocument, names: Names) {
  return readSteps(document.steps).map((line) => ({ ...line, sentence: sentenceOf(line.step, names) }));
}

/** Routines by id, as a brief is pinned to them. */
export type Routines = ReadonlyMap<string, ProcedureDocument>;
const NO_ROUTINES: Routines = new Map();

/**
 * The steps a brief runs, with those of its routines in place of the steps that use them: all but 'take', which made the
 * brief. A routine's steps are known by the id of the step that uses it before their own, so that none meets another.
 */
export function runSteps(document: ProcedureDocument, routines: Routines = NO_ROUTINES): Step[] {
  const out: Step[] = [];
  const walk = (steps: readonly Step[]): void => {
    for (const step of steps) {
      out.push(step);
      for (const { steps } of innerSteps(step)) walk(steps);
      if (step.kind === 'use') walk(routineSteps(step, routines));
    }
  };
  walk(document.steps.filter((step) => step.kind !== 'take'));
  return out;
}

/** The same as the planner sees it. */
export function planNodes(document: ProcedureDocument, routines: Routines = NO_ROUTINES): PlanNode[] {
  return nodesOf(document.steps, routines);
}

function routineSteps(use: Extract<Step, { kind: 'use' }>, routines: Routines): Step[] {
  return mapSteps(routines.get(use.routine)?.steps ?? [], (step) => ({ ...step, id: `${use.id}_${step.id}` }));
}

function nodesOf(steps: readonly Step[], routines: Routines): PlanNode[] {
  return steps
    .filter((step) => step.kind !== 'take')
    .map((step): PlanNode => {
      const { id, off } = step;
      const inside = (steps: readonly Step[]) => nodesOf(steps, routines);
      switch (step.kind) {
        case 'when':
          return { type: 'when', id, off, holds: inside(step.holds), otherwise: inside(step.otherwise) };
        case 'for each':
          return { type: 'each', id, off, body: inside(step.steps) };
        case 'meanwhile':
          return {
            type: 'meanwhile',
            id,
            off,
            body: inside(step.steps),
            goOnWithout: step.ifStopped !== 'wait for it',
          };
        case 'use':
          return { type: 'use', id, off, body: inside(routineSteps(step, routines)) };
        default:
          return { type: 'step', id, off, writes: stepKinds[step.kind].writes };
      }
    });
}

/** The routines a document uses itself. */
export function routinesUsed(document: ProcedureDocument): string[] {
  const used = readSteps(document.steps).flatMap(({ step }) => (step.kind === 'use' ? [step.routine] : []));
  return [...new Set(used)];
}

/**
 * The way round a cycle of routines, as their ids from the first to itself again; null when there is none.
 * @param of the document of a routine, null when it is not there
 */
export function routineCycle(
  id: string,
  document: ProcedureDocument,
  of: (id: string) => ProcedureDocument | null,
): string[] | null {
  const walk = (at: ProcedureDocument, way: readonly string[]): string[] | null => {
    for (const next of routinesUsed(at)) {
      if (way.includes(next)) return [...way.slice(way.indexOf(next)), next];
      const inner = of(next);
      const found = inner ? walk(inner, [...way, next]) : null;
      if (found) return found;
    }
    return null;
  };
  return walk(document, [id]);
}
