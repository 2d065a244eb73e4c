import { fillTemplate, type StepOf } from '@grivo/core';
import type { Performer } from '../engine/performer.ts';
import { passagesById } from '../materials/repository.ts';
import { houseRules, outlinePrompt } from '../writing/prompts.ts';
import { rankPassages } from '../writing/selection.ts';
import { OutlineShape } from '../writing/shapes.ts';
import { field, missing, PassagesField } from './fields.ts';
import { askerOf, serviceFor, type Tools } from './tools.ts';

const MOST_PASSAGES = 40;

/** Has the writer outline the article from the passages. */
export function performOutline(tools: Tools): Performer<StepOf<'outline'>> {
  return async (step, context) => {
    const found = serviceFor(tools, 'writer');
    if (!found.ok) return found.result;
    const ids = field(context.fields, 'passages', PassagesField);
    if (!ids) return missing('passages');
    const instruction = fillTemplate(step.instruction, context.fields);
    if (!instruction.ok) return missing(instruction.problem);
    const numbered = (await passagesById(tools.ground.db, ids)).map((passage, i) => ({ n: i + 1, passage }));
    const language = context.brief.document.language;
    const best = new Set(
      rankPassages(numbered, context.brief.subject, language)
        .slice(0, MOST_PASSAGES)
        .map(({ passage }) => passage.n),
    );
    const shown = numbered.filter(({ n }) => best.has(n));
    const write = context.brief.document.steps.find((other) => other.kind === 'write');
    const reply = await tools.writer.write(
      found.service,
      {
        instructions: houseRules(language),
        material: outlinePrompt({
          subject: context.brief.subject,
          sections: step.sections,
          words: write?.words ?? 1_000,
          instruction: instruction.text,
          passages: shown,
        }),
        name: 'outline',
        shape: OutlineShape,
        maxTokensOut: 1_500,
      },
      askerOf(tools, context),
    );
    if (!reply.ok) return { kind: 'failed', failure: reply.failure };
    context.spent(reply.value.micros);
    const sections = reply.value.value.sections.slice(0, step.sections.to);
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
