import { z } from 'zod';

/** Kinds of letters a card may be set in, shipped with the application. */
export const CARD_FACES = ['book', 'plain'] as const;
export type CardFace = (typeof CARD_FACES)[number];

export const LEAST_SIDE = 100;
export const MOST_SIDE = 3_000;
/** Pixels of the smallest letters that can be read on a phone, on a card shown half as large. */
const LEAST_LETTERS = 12;

const place = z.int().min(-MOST_SIDE).max(MOST_SIDE);
const side = z.int().min(1).max(MOST_SIDE);
export const CardBox = z.strictObject({ x: place, y: place, width: side, height: side });
export type CardBox = z.infer<typeof CardBox>;

const colour = z.string().regex(/^#[0-9a-f]{6}$/, 'a colour as #2f5a5d');
const file = z.string().regex(/^[0-9a-f]{64}$/, 'a file of ours');

export const CardText = z
  .strictObject({
    /** What stands there, with fields. */
    says: z.string().trim().min(1).max(400),
    face: z.enum(CARD_FACES),
    bold: z.boolean(),
    colour,
    /** Pixels its letters may be high, from baseline to the top of the next line above. */
    from: z.int().min(LEAST_LETTERS).max(600),
    to: z.int().min(LEAST_LETTERS).max(600),
    /** Lines it may take. */
    most: z.int().min(1).max(12),
    across: z.enum(['start', 'middle', 'end']),
    down: z.enum(['top', 'middle', 'foot']),
    box: CardBox,
  })
  .refine(({ from, to }) => from <= to, { message: 'the smallest size is larger than the largest', path: ['from'] });
export type CardText = z.infer<typeof CardText>;

export const CardPicture = z.strictObject({
  file,
  /** Whether it fills its box and is cut, or stands in it whole. */
  fills: z.boolean(),
  round: z.boolean(),
  box: CardBox,
});
export type CardPicture = z.infer<typeof CardPicture>;

/** A picture drawn from a template with text set into it. */
export const CardDocument = z.strictObject({
  name: z.string().trim().min(1).max(60),
  width: z.int().min(LEAST_SIDE).max(MOST_SIDE),
  height: z.int().min(LEAST_SIDE).max(MOST_SIDE),
  ground: z.strictObject({
    colour,
    /** The colour it runs to; null for one colour. */
    to: colour.nullable(),
    towards: z.enum(['down', 'across', 'corner']),
    /** A picture that fills the card, under a veil of the colours: 0 hides nothing of it, 90 nearly all. */
    picture: z.strictObject({ file, veil: z.int().min(0).max(95) }).nullable(),
  }),
  /** Plain areas: a rule, a band, a margin. */
  areas: z.array(z.strictObject({ colour, box: CardBox })).max(8),
  pictures: z.array(CardPicture).max(6),
  texts: z.array(CardText).min(1).max(8),
});
export type CardDocument = z.infer<typeof CardDocument>;

export const MOST_CARDS = 20;

/** Sides a card usually has: for pages and most networks, for a square, for a phone held upright. */
export const CARD_SIDES = [
  { name: 'wide', width: 1_200, height: 630 },
  { name: 'square', width: 1_080, height: 1_080 },
  { name: 'tall', width: 1_080, height: 1_920 },
] as const;

/** Fields every card has, besides those of the brief and the named texts of the house. */
export const CARD_FIELDS = [
  { name: 'title', says: 'the title of the article' },
  { name: 'keyPhrase', says: 'its key phrase' },
  { name: 'blog.name', says: 'the name of its blog' },
  { name: 'day', says: 'the day it is drawn' },
] as const;

/** A card that can be used as it is: the title large, the blog above it. */
export function newCard(name: string): CardDocument {
  return {
    name,
    width: 1_200,
    height: 630,
    ground: { colour: '#e4ede8', to: '#c4d6d1', towards: 'down', picture: null },
    areas: [{ colour: '#2f5a5d', box: { x: 80, y: 156, width: 72, height: 6 } }],
    pictures: [],
    texts: [
      {
        says: '{{ blog.name }}',
        face: 'plain',
        bold: false,
        colour: '#2f5a5d',
        from: 24,
        to: 36,
        most: 1,
        across: 'start',
        down: 'middle',
        box: { x: 80, y: 64, width: 1_040, height: 72 },
      },
      {
        says: '{{ title }}',
        face: 'book',
        bold: true,
        colour: '#0d2a2d',
        from: 40,
        to: 104,
        most: 5,
        across: 'start',
        down: 'middle',
        box: { x: 80, y: 180, width: 1_040, height: 390 },
      },
    ],
  };
}

/** A card with other sides: everything on it moves and grows along, letters by the lesser of the two. */
export function resized(card: CardDocument, width: number, height: number): CardDocument {
  const [across, down] = [width / card.width, height / card.height];
  const letters = Math.min(across, down);
  const size = (n: number) => Math.min(600, Math.max(LEAST_LETTERS, Math.round(n * letters)));
  const moved = ({ x, y, width: w, height: h }: CardBox): CardBox => ({
    x: Math.round(x * across),
    y: Math.round(y * down),
    width: Math.max(1, Math.round(w * across)),
    height: Math.max(1, Math.round(h * down)),
  });
  return {
    ...card,
    width,
    height,
    areas: card.areas.map((one) => ({ ...one, box: moved(one.box) })),
    pictures: card.pictures.map((one) => ({ ...one, box: moved(one.box) })),
    texts: card.texts.map((one) => ({ ...one, from: size(one.from), to: size(one.to), box: moved(one.box) })),
  };
}

/** The card that is meant by a name: the one called so, else the first; null where there is none. */
export function cardCalled(cards: readonly CardDocument[], name: string): CardDocument | null {
  return (name === '' ? cards[0] : cards.find((card) => card.name === name)) ?? null;
}
