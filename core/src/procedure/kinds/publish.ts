import { z } from 'zod';
import { stepBase } from '../fields.ts';
import type { StepKind } from '../kind.ts';
import { listWords, optional, type SentencePart } from '../sentence.ts';

const schema = z.strictObject({
  ...stepBase,
  kind: z.literal('publish'),
  blog: z.string(),
  when: z.enum(['next free slot', 'at once']),
  as: z.enum(['live', 'draft']),
  /** Categories of the blog, as Liquid texts; none where none is chosen. */
  categories: z.array(z.string().trim().min(1).max(120)).max(20).default([]),
  /** Whether the article's own tags go along. */
  tags: z.enum(['none', 'its own']).default('none'),
  /** Whether the category of the blog that fits the article best is found; the ones chosen count where none fits. */
  fit: z.enum(['as chosen', 'best fit']).default('as chosen'),
  /** What becomes of names the blog does not have yet. */
  newOnes: z.enum(['made', 'left out']).default('made'),
  /** Who it is by, as a Liquid text; whoever the blog says where it is empty. */
  author: z.string().trim().max(200).default(''),
});
export type PublishStep = z.infer<typeof schema>;

export const publish: StepKind<'publish', PublishStep> = {
  kind: 'publish',
  does: 'puts the article on a blog, at its slot',
  schema,
  needs: ['article', 'title'],
  gives: ['publication'],
  uses: (step) => [
    ...step.categories.map((text) => ({ field: 'categories', as: 'template' as const, text })),
    { field: 'author', as: 'template', text: step.author },
  ],
  calls: null,
  effect: true,
  writes: false,
  fresh: (id) => ({
    id,
    kind: 'publish',
    off: false,
    blog: '',
    when: 'next free slot',
    as: 'live',
    categories: [],
    tags: 'none',
    fit: 'as chosen',
    newOnes: 'made',
    author: '',
  }),
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
    ...namesSentence(step),
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

/** What the post goes under, and who it is by. */
function namesSentence(step: PublishStep): SentencePart[] {
  return [
    ...optional(
      step.categories.length > 0,
      ' under ',
      { word: listWords(step.categories, ''), field: 'categories', editor: { type: 'values', most: 20 } },
      'categories',
    ),
    ...optional(
      step.fit !== 'as chosen',
      step.categories.length > 0 ? ', but first ' : ' under ',
      {
        word: 'the category that fits best',
        field: 'fit',
        editor: {
          type: 'choice',
          options: [
            { value: 'as chosen', says: 'as chosen', does: 'the categories chosen here and no others' },
            {
              value: 'best fit',
              says: 'the category that fits best',
              does: 'of those the blog has, by the words of the article; the ones chosen count where none fits',
            },
          ],
        },
      },
      'the best fitting category',
    ),
    ...optional(
      step.tags !== 'none',
      ', with ',
      {
        word: 'its own tags',
        field: 'tags',
        editor: {
          type: 'choice',
          options: [
            { value: 'none', says: 'no tags', does: 'only the categories chosen here' },
            { value: 'its own', says: 'its own tags', does: 'its key phrase, and terms that stand in it' },
          ],
        },
      },
      'its own tags',
    ),
    ...optional(
      step.newOnes !== 'made',
      '; ',
      {
        word: 'names the blog does not have are left out',
        field: 'newOnes',
        editor: {
          type: 'choice',
          options: [
            { value: 'made', says: 'names the blog does not have are made', does: 'the blog adds them to its own' },
            {
              value: 'left out',
              says: 'names the blog does not have are left out',
              does: 'as its last test told them; where it does not tell, all go along',
            },
          ],
        },
      },
      'no new categories',
    ),
    ...optional(
      step.author !== '',
      ', by ',
      { word: step.author, field: 'author', editor: { type: 'text' } },
      'an author',
    ),
  ];
}
