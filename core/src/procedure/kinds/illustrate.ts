import { z } from 'zod';
import { instruction, stepBase } from '../fields.ts';
import type { StepKind } from '../kind.ts';
import type { Names, SentencePart } from '../sentence.ts';

const schema = z.strictObject({
  ...stepBase,
  kind: z.literal('illustrate'),
  lead: z.enum(['drawn', 'still', 'own', 'library', 'card']),
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

export const illustrate: StepKind<'illustrate', IllustrateStep> = {
  kind: 'illustrate',
  does: 'draws or finds pictures for the article',
  schema,
  needs: ['article'],
  gives: ['picture'],
  also: ['pictureSaid'],
  uses: (step) => [{ field: 'instruction', as: 'template', text: step.instruction }],
  calls: 'illustrator',
  effect: false,
  writes: false,
  fresh: (id) => ({
    id,
    kind: 'illustrate',
    off: false,
    lead: 'drawn',
    card: '',
    otherwise: 'drawn',
    manner: 'flat shapes, calm colours',
    instruction: '',
  }),
  sentence: (step, names) => [
    { text: 'Illustrate with ' },
    {
      word: LEADS[step.lead].says,
      field: 'lead',
      editor: {
        type: 'choice',
        options: [
          { value: 'drawn', ...LEADS.drawn },
          { value: 'still', ...LEADS.still },
          { value: 'own', ...LEADS.own },
          { value: 'library', ...LEADS.library },
          { value: 'card', ...LEADS.card },
        ],
      },
    },
    ...(step.lead === 'card' ? whichCard(step, names) : []),
    { text: ' as lead picture' },
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
  ],
  check: (step, { names: { cards } }) =>
    step.lead === 'card' && step.card !== '' && cards && !cards.includes(step.card)
      ? [
          {
            step: step.id,
            field: 'card',
            grade: 'error',
            sentence: `No house style has a card ‘${step.card}’.`,
            mend: 'Choose another, or make it under House style.',
          },
        ]
      : [],
};

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

const LEADS = {
  drawn: { says: 'a drawn picture', does: 'the illustrator draws it' },
  still: {
    says: 'the source’s own picture',
    does: 'the still of its video, or the picture its product has, with its credit',
  },
  own: { says: 'a picture of ours', does: 'the one in the library whose words fit best' },
  library: {
    says: 'a picture of a library',
    does: 'the photograph that fits best in the picture libraries',
  },
  card: { says: 'a card', does: 'its title set into a template of the house style' },
} as const;
