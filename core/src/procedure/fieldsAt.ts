import { expressionFields } from '../expression/evaluate.ts';
import { templateFields } from '../template/template.ts';
import type { ProcedureDocument } from './document.ts';
import { styleProblems } from './houseStyles.ts';
import { ARTICLE_FIELDS, MAY_BRING } from './itemFields.ts';
import type { CheckContext, FieldUse, Problem } from './kind.ts';
import { type Step, type StepOf, stepKinds } from './registry.ts';
import { serviceProblems } from './services.ts';
import { allSteps, kindOf } from './tree.ts';
import { turnProblems } from './turns.ts';

/** A field a step can see. */
export interface SeenField {
  name: string;
  /** The step that gives it, null when the brief brings it along. */
  from: string | null;
  /** Why it may be missing; null when it is always there. */
  unsure: string | null;
}

/** The field whose parts are the named texts of the house style: `{{ house.shopName }}`. */
export const HOUSE = 'house';

type Env = ReadonlyMap<string, SeenField>;

/** What a walk through the document finds: the fields each step sees, and what is wrong at it. */
interface Found {
  seen: Map<string, Env>;
  problems: Problem[];
  /** What is there once every step is done. */
  end: Env;
}

/**
 * What items bring along into a procedure: by the kinds and settings of the sources it takes from. Several gathered into one
 * brief stand in it as its items; what each brings is there only where they are gone through one by one.
 */
function brought(take: StepOf<'take'>, context: CheckContext | null): SeenField[] {
  const subject: SeenField = { name: 'subject', from: null, unsure: null };
  const each = take.sources.map((id) => context?.brings?.(id) ?? null);
  const known = each.filter((fields) => fields !== null);
  const names = known.length === 0 ? MAY_BRING : known.flatMap((fields) => fields.map(({ name }) => name));
  const several = take.gather !== null;
  const brings = (name: string) => each.every((fields) => fields?.some((one) => one.name === name && one.always));
  return [
    subject,
    ...(several ? [{ name: 'items', from: null, unsure: null }] : []),
    ...[...new Set(names)].map((name): SeenField => {
      if (several) return { name, from: null, unsure: 'it is of each item that is gathered' };
      const always = known.length > 0 && brings(name);
      return { name, from: null, unsure: always ? null : 'not every item brings it along' };
    }),
  ];
}

/** Whether items may bring along what nobody knows of: a source is gone. */
function bringsUnknown(take: StepOf<'take'>, context: CheckContext | null): boolean {
  return context?.brings !== undefined && take.sources.some((id) => context.brings!(id) === null);
}

/** What there is behind two branches; what only one of them gives is there for some briefs alone. */
function eitherWay(holds: Env, otherwise: Env, step: string): SeenField[] {
  return [...holds, ...otherwise].map(([name, field]) => {
    const both = holds.get(name) && otherwise.get(name);
    const reason = holds.get(name)?.unsure ?? otherwise.get(name)?.unsure ?? null;
    return both
      ? { ...field, unsure: reason }
      : { ...field, unsure: field.unsure ?? `step ${step} gives it in one of its branches only` };
  });
}

function walk(document: ProcedureDocument, context: CheckContext | null): Found {
  const found: Found = { seen: new Map(), problems: [], end: new Map() };
  const sure = (name: string, from: string | null): [string, SeenField] => [name, { name, from, unsure: null }];
  const first = document.steps[0];
  const start = new Map<string, SeenField>();
  // What the house style calls by a name is there for every text, whatever style it turns out to be.
  if (context?.names.hasStyles) start.set(...sure(HOUSE, null));
  const open = first?.kind === 'take' && bringsUnknown(first, context);
  if (first?.kind === 'take' && !first.off) for (const field of brought(first, context)) start.set(field.name, field);
  for (const input of document.inputs ?? []) start.set(...sure(input.name, null));

  const unsourced = allSteps(document.steps).some((step) => step.kind === 'write' && !step.off && step.unsourced);
  const sequence = (steps: readonly Step[], env: Env): Env => steps.reduce((now, step) => one(step, now), env);

  const one = (step: Step, env: Env): Env => {
    found.seen.set(step.id, env);
    if (step.off) return env;
    const kind = kindOf(step);
    if (context) found.problems.push(...problemsAt(step, env, context, open, unsourced));
    const after = new Map(env);
    switch (step.kind) {
      case 'when':
        for (const field of eitherWay(sequence(step.holds, env), sequence(step.otherwise, env), step.id))
          after.set(field.name, field);
        return after;
      case 'for each':
        sequence(step.steps, new Map([...env, sure(step.as, step.id)]));
        after.set(...sure(step.name, step.id));
        return after;
      case 'meanwhile':
        sequence(step.steps, env);
        // What the branch made comes back where the block around it ends; the steps beside it do not see it.
        return after;
      case 'use':
        for (const name of context?.routine?.(step.routine)?.outputs ?? []) after.set(...sure(name, step.id));
        return after;
      default: {
        for (const name of kind.gives) after.set(...sure(name, step.id));
        for (const name of kind.also ?? [])
          if (!after.has(name))
            after.set(name, { name, from: step.id, unsure: `‘${step.kind}’ does not always give it` });
        const kept = kind.keeps?.(step);
        if (kept) after.set(...sure(kept, step.id));
        return after;
      }
    }
  };
  found.end = sequence(document.steps, start);
  return found;
}

/** The fields a step sees, by name. */
export function fieldsSeen(
  document: ProcedureDocument,
  step: string,
  context: CheckContext | null = null,
): SeenField[] {
  return fieldsThroughout(document, context)(step);
}

/** The fields each step sees, by name, from one walk through the document; of an article, what texts can say of it too. */
export function fieldsThroughout(
  document: ProcedureDocument,
  context: CheckContext | null = null,
): (step: string) => SeenField[] {
  const { seen } = walk(document, context);
  const told = new Map<string, SeenField[]>();
  return (step) => {
    const known = told.get(step) ?? listed(seen.get(step));
    told.set(step, known);
    return known;
  };
}

function listed(env: Env | undefined): SeenField[] {
  return [...(env?.values() ?? [])]
    .flatMap((field) =>
      field.name === 'article'
        ? [field, ...ARTICLE_FIELDS.map((part) => ({ ...field, name: `article.${part}` }))]
        : [field],
    )
    .sort((a, b) => (a.name < b.name ? -1 : 1));
}

/** What can be told about a procedure without running it: missing fields, missing references, and what each kind finds. */
export function checkProcedure(document: ProcedureDocument, context: CheckContext): Problem[] {
  const first = document.steps[0];
  const fed: Problem[] =
    first && first.kind !== 'take'
      ? [
          {
            step: first.id,
            grade: 'error',
            sentence: 'Nothing feeds this procedure.',
            mend: 'Begin with a step that takes items.',
          },
        ]
      : [];
  return [...fed, ...walk(document, context).problems];
}

/** The fields that are there once every step of a document is done: what a routine can give back. */
export function fieldsAtEnd(document: ProcedureDocument, context: CheckContext): SeenField[] {
  return [...walk(document, context).end.values()].sort((a, b) => (a.name < b.name ? -1 : 1));
}

/** What can be told about a routine without running it: nothing has to feed it, and it must have what it gives back. */
export function checkRoutine(document: ProcedureDocument, context: CheckContext): Problem[] {
  const { problems, end } = walk(document, context);
  const last = document.steps.at(-1)!.id;
  const missing = (document.outputs ?? []).flatMap((name): Problem[] => {
    const field = end.get(name);
    if (!field)
      return [
        {
          step: last,
          grade: 'error',
          sentence: `It should give back ‘${name}’, and no step gives it.`,
          mend: 'Choose something else to be given back, or add a step that gives it.',
        },
      ];
    return field.unsure === null
      ? []
      : [
          {
            step: last,
            grade: 'warning',
            sentence: `It gives back ‘${name}’, which may be missing: ${field.unsure}.`,
            mend: 'Give it in every branch.',
          },
        ];
  });
  return [...problems, ...missing];
}

/** Steps that do without passages where the text may be written without. */
const UNSOURCED: ReadonlySet<string> = new Set(['outline', 'write']);

function problemsAt(step: Step, env: Env, context: CheckContext, open: boolean, unsourced: boolean): Problem[] {
  const kind = kindOf(step);
  const out: Problem[] = [...serviceProblems(step, context), ...styleProblems(step, context), ...turnProblems(step)];
  for (const name of kind.needs) {
    if (unsourced && name === 'passages' && UNSOURCED.has(step.kind)) continue;
    const field = env.get(name);
    if (!field)
      out.push({
        step: step.id,
        grade: 'error',
        sentence: `It needs the ${name}, and no step above gives one.`,
        mend: giver(name),
      });
    else if (field.unsure !== null)
      out.push({
        step: step.id,
        grade: 'warning',
        sentence: `It needs the ${name}, which may be missing: ${field.unsure}.`,
        mend: 'Give it in every branch, or put this step into the branch.',
      });
  }
  for (const use of kind.uses?.(step) ?? []) out.push(...useProblems(step, use, env, open));
  out.push(...kind.check(step, context));
  return out;
}

function useProblems(step: Step, use: FieldUse, env: Env, open: boolean): Problem[] {
  const problem = (grade: Problem['grade'], sentence: string, mend: string): Problem => ({
    step: step.id,
    field: use.field,
    grade,
    sentence,
    mend,
  });
  let names: string[] = [];
  if (use.as === 'name') names = [use.text];
  else if (use.as === 'expression') names = expressionFields(use.text);
  else {
    const read = templateFields(use.text);
    if (!read.ok) return [problem('error', `This text cannot be read: ${read.problem}.`, 'Close its double braces.')];
    names = read.fields;
    for (const [of, part] of read.paths.map((path) => path.split('.')))
      if (of === 'article' && part !== undefined && !ARTICLE_PARTS.has(part))
        return [problem('error', `An article has no ‘${part}’.`, `It has ${ARTICLE_FIELDS.toSorted().join(', ')}.`)];
  }
  return [...new Set(names.map((name) => name.split('.')[0]!))].flatMap((name) => {
    const field = env.get(name);
    if (!field && open) return [];
    if (!field)
      return [
        problem(
          'error',
          `It uses ‘${name}’, and no step above gives it.`,
          env.size === 0 ? giver(name) : `There are ${[...env.keys()].sort().join(', ')}.`,
        ),
      ];
    // What an item may bring is warned about only where nothing would be left without it.
    if (field.unsure === null || (field.from === null && use.as !== 'name')) return [];
    return [
      problem('warning', `It uses ‘${name}’, which may be missing: ${field.unsure}.`, 'Give it in every branch.'),
    ];
  });
}

const ARTICLE_PARTS: ReadonlySet<string> = new Set([...ARTICLE_FIELDS, 'id', 'revision']);

function giver(field: string): string {
  const names = Object.values(stepKinds)
    .filter((kind) => kind.gives.includes(field))
    .map((kind) => `‘${kind.kind}’`);
  return names.length === 0 ? 'Take this step out.' : `Add a step ${names.join(' or ')} above.`;
}
