import { describe, expect, test } from 'vitest';
import type { Face } from '../drawing/type.ts';
import { HouseStyleDocument } from '../style/document.ts';
import { CARD_SIDES, CardDocument, cardCalled, newCard, resized } from './document.ts';
import { drawCard } from './draw.ts';

const face: Face = {
  reach: () => ({ above: 800, below: 200 }),
  set: (text) => ({
    advance: text.length * 500,
    ink: { left: 0, right: text.length * 500, top: 0, bottom: 0 },
    outline: `L${text}`,
  }),
};
const FILE = 'a'.repeat(64);
const draw = (card: CardDocument, ...says: string[]) =>
  drawCard(card, says, { face: () => face, picture: (file) => (file === FILE ? 'data:image/png;base64,AA' : null) });

describe('a card', () => {
  test('that is new can be drawn, and fits what a house style may hold', () => {
    const card = newCard('Plain');
    expect(CardDocument.parse(card)).toEqual(card);
    expect(HouseStyleDocument.parse({ grivo: 1, cards: [card] }).cards).toEqual([card]);
    expect(draw(card, 'Bee notes', 'Why bees swarm').problems).toEqual([]);
  });

  test.each([
    ['two of one name', { cards: [newCard('One'), newCard('One')] }],
    ['a colour that is none', { cards: [{ ...newCard('One'), ground: { ...newCard('One').ground, colour: 'red' } }] }],
    ['sides of nothing', { cards: [{ ...newCard('One'), width: 0 }] }],
    ['no text', { cards: [{ ...newCard('One'), texts: [] }] }],
    [
      'sizes the wrong way round',
      { cards: [{ ...newCard('One'), texts: [{ ...newCard('One').texts[0]!, from: 90 }] }] },
    ],
  ])('is refused with %s', (_, change) => {
    expect(HouseStyleDocument.safeParse({ grivo: 1, ...change }).success).toBe(false);
  });

  test('is found by its name, or is the first', () => {
    const cards = [newCard('One'), newCard('Two')];
    expect(cardCalled(cards, 'Two')?.name).toBe('Two');
    expect(cardCalled(cards, '')?.name).toBe('One');
    expect([cardCalled(cards, 'Three'), cardCalled([], '')]).toEqual([null, null]);
  });

  test('with other sides has everything on it within them', () => {
    for (const { width, height } of CARD_SIDES) {
      const card = resized(newCard('One'), width, height);
      expect(CardDocument.safeParse(card).success).toBe(true);
      for (const { box } of [...card.texts, ...card.areas]) {
        expect(box.x).toBeGreaterThanOrEqual(0);
        expect(box.x + box.width).toBeLessThanOrEqual(width);
        expect(box.y + box.height).toBeLessThanOrEqual(height);
      }
    }
  });

  test('is drawn from the ground up: ground, picture and veil, areas, pictures, letters', () => {
    const card: CardDocument = {
      ...newCard('One'),
      ground: { colour: '#102030', to: null, towards: 'down', picture: { file: FILE, veil: 40 } },
      pictures: [{ file: FILE, fills: false, round: true, box: { x: 10, y: 20, width: 30, height: 40 } }],
    };
    const { svg } = draw(card, 'A', 'B');
    const order = [
      'fill="#102030"',
      'xMidYMid slice',
      'fill-opacity="0.4"',
      'fill="#2f5a5d"',
      'clip-path="url(#round0)"',
      'd="LA"',
      'd="LB"',
    ];
    const places = order.map((part) => svg.indexOf(part));
    expect(places).toEqual([...places].sort((a, b) => a - b));
    expect(places[0]).toBeGreaterThan(0);
    expect(svg).toContain('xMidYMid meet');
    expect(svg).toContain('<ellipse cx="25" cy="40" rx="15" ry="20"/>');
  });

  test('does not try a text that is longer than any heading', () => {
    const { problems } = draw(newCard('One'), 'A', 'so many words '.repeat(2_000));
    expect(problems).toMatchObject([{ text: 1, stops: true, sentence: expect.stringContaining('does not fit') }]);
  });

  test('tells letters by the ground that is under them: an area that holds them, a picture nobody knows', () => {
    const white = newCard('One').texts.map((text) => ({ ...text, colour: '#ffffff' }));
    const pale = { ...newCard('One'), texts: white };
    const about = (card: CardDocument) => draw(card, 'A', 'B').problems.map(({ text }) => text);
    expect(about(pale)).toEqual([0, 1]);
    const dark = { colour: '#0d2a2d', box: { x: 0, y: 0, width: 1_200, height: 630 } };
    expect(about({ ...pale, areas: [dark] })).toEqual([]);
    expect(about({ ...pale, ground: { ...pale.ground, picture: { file: FILE, veil: 20 } } })).toEqual([]);
    expect(about({ ...pale, ground: { ...pale.ground, picture: { file: FILE, veil: 80 } } })).toEqual([0, 1]);
    // What says nothing cannot be hard to read.
    expect(draw(pale, '', '').problems).toEqual([]);
  });
});
