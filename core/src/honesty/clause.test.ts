import { describe, expect, it } from 'vitest';
import { statementsOf } from './clause.ts';
import { knownWords, strangeNames } from './names.ts';
import { quoteHeld, quotesOf } from './quotes.ts';

const clauses = (text: string, language = 'en') => statementsOf(text, language).clauses;
const parts = (text: string, language = 'en') =>
  clauses(text, language).map(({ tokens }) => tokens.map(({ text: word }) => word).join(' '));

describe('clauses', () => {
  it.each([
    ['The red team scored 21 points and the blue team 17.', ['The red team scored 21 points', 'the blue team 17 .']],
    [
      'A full repair costs 420 dollars; a service is 65 dollars.',
      ['A full repair costs 420 dollars', 'a service is 65 dollars .'],
    ],
    ['Salt, pepper and oil.', ['Salt , pepper and oil .']],
    ['It takes between 7 and 10 days.', ['It takes between 7 and 10 days .']],
    ['A hundred and forty singers came.', ['A hundred and forty singers came .']],
  ])('‘%s’', (text, expected) => expect(parts(text)).toEqual(expected));

  it('what is denied twice is said; what is denied in each of two parts is denied', () => {
    const denies = (text: string, language = 'en') => clauses(text, language).map((clause) => clause.denies);
    expect(denies('He does not refuse.')).toEqual([false]);
    expect(denies('Neither dogs nor cats may enter.')).toEqual([true]);
    expect(denies('Die Stube ist gesperrt; niemand darf hinein.', 'de')).toEqual([true]);
    expect(denies('Weder Hunde noch Katzen dürfen hinein.', 'de')).toEqual([true]);
    expect(denies('Er kommt nur noch selten.', 'de')).toEqual([false]);
  });

  it('what a clause is about: its own words, with those it leaves to the one before, without what it compares with', () => {
    const [, second] = clauses('The clay shrinks by 8 per cent in drying and another 4 per cent in the kiln.');
    expect([...second!.own]).toEqual(expect.arrayContaining(['clay', 'shrink', 'kiln']));
    const [lens] = clauses('The lens weighs twice as much as the bell.');
    expect([...lens!.own]).not.toContain('bell');
    expect([...lens!.compared]).toEqual(['bell']);
    const [lentils, beans] = clauses('Lentils contain 9 grams of protein, chickpeas 8.');
    expect(lentils!.subject).toBe('lentil');
    expect(beans!.leans).toBe(false);
  });

  it('begins with a thing, or points at one', () => {
    const subject = (text: string, language = 'en') => clauses(text, language)[0]!.subject;
    expect(subject('The old mill turns.')).toBe('mill');
    expect(subject('It turns.')).toBeNull();
    expect(subject('Forty mills turn.')).toBeNull();
    expect(subject('Die alte Mühle steht.', 'de')).toMatch(/^muhl/);
  });
});

describe('names', () => {
  const strange = (text: string, source: string, language = 'en') => {
    const { tokens } = statementsOf(text, language);
    return strangeNames(tokens, [knownWords(statementsOf(source, language).tokens, language)], language).map(
      ({ text: word }) => word,
    );
  };
  it.each([
    ['Orla Penrose leads it.', 'The director is Orla Penhallow.', ['Penrose']],
    ['Penhallow’s ships stay.', 'The director is Orla Penhallow.', []],
    ['Rhys, who knew, said so.', 'The forecaster Callum Reyes said so.', ['Rhys']],
    ['There are ships.', 'The director is Orla Penhallow.', []],
    ['It opens in May, on a Friday, at Christmas.', 'It opens.', []],
    ['The Germans came from Kork.', 'Germans came.', ['Kork']],
  ])('‘%s’', (text, source, expected) => expect(strange(text, source)).toEqual(expected));

  it.each([
    ['Reto Imhof wendet ihn.', 'Senn Reto Imfang wendet ihn.', ['Imhof']],
    ['Bäcker Jonas Krell ruht.', 'In der Stube von Jonas Krell ruht der Teig.', []],
    ['Der Meteorologe Ostmann warnte.', 'Meteorologe Tilman Ostberg warnte.', ['Ostmann']],
    ['Ein Gericht aus Ravenna.', 'Das Rezept stammt aus Trevelmo.', ['Ravenna']],
    // What the source says otherwise ends where it is said: at a stop, a small word, the end.
    ['Ein Gericht aus Ravenna.', 'Das Rezept stammt von Trevelmo.', ['Ravenna']],
    ['Ein Gericht aus Ravenna und Salz.', 'Das Rezept stammt von Trevelmo.', ['Ravenna']],
    ['Ein Gericht aus Ravenna', 'Das Rezept stammt von Trevelmo.', ['Ravenna']],
    ['Der Durchmesser ist groß.', 'Das Rad misst 4 Meter.', []],
  ])('‘%s’', (text, source, expected) => expect(strange(text, source, 'de')).toEqual(expected));
});

describe('quotations', () => {
  it('are what stands between quotation marks of any sort, from three words on', () => {
    const found = (text: string) => quotesOf(text, 'en').map(({ text: words }) => words);
    expect(found('“We never sleep,” she said, and he: "Nor do we." A «long night indeed».')).toEqual([
      'We never sleep,',
      'Nor do we.',
      'long night indeed',
    ]);
    expect(found('A “cat” and an “old cat”.')).toEqual([]);
    expect(found('“It never ends')).toEqual([]);
  });

  it('are held word for word, whatever was left out or put in and says so', () => {
    const held = (quote: string) =>
      quoteHeld(quote, ['He said: “The soil decides what grows, not the gardener.”'], 'en');
    expect(held('The soil decides what grows')).toBe(true);
    expect(held('the soil … not the gardener')).toBe(true);
    expect(held('The soil [here] decides what grows')).toBe(true);
    expect(held('not the gardener … the soil')).toBe(false);
    expect(held('The gardener decides what grows')).toBe(false);
  });
});
