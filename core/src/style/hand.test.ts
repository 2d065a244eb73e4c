import { describe, expect, it } from 'vitest';
import { type Chance, chanceFrom } from '../chance/chance.ts';
import { handDistance, handOf, isOfHand } from './hand.ts';

/*
 * Made-up hands: each says the same few things about the same subject in the same number of sentences, and differs only
 * in which of several ways of saying a thing it leans to. How far it leans is drawn, so some are nearly alike.
 */
const WAYS: readonly (readonly [string, string])[] = [
  ['but', 'though'],
  ['because', 'since'],
  ['also', 'too'],
  ['which', 'that'],
  ['until', 'till'],
  ['it is', "it's"],
  ['do not', "don't"],
  ['you', 'one'],
  ['so', 'thus'],
  ['about', 'around'],
  ['often', 'mostly'],
  ['very', 'quite'],
  ['; ', '. Then '],
  [', and ', ' and '],
  ['when', 'once'],
  ['may', 'can'],
  ['a few', 'some'],
  ['on', 'upon'],
  ['while', 'as'],
  ['each', 'every'],
];
const SAYS: readonly string[] = [
  'The {6} let the saddle get wet {1} {5} slow to dry{12}the leather turns hard.',
  '{14} {7} clean the bridle{13}wipe the bit {2}.',
  'The girth {3} {7} buckle first {15} pinch, {0} {5} {11} easy to loosen.',
  'Oil the straps {10} {14} {7} hang them {17} the wall{12}{16} drops are enough.',
  '{18} {7} brush the mane, look at the hooves {2}{13}pick {19} one clean.',
  'Leave {9} a hand of room {1} the horse {15} lean {17} the rail.',
  '{5} {11} cold {4} noon, {8} rug the horse{13}feed it {2}.',
  'The farrier comes {9} {19} sixth week, {0} {16} horses {15} wait longer.',
];

function written(hand: readonly number[], chance: Chance, sentences: number): string {
  const out: string[] = [];
  for (let i = 0; i < sentences; i++) {
    const said = SAYS[Math.floor(chance() * SAYS.length)]!.replace(/\{(\d+)\}/g, (_, n: string) => {
      const way = WAYS[Number(n)]!;
      return chance() < hand[Number(n)]! ? way[0] : way[1];
    });
    out.push(said[0]!.toUpperCase() + said.slice(1));
  }
  return out.join(' ');
}

const drawn = (chance: Chance): number[] => WAYS.map(() => 0.1 + 0.8 * chance());

describe('telling hands apart', () => {
  it('learnt from six texts, a seventh of the hand is nearer than one of another in at least 45 of 50', () => {
    let nearer = 0;
    for (let n = 0; n < 50; n++) {
      const chance = chanceFrom(`hands ${n}`);
      const [one, other] = [drawn(chance), drawn(chance)];
      const hand = handOf(
        Array.from({ length: 6 }, () => written(one, chance, 30)),
        'en',
      );
      const [seventh, foreign] = [written(one, chance, 30), written(other, chance, 30)];
      if (handDistance(hand, seventh) < handDistance(hand, foreign)) nearer++;
    }
    expect(nearer).toBeGreaterThanOrEqual(45);
  });

  it('takes two texts of one hand for one hand, and says so of its own', () => {
    const chance = chanceFrom('alike');
    const hand = drawn(chance);
    const learnt = handOf(
      Array.from({ length: 6 }, () => written(hand, chance, 40)),
      'en',
    );
    const own = Array.from({ length: 10 }, () => isOfHand(learnt, written(hand, chance, 40)));
    expect(own.filter(Boolean).length).toBeGreaterThanOrEqual(8);
    const opposite = hand.map((lean) => (lean < 0.5 ? 1 : 0));
    expect(isOfHand(learnt, written(opposite, chance, 40))).toBe(false);
  });

  it('is not lost over one short text, no text, or a language it knows no words of', () => {
    expect(handDistance(handOf([], 'en'), 'Anything.')).toBe(0);
    expect(handDistance(handOf(['Short.'], 'en'), 'Short too.')).toBeGreaterThanOrEqual(0);
    const swedish = handOf(
      ['Och så var det vår. Och så blev det sommar.', 'Och det var kallt. Och det blev kallare.'],
      'sv',
    );
    expect(handDistance(swedish, 'Och det var vår. Och det blev sommar.')).toBeLessThan(
      handDistance(swedish, 'Men när våren kom; ja, då! Men sommaren? Men hösten!'),
    );
  });
});
