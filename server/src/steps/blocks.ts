import { MOST_TURNS, type StepOf, testHolds, textDigest, textOf, valueAt } from '@grivo/core';
import type { Performer, StepContext, StepResult } from '../engine/performer.ts';
import { missing } from '../nouns/articles/fields.ts';
import type { Tools } from '../ports/tools.ts';
import { filled } from './asking.ts';

/** Takes one branch or the other. */
export const performWhen: Performer<StepOf<'when'>> = async (step, { fields }) => {
  const held = step.tests.map((test) => testHolds(test, fields));
  const holds = step.join === 'all' ? held.every(Boolean) : held.some(Boolean);
  const looked = Object.fromEntries(step.tests.map(({ field }) => [field, kept(valueAt(fields, field))]));
  return { kind: 'done', fields: { holds, looked }, outcome: { kind: 'branch', to: holds ? 'then' : 'otherwise' } };
};

/** A value as it is kept beside a decision: short ones as they are, of long ones the beginning. */
function kept(value: unknown): unknown {
  if (value === undefined) return null;
  const text = textOf(value);
  return text.length > 300 ? text.slice(0, 300) : value;
}

/** One turn for each value, known by the value's digest and its occurrence. */
export const performForEach: Performer<StepOf<'for each'>> = async (step, { fields }) => {
  let values: unknown[] = step.values;
  if (values.length === 0) {
    const value = valueAt(fields, step.from);
    if (value === undefined) return missing(step.from);
    values = Array.isArray(value)
      ? value
      : textOf(value)
          .split(/\n/)
          .map((line) => line.trim())
          .filter((line) => line !== '');
  }
  const seen = new Map<string, number>();
  const keyed = values.slice(0, MOST_TURNS).map((value) => {
    const digest = textDigest(textOf(value));
    const occurrence = seen.get(digest) ?? 0;
    seen.set(digest, occurrence + 1);
    return [occurrence === 0 ? digest : `${digest}x${occurrence}`, value] as const;
  });
  return {
    kind: 'done',
    fields: { values: Object.fromEntries(keyed), leftOut: Math.max(0, values.length - MOST_TURNS) },
    outcome: { kind: 'turns', keys: keyed.map(([key]) => key) },
  };
};

export const performMeanwhile: Performer<StepOf<'meanwhile'>> = async () => ({ kind: 'done', fields: {} });

/** Gives a routine what it is to work with. An input that is one field alone takes it as it is, not as text. */
export function performUse(tools: Pick<Tools, 'ground'>): Performer<StepOf<'use'>> {
  return (step, context) => givenTo(tools, step, context);
}

async function givenTo(tools: Pick<Tools, 'ground'>, step: StepOf<'use'>, context: StepContext): Promise<StepResult> {
  const { fields, brief } = context;
  const routine = brief.routines?.get(step.routine);
  if (!routine) return { kind: 'failed', failure: { code: 'routine-missing', routine: step.routine } };
  const inputs: Record<string, unknown> = {};
  for (const input of routine.inputs ?? []) {
    const text = step.given[input.name];
    if (text === undefined) {
      if (input.otherwise === null) return missing(input.name);
      inputs[input.name] = input.otherwise;
      continue;
    }
    const alone = /^\s*\{\{\s*([A-Za-z][\w.]*)\s*\}\}\s*$/.exec(text)?.[1];
    const value = alone === undefined ? undefined : valueAt(fields, alone);
    if (value !== undefined) {
      inputs[input.name] = value;
      continue;
    }
    const own = await filled(tools, { text }, { ...context, fields });
    if (!own.ok) return own.result;
    inputs[input.name] = own.texts.text;
  }
  return { kind: 'done', fields: { subject: brief.subject, ...inputs } };
}
