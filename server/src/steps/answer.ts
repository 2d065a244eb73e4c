import { fieldName, type StepOf } from '@grivo/core';
import { z } from 'zod';
import type { Performer } from '../engine/performer.ts';
import type { Tools } from '../ports/tools.ts';
import { askWriter, instructed, numberedPassages, subjectOf, textOfArticle, withNote } from './asking.ts';
import { answerPrompt, houseRules } from './writing/prompts.ts';

type AnswerStep = StepOf<'answer'>;

/** The shape of the reply a form asks for, all of them under one name so that the reply is an object. */
function shapeOf(step: AnswerStep): z.ZodType<{ answer: unknown }> {
  switch (step.form) {
    case 'a text':
      return z.object({ answer: z.string().min(1).describe('the answer as text') });
    case 'a figure':
      return z.object({ answer: z.number().describe('the answer as a figure') });
    case 'a list':
      return z.object({ answer: z.array(z.string()).min(1).describe('the answer as a list of short texts') });
    case 'a record':
      return z.object({
        answer: z.object(
          Object.fromEntries(step.parts.map((part) => [fieldName.parse(part), z.string().describe(part)])),
        ),
      });
  }
}

/** An answer as long as an article; what is paid is what is said. */
const MOST_TOKENS = 8_000;

/** Has the writer answer an instruction of one's own and keeps what it says as a field. */
export function performAnswer(tools: Tools): Performer<AnswerStep> {
  return async (step, context) => {
    const own = await instructed(tools, { instruction: step.instruction }, context);
    if (!own.ok) return own.result;
    const passages = step.reading === 'the sources' ? await numberedPassages(tools, context) : null;
    if (passages && !passages.ok) return passages.result;
    const text = step.reading === 'the article' ? await textOfArticle(tools, context) : null;
    if (text && !text.ok) return text.result;
    const asked = await askWriter(tools, context, {
      instructions: houseRules(context.brief.document.language),
      material: answerPrompt({
        subject: subjectOf(context),
        form: step.form,
        parts: step.parts,
        instruction: withNote(own.texts.instruction, context),
        examples: step.examples,
        passages: passages?.passages ?? [],
        text: text?.text ?? null,
      }),
      name: 'answer',
      shape: shapeOf(step),
      maxTokensOut: step.form === 'a figure' ? 200 : MOST_TOKENS,
    });
    if (asked.ok) return { kind: 'done', fields: { [step.as]: asked.value.answer } };
    const { failure } = asked.result;
    return step.form === 'a figure' && failure.code === 'reply-unusable'
      ? { kind: 'failed', failure: { code: 'no-figure', said: failure.problem } }
      : asked.result;
  };
}
