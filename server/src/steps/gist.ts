import type { StepOf } from '@grivo/core';
import type { Performer } from '../engine/performer.ts';
import type { Tools } from '../ports/tools.ts';
import { askWriter, instructed, numberedPassages, subjectOf, withNote } from './asking.ts';
import { gistPrompt, houseRules } from './writing/prompts.ts';
import { GistShape } from './writing/shapes.ts';

/** Has the sources summed up and facts picked out of them, each with the passages it stands in. */
export function performGist(tools: Tools): Performer<StepOf<'gist'>> {
  return async (step, context) => {
    const own = await instructed(tools, { instruction: step.instruction }, context);
    if (!own.ok) return own.result;
    const read = await numberedPassages(tools, context);
    if (!read.ok) return read.result;
    const asked = await askWriter(tools, context, {
      instructions: houseRules(context.brief.document.language),
      material: gistPrompt({
        subject: subjectOf(context),
        words: step.words,
        picks: step.picks,
        instruction: withNote(own.texts.instruction, context),
        passages: read.passages,
      }),
      name: 'gist',
      shape: GistShape,
      maxTokensOut: Math.max(600, step.words * 3),
    });
    if (!asked.ok) return asked.result;
    const ids = new Map(read.passages.map(({ n, passage }) => [n, passage.id]));
    return {
      kind: 'done',
      fields: {
        gist: asked.value.gist,
        facts: asked.value.facts.map(({ fact, sort, passages }) => ({
          fact,
          sort,
          passages: passages.flatMap((n) => ids.get(n) ?? []),
        })),
      },
    };
  };
}
