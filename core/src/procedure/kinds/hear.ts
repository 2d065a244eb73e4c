import { z } from 'zod';
import { LanguageTag } from '../../language/tag.ts';
import { stepBase } from '../fields.ts';
import type { StepKind } from '../kind.ts';
import { figureAt } from '../past.ts';
import { optional } from '../sentence.ts';
import { timeProblems } from '../times.ts';

const schema = z.strictObject({
  ...stepBase,
  kind: z.literal('hear'),
  /** Two-letter language spoken in it; null lets the transcriber find out. */
  language: LanguageTag.nullable(),
  /** Times as 00:12; empty is the beginning and the end, or the part chosen when the item was taken. */
  from: z.string().max(12),
  to: z.string().max(12),
  /** Share of 100 the transcriber must be sure of what it heard, on the whole. */
  sure: z.int().min(0).max(100),
  otherwise: z.enum(['hold it for me', 'set it aside', 'go on all the same']),
});
export type HearStep = z.infer<typeof schema>;

const OTHERWISE: Record<HearStep['otherwise'], string> = {
  'hold it for me': 'a person looks at what was heard',
  'set it aside': 'ends it on purpose; it can be brought back',
  'go on all the same': 'what was heard is used as it is',
};

export const hear: StepKind<'hear', HearStep> = {
  kind: 'hear',
  does: 'has the item’s recording put into timed text',
  schema,
  needs: [],
  gives: ['passages'],
  also: ['source', 'heard', 'carriesWords', 'spokenWords', 'spokenIn'],
  calls: 'transcriber',
  effect: false,
  writes: false,
  fresh: (id) => ({
    id,
    kind: 'hear',
    off: false,
    language: null,
    from: '',
    to: '',
    sure: 60,
    otherwise: 'hold it for me',
  }),
  past: [
    {
      field: 'sure',
      of: 'recordings',
      figure: (gave) => figureAt(gave, 'heard', 'sure'),
      passes: (step, sure) => sure >= step.sure,
    },
  ],
  sentence: (step) => [
    { text: 'Turn the recording into text' },
    ...optional(
      step.language !== null,
      ', spoken in ',
      { word: step.language ?? '', field: 'language', editor: { type: 'text' } },
      'the language spoken',
    ),
    ...optional(
      step.from !== '',
      ', from ',
      { word: step.from, field: 'from', editor: { type: 'text' } },
      'where it begins',
    ),
    ...optional(step.to !== '', ', up to ', { word: step.to, field: 'to', editor: { type: 'text' } }, 'where it ends'),
    { text: '; if the words are less certain than ' },
    { word: `${step.sure} %`, field: 'sure', editor: { type: 'number', least: 0, most: 100 } },
    { text: ', ' },
    {
      word: step.otherwise,
      field: 'otherwise',
      editor: {
        type: 'choice',
        options: Object.entries(OTHERWISE).map(([value, does]) => ({ value, says: value, does })),
      },
    },
  ],
  check: timeProblems,
};
