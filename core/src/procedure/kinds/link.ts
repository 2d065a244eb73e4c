import { z } from 'zod';
import { stepBase } from '../fields.ts';
import type { StepKind } from '../kind.ts';
import { plural } from '../sentence.ts';

const schema = z.strictObject({
  ...stepBase,
  kind: z.literal('link'),
  /** Most links to the blog's own pages. */
  own: z.int().min(0).max(30),
  blog: z.string(),
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
  fresh: (id) => ({ id, kind: 'link', off: false, own: 3, blog: '' }),
  sentence: (step, names) => [
    { text: 'Link to up to ' },
    { word: plural(step.own, 'page'), field: 'own', editor: { type: 'number', least: 0, most: 30 } },
    { text: ' of ' },
    {
      word: step.blog === '' ? 'a blog not chosen yet' : names.blog(step.blog),
      field: 'blog',
      editor: { type: 'reference', to: 'blog' },
    },
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
