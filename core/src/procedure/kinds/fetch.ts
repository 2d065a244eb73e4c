import { z } from 'zod';
import { fieldName, stepBase } from '../fields.ts';
import type { StepKind } from '../kind.ts';
import { beginning } from '../sentence.ts';

const schema = z.strictObject({
  ...stepBase,
  kind: z.literal('fetch'),
  /** A Liquid text that gives an address. */
  address: z.string().max(2_000),
  what: z.enum(['its text', 'its title', 'its passages', 'its data']),
  /** For data: the way into it, as items.0.price; empty for all. */
  part: z.string().max(200),
  as: fieldName,
});
export type FetchStep = z.infer<typeof schema>;

const WHAT: Record<FetchStep['what'], string> = {
  'its text': 'the readable text of the page',
  'its title': 'the title of the page',
  'its passages': 'the text as passages that paragraphs can rest on, besides those there are',
  'its data': 'the JSON it answers, or a part of it',
};

export const fetchStep: StepKind<'fetch', FetchStep> = {
  kind: 'fetch',
  does: 'reads an address and keeps a part of it',
  schema,
  needs: [],
  gives: [],
  keeps: (step) => (step.what === 'its passages' ? 'passages' : step.as),
  uses: (step) => [{ field: 'address', as: 'template', text: step.address }],
  calls: null,
  effect: false,
  writes: false,
  fresh: (id) => ({ id, kind: 'fetch', off: false, address: '{{ address }}', what: 'its text', part: '', as: 'page' }),
  sentence: (step) => [
    { text: 'Fetch ' },
    { word: beginning(step.address) || 'no address yet', field: 'address', editor: { type: 'text' } },
    { text: ' and keep ' },
    {
      word: step.what,
      field: 'what',
      editor: { type: 'choice', options: Object.entries(WHAT).map(([value, does]) => ({ value, says: value, does })) },
    },
    ...(step.what === 'its data'
      ? [{ text: ' at ' }, { word: step.part || 'its root', field: 'part', editor: { type: 'text' as const } }]
      : []),
    ...(step.what === 'its passages'
      ? []
      : [{ text: ' as ' }, { word: step.as, field: 'as', editor: { type: 'text' as const } }]),
  ],
  check: (step) =>
    step.address.trim() === ''
      ? [
          {
            step: step.id,
            field: 'address',
            grade: 'error',
            sentence: 'It has no address to fetch.',
            mend: 'Give an address, or a field that holds one.',
          },
        ]
      : [],
};
