import { z } from 'zod';
import { cellTexts } from '../cells.ts';
import { instruction, stepBase } from '../fields.ts';
import type { Problem, StepKind } from '../kind.ts';
import { beginning } from '../sentence.ts';

export const KEEP_AS = ['Markdown', 'HTML', 'plain text', 'Word', 'PDF', 'a row'] as const;

const schema = z.strictObject({
  ...stepBase,
  kind: z.literal('keep'),
  as: z.enum(KEEP_AS),
  /** A folder within the one this installation keeps copies in: a Liquid text. */
  folder: z.string().max(300),
  /** The address of the sheet a row is added to: a Liquid text. */
  sheet: z.string().max(1_000).default(''),
  /** What the row's cells get, `Column: text` a line, each a Liquid text. */
  cells: instruction.default(''),
});
export type KeepStep = z.infer<typeof schema>;

export const keep: StepKind<'keep', KeepStep> = {
  kind: 'keep',
  does: 'puts a copy into a folder, or a row into a sheet',
  schema,
  needs: ['article'],
  gives: ['kept'],
  uses: (step) =>
    step.as === 'a row'
      ? [
          { field: 'sheet', as: 'template', text: step.sheet },
          { field: 'cells', as: 'template', text: step.cells },
        ]
      : [{ field: 'folder', as: 'template', text: step.folder }],
  calls: null,
  effect: true,
  writes: false,
  fresh: (id) => ({
    id,
    kind: 'keep',
    off: false,
    as: 'Markdown',
    folder: 'articles',
    sheet: '',
    cells: 'Subject: {{ subject }}\nTitle: {{ title }}',
  }),
  sentence: (step) => [
    { text: step.as === 'a row' ? 'Keep it as ' : 'Keep a copy as ' },
    {
      word: step.as,
      field: 'as',
      editor: {
        type: 'choice',
        options: [
          { value: 'Markdown', says: 'Markdown', does: 'a file with front matter, for static sites' },
          { value: 'HTML', says: 'HTML', does: 'the body as a blog gets it' },
          { value: 'plain text', says: 'plain text', does: 'the words alone' },
          { value: 'Word', says: 'Word', does: 'a document with headings, pictures and links' },
          { value: 'PDF', says: 'PDF', does: 'pages to be sent or printed' },
          { value: 'a row', says: 'a row', does: 'a new row in a sheet at an address' },
        ],
      },
    },
    ...(step.as === 'a row'
      ? [
          { text: ' of ' },
          { word: beginning(step.sheet) || 'no sheet yet', field: 'sheet', editor: { type: 'text' as const } },
          { text: ': ' },
          {
            word: beginning(step.cells.replace(/\n+/g, ', '), 80) || 'no cell yet',
            field: 'cells',
            editor: { type: 'instruction' as const },
          },
        ]
      : [
          { text: ' in ' },
          { word: step.folder || 'the folder itself', field: 'folder', editor: { type: 'text' as const } },
        ]),
  ],
  check: (step) => (step.as === 'a row' ? checkedRow(step) : checkedFolder(step)),
};

function checkedRow(step: KeepStep): Problem[] {
  const faults: Problem[] = [];
  const wrong = (field: string, sentence: string, mend: string) =>
    faults.push({ step: step.id, field, grade: 'error', sentence, mend });
  if (step.sheet.trim() === '') wrong('sheet', 'It names no sheet.', 'Give the address rows are posted to.');
  else if (!/[{]/.test(step.sheet) && !/^https?:\/\/\S+$/.test(step.sheet.trim()))
    wrong('sheet', `‘${step.sheet}’ is not an address rows can be sent to.`, 'Write one that begins with https://.');
  const cells = cellTexts(step.cells);
  if (!cells.ok)
    wrong('cells', `Line ${cells.line} of the row: ${cells.problem}.`, 'Write each cell as Column: text, a line each.');
  return faults;
}

function checkedFolder(step: KeepStep): Problem[] {
  return /(^|\/)\.\.(\/|$)|^[/\\]|\\/.test(step.folder)
    ? [
        {
          step: step.id,
          field: 'folder',
          grade: 'error',
          sentence: `‘${step.folder}’ leads outside the folder copies are kept in.`,
          mend: 'Name a folder inside it, as guides/2026.',
        },
      ]
    : [];
}
