import { z } from 'zod';
import { stepBase } from '../fields.ts';
import type { StepKind } from '../kind.ts';

const schema = z.strictObject({
  ...stepBase,
  kind: z.literal('publish'),
  blog: z.string(),
  when: z.enum(['next free slot', 'at once']),
  as: z.enum(['live', 'draft']),
});
export type PublishStep = z.infer<typeof schema>;

export const publish: StepKind<'publish', PublishStep> = {
  kind: 'publish',
  does: 'puts the article on a blog, at its slot',
  schema,
  needs: ['article', 'title'],
  gives: ['publication'],
  calls: null,
  effect: true,
  writes: false,
  fresh: (id) => ({ id, kind: 'publish', off: false, blog: '', when: 'next free slot', as: 'live' }),
  sentence: (step, names) => [
    { text: 'Publish to ' },
    {
      word: step.blog === '' ? 'a blog not chosen yet' : names.blog(step.blog),
      field: 'blog',
      editor: { type: 'reference', to: 'blog' },
    },
    { text: ' ' },
    {
      word: step.when === 'at once' ? 'at once' : 'in the next free slot',
      field: 'when',
      editor: {
        type: 'choice',
        options: [
          {
            value: 'next free slot',
            says: 'in the next free slot',
            does: 'waits for the first slot of the cadence that no article holds',
          },
          { value: 'at once', says: 'at once', does: 'goes out as soon as the article is finished' },
        ],
      },
    },
    { text: ' as a ' },
    {
      word: step.as === 'live' ? 'live post' : 'draft',
      field: 'as',
      editor: {
        type: 'choice',
        options: [
          { value: 'live', says: 'live post', does: 'readers see it' },
          { value: 'draft', says: 'draft', does: 'only the owner of the blog sees it' },
        ],
      },
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
            sentence: 'It publishes to no blog.',
            mend: 'Choose a blog.',
          },
        ],
};
