import type { StepOf } from '@grivo/core';
import type { Performer } from '../engine/performer.ts';
import { passagesById } from '../materials/repository.ts';
import { houseRules, outlinePrompt } from '../writing/prompts.ts';
import { rankPassages } from '../writing/selection.ts';
import { OutlineShape } from '../writing/shapes.ts';
import { askWriter, filled, withNote } from './asking.ts';
import { field, missing, PassagesField } from './fields.ts';
import type { Tools } from './tools.ts';

const MOST_PASSAGES = 40;

/** Has the writer outline the article from the passages. */
export function performOutline(tools: Tools): Performer<StepOf<'outline'>> {
  return async (step, context) => {
    const ids = field(context.fields, 'passages', PassagesField);
    if (!ids) return missing('passages');
    const own = filled({ instruction: step.instruction }, context);
    if (!own.ok) return own.result;
    const numbered = (await passagesById(tools.ground.db, ids)).map((passage, i) => ({ n: i + 1, passage }));
    const language = context.brief.document.language;
    const best = new Set(
      rankPassages(numbered, context.brief.subject, language)
        .slice(0, MOST_PASSAGES)
        .map(({ passage }) => passage.n),
    );
    const shown = numbered.filter(({ n }) => best.has(n));
    const write = [...context.brief.steps.values()].find((other) => other.kind === 'write');
    const asked = await askWriter(tools, context, {
      instructions: houseRules(language),
      material: outlinePrompt({
        subject: context.brief.subject,
        sections: step.sections,
        words: write?.words ?? 1_000,
        instruction: withNote(own.texts.instruction, context),
        examples: step.examples,
        passages: shown,
      }),
      name: 'outline',
      shape: OutlineShape,
      maxTokensOut: 1_500,
    });
    if (!asked.ok) return asked.result;
    const sections = asked.value.sections.slice(0, step.sections.to);
    return {
      kind: 'done',
      fields: {
        outline: sections.map(({ heading, says, passages }) => ({
          heading,
          says,
          passages: passages.flatMap((n) => numbered[n - 1]?.passage.id ?? []),
        })),
      },
    };
  };
}
