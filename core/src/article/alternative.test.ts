import { describe, expect, it } from 'vitest';
import { alternativeApart, alternativeFor, alternativeFrom, LONGEST_ALTERNATIVE } from './alternative.ts';

const of = (shows: string | null) => alternativeFrom(shows, 'Strings that stay in tune');

describe('what a picture shows', () => {
  it('is said as its maker says it, on one line', () => {
    expect(of('A violin bridge\n on a   bench.')).toBe('A violin bridge on a bench.');
  });

  it.each([
    ['A picture of a violin bridge on a bench', 'A violin bridge on a bench'],
    ['An illustration showing two pegs and a string', 'Two pegs and a string'],
    ['a flat colour drawing of pegs in a row', 'Pegs in a row'],
    ['Eine Zeichnung mit drei Wirbeln und einer Saite', 'Drei Wirbeln und einer Saite'],
  ])('leaves out that it is one: %s', (shows, says) => expect(of(shows)).toBe(says));

  it('ends with a sentence where it is long, else with a part of one, never within a word', () => {
    const sentence = 'A row of pegs lies on a bench beside a bridge.';
    expect(of(`${sentence} ${'Behind it hang scrolls of every size. '.repeat(6)}`)).toMatch(/size\.$/);
    const parts = of(`A row of pegs, ${'a bridge of maple wood, '.repeat(12)}`)!;
    expect(parts.length).toBeLessThanOrEqual(LONGEST_ALTERNATIVE);
    expect(parts).toMatch(/wood$/);
    const words = of(`A row of ${'pegs and scrolls and '.repeat(20)}`)!;
    expect(words.length).toBeLessThanOrEqual(LONGEST_ALTERNATIVE);
    expect(words).toMatch(/(?:pegs|and|scrolls)$/);
  });

  it('is nothing where its maker says nothing, too little, or the title again', () => {
    expect(of(null)).toBeNull();
    expect(of('')).toBeNull();
    expect(of('A violin')).toBeNull();
    expect(of('STRINGS that stay in tune.')).toBeNull();
  });

  it('holds nothing a reader does not see', () => {
    expect(of('Pegs in\u200b a row\u202e of six')).toBe('Pegs in a row of six');
  });

  it('is otherwise what it was made for', () => {
    expect(alternativeFor('Strings', 'en')).toBe('Drawing made for “Strings”');
    expect(alternativeFor('Saiten', 'de')).toBe('Zeichnung zu „Saiten“');
  });
});

describe('what another picture says already', () => {
  it('is told apart by what this one was made for, within the length', () => {
    expect(alternativeApart('A peg on a bench.', 'tuning pegs', 'en')).toBe('A peg on a bench; for “tuning pegs”');
    expect(alternativeApart('Ein Wirbel.', 'Wirbel stimmen', 'de-AT')).toBe('Ein Wirbel; zu „Wirbel stimmen“');
    const long = alternativeApart(`A peg on a bench, ${'beside a saw, '.repeat(9)}`, 'tuning pegs', 'en');
    expect(long.length).toBeLessThanOrEqual(LONGEST_ALTERNATIVE);
    expect(long).toMatch(/; for “tuning pegs”$/);
    // Nothing of it would be left.
    expect(alternativeApart('A peg.', 'x'.repeat(200), 'en')).toBe('A peg.');
  });
});

it('is told in three words at least', () => {
  expect(alternativeFrom('Jars', 'Salt')).toBeNull();
  expect(alternativeFrom('two jars', 'Salt')).toBeNull();
  expect(alternativeFrom('two full jars', 'Salt')).toBe('Two full jars');
});
