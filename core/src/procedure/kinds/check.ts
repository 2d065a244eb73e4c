import { z } from 'zod';
import { range, stepBase } from '../fields.ts';
import type { StepKind } from '../kind.ts';
import { figureAt } from '../past.ts';
import { listWords, type Names, optional, type SentencePart } from '../sentence.ts';

const phrases = z.array(z.string().trim().min(1).max(200)).max(200);

const schema = z.strictObject({
  ...stepBase,
  kind: z.literal('check'),
  words: range(0, 20_000),
  /** Words and phrases that must not stand in it. */
  avoid: phrases.default([]),
  /** Words and phrases of which all or any must. */
  must: phrases.default([]),
  mustBe: z.enum(['all', 'any']).default('all'),
  /** Most likeness to the sources, in per cent; null does not look. */
  likeness: z.int().min(1).max(100).nullable().default(null),
  /** Most likeness to our own articles, in per cent; null does not look. */
  own: z.int().min(1).max(100).nullable().default(null),
  /** Whether nothing may be said that the passages do not say: figures, dates, names, quotations, denials. */
  figures: z.boolean().default(false),
  /** Whether no other article of the same blog may be on its subject, however it is put. */
  alone: z.boolean().default(false),
  /** Whether it must keep to the house style: its words, its person, its ranges. */
  house: z.boolean().default(true),
  /** How often it is written again before it ends as told. */
  again: z.int().min(0).max(5),
  otherwise: z.enum(['set it aside', 'hold it for me']).default('set it aside'),
});
export type CheckStep = z.infer<typeof schema>;

export const check: StepKind<'check', CheckStep> = {
  kind: 'check',
  does: 'looks whether the article keeps to the rules',
  schema,
  needs: ['article'],
  gives: ['check'],
  calls: null,
  effect: false,
  writes: false,
  fresh: (id) => ({
    id,
    kind: 'check',
    off: false,
    words: { from: 500, to: 2_000 },
    avoid: [],
    must: [],
    mustBe: 'all',
    likeness: 30,
    own: 25,
    figures: true,
    alone: true,
    house: true,
    again: 1,
    otherwise: 'hold it for me',
  }),
  past: [
    {
      field: 'words',
      of: 'articles',
      figure: (gave) => figureAt(gave, 'check', 'words'),
      passes: ({ words }, figure) => figure >= words.from && figure <= words.to,
    },
    {
      field: 'likeness',
      of: 'articles',
      figure: (gave) => figureAt(gave, 'check', 'likeness'),
      passes: ({ likeness }, figure) => likeness === null || figure < likeness,
    },
    {
      field: 'own',
      of: 'articles',
      figure: (gave) => figureAt(gave, 'check', 'own'),
      passes: ({ own }, figure) => own === null || figure < own,
    },
  ],
  sentence: (step, names): SentencePart[] => [
    { text: 'Check: ' },
    {
      word: `${step.words.from.toLocaleString('en-GB')} to ${step.words.to.toLocaleString('en-GB')}`,
      field: 'words',
      editor: { type: 'range', least: 0, most: 20_000, unit: 'words' },
    },
    { text: ' words' },
    ...optional(
      step.avoid.length > 0,
      ', without ',
      { word: listWords(step.avoid, ''), field: 'avoid', editor: { type: 'values', most: 200 } },
      'words to avoid',
    ),
    ...(step.must.length > 1
      ? [
          { text: ', with ' },
          {
            word: step.mustBe,
            field: 'mustBe',
            editor: {
              type: 'choice' as const,
              options: [
                { value: 'all', says: 'all', does: 'every one of them must stand in the text' },
                { value: 'any', says: 'any', does: 'one of them is enough' },
              ],
            },
          },
        ]
      : []),
    ...optional(
      step.must.length > 0,
      step.must.length > 1 ? ' of ' : ', with ',
      { word: listWords(step.must, ''), field: 'must', editor: { type: 'values', most: 200 } },
      'words it must hold',
    ),
    ...againstOthers(step),
    ...keepingToHouse(step, names),
    { text: '; if it fails, ' },
    {
      word:
        step.again === 0
          ? 'do not write it again'
          : `write it again, ${step.again === 1 ? 'once' : `up to ${step.again} times`}`,
      field: 'again',
      editor: { type: 'number', least: 0, most: 5 },
    },
    { text: ', then ' },
    {
      word: step.otherwise,
      field: 'otherwise',
      editor: {
        type: 'choice',
        options: [
          { value: 'set it aside', says: 'set it aside', does: 'ends it on purpose; it can be brought back' },
          { value: 'hold it for me', says: 'hold it for me', does: 'a person decides' },
        ],
      },
    },
  ],
  check: () => [],
};

/** How it stands to what it is made of, and to what else we have. */
function againstOthers(step: CheckStep): SentencePart[] {
  return [
    ...optional(
      step.likeness !== null,
      ', like its sources ',
      {
        word: `by less than ${step.likeness} %`,
        field: 'likeness',
        editor: { type: 'number', least: 1, most: 100, unit: '%' },
      },
      'how like its sources it may be',
    ),
    ...optional(
      step.own !== null,
      step.likeness === null ? ', like our own articles ' : ' and our own articles ',
      {
        word: `by less than ${step.own} %`,
        field: 'own',
        editor: { type: 'number', least: 1, most: 100, unit: '%' },
      },
      'how like our own articles it may be',
    ),
    ...optional(
      step.figures,
      ', ',
      {
        word: 'nothing the sources do not say',
        field: 'figures',
        editor: {
          type: 'choice',
          options: [
            {
              value: 'true',
              says: 'nothing the sources do not say',
              does: 'figures, dates, names and quotations must be as there, nothing turned round, and no sentence on something else',
            },
            { value: 'false', says: 'more than the sources say', does: 'what is not in them is marked all the same' },
          ],
        },
      },
      'nothing the sources do not say',
    ),
    ...ofItsOwn(step),
  ];
}

/** Whether other articles of the blog may be on its subject. */
function ofItsOwn(step: CheckStep): SentencePart[] {
  return optional(
    step.alone,
    ', ',
    {
      word: 'on a subject of its own',
      field: 'alone',
      editor: {
        type: 'choice',
        options: [
          {
            value: 'true',
            says: 'on a subject of its own',
            does: 'no other article of the same blog is on it, however it is put; writing it again would not help',
          },
          { value: 'false', says: 'on any subject', does: 'several articles of a blog may be on one' },
        ],
      },
    },
    'a subject of its own',
  );
}

/** Offered where there is a house style at all. */
function keepingToHouse({ house }: CheckStep, { hasStyles }: Names): SentencePart[] {
  if (!hasStyles) return [];
  return optional(
    house,
    ', ',
    {
      word: 'as the house style has it',
      field: 'house',
      editor: {
        type: 'choice',
        options: [
          {
            value: 'true',
            says: 'as the house style has it',
            does: 'none of the words it does not say; who speaks and its figures too, where the check holds it for you',
          },
          { value: 'false', says: 'in any style', does: 'the house style is not looked at' },
        ],
      },
    },
    'keeping to the house style',
  );
}
