import { z } from 'zod';
import { instruction, stepBase } from '../fields.ts';
import type { StepKind } from '../kind.ts';
import { beginning, listWords, optional } from '../sentence.ts';

/** How far the words go from those there were. */
export const DEGREES = ['lightly', 'freely', 'afresh'] as const;
export type Degree = (typeof DEGREES)[number];

/** What each does, as people read it. */
export const DEGREE_DOES: Readonly<Record<Degree, string>> = {
  lightly: 'other words, the sentences as they are built',
  freely: 'other words and other sentences, in the same order',
  afresh: 'told as if for the first time',
};

const schema = z.strictObject({
  ...stepBase,
  kind: z.literal('put'),
  /** The text that is put, with fields in double braces; the article where it is empty. */
  of: z.string().max(4_000).default(''),
  /** The field a text is kept as. */
  as: z.string().max(40).default('otherWords'),
  degree: z.enum(DEGREES).default('freely'),
  /** Words that stay as they are; figures, names in quotation and links always do. */
  keep: z.array(z.string().trim().min(1).max(100)).max(200).default([]),
  /** Most likeness, in per cent, to the text as it came and to its sources; null does not look. */
  likeness: z.int().min(1).max(100).nullable().default(20),
  /** What becomes of one that is still more alike. */
  otherwise: z.enum(['hold it for me', 'set it aside']).default('hold it for me'),
  instruction,
});
export type PutStep = z.infer<typeof schema>;

export const put: StepKind<'put', PutStep> = {
  kind: 'put',
  does: 'puts the article, or a text, in other words, saying the same',
  schema,
  needs: [],
  gives: ['put'],
  also: ['alike'],
  keeps: (step) => (step.of === '' ? '' : step.as),
  uses: (step) => [
    { field: 'of', as: 'template', text: step.of },
    { field: 'instruction', as: 'template', text: step.instruction },
    ...(step.of === '' ? [{ field: 'of', as: 'name' as const, text: 'article' }] : []),
  ],
  calls: 'writer',
  effect: false,
  writes: false,
  fresh: (id) => ({
    id,
    kind: 'put',
    off: false,
    of: '',
    as: 'otherWords',
    degree: 'freely',
    keep: [],
    likeness: 20,
    otherwise: 'hold it for me',
    instruction: '',
  }),
  sentence: (step) => [
    { text: 'Put ' },
    { word: step.of === '' ? 'it' : `“${beginning(step.of, 40)}”`, field: 'of', editor: { type: 'text' } },
    { text: ' in other words' },
    ...(step.of === '' ? [] : [{ text: ' as ' }, { word: step.as, field: 'as', editor: { type: 'text' as const } }]),
    { text: ', ' },
    {
      word: step.degree,
      field: 'degree',
      editor: { type: 'choice', options: DEGREES.map((value) => ({ value, says: value, does: DEGREE_DOES[value] })) },
    },
    ...optional(
      step.keep.length > 0,
      ', keeping ',
      { word: listWords(step.keep, ''), field: 'keep', editor: { type: 'values', most: 200 } },
      'words that stay',
    ),
    ...optional(
      step.likeness !== null,
      ', until less than ',
      {
        word: `${step.likeness} %`,
        field: 'likeness',
        editor: { type: 'number', least: 1, most: 100, unit: '%' },
      },
      'how like it may still be',
      [
        { text: ' of it stands word for word as before; else ' },
        {
          word: step.otherwise,
          field: 'otherwise',
          editor: {
            type: 'choice',
            options: [
              { value: 'hold it for me', says: 'hold it for me', does: 'a person decides' },
              { value: 'set it aside', says: 'set it aside', does: 'ends it on purpose; it can be brought back' },
            ],
          },
        },
      ],
    ),
  ],
  check: () => [],
};
