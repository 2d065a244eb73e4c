import { z } from 'zod';
import { instruction, stepBase } from '../fields.ts';
import type { StepKind } from '../kind.ts';
import { plural } from '../sentence.ts';

const schema = z.strictObject({
  ...stepBase,
  kind: z.literal('look up'),
  pages: z.int().min(1).max(20),
  /** What is looked up: a Liquid text. */
  subject: instruction.default('{{ subject }}'),
  /** Two-letter country of the readers, or null for any. */
  country: z
    .string()
    .regex(/^[A-Z]{2}$/, 'a country as IE')
    .nullable(),
  /** Leave out pages older than this day. */
  since: z.iso.date().nullable(),
});
export type LookUpStep = z.infer<typeof schema>;

export const lookUp: StepKind<'look up', LookUpStep> = {
  kind: 'look up',
  does: 'finds pages on the subject to write from',
  schema,
  needs: ['subject'],
  gives: ['passages'],
  also: ['pages', 'carriesWords', 'unread'],
  uses: (step) => [{ field: 'subject', as: 'template', text: step.subject }],
  calls: 'look-up',
  effect: false,
  writes: false,
  fresh: (id) => ({ id, kind: 'look up', off: false, pages: 5, subject: '{{ subject }}', country: null, since: null }),
  sentence: (step) => [
    { text: 'Look up ' },
    { word: plural(step.pages, 'page'), field: 'pages', editor: { type: 'number', least: 1, most: 20 } },
    { text: ' on ' },
    {
      word: step.subject === '{{ subject }}' ? 'the subject' : step.subject,
      field: 'subject',
      editor: { type: 'text' },
    },
    { text: ', for readers in ' },
    { word: step.country ?? 'any country', field: 'country', editor: { type: 'text' } },
    { text: ', since ' },
    { word: step.since ?? 'any date', field: 'since', editor: { type: 'text' } },
  ],
  check: () => [],
};
