import { z } from 'zod';
import { stepBase } from '../fields.ts';
import type { StepKind } from '../kind.ts';
import { beginning } from '../sentence.ts';

const schema = z.strictObject({
  ...stepBase,
  kind: z.literal('lay out'),
  /** The finished text: a Liquid text over the fields. */
  body: z.string().max(200_000),
  title: z.string().max(500),
  reads: z.enum(['Markdown', 'HTML', 'plain text']),
});
export type LayOutStep = z.infer<typeof schema>;

export const layOut: StepKind<'lay out', LayOutStep> = {
  kind: 'lay out',
  does: 'makes an article of a finished text as it stands, writing nothing',
  schema,
  needs: [],
  gives: ['article', 'title'],
  also: ['notTaken'],
  uses: (step) => [
    { field: 'body', as: 'template', text: step.body },
    { field: 'title', as: 'template', text: step.title },
  ],
  calls: null,
  effect: false,
  writes: false,
  fresh: (id) => ({ id, kind: 'lay out', off: false, body: '{{ body }}', title: '{{ subject }}', reads: 'Markdown' }),
  sentence: (step) => [
    { text: 'Lay out ' },
    { word: beginning(step.body) || 'no text yet', field: 'body', editor: { type: 'instruction' } },
    { text: ' under ' },
    { word: beginning(step.title) || 'no title yet', field: 'title', editor: { type: 'text' } },
    { text: ' as it stands, read as ' },
    {
      word: step.reads,
      field: 'reads',
      editor: {
        type: 'choice',
        options: [
          {
            value: 'Markdown',
            says: 'Markdown',
            does: 'headings, lists, tables, pictures, links and emphasis are taken over',
          },
          { value: 'HTML', says: 'HTML', does: 'the same of a piece of a web page, without what it does' },
          {
            value: 'plain text',
            says: 'plain text',
            does: 'paragraphs separated by empty lines, and videos by their address',
          },
        ],
      },
    },
  ],
  check: (step) =>
    step.body.trim() === ''
      ? [
          {
            step: step.id,
            field: 'body',
            grade: 'error',
            sentence: 'There is nothing to lay out.',
            mend: 'Name the field that holds the text, as {{ body }}.',
          },
        ]
      : [],
};
