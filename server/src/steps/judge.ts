import type { StepOf } from '@grivo/core';
import type { Performer } from '../engine/performer.ts';
import { houseRules, judgePrompt } from '../writing/prompts.ts';
import { JudgementShape } from '../writing/shapes.ts';
import { askWriter, filled, numberedPassages, textOfArticle, withNote } from './asking.ts';
import type { Tools } from './tools.ts';

/** Has the writer judge; what falls short goes the way the step says. A reply with no figure was asked for twice. */
export function performJudge(tools: Tools): Performer<StepOf<'judge'>> {
  return async (step, context) => {
    const own = filled({ qualities: step.qualities, instruction: step.instruction }, context);
    if (!own.ok) return own.result;
    const passages = step.of === 'the sources' ? await numberedPassages(tools, context) : null;
    if (passages && !passages.ok) return passages.result;
    const text = step.of === 'the article' ? await textOfArticle(tools, context) : null;
    if (text && !text.ok) return text.result;
    const asked = await askWriter(tools, context, {
      instructions: houseRules(context.brief.document.language),
      material: judgePrompt({
        subject: context.brief.subject,
        of: step.of,
        qualities: own.texts.qualities,
        instruction: withNote(own.texts.instruction, context),
        passages: passages?.passages ?? [],
        text: text?.text ?? null,
      }),
      name: 'judgement',
      shape: JudgementShape,
      maxTokensOut: 300,
    });
    if (!asked.ok) {
      const { failure } = asked.result;
      return failure.code === 'reply-unusable'
        ? { kind: 'failed', failure: { code: 'no-figure', said: failure.problem } }
        : asked.result;
    }
    const judgement = asked.value;
    if (judgement.score >= step.least || step.otherwise === 'go on all the same')
      return { kind: 'done', fields: { judgement } };
    if (step.otherwise === 'hold it for me') return { kind: 'held', fields: { judgement } };
    return { kind: 'done', fields: { judgement }, outcome: { kind: 'set aside' } };
  };
}
