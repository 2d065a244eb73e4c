import { MOST_IN_SEQUENCE } from './anySteps.ts';
import { DEEPEST, MOST_STEPS, type ProcedureDocument } from './document.ts';
import { type Step, type StepKindName, stepKinds } from './registry.ts';
import { allSteps, innerSteps, mapSteps } from './tree.ts';

/** Where a step stands or may be put: a sequence and the position in it. */
export interface Place {
  /** The block the sequence belongs to, null for the procedure itself. */
  inside: string | null;
  /** The property of the block that holds the sequence. */
  under: string;
  at: number;
}

/** A line of a procedure as it is read: a step, or a sequence of a block that has none yet. */
export type Line = {
  /** The step's id, or of an empty sequence `block/property`. */
  key: string;
  depth: number;
  place: Place;
  /** Said before the first line of a sequence that is not its block's first. */
  under: string | null;
} & ({ step: Step } | { step: null });

/**
 * All edits give the document anew, or null when they cannot be done; asking is doing it and not keeping the result. None
 * changes the id of a step that stays, so what briefs did by it is still known.
 */
type Edited = ProcedureDocument | null;

const TOP = 'steps';

export function linesOf(document: ProcedureDocument): Line[] {
  const lines: Line[] = [];
  const walk = (steps: readonly Step[], inside: string | null, under: string, depth: number, says: string | null) => {
    if (steps.length === 0 && inside !== null)
      lines.push({ key: `${inside}/${under}`, depth, place: { inside, under, at: 0 }, under: says, step: null });
    for (const [at, step] of steps.entries()) {
      lines.push({ key: step.id, depth, place: { inside, under, at }, under: at === 0 ? says : null, step });
      for (const [n, inner] of innerSteps(step).entries())
        walk(inner.steps, step.id, inner.under, depth + 1, n > 0 ? inner.under : null);
    }
  };
  walk(document.steps, null, TOP, 0, null);
  return lines;
}

/** Every place a step can be put, in reading order, each with the line it comes after (the line itself when it is empty). */
export function placesOf(document: ProcedureDocument): { place: Place; after: string | null; depth: number }[] {
  const out: { place: Place; after: string | null; depth: number }[] = [];
  let last: string | null = null;
  const walk = (steps: readonly Step[], inside: string | null, under: string, depth: number) => {
    const put = (at: number) => out.push({ place: { inside, under, at }, after: last, depth });
    if (steps.length === 0 && inside !== null) last = `${inside}/${under}`;
    put(0);
    for (const [at, step] of steps.entries()) {
      last = step.id;
      for (const inner of innerSteps(step)) walk(inner.steps, step.id, inner.under, depth + 1);
      put(at + 1);
    }
  };
  walk(document.steps, null, TOP, 0);
  return out;
}

export function placeOf(document: ProcedureDocument, id: string): Place | null {
  return linesOf(document).find((line) => line.step?.id === id)?.place ?? null;
}

/** An id no step has: 's' and a number above all there are. */
export function nextStepId(document: ProcedureDocument): string {
  return `s${Math.max(0, ...allSteps(document.steps).map(({ id }) => Number(/^s(\d+)$/.exec(id)?.[1] ?? 0))) + 1}`;
}

export function insertStep(document: ProcedureDocument, place: Place, step: Step): Edited {
  return standing(
    inSequence(document, place, (steps) => [
      ...steps.slice(0, place.at),
      spokenTo(document, place, step),
      ...steps.slice(place.at),
    ]),
  );
}

/** A translation in the turns of a block puts into what each turn is for. */
function spokenTo(document: ProcedureDocument, { inside }: Place, step: Step): Step {
  if (step.kind !== 'translate') return step;
  for (let id = inside; id !== null; id = placeOf(document, id)?.inside ?? null) {
    const around = stepWith(document, id);
    if (around?.kind === 'for each') return { ...step, into: `{{ ${around.as} }}` };
  }
  return step;
}

/** A step goes with everything inside it. */
export function removeStep(document: ProcedureDocument, id: string): Edited {
  const place = placeOf(document, id);
  if (!place || stepWith(document, id)?.kind === 'take') return null;
  return standing(inSequence(document, place, (steps) => steps.filter((step) => step.id !== id)));
}

/** @param to as the document is now, the step still in its old place */
export function moveStep(document: ProcedureDocument, id: string, to: Place): Edited {
  const from = placeOf(document, id);
  const step = stepWith(document, id);
  if (!from || !step || step.kind === 'take') return null;
  if (to.inside !== null && allSteps([step]).some((one) => one.id === to.inside)) return null;
  const same = from.inside === to.inside && from.under === to.under;
  const at = same && to.at > from.at ? to.at - 1 : to.at;
  if (same && at === from.at) return null;
  const without = inSequence(document, from, (steps) => steps.filter((one) => one.id !== id));
  return without && insertStep(without, { ...to, at }, step);
}

/** One place up or down as it is read: into a block that comes next, out of one at its end. */
export function shiftStep(document: ProcedureDocument, id: string, by: 1 | -1): Edited {
  const from = placeOf(document, id);
  const step = stepWith(document, id);
  if (!from || !step || step.kind === 'take') return null;
  const without = inSequence(document, from, (steps) => steps.filter((one) => one.id !== id));
  if (!without) return null;
  const places = placesOf(without).map(({ place }) => place);
  const now = places.findIndex((place) => samePlace(place, from));
  const to = places[now + by];
  return to ? insertStep(without, to, step) : null;
}

/** Into the block just above it, as its last. */
export function indentStep(document: ProcedureDocument, id: string): Edited {
  const place = placeOf(document, id);
  const above = place && sequenceAt(document, place)?.[place.at - 1];
  const inner = above && innerSteps(above).at(above.kind === 'when' && above.otherwise.length === 0 ? 0 : -1);
  return inner ? moveStep(document, id, { inside: above.id, under: inner.under, at: inner.steps.length }) : null;
}

/** Out of its block, to the place after it. */
export function outdentStep(document: ProcedureDocument, id: string): Edited {
  const place = placeOf(document, id);
  const around = place?.inside ? placeOf(document, place.inside) : null;
  return around && moveStep(document, id, { ...around, at: around.at + 1 });
}

export const BLOCK_KINDS = ['when', 'for each', 'meanwhile'] as const;
export type BlockKind = (typeof BLOCK_KINDS)[number];

/** Puts steps that follow one another into a new block where they stand. */
export function wrapSteps(document: ProcedureDocument, ids: readonly string[], kind: BlockKind): Edited {
  const place = ids[0] === undefined ? null : placeOf(document, ids[0]);
  const steps = place && sequenceAt(document, place)?.slice(place.at, place.at + ids.length);
  if (!place || !steps || steps.some((step, i) => step.id !== ids[i] || step.kind === 'take')) return null;
  const block = stepKinds[kind].fresh(nextStepId(document));
  const [first] = innerSteps(block);
  const filled = { ...block, [first!.under]: [...steps] } as Step;
  return standing(
    inSequence(document, place, (all) => [...all.slice(0, place.at), filled, ...all.slice(place.at + ids.length)]),
  );
}

/** Puts what stands in a block in the block's place. */
export function unwrapStep(document: ProcedureDocument, id: string): Edited {
  const step = stepWith(document, id);
  const inner = step ? innerSteps(step) : [];
  const place = placeOf(document, id);
  if (!place || inner.length === 0) return null;
  return standing(
    inSequence(document, place, (steps) =>
      steps.flatMap((one) => (one.id === id ? inner.flatMap((sequence) => [...sequence.steps]) : [one])),
    ),
  );
}

/** The same step once more, below it; everything inside it gets new ids. */
export function duplicateStep(document: ProcedureDocument, id: string): Edited {
  const place = placeOf(document, id);
  const step = stepWith(document, id);
  if (!place || !step || step.kind === 'take') return null;
  let next = Number(nextStepId(document).slice(1));
  const [copy] = mapSteps([step], (one) => ({ ...one, id: `s${next++}` }));
  return insertStep(document, { ...place, at: place.at + 1 }, copy!);
}

/**
 * Another kind in the same place. What has the same name and is allowed there is kept, and so is what stands inside a
 * block; a block with steps inside becomes no plain step, since they would be lost.
 */
export function changeKind(document: ProcedureDocument, id: string, kind: StepKindName): Edited {
  const step = stepWith(document, id);
  if (!step || step.kind === 'take' || kind === 'take' || step.kind === kind) return null;
  const inside = innerSteps(step).flatMap(({ steps }) => [...steps]);
  let next = stepKinds[kind].fresh(id) as Step;
  for (const [name, value] of Object.entries(step)) {
    if (name === 'kind' || innerSteps(step).some(({ under }) => under === name)) continue;
    const read = stepKinds[kind].schema.safeParse({ ...next, [name]: value });
    if (read.success) next = read.data as Step;
  }
  const [first] = innerSteps(next);
  if (inside.length > 0 && !first) return null;
  if (first) next = { ...next, [first.under]: inside } as Step;
  return standing(withStep(document, id, () => next));
}

/** Off: passed over, as if it were not there. */
export function switchStep(document: ProcedureDocument, id: string): Edited {
  const step = stepWith(document, id);
  return step && step.kind !== 'take' ? withStep(document, id, (one) => ({ ...one, off: !one.off })) : null;
}

/** Whether a person looks at what the step gives before it goes on. */
export function holdStep(document: ProcedureDocument, id: string): Edited {
  return mayHold(document, id)
    ? withStep(document, id, ({ hold, ...one }) => (hold ? one : { ...one, hold: true }) as Step)
    : null;
}

/** Kinds with nothing to be held: they only say what comes next, or hold already. */
const NO_HOLD: ReadonlySet<string> = new Set([
  'take',
  'when',
  'for each',
  'meanwhile',
  'use',
  'wait',
  'hold',
  'publish',
]);

function mayHold(document: ProcedureDocument, id: string): boolean {
  const step = stepWith(document, id);
  return step !== null && !NO_HOLD.has(step.kind);
}

/** The document with one word of one step changed. */
export function withWord(document: ProcedureDocument, id: string, field: string, value: unknown): ProcedureDocument {
  return withStep(document, id, (step) => ({ ...step, [field]: value }) as Step);
}

export function stepWith(document: ProcedureDocument, id: string): Step | null {
  return allSteps(document.steps).find((step) => step.id === id) ?? null;
}

function withStep(document: ProcedureDocument, id: string, change: (step: Step) => Step): ProcedureDocument {
  return { ...document, steps: mapSteps(document.steps, (step) => (step.id === id ? change(step) : step)) };
}

function samePlace(a: Place, b: Place): boolean {
  return a.inside === b.inside && a.under === b.under && a.at === b.at;
}

function sequenceAt(document: ProcedureDocument, { inside, under }: Place): readonly Step[] | null {
  if (inside === null) return document.steps;
  const block = stepWith(document, inside);
  return (block && innerSteps(block).find((inner) => inner.under === under)?.steps) ?? null;
}

function inSequence(
  document: ProcedureDocument,
  place: Place,
  change: (steps: readonly Step[]) => readonly Step[],
): Edited {
  const steps = sequenceAt(document, place);
  if (!steps) return null;
  const changed = [...change(steps)];
  if (place.inside === null) return { ...document, steps: changed };
  return withStep(document, place.inside, (block) => ({ ...block, [place.under]: changed }) as Step);
}

/** What the document's schema asks of the order and depth of steps. */
function standing(document: Edited): Edited {
  if (!document || document.steps.length === 0) return null;
  const lines = linesOf(document).filter((line) => line.step !== null);
  if (lines.length > MOST_STEPS) return null;
  const ok = lines.every(
    ({ step, depth, place }) =>
      place.at < MOST_IN_SEQUENCE &&
      (step?.kind !== 'take' || (depth === 0 && place.at === 0)) &&
      (depth < DEEPEST || !step || innerSteps(step).length === 0),
  );
  return ok ? document : null;
}
