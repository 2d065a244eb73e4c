import { z } from 'zod';
import { instruction, stepBase } from '../fields.ts';
import type { StepKind } from '../kind.ts';
import { optional, plural } from '../sentence.ts';

/** What becomes of a brief for which too few pages speak of its subject. */
export const TOO_FEW = ['set it aside', 'stop it', 'hold it for me'] as const;

const DOES: Record<(typeof TOO_FEW)[number], string> = {
  'set it aside': 'the brief ends; it can be brought back with what was found',
  'stop it': 'the brief waits until somebody lets it go on',
  'hold it for me': 'you decide whether it goes on with what was found',
};

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
  /** Pages that must speak of the subject; with fewer, nothing was found that answers it. */
  least: z.int().min(1).max(20).default(1),
  /** Whether it also ends as told where an article of ours on the same blog is on the same subject. */
  ours: z.boolean().default(false),
  otherwise: z.enum(TOO_FEW).default('set it aside'),
});
export type LookUpStep = z.infer<typeof schema>;

/** Pages that must answer the subject: never more than are looked up. */
export const leastOf = ({ least, pages }: Pick<LookUpStep, 'least' | 'pages'>) => Math.min(least, pages);

export const lookUp: StepKind<'look up', LookUpStep> = {
  kind: 'look up',
  does: 'finds pages on the subject to write from',
  schema,
  needs: ['subject'],
  gives: ['passages'],
  also: ['pages', 'carriesWords', 'unread', 'fitting', 'ours'],
  uses: (step) => [{ field: 'subject', as: 'template', text: step.subject }],
  calls: 'look-up',
  effect: false,
  writes: false,
  fresh: (id) => ({
    id,
    kind: 'look up',
    off: false,
    pages: 5,
    subject: '{{ subject }}',
    country: null,
    since: null,
    least: 1,
    ours: true,
    otherwise: 'set it aside',
  }),
  sentence: (step) => [
    { text: 'Look up ' },
    { word: plural(step.pages, 'page'), field: 'pages', editor: { type: 'number', least: 1, most: 20 } },
    { text: ' on ' },
    {
      word: step.subject === '{{ subject }}' ? 'the subject' : step.subject,
      field: 'subject',
      editor: { type: 'text' },
    },
    ...optional(
      step.country !== null,
      ', for readers in ',
      { word: step.country ?? '', field: 'country', editor: { type: 'text' } },
      'a country of readers',
    ),
    ...optional(
      step.since !== null,
      ', published since ',
      { word: step.since ?? '', field: 'since', editor: { type: 'text' } },
      'a day they must be newer than',
    ),
    { text: '; if ' },
    {
      word: leastOf(step) === 1 ? 'none of them answers it' : `fewer than ${leastOf(step)} of them answer it`,
      field: 'least',
      editor: { type: 'number', least: 1, most: 20 },
    },
    ...optional(
      step.ours,
      ', or ',
      {
        word: 'an article of ours does',
        field: 'ours',
        editor: {
          type: 'choice',
          options: [
            {
              value: 'true',
              says: 'an article of ours does',
              does: 'one of the same blog that is out or on its way, on the same subject however it is put',
            },
            { value: 'false', says: 'whatever we have', does: 'a second article on a subject is written all the same' },
          ],
        },
      },
      'whether an article of ours answers it',
    ),
    { text: ', ' },
    {
      word: step.otherwise === 'hold it for me' ? 'hold the brief for me' : step.otherwise.replace('it', 'the brief'),
      field: 'otherwise',
      editor: { type: 'choice', options: TOO_FEW.map((value) => ({ value, says: value, does: DOES[value] })) },
    },
  ],
  check: () => [],
};
