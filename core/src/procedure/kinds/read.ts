import { z } from 'zod';
import { secondsOf } from '../../captions/cue.ts';
import { instruction, stepBase } from '../fields.ts';
import type { StepKind } from '../kind.ts';

export const READS = ['the captions', 'the row', 'the page'] as const;

const schema = z.strictObject({
  ...stepBase,
  kind: z.literal('read'),
  what: z.enum(READS),
  /** Where it is: a Liquid text; not looked at for a row. */
  address: instruction.default('{{ link }}'),
  /** Times as 00:12; empty is the beginning and the end, or the part chosen when the item was taken. */
  from: z.string().max(12),
  to: z.string().max(12),
});
export type ReadStep = z.infer<typeof schema>;

const DOES: Record<(typeof READS)[number], string> = {
  'the captions': 'what is said in the video, by its captions, with its chapters',
  'the row': 'the cells of the sheet’s row, texts as they stand and the others by their names',
  'the page': 'the text of the page behind the link',
};

export const read: StepKind<'read', ReadStep> = {
  kind: 'read',
  does: 'reads what the item holds: captions, a row, a page',
  schema,
  needs: [],
  gives: ['passages'],
  uses: (step) => (step.what === 'the row' ? [] : [{ field: 'address', as: 'template', text: step.address }]),
  calls: null,
  effect: false,
  writes: false,
  fresh: (id) => ({ id, kind: 'read', off: false, what: 'the captions', address: '{{ link }}', from: '', to: '' }),
  sentence: (step) => [
    { text: 'Read ' },
    {
      word: step.what,
      field: 'what',
      editor: { type: 'choice', options: READS.map((value) => ({ value, says: value, does: DOES[value] })) },
    },
    ...(step.what === 'the row'
      ? []
      : [
          { text: ' of ' },
          {
            word: step.address === '{{ link }}' ? 'the item’s link' : step.address || 'no address yet',
            field: 'address',
            editor: { type: 'text' as const },
          },
        ]),
    ...(step.what === 'the captions'
      ? [
          { text: ' from ' },
          { word: step.from || 'the start', field: 'from', editor: { type: 'text' as const } },
          { text: ' to ' },
          { word: step.to || 'the end', field: 'to', editor: { type: 'text' as const } },
        ]
      : []),
  ],
  check: (step) => {
    if (step.what !== 'the captions') return [];
    const wrong = (['from', 'to'] as const).filter(
      (field) => step[field].trim() !== '' && secondsOf(step[field]) === null,
    );
    const backwards =
      wrong.length === 0 && step.from !== '' && step.to !== '' && secondsOf(step.from)! >= secondsOf(step.to)!;
    return [
      ...wrong.map((field) => ({
        step: step.id,
        field,
        grade: 'error' as const,
        sentence: `‘${step[field]}’ is no time.`,
        mend: 'Write it as 04:55.',
      })),
      ...(backwards
        ? [
            {
              step: step.id,
              field: 'to',
              grade: 'error' as const,
              sentence: `It would end (${step.to}) before it begins (${step.from}).`,
              mend: 'Give a later end.',
            },
          ]
        : []),
    ];
  },
};
