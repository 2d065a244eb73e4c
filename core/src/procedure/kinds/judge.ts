import { z } from 'zod';
import { instruction, stepBase } from '../fields.ts';
import type { StepKind } from '../kind.ts';
import { figureAt } from '../past.ts';

const schema = z.strictObject({
  ...stepBase,
  kind: z.literal('judge'),
  /** What is judged. */
  of: z.enum(['the sources', 'the article', 'the subject']),
  qualities: z.string().trim().min(1).max(500),
  /** Least score, of 10, to go on. */
  least: z.int().min(0).max(10),
  otherwise: z.enum(['set it aside', 'hold it for me', 'go on all the same']),
  instruction,
});
export type JudgeStep = z.infer<typeof schema>;

const choices = <T extends string>(does: Record<T, string>) =>
  (Object.entries(does) as [T, string][]).map(([value, says]) => ({ value, says: value, does: says }));

export const judge: StepKind<'judge', JudgeStep> = {
  kind: 'judge',
  does: 'gives a score and lets go on, or not',
  schema,
  needs: [],
  gives: ['judgement'],
  uses: (step) => [
    {
      field: 'of',
      as: 'name',
      text: { 'the sources': 'passages', 'the article': 'article', 'the subject': 'subject' }[step.of],
    },
    { field: 'qualities', as: 'template', text: step.qualities },
    { field: 'instruction', as: 'template', text: step.instruction },
  ],
  calls: 'writer',
  effect: false,
  writes: false,
  fresh: (id) => ({
    id,
    kind: 'judge',
    off: false,
    of: 'the sources',
    qualities: 'substance, figures and examples',
    least: 6,
    otherwise: 'set it aside',
    instruction: '',
  }),
  past: [
    {
      field: 'least',
      of: 'scores',
      figure: (gave) => figureAt(gave, 'judgement', 'score'),
      passes: (step, score) => score >= step.least,
    },
  ],
  sentence: (step) => [
    { text: 'Judge ' },
    {
      word: step.of,
      field: 'of',
      editor: {
        type: 'choice',
        options: choices({
          'the sources': 'reads the passages found or read so far',
          'the article': 'reads what was written',
          'the subject': 'reads the subject alone',
        }),
      },
    },
    { text: ' for ' },
    { word: step.qualities, field: 'qualities', editor: { type: 'text' } },
    { text: '; go on at ' },
    { word: String(step.least), field: 'least', editor: { type: 'number', least: 0, most: 10 } },
    { text: ' of 10 or better, otherwise ' },
    {
      word: step.otherwise,
      field: 'otherwise',
      editor: {
        type: 'choice',
        options: choices({
          'set it aside': 'ends it on purpose; it can be brought back',
          'hold it for me': 'a person decides',
          'go on all the same': 'the score is kept and steps below can ask for it',
        }),
      },
    },
  ],
  check: () => [],
};
