import { describe, expect, it } from 'vitest';
import { doubtsOf, readSources } from './honesty.ts';

const kinds = (source: string, text: string, language = 'en') =>
  doubtsOf(text, readSources([source], language), language).map(({ kind, words }) => `${kind}: ${words}`);

describe('the same figure in another form is no doubt', () => {
  it.each([
    ['A mistake hardly matters in a bucket, but it changes a half-litre jar.', 'It shows in a jar of half a litre.'],
    ['One bow fills a two-metre case.', 'It takes a case of two metres.'],
    ['Turn the pegs every half hour.', 'The pegs are turned every thirty minutes.'],
    ['Two bridges and a litre and a half of oil go in.', 'One and a half litres of oil go in with two bridges.'],
    ['The varnish dries on the second day and is hard by the tenth.', 'It dries on day two and is hard by day ten.'],
    ['Skim the glue on the third and fifth day.', 'On days three and five the glue is skimmed.'],
    ['The smell goes away after the second week.', 'Two weeks on, the smell has gone.'],
    ['A cello weighs 9 kilograms in its case and 3 without.', 'Without its case a cello weighs 3 kilograms.'],
    ['Two weeks at 20 degrees are enough, four make it harder.', 'It is harder after four weeks.'],
    ['Strings cost 62 cents in Cork, 95 in Kerry and 1.10 euros in Clare.', 'In Kerry they cost 95 cents.'],
    ['The tone depends on the string, the bow and the room.', 'Three things make the tone: room, bow and string.'],
    ['Chalk, soap and patience help a peg.', 'Chalk, soap, patience: all three can help a peg.'],
    ['A room of 10 square metres takes 480 litres.', 'A 10 square metre room takes 480 litres.'],
    ['It reached a pH of 4.0 in 5 days at 20 degrees.', 'It was at pH 4.0 and 20 degrees after 5 days.'],
  ])('%s — %s', (source, text) => expect(kinds(source, text)).toEqual([]));

  it.each([
    ['One bow fills a two-metre case.', 'It takes a case of three metres.'],
    ['The varnish dries on the second day.', 'The varnish dries on day four.'],
    ['A cello weighs 9 kilograms in its case and 3 without.', 'Without its case a cello weighs 5 kilograms.'],
    ['Five things make the tone.', 'Three things make the tone.'],
    ['All three trains stop at Ennis.', 'All five trains stop at Ennis.'],
    ['A mistake changes a half-litre jar.', 'A mistake changes a jar of two litres.'],
    ['Two weeks at 20 degrees are enough, four make it harder.', 'It is harder after six weeks.'],
  ])('but another figure is: %s — %s', (source, text) => expect(kinds(source, text).join()).toContain('figure'));
});

describe('what says no in another way is no denial lost', () => {
  it.each([
    ['Small pegs in a large hole go wrong.', 'Never put a small peg in a large hole.'],
    ['Wipe the strings with water alone.', 'Wipe the strings with water and nothing more.'],
    ['The neck needs very little oil.', 'For the neck use hardly any oil.'],
    ['Fill the bag with sand rather than water.', 'Sand goes in, not water.'],
    ['Close the lid and set the case on a shelf.', 'With the lid closed, set the case on a shelf.'],
    ['Keep a spare half litre of varnish.', 'Half a litre of varnish is kept to spare.'],
  ])('%s — %s', (source, text) => expect(kinds(source, text).filter((one) => one.startsWith('opposite'))).toEqual([]));

  it.each([
    ['The bridge is glued to the top.', 'The bridge is not glued to the top.'],
    ['Rosin does not dissolve in water.', 'Rosin dissolves in water.'],
    ['Never oil the strings.', 'Oil the strings.'],
  ])('but the same with or without a ‘not’ is: %s — %s', (source, text) =>
    expect(kinds(source, text).join()).toContain('opposite'),
  );

  it('in German too', () => {
    expect(
      kinds('Zwei Wirbel stehen im Zwei-Liter-Glas.', 'Ein Glas von zwei Litern nimmt zwei Wirbel auf.', 'de'),
    ).toEqual([]);
    expect(kinds('Der Steg wird nicht geleimt.', 'Der Steg wird geleimt.', 'de').join()).toContain('opposite');
  });
});

it.each([
  ['en', 'Crispness is decided before the jar is closed.', 'Crisp or not is decided before the jar is closed.'],
  [
    'en',
    'Sea salt and table salt do the same work once they are dissolved.',
    'Once they have dissolved, nothing tells table salt from sea salt.',
  ],
  ['en', 'Anything below pH 4.6 is out of reach for the germs that matter.', 'The germs to fear need more than 4.6.'],
  ['en', 'every october i get the same message', 'October always brings the same message.'],
  [
    'en',
    'Two leaves in a one-litre jar are enough; a spoon holds 20 millilitres.',
    'For a jar of one litre take leaves.',
  ],
  [
    'en',
    'A kitchen scale is accurate enough for batches of a kilogram. It shows 3 grams.',
    'For a kilogram a kitchen scale will do.',
  ],
  [
    'en',
    'Two finger widths are enough for vegetables. Choose a smaller jar or make more.',
    'Put in more vegetables or take a jar that is smaller.',
  ],
  [
    'en',
    'Most vegetables ferment best at 18 degrees. Sourness builds over three to four weeks.',
    'Within three to four weeks they turn sour.',
  ],
  ['en', 'Silicone valves need no water and fit under a ring.', 'A silicone valve needs a ring and no water.'],
  [
    'en',
    'Open it daily during the first five days. Let it stand three days longer than before.',
    'It takes three days longer than the first.',
  ],
  ['de', 'Der Markt findet samstags statt.', 'Samstags findet ein Markt statt.'],
])('nothing is marked in %s: %s — %s', (language, source, text) => expect(kinds(source, text, language)).toEqual([]));
