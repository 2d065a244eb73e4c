import { z } from 'zod';
import { examples, fieldName, stepBase } from '../fields.ts';
import type { StepKind } from '../kind.ts';
import { beginning } from '../sentence.ts';

export const ANSWER_FORMS = ['a text', 'a figure', 'a list', 'a record'] as const;

const schema = z.strictObject({
  ...stepBase,
  kind: z.literal('answer'),
  /** What the writer is to answer: a Liquid text. */
  instruction: z.string().max(20_000),
  examples,
  form: z.enum(ANSWER_FORMS),
  /** The parts of a record. */
  parts: z.array(fieldName).max(20),
  /** The name it is kept under. */
  as: fieldName,
  /** Whether the passages found so far are given along. */
  reading: z.enum(['the sources', 'the article', 'nothing besides']),
});
export type AnswerStep = z.infer<typeof schema>;

const FORMS: Record<AnswerStep['form'], string> = {
  'a text': 'one text',
  'a figure': 'one figure; a reply without one is asked again, then stops this brief only',
  'a list': 'texts, one a line',
  'a record': 'parts by the names you give',
};
const READING: Record<AnswerStep['reading'], string> = {
  'the sources': 'the passages found or read so far',
  'the article': 'the text as it stands now',
  'nothing besides': 'only the instruction',
};

export const answer: StepKind<'answer', AnswerStep> = {
  kind: 'answer',
  does: 'asks the writer anything and keeps the reply',
  schema,
  needs: [],
  gives: [],
  keeps: (step) => step.as,
  uses: (step) => [
    { field: 'instruction', as: 'template', text: step.instruction },
    ...(step.reading === 'nothing besides'
      ? []
      : [{ field: 'reading', as: 'name' as const, text: step.reading === 'the article' ? 'article' : 'passages' }]),
  ],
  calls: 'writer',
  effect: false,
  writes: false,
  fresh: (id) => ({
    id,
    kind: 'answer',
    off: false,
    instruction: 'What is the one thing a reader should remember about {{ subject }}?',
    examples: [],
    form: 'a text',
    parts: [],
    as: 'answer',
    reading: 'the sources',
  }),
  sentence: (step) => [
    { text: 'Have the writer answer ' },
    {
      word: step.instruction.trim() === '' ? 'nothing yet' : `“${beginning(step.instruction, 80)}”`,
      field: 'instruction',
      editor: { type: 'instruction' },
    },
    { text: ' from ' },
    {
      word: step.reading,
      field: 'reading',
      editor: {
        type: 'choice',
        options: Object.entries(READING).map(([value, does]) => ({ value, says: value, does })),
      },
    },
    { text: ' with ' },
    {
      word: step.form,
      field: 'form',
      editor: { type: 'choice', options: Object.entries(FORMS).map(([value, does]) => ({ value, says: value, does })) },
    },
    ...(step.form === 'a record'
      ? [
          { text: ' of ' },
          {
            word: step.parts.join(', ') || 'no parts yet',
            field: 'parts',
            editor: { type: 'values' as const, most: 20 },
          },
        ]
      : []),
    { text: '; keep it as ' },
    { word: step.as, field: 'as', editor: { type: 'text' } },
  ],
  check: (step) => [
    ...(step.instruction.trim() === ''
      ? [
          {
            step: step.id,
            field: 'instruction',
            grade: 'error' as const,
            sentence: 'There is no question.',
            mend: 'Write what the writer is to answer.',
          },
        ]
      : []),
    ...(step.form === 'a record' && step.parts.length === 0
      ? [
          {
            step: step.id,
            field: 'parts',
            grade: 'error' as const,
            sentence: 'A record needs parts.',
            mend: 'Name its parts, one a line.',
          },
        ]
      : []),
  ],
};
