import { z } from 'zod';
import { fieldName, stepBase } from '../fields.ts';
import type { StepKind } from '../kind.ts';
import { plural } from '../sentence.ts';

const schema = z.strictObject({
  ...stepBase,
  kind: z.literal('chart'),
  as: z.enum(['chart', 'table', 'both']),
  from: z.enum(['source', 'field']),
  /** The field that holds lines of figures. */
  field: fieldName,
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
  uses: (step) => (step.from === 'field' ? [{ field: 'field', as: 'name', text: step.field }] : []),
  calls: null,
  effect: false,
  writes: false,
  fresh: (id) => ({ id, kind: 'chart', off: false, as: 'chart', from: 'source', field: 'figures', most: 1 }),
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
        ],
      },
    },
    ...(step.from === 'field'
      ? [{ text: ' ' }, { word: step.field, field: 'field', editor: { type: 'text' as const } }]
      : []),
    { text: ', at most ' },
    {
      word: plural(step.most, 'series', 'series'),
      field: 'most',
      editor: { type: 'number', least: 1, most: 5, unit: 'series' },
    },
  ],
  check: () => [],
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
} as const;
