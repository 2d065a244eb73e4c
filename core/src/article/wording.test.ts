import { describe, expect, it } from 'vitest';
import { fillersIn, isPassive } from './wording.ts';

describe('words that say nothing', () => {
  it('are found whole, in any case, phrases before the words in them', () => {
    expect(fillersIn('Really, it is very good. In order to be just, everyday is fine.', 'en')).toEqual([
      'Really',
      'very',
      'In order to',
      'just',
    ]);
    expect(fillersIn('Das ist eigentlich einfach, im Grunde natürlich.', 'de-AT')).toEqual([
      'eigentlich',
      'einfach',
      'im Grunde',
      'natürlich',
    ]);
    expect(fillersIn('Vraiment très bon.', 'fr')).toEqual([]);
  });
});

describe('a sentence', () => {
  it.each([
    ['The cabbage is weighed first.', true],
    ['The lid was never quite closed.', false],
    ['The lid was slowly closed.', true],
    ['Salt is best added by weight.', true],
    ['The jars were then taken away.', true],
    ['It is not known why.', true],
    ['The cabbage is red and the cook is tired.', false],
    ['Weigh the cabbage.', false],
    ['You are at the bench, and the salt dissolved.', false],
    ['They have weighed it.', false],
  ])('%s', (sentence, passive) => {
    expect(isPassive(sentence, 'en')).toBe(passive);
  });

  it.each([
    ['Der Kohl wird zuerst gewogen.', true],
    ['Die Lake wurde langsam verdünnt.', true],
    ['Das Salz wird stark.', false],
    ['Er hat den Kohl gewogen.', false],
    ['Wir werden kommen, und er hat gewogen.', false],
  ])('%s', (sentence, passive) => {
    expect(isPassive(sentence, 'de')).toBe(passive);
  });

  it('in another language is not judged', () => {
    expect(isPassive('Kålen vägs först.', 'sv')).toBe(false);
  });
});
