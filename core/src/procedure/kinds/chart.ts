import { z } from 'zod';
import { fieldName, stepBase } from '../fields.ts';
import type { StepKind } from '../kind.ts';
import { listWords, plural } from '../sentence.ts';

const schema = z.strictObject({
  ...stepBase,
  kind: z.literal('chart'),
  as: z.enum(['chart', 'table', 'both']),
  from: z.enum(['source', 'field', 'items']),
  /** The field that holds lines of figures. */
  field: fieldName,
  /** Columns of its items that are set beside each other, as they are called as fields. */
  columns: z.array(fieldName).max(12).default([]),
  /** How many it makes at most. */
  most: z.int().min(1).max(5),
});
export type ChartStep = z.infer<typeof schema>;

export const chart: StepKind<'chart', ChartStep> = {
  kind: 'chart',
  does: 'draws charts and tables of figures that belong together',
  schema,
  needs: ['article'],
  gives: ['charts'],
  uses: (step) => [
    ...(step.from === 'field' ? [{ field: 'field', as: 'name' as const, text: step.field }] : []),
    ...(step.from === 'items' ? [{ field: 'from', as: 'name' as const, text: 'items' }] : []),
  ],
  calls: null,
  effect: false,
  writes: false,
  fresh: (id) => ({
    id,
    kind: 'chart',
    off: false,
    as: 'chart',
    from: 'source',
    field: 'figures',
    columns: [],
    most: 1,
  }),
  sentence: (step) => [
    { text: 'Draw ' },
    {
      word: FORMS[step.as].says,
      field: 'as',
      editor: {
        type: 'choice',
        options: [
          { value: 'chart', ...FORMS.chart },
          { value: 'table', ...FORMS.table },
          { value: 'both', ...FORMS.both },
        ],
      },
    },
    { text: ' of ' },
    {
      word: FROM[step.from].says,
      field: 'from',
      editor: {
        type: 'choice',
        options: [
          { value: 'source', ...FROM.source },
          { value: 'field', ...FROM.field },
          { value: 'items', ...FROM.items },
        ],
      },
    },
    ...(step.from === 'field'
      ? [{ text: ' ' }, { word: step.field, field: 'field', editor: { type: 'text' as const } }]
      : []),
    ...(step.from === 'items'
      ? [
          { text: ': ' },
          {
            word: listWords(step.columns, 'no column yet', 6),
            field: 'columns',
            editor: { type: 'list' as const, of: 'column' as const },
          },
        ]
      : []),
    ...(step.from === 'items' && step.as === 'table'
      ? []
      : [
          { text: ', at most ' },
          {
            word: plural(step.most, 'series', 'series'),
            field: 'most',
            editor: { type: 'number' as const, least: 1, most: 5, unit: 'series' },
          },
        ]),
  ],
  check: (step) =>
    step.from === 'items' && step.columns.length === 0
      ? [
          {
            step: step.id,
            field: 'columns',
            grade: 'error',
            sentence: 'It compares its items by nothing.',
            mend: 'Choose the columns that stand in the table.',
          },
        ]
      : [],
};

const FORMS = {
  chart: { says: 'a chart', does: 'a picture of the figures, which stand below it' },
  table: { says: 'a table', does: 'the figures alone' },
  both: { says: 'a chart and a table', does: 'the figures are seen without a press' },
} as const;
const FROM = {
  source: {
    says: 'figures in the source',
    does: 'at least three of one sort, as years, sorts or temperatures have them',
  },
  field: { says: 'the lines of a field', does: 'a line each: what it is, a bar or a semicolon, the figure' },
  items: {
    says: 'its items side by side',
    does: 'of several taken together: a line each, with the columns you choose; charts of those that hold figures',
  },
} as const;
