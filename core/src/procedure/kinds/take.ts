import { z } from 'zod';
import { stepBase } from '../fields.ts';
import type { StepKind } from '../kind.ts';
import { minutesWords, plural } from '../sentence.ts';

const schema = z.strictObject({
  ...stepBase,
  kind: z.literal('take'),
  sources: z.array(z.string()).max(20),
  /** Most items one look takes; null takes all that are new. */
  most: z.int().min(1).max(1_000).nullable(),
  /** Items that make one brief together; null makes a brief of each. */
  gather: z.int().min(2).max(50).nullable().default(null),
  /** Minutes between looks; null looks only when asked. */
  everyMinutes: z.int().min(1).max(43_200).nullable(),
  /** Briefs in work at once; null leaves it to the pipeline. */
  atOnce: z.int().min(1).max(100).nullable(),
  apartMinutes: z.int().min(0).max(10_080),
  /** Minutes a brief may be in work at a stretch before it is stopped; null for any time. Holds and slots begin a new stretch. */
  mostMinutes: z.int().min(1).max(43_200).nullable().default(null),
});
export type TakeStep = z.infer<typeof schema>;

export const take: StepKind<'take', TakeStep> = {
  kind: 'take',
  does: 'begins a brief for each item of a source',
  schema,
  needs: [],
  gives: ['subject'],
  calls: null,
  effect: false,
  writes: false,
  fresh: (id) => ({
    id,
    kind: 'take',
    off: false,
    sources: [],
    most: 3,
    gather: null,
    everyMinutes: null,
    atOnce: null,
    apartMinutes: 0,
    mostMinutes: null,
  }),
  sentence: (step, names) => [
    { text: 'Take ' },
    {
      word: step.most === null ? 'every new item' : `up to ${plural(step.most, 'new item')}`,
      field: 'most',
      editor: { type: 'number', least: 1, most: 1_000 },
    },
    { text: ' from ' },
    {
      word: step.sources.map(names.source).join(', ') || 'no source yet',
      field: 'sources',
      editor: { type: 'list', of: 'source' },
    },
    { text: ', ' },
    {
      word: step.gather === null ? 'a brief of each' : `${step.gather} gathered into one brief`,
      field: 'gather',
      editor: { type: 'number', least: 2, most: 50 },
    },
    { text: ', looking ' },
    {
      word: step.everyMinutes === null ? 'when asked' : `every ${minutesWords(step.everyMinutes)}`,
      field: 'everyMinutes',
      editor: { type: 'minutes', least: 1, most: 43_200, none: 'when asked' },
    },
    { text: '; ' },
    {
      word: step.atOnce === null ? 'as many as may be open' : step.atOnce === 1 ? 'one' : String(step.atOnce),
      field: 'atOnce',
      editor: { type: 'number', least: 1, most: 100 },
    },
    { text: ' at a time, ' },
    {
      word: step.apartMinutes === 0 ? 'at once one after another' : `${minutesWords(step.apartMinutes)} apart`,
      field: 'apartMinutes',
      editor: { type: 'minutes', least: 0, most: 10_080, none: 'at once one after another' },
    },
    { text: ', each in work ' },
    {
      word: step.mostMinutes === null ? 'as long as it takes' : `${minutesWords(step.mostMinutes)} at most`,
      field: 'mostMinutes',
      editor: { type: 'minutes', least: 1, most: 43_200, none: 'as long as it takes' },
    },
  ],
  check: (step, context) =>
    step.sources.length === 0
      ? [
          {
            step: step.id,
            field: 'sources',
            grade: 'error',
            sentence: 'It takes from no source.',
            mend: 'Choose a source.',
          },
        ]
      : step.sources
          .filter((id) => !context.hasSource(id))
          .map((id) => ({
            step: step.id,
            field: 'sources',
            grade: 'error' as const,
            sentence: `The source ‘${id}’ is gone.`,
            mend: 'Choose another source.',
          })),
};
