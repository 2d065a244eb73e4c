import { z } from 'zod';
import { instruction, stepBase } from '../fields.ts';
import type { StepKind } from '../kind.ts';

export const PARTS = ['contents', 'key points', 'lists', 'source credit', 'source embed'] as const;
export type Part = (typeof PARTS)[number];

export const PERSONS = ['first person singular', 'first person plural', 'second person', 'third person'] as const;
export type Person = (typeof PERSONS)[number];

const schema = z.strictObject({
  ...stepBase,
  kind: z.literal('write'),
  words: z.int().min(100).max(10_000),
  person: z.enum(PERSONS),
  tone: z.string().max(200),
  parts: z.array(z.enum(PARTS)),
  instruction,
});
export type WriteStep = z.infer<typeof schema>;

const DOES: Record<Person, string> = {
  'first person singular': 'speaks as I',
  'first person plural': 'speaks as we',
  'second person': 'speaks to the reader as you',
  'third person': 'speaks of people, neither I nor you',
};

export const write: StepKind<'write', WriteStep> = {
  kind: 'write',
  does: 'writes the article section by section',
  schema,
  needs: ['subject', 'passages', 'outline'],
  gives: ['article'],
  also: ['carriedWords', 'figuresNotFound', 'sectionsLeftOut'],
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
      word: step.person,
      field: 'person',
      editor: { type: 'choice', options: PERSONS.map((value) => ({ value, says: value, does: DOES[value] })) },
    },
    { text: ', ' },
    { word: step.tone || 'in any tone', field: 'tone', editor: { type: 'text' } },
    { text: ', with ' },
    { word: step.parts.join(', ') || 'text alone', field: 'parts', editor: { type: 'list', of: 'part' } },
  ],
  check: (step) =>
    step.words > 4_000
      ? [
          {
            step: step.id,
            field: 'words',
            grade: 'warning',
            sentence: 'Few subjects carry this many words without repetition.',
            mend: 'Look up more pages or ask for fewer words.',
          },
        ]
      : [],
};
