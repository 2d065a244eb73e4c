import { z } from 'zod';
import { stepBase } from '../fields.ts';
import type { StepKind } from '../kind.ts';
import { optional, plural } from '../sentence.ts';

const schema = z.strictObject({
  ...stepBase,
  kind: z.literal('link'),
  /** Most links to the blog's own pages. */
  own: z.int().min(0).max(30),
  blog: z.string(),
  /** Most links to trusted pages outside. */
  outside: z.int().min(0).max(10).default(0),
  /** Whether words that have a rule are linked by it. */
  rules: z.boolean().default(true),
});
export type LinkStep = z.infer<typeof schema>;

export const link: StepKind<'link', LinkStep> = {
  kind: 'link',
  does: 'links to our own pages that fit',
  schema,
  needs: ['article'],
  gives: ['links'],
  calls: null,
  effect: false,
  writes: false,
  fresh: (id) => ({ id, kind: 'link', off: false, own: 3, blog: '', outside: 0, rules: true }),
  sentence: (step, names) => [
    { text: 'Link to up to ' },
    { word: plural(step.own, 'page'), field: 'own', editor: { type: 'number', least: 0, most: 30 } },
    { text: ' of ' },
    {
      word: step.blog === '' ? 'a blog not chosen yet' : names.blog(step.blog),
      field: 'blog',
      editor: { type: 'reference', to: 'blog' },
    },
    ...optional(
      step.outside > 0,
      ', and to up to ',
      {
        word: plural(step.outside, 'trusted page'),
        field: 'outside',
        editor: { type: 'number', least: 0, most: 10 },
      },
      'trusted pages outside',
      [{ text: ' outside' }],
    ),
    ...optional(
      !step.rules,
      ', words that have a rule ',
      {
        word: 'left alone',
        field: 'rules',
        editor: {
          type: 'choice',
          options: [
            {
              value: 'true',
              says: 'linked by it',
              does: 'partners and brands are linked as the rules of the blog say',
            },
            { value: 'false', says: 'left alone', does: 'no rule links anything in these articles' },
          ],
        },
      },
      'no links by rule',
    ),
  ],
  check: (step, context) =>
    context.hasBlog(step.blog)
      ? []
      : [
          {
            step: step.id,
            field: 'blog',
            grade: 'error',
            sentence: 'It links to no blog.',
            mend: 'Choose the blog whose pages it links to.',
          },
        ],
};
