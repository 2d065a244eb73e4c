import { z } from 'zod';
import { headings, stepBase } from '../fields.ts';
import type { StepKind } from '../kind.ts';
import { listWords, optional, plural, type SentencePart } from '../sentence.ts';

const schema = z.strictObject({
  ...stepBase,
  kind: z.literal('videos'),
  most: z.int().min(1).max(5),
  where: z.enum(['where they fit', 'at headings']),
  headings,
  /** Minutes one may last; null for any length. */
  minutes: z.int().min(1).max(600).nullable().default(null),
  /** Years one may be old; null for any age. */
  years: z.int().min(1).max(50).nullable().default(null),
  /** Names of the only channels it may be of; empty for any. */
  only: z.array(z.string().trim().min(1).max(120)).max(50).default([]),
  /** Names of channels it may never be of. */
  never: z.array(z.string().trim().min(1).max(120)).max(50).default([]),
  /** Whether a sentence leads to each. */
  led: z.boolean().default(true),
});
export type VideosStep = z.infer<typeof schema>;

export const videos: StepKind<'videos', VideosStep> = {
  kind: 'videos',
  does: 'finds videos by subject and puts them into the article',
  schema,
  needs: ['article'],
  gives: ['videos'],
  calls: 'video host',
  effect: false,
  writes: false,
  fresh: (id) => ({
    id,
    kind: 'videos',
    off: false,
    most: 1,
    where: 'where they fit',
    headings: '2',
    minutes: null,
    years: null,
    only: [],
    never: [],
    led: true,
  }),
  sentence: (step) => [
    { text: 'Place ' },
    {
      word: plural(step.most, 'video'),
      field: 'most',
      editor: { type: 'number', least: 1, most: 5, unit: 'videos' },
    },
    { text: ' on the subject ' },
    {
      word: step.where,
      field: 'where',
      editor: {
        type: 'choice',
        options: [
          {
            value: 'where they fit',
            says: 'where they fit',
            does: 'after the paragraph that says most of what each shows',
          },
          { value: 'at headings', says: 'at headings', does: 'below headings you name; a picture there gives way' },
        ],
      },
    },
    ...(step.where === 'at headings'
      ? [{ text: ' ' }, { word: step.headings, field: 'headings', editor: { type: 'text' as const } }]
      : []),
    { text: ', ' },
    {
      word: step.led ? 'with a sentence before each' : 'without a word',
      field: 'led',
      editor: {
        type: 'choice',
        options: [
          { value: 'true', says: 'with a sentence before each', does: 'says what it is and how long' },
          { value: 'false', says: 'without a word', does: 'the video stands by itself' },
        ],
      },
    },
    ...limitsOf(step),
  ],
  check: () => [],
};

/** Which videos it may be: their length, their age, whose. */
function limitsOf(step: VideosStep): SentencePart[] {
  return [
    ...optional(
      step.minutes !== null,
      ', of at most ',
      {
        word: plural(step.minutes ?? 15, 'minute'),
        field: 'minutes',
        editor: { type: 'minutes', least: 1, most: 600, none: 'any length' },
      },
      'a longest length',
    ),
    ...optional(
      step.years !== null,
      ', no older than ',
      {
        word: plural(step.years ?? 5, 'year'),
        field: 'years',
        editor: { type: 'number', least: 1, most: 50, unit: 'years' },
      },
      'an age',
    ),
    ...optional(
      step.only.length > 0,
      ', only of ',
      { word: listWords(step.only, 'any channel'), field: 'only', editor: { type: 'values', most: 50 } },
      'only some channels',
    ),
    ...optional(
      step.never.length > 0,
      ', never of ',
      { word: listWords(step.never, 'none'), field: 'never', editor: { type: 'values', most: 50 } },
      'channels it is never of',
    ),
  ];
}
