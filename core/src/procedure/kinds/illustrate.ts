import { z } from 'zod';
import { fieldName, headings, instruction, stepBase } from '../fields.ts';
import type { Problem, StepKind } from '../kind.ts';
import { type Names, optional, plural, type SentencePart } from '../sentence.ts';

const schema = z.strictObject({
  ...stepBase,
  kind: z.literal('illustrate'),
  lead: z.enum(['drawn', 'still', 'own', 'library', 'card', 'field', 'page']),
  /** The field that names the pictures, or the page; of a page empty for the one the article is made from. */
  named: fieldName.or(z.literal('')).default(''),
  /** The second of its film that is taken; null for the still its host has. */
  second: z.int().min(0).max(86_400).nullable().default(null),
  /** What its alternative text is, with fields; empty for what is known to be seen. */
  alternative: z.string().max(300).default(''),
  /** Where they stand: one at the head of the article, or several in its text. */
  place: z.enum(['lead', 'at headings', 'where they fit']).default('lead'),
  headings: headings.default('2'),
  /** How many at most, where they fit. */
  most: z.int().min(1).max(10).default(3),
  size: z.enum(['full', 'medium', 'small']).default('full'),
  /** Which card of the house style it is, by its name; empty for its first. */
  card: z.string().trim().max(60).default(''),
  /** What is done where there is no such picture. */
  otherwise: z.enum(['drawn', 'none']).default('drawn'),
  /** How the picture should look, in words. */
  manner: z.string().max(500),
  instruction,
});
export type IllustrateStep = z.infer<typeof schema>;

/** Whether it may have a picture drawn, which is paid for. */
export const mayDraw = ({ lead, otherwise }: Pick<IllustrateStep, 'lead' | 'otherwise'>): boolean =>
  lead === 'drawn' || otherwise === 'drawn';

/** Whether a field says which pictures it takes. */
const namesField = ({ lead }: IllustrateStep): boolean => lead === 'field' || lead === 'page';

/** How many pictures it puts into an article, at most. */
export const picturesAtMost = ({ place, headings, most }: IllustrateStep): number =>
  place === 'lead' ? 1 : place === 'at headings' ? headings.split(',').length : most;

export const illustrate: StepKind<'illustrate', IllustrateStep> = {
  kind: 'illustrate',
  does: 'draws or finds pictures for the article',
  schema,
  needs: ['article'],
  gives: ['picture'],
  also: ['pictureSaid', 'pictures'],
  uses: (step) => [
    { field: 'instruction', as: 'template', text: step.instruction },
    { field: 'alternative', as: 'template', text: step.alternative },
    ...(namesField(step) && step.named !== '' ? [{ field: 'named', as: 'name' as const, text: step.named }] : []),
  ],
  calls: 'illustrator',
  effect: false,
  writes: false,
  fresh: (id) => ({
    id,
    kind: 'illustrate',
    off: false,
    lead: 'drawn',
    place: 'lead',
    headings: '2',
    most: 3,
    size: 'full',
    card: '',
    named: '',
    second: null,
    alternative: '',
    otherwise: 'drawn',
    manner: 'flat shapes, calm colours',
    instruction: '',
  }),
  sentence: (step, names) => [
    { text: 'Illustrate with ' },
    {
      word: step.place === 'lead' ? LEADS[step.lead].says : LEADS[step.lead].several,
      field: 'lead',
      editor: {
        type: 'choice',
        options: [
          ...Object.entries(LEADS).map(([value, { says, several, does }]) => ({
            value,
            says: step.place === 'lead' ? says : several,
            does,
          })),
        ],
      },
    },
    ...(step.lead === 'card' ? whichCard(step, names) : []),
    ...(namesField(step) ? [{ text: ' ' }, ...whichField(step)] : []),
    ...(step.lead === 'still' ? whichMoment(step) : []),
    { text: ' ' },
    ...placeOf(step),
    ...(step.lead === 'drawn'
      ? []
      : [
          { text: ', else ' },
          {
            word: step.otherwise === 'drawn' ? 'a drawn one' : 'none',
            field: 'otherwise',
            editor: {
              type: 'choice' as const,
              options: [
                { value: 'drawn', says: 'a drawn one', does: 'the illustrator draws it, which is paid for' },
                { value: 'none', says: 'none', does: 'the article goes on without a picture' },
              ],
            },
          },
        ]),
    ...(mayDraw(step)
      ? [
          { text: step.lead === 'drawn' ? ', ' : ' ' },
          {
            word: step.manner || 'in the manner of the house style',
            field: 'manner',
            editor: { type: 'text' as const },
          },
        ]
      : []),
    ...optional(
      step.alternative !== '',
      ', its alternative text ',
      { word: step.alternative, field: 'alternative', editor: { type: 'text' } },
      'its alternative text',
    ),
  ],
  check: (step, { names: { cards } }) => [...unnamed(step), ...noSuchCard(step, cards)],
};

/** A field that is to name the pictures is named itself. */
function unnamed(step: IllustrateStep): Problem[] {
  if (step.lead !== 'field' || step.named !== '') return [];
  return [
    {
      step: step.id,
      field: 'named',
      grade: 'error',
      sentence: 'It does not say which field names the pictures.',
      mend: 'Name a column, or a field of an earlier step.',
    },
  ];
}

function noSuchCard(step: IllustrateStep, cards: readonly string[] | undefined): Problem[] {
  return step.lead === 'card' && step.card !== '' && cards && !cards.includes(step.card)
    ? [
        {
          step: step.id,
          field: 'card',
          grade: 'error',
          sentence: `No house style has a card ‘${step.card}’.`,
          mend: 'Choose another, or make it under House style.',
        },
      ]
    : [];
}

/** Where the pictures stand, in words. */
function placeOf({ place, headings: numbers, most, size }: IllustrateStep): SentencePart[] {
  return [
    {
      word: PLACES.find(({ value }) => value === place)!.says,
      field: 'place',
      editor: { type: 'choice', options: PLACES },
    },
    ...(place === 'at headings'
      ? [{ text: ' ' }, { word: numbers, field: 'headings', editor: { type: 'text' as const } }]
      : []),
    ...(place === 'where they fit'
      ? [
          { text: ', at most ' },
          {
            word: plural(most, 'picture'),
            field: 'most',
            editor: { type: 'number' as const, least: 1, most: 10, unit: 'pictures' },
          },
        ]
      : []),
    ...(place === 'lead'
      ? []
      : [
          { text: ', ' },
          {
            word: SIZES.find(({ value }) => value === size)!.says,
            field: 'size',
            editor: { type: 'choice' as const, options: SIZES },
          },
        ]),
  ];
}

/** Which moment of a film it is, where that is chosen. */
function whichMoment({ second }: IllustrateStep): SentencePart[] {
  const clock = second === null ? '' : `${Math.floor(second / 60)}:${String(second % 60).padStart(2, '0')}`;
  return optional(
    second !== null,
    ' at ',
    { word: clock, field: 'second', editor: { type: 'number', least: 0, most: 86_400, unit: 'seconds' } },
    'at a moment of its film',
  );
}

/** Which field names them. */
function whichField({ lead, named }: IllustrateStep): SentencePart[] {
  if (lead === 'page')
    return [
      {
        word: named === '' ? 'the article is made from' : `at the address in ${named}`,
        field: 'named',
        editor: { type: 'text' },
      },
    ];
  return [{ word: named === '' ? 'not chosen yet' : named, field: 'named', editor: { type: 'text' } }];
}

/** Offered where there is more than one to choose from, or one that is meant by its name. */
function whichCard({ card }: IllustrateStep, { cards = [] }: Names): SentencePart[] {
  if (card === '' && cards.length < 2) return [];
  const named = [...new Set(card === '' ? cards : [card, ...cards])];
  return [
    { text: ' ' },
    {
      word: card === '' ? 'of the house style' : `‘${card}’`,
      field: 'card',
      editor: {
        type: 'choice',
        options: [
          { value: '', says: 'of the house style', does: 'the first card it has' },
          ...named.map((name) => ({
            value: name,
            says: `‘${name}’`,
            does: 'the card of this name in its house style',
          })),
        ],
      },
    },
  ];
}

const PLACES = [
  { value: 'lead', says: 'as lead picture', does: 'one, at the head of the article' },
  { value: 'at headings', says: 'at headings', does: 'in the text, below headings you name; a video there wins' },
  {
    value: 'where they fit',
    says: 'where they fit',
    does: 'in the text: places kept for a picture, then the longest sections that show nothing yet',
  },
];

const SIZES = [
  { value: 'full', says: 'as wide as the text', does: 'nothing beside them' },
  { value: 'medium', says: 'of medium width', does: 'three fifths of the text' },
  { value: 'small', says: 'small', does: 'a third of the text' },
];

const LEADS = {
  drawn: { says: 'a drawn picture', several: 'drawn pictures', does: 'the illustrator draws it' },
  still: {
    says: 'the source’s own picture',
    several: 'the source’s own picture',
    does: 'the still of its video, or the picture its product has, with its credit',
  },
  own: { says: 'a picture of ours', several: 'pictures of ours', does: 'the one in the library whose words fit best' },
  library: {
    says: 'a picture of a library',
    several: 'pictures of a library',
    does: 'the photograph that fits best in the picture libraries',
  },
  field: {
    says: 'the picture named by',
    several: 'the pictures named by',
    does: 'a column or field that holds addresses of pictures, one or several',
  },
  page: {
    says: 'a picture of the page',
    several: 'a picture of the page',
    does: 'as a browser shows it, with the page credited',
  },
  card: { says: 'a card', several: 'cards', does: 'its title set into a template of the house style' },
} as const;
