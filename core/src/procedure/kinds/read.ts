import { z } from 'zod';
import { instruction, stepBase } from '../fields.ts';
import type { StepKind } from '../kind.ts';
import { listWords, optional, plural } from '../sentence.ts';
import { timeProblems } from '../times.ts';

export const READS = ['the captions', 'the row', 'the page', 'the document', 'the notes'] as const;

/** What is read as text of an address or a file, and may be cut off after so many words. */
const isText = (what: (typeof READS)[number]) => what === 'the page' || what === 'the document';

const schema = z.strictObject({
  ...stepBase,
  kind: z.literal('read'),
  what: z.enum(READS),
  /** Where it is: a Liquid text; not looked at for a row. */
  address: instruction.default('{{ link }}'),
  /** Times as 00:12; empty is the beginning and the end, or the part chosen when the item was taken. */
  from: z.string().max(12),
  to: z.string().max(12),
  /** Most words of a page or document that are read; null reads all. */
  most: z.int().min(50).max(100_000).nullable().default(null),
  /** Columns of a row whose cells may go into the text, by their field names; none names them all. */
  columns: z.array(z.string().max(120)).max(200).default([]),
});
export type ReadStep = z.infer<typeof schema>;

const DOES: Record<(typeof READS)[number], string> = {
  'the captions': 'what is said in the video, by its captions, with its chapters',
  'the row': 'the cells of the sheet’s row, texts as they stand and the others by their names',
  'the page': 'the text of the page or document behind the link',
  'the document': 'the text of the file that came with the item, else of what is behind its link',
  'the notes': 'the text that came with the item: notes typed in, what a program or a feed sent along',
};

const hasAddress = (what: (typeof READS)[number]) => what !== 'the row' && what !== 'the notes';

export const read: StepKind<'read', ReadStep> = {
  kind: 'read',
  does: 'reads what the item holds: captions, a row, a page, a document, notes',
  schema,
  needs: [],
  gives: ['passages'],
  also: ['source', 'chapters', 'carriesWords', 'spokenWords', 'spokenIn', 'sources', 'unread'],
  uses: (step) =>
    hasAddress(step.what)
      ? [{ field: 'address', as: 'template', text: step.address }]
      : step.what === 'the row'
        ? step.columns.map((text) => ({ field: 'columns', as: 'name' as const, text }))
        : [],
  calls: null,
  effect: false,
  writes: false,
  fresh: (id) => ({
    id,
    kind: 'read',
    off: false,
    what: 'the captions',
    address: '{{ link }}',
    from: '',
    to: '',
    most: null,
    columns: [],
  }),
  sentence: (step) => [
    { text: 'Read ' },
    {
      word: step.what,
      field: 'what',
      editor: { type: 'choice', options: READS.map((value) => ({ value, says: value, does: DOES[value] })) },
    },
    ...(hasAddress(step.what)
      ? [
          { text: ' of ' },
          {
            word: step.address === '{{ link }}' ? 'the item’s link' : step.address || 'no address yet',
            field: 'address',
            editor: { type: 'text' as const },
          },
        ]
      : []),
    ...(step.what === 'the row'
      ? [
          { text: ', ' },
          {
            word: step.columns.length === 0 ? 'all its columns' : `its ${listWords(step.columns, '', 6)}`,
            field: 'columns',
            editor: { type: 'list' as const, of: 'column' as const },
          },
        ]
      : []),
    ...(isText(step.what)
      ? [
          { text: ', ' },
          {
            word: step.most === null ? 'all of it' : `its first ${plural(step.most, 'word')}`,
            field: 'most',
            editor: { type: 'number' as const, least: 50, most: 100_000 },
          },
        ]
      : []),
    ...(step.what === 'the captions'
      ? [
          ...optional(
            step.from !== '',
            ', from ',
            { word: step.from, field: 'from', editor: { type: 'text' } },
            'where it begins',
          ),
          ...optional(
            step.to !== '',
            ', up to ',
            { word: step.to, field: 'to', editor: { type: 'text' } },
            'where it ends',
          ),
        ]
      : []),
  ],
  check: (step) =>
    step.what === 'the captions'
      ? timeProblems(step)
      : step.what === 'the row' && step.columns.length === 0
        ? [
            {
              step: step.id,
              field: 'columns',
              grade: 'warning',
              sentence: 'Every column goes into the text, those meant for you alone too.',
              mend: 'Choose the columns the article may be made of.',
            },
          ]
        : [],
};
