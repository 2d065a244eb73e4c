import { z } from 'zod';
import { stepBase } from '../fields.ts';
import type { StepKind } from '../kind.ts';
import { everyWords, minutesWords, optional, plural, type SentencePart } from '../sentence.ts';

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

/** How many are in work at once, how far apart they begin, and how long one may take. */
const paceOf = (step: TakeStep): SentencePart[] => [
  ...optional(
    step.atOnce !== null,
    '; have ',
    {
      word: `at most ${step.atOnce}`,
      field: 'atOnce',
      editor: { type: 'number', least: 1, most: 100 },
    },
    'a limit on how many at once',
    [{ text: ' in work at once' }],
  ),
  ...optional(
    step.apartMinutes > 0,
    '; begin one every ',
    {
      word: everyWords(step.apartMinutes),
      field: 'apartMinutes',
      editor: { type: 'minutes', least: 0, most: 10_080, none: 'one right after another' },
    },
    'time between two',
  ),
  ...optional(
    step.mostMinutes !== null,
    '; stop one that takes longer than ',
    {
      word: minutesWords(step.mostMinutes ?? 0),
      field: 'mostMinutes',
      editor: { type: 'minutes', least: 1, most: 43_200, none: 'no time limit' },
    },
    'a time limit',
  ),
];

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
      word: step.sources.map(names.source).join(', ') || 'a source not chosen yet',
      field: 'sources',
      editor: { type: 'list', of: 'source' },
    },
    { text: ', looking ' },
    {
      word: step.everyMinutes === null ? 'only when asked' : `every ${everyWords(step.everyMinutes)}`,
      field: 'everyMinutes',
      editor: { type: 'minutes', least: 1, most: 43_200, none: 'only when asked' },
    },
    ...optional(
      step.gather !== null,
      '; make one brief of every ',
      {
        word: plural(step.gather ?? 0, 'item'),
        field: 'gather',
        editor: { type: 'number', least: 2, most: 50 },
      },
      'several items in one brief',
    ),
    ...paceOf(step),
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
