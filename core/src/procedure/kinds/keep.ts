import { z } from 'zod';
import { stepBase } from '../fields.ts';
import type { StepKind } from '../kind.ts';

export const KEEP_AS = ['Markdown', 'HTML', 'plain text'] as const;

const schema = z.strictObject({
  ...stepBase,
  kind: z.literal('keep'),
  as: z.enum(KEEP_AS),
  /** A folder within the one this installation keeps copies in: a Liquid text. */
  folder: z.string().max(300),
});
export type KeepStep = z.infer<typeof schema>;

export const keep: StepKind<'keep', KeepStep> = {
  kind: 'keep',
  does: 'puts a copy as a file into a folder',
  schema,
  needs: ['article'],
  gives: ['kept'],
  uses: (step) => [{ field: 'folder', as: 'template', text: step.folder }],
  calls: null,
  effect: true,
  writes: false,
  fresh: (id) => ({ id, kind: 'keep', off: false, as: 'Markdown', folder: 'articles' }),
  sentence: (step) => [
    { text: 'Keep a copy as ' },
    {
      word: step.as,
      field: 'as',
      editor: {
        type: 'choice',
        options: [
          { value: 'Markdown', says: 'Markdown', does: 'a file with front matter, for static sites' },
          { value: 'HTML', says: 'HTML', does: 'the body as a blog gets it' },
          { value: 'plain text', says: 'plain text', does: 'the words alone' },
        ],
      },
    },
    { text: ' in ' },
    { word: step.folder || 'the folder itself', field: 'folder', editor: { type: 'text' } },
  ],
  check: (step) =>
    /(^|\/)\.\.(\/|$)|^[/\\]|\\/.test(step.folder)
      ? [
          {
            step: step.id,
            field: 'folder',
            grade: 'error',
            sentence: `‘${step.folder}’ leads out of the folder copies are kept in.`,
            mend: 'Name a folder inside it, as guides/2026.',
          },
        ]
      : [],
};
