import { z } from 'zod';
import { instruction, stepBase } from '../fields.ts';
import type { StepKind } from '../kind.ts';
import { optional } from '../sentence.ts';

export const PARTS = [
  'contents',
  'key points',
  'lists',
  'bold',
  'emoji',
  'table',
  'quotation',
  'questions and answers',
  'closing',
  'fold',
  'related articles',
  'source credit',
  'source embed',
] as const;
export type Part = (typeof PARTS)[number];

export const PERSONS = ['first person singular', 'first person plural', 'second person', 'third person'] as const;
export type Person = (typeof PERSONS)[number];

/** Who a step is told to speak as: somebody, or whoever the house style says. */
export const PERSONS_ASKED = [...PERSONS, 'as the house style'] as const;
export type PersonAsked = (typeof PERSONS_ASKED)[number];

const schema = z.strictObject({
  ...stepBase,
  kind: z.literal('write'),
  words: z.int().min(100).max(10_000),
  person: z.enum(PERSONS_ASKED),
  tone: z.string().max(200),
  parts: z.array(z.enum(PARTS)),
  /** Whether it is written from what is generally known where no passage was found or read. */
  unsourced: z.boolean().default(false),
  instruction,
});
export type WriteStep = z.infer<typeof schema>;

const DOES: Record<PersonAsked, string> = {
  'first person singular': 'speaks as I',
  'first person plural': 'speaks as we',
  'second person': 'speaks to the reader as you',
  'third person': 'speaks of people, neither I nor you',
  'as the house style': 'as the house style says; without one, to the reader as you',
};

export const write: StepKind<'write', WriteStep> = {
  kind: 'write',
  does: 'writes the article section by section',
  schema,
  needs: ['subject', 'passages', 'outline'],
  gives: ['article'],
  also: ['carriedWords', 'doubts', 'figuresNotFound', 'houseStyle', 'reworded', 'sectionsLeftOut', 'standingLeftOut'],
  uses: (step) => [{ field: 'instruction', as: 'template', text: step.instruction }],
  calls: 'writer',
  effect: false,
  writes: true,
  fresh: (id) => ({
    id,
    kind: 'write',
    off: false,
    words: 900,
    person: 'second person',
    tone: 'plain and friendly',
    parts: ['key points', 'lists'],
    unsourced: false,
    instruction: '',
  }),
  sentence: (step) => [
    { text: 'Write about ' },
    {
      word: step.words.toLocaleString('en-GB'),
      field: 'words',
      editor: { type: 'number', least: 100, most: 10_000, unit: 'words' },
    },
    { text: ' words, ' },
    {
      word: step.person === 'as the house style' ? 'in the person of the house style' : step.person,
      field: 'person',
      editor: { type: 'choice', options: PERSONS_ASKED.map((value) => ({ value, says: value, does: DOES[value] })) },
    },
    { text: ', ' },
    { word: step.tone || 'in the tone that fits', field: 'tone', editor: { type: 'text' } },
    { text: ', with ' },
    { word: step.parts.join(', ') || 'text alone', field: 'parts', editor: { type: 'list', of: 'part' } },
    ...optional(
      step.unsourced,
      '; ',
      {
        word: 'without sources where there are none',
        field: 'unsourced',
        editor: {
          type: 'choice',
          options: [
            { value: 'false', says: 'from sources alone', does: 'without any it stops and says so' },
            {
              value: 'true',
              says: 'without sources where there are none',
              does: 'from what the writer knows; every paragraph is marked ‘rests on nothing’',
            },
          ],
        },
      },
      'writing without sources',
    ),
  ],
  check: (step) => [
    ...(step.unsourced
      ? [
          {
            step: step.id,
            field: 'unsourced',
            grade: 'warning' as const,
            sentence: 'Where there are no sources, nothing in the text can be checked.',
            mend: 'Hold the brief for a person before it is published.',
          },
        ]
      : []),
    ...(step.parts.includes('emoji') && !step.parts.some((part) => part === 'lists' || part === 'key points')
      ? [
          {
            step: step.id,
            field: 'parts',
            grade: 'warning' as const,
            sentence: 'Emoji open the items of lists and key points, and neither is asked for.',
            mend: 'Ask for lists or key points too.',
          },
        ]
      : []),
    ...(step.words > 4_000
      ? [
          {
            step: step.id,
            field: 'words',
            grade: 'warning' as const,
            sentence: 'Few subjects carry this many words without repetition.',
            mend: 'Look up more pages or ask for fewer words.',
          },
        ]
      : []),
  ],
};
