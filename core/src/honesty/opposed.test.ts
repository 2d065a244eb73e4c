import { describe, expect, test } from 'vitest';
import { doubtsOf, readSources } from './honesty.ts';

const kinds = (source: string, said: string, language: string) =>
  doubtsOf(said, readSources([source], language), language).map(({ kind }) => kind);

/** Each with what says the same, and what was turned round. */
describe.each([
  [
    'what figures tell of both is compared as they do',
    [
      [
        'de',
        'Ein Dachs wiegt im Herbst bis zu 17 Kilo, im Frühjahr kaum mehr als zehn.',
        'Im Herbst ist er schwerer als im Frühjahr.',
        'Im Frühjahr ist er schwerer als im Herbst.',
      ],
      [
        'de',
        'Auf dem Land dauert das bis zu dreißig Jahre, am Meer oft nur sieben.',
        'Am Meer geht es schneller als auf dem Land.',
        'Auf dem Land geht es schneller als am Meer.',
      ],
      [
        'de',
        'Ein Quadratmeter Lehmputz trocknet langsam. Er kostet 45 Euro, Gipsputz nur 18.',
        'Gipsputz ist billiger als Lehmputz.',
        'Lehmputz ist billiger als Gipsputz.',
      ],
      [
        'en',
        'The bus takes 50 minutes, the train took only 32.',
        'The train was faster than the bus.',
        'The bus is faster than the train.',
      ],
      [
        'de',
        'Der Bus braucht 50 Minuten, die Bahn brauchte nur 32.',
        'Die Bahn war schneller, als der Bus ist.',
        'Der Bus ist schneller, als die Bahn war.',
      ],
    ],
  ],
  [
    'who does it and to whom it is done stay as they were',
    [
      ['en', 'Chlorine slows the yeast.', 'Chlorine slows yeast down.', 'Yeast slows down chlorine.'],
      ['en', 'Below 4 degrees their starch turns to sugar.', 'Starch becomes sugar.', 'Sugar becomes starch.'],
      [
        'en',
        'When water comes instead of air, close the valve.',
        'Close the valve when water comes instead of air.',
        'When air comes instead of water, close the valve.',
      ],
      [
        'en',
        'Mara Ellwood founded the press in 1994 with a loan from her sister Judith.',
        'Mara Ellwood founded the press.',
        'Judith Ellwood founded the press.',
      ],
      [
        'en',
        'A wren weighs nine grams, and sings ten times louder for its weight than a cockerel.',
        'A wren sings ten times louder for its weight than a cockerel.',
        'A cockerel sings ten times louder for its weight than a wren.',
      ],
      [
        'de',
        'Lehm speichert Wärme schlechter als Beton, reguliert aber die Feuchtigkeit besser.',
        'Beton speichert Wärme besser als Lehm.',
        'Lehm speichert Wärme besser als Beton.',
      ],
    ],
  ],
  [
    'what is counted stays what it was',
    [
      [
        'de',
        'Auf 500 Gramm Mehl kommen 20 Gramm frische Hefe oder 7 Gramm Trockenhefe.',
        'Von Trockenhefe reichen 7 Gramm.',
        'Von frischer Hefe reichen 7 Gramm.',
      ],
      [
        'en',
        'The starter is fed once a day. Kept in the fridge, it needs feeding only once a week.',
        'In the fridge it is fed every week.',
        'In the fridge it must be fed every day.',
      ],
      ['en', 'Fees are £180 a term.', 'A term costs £180.', 'Fees are £180 a month.'],
      [
        'en',
        'A foot passenger pays £6.50, and bicycles travel free.',
        'Bicycles are free.',
        'Bicycles must be paid for.',
      ],
      [
        'en',
        'The lighthouse was lit for the first time on 14 October 1861. Keepers shared the watches until the light was automated in 1988.',
        'The lighthouse was lit in 1861.',
        'The lamp was automated in 1861.',
      ],
    ],
  ],
  [
    'the rest is told of the rest, and what is done at dawn not of the evening',
    [
      [
        'de',
        'Zwei Drittel der Karten zeigen die Stadt, der Rest das Umland.',
        'Ein Drittel zeigt das Umland.',
        'Zwei Drittel zeigen das Umland.',
      ],
      ['en', 'Saffron is picked by hand at dawn.', 'Picking begins in the morning.', 'Picking begins in the evening.'],
      [
        'en',
        'She oils the shaft with linseed oil each spring.',
        'She oils the shaft every year.',
        'She oils the shaft every month.',
      ],
      [
        'de',
        'Gepflanzt wird von Oktober bis März, bei Frost nie.',
        'Bei Frost wird nicht gepflanzt.',
        'Auch bei Frost wird gepflanzt.',
      ],
      [
        'de',
        'Das Eis war 62 Zentimeter dick.',
        'Das Eis war mehr als einen halben Meter dick.',
        'Das Eis war mehr als einen Meter dick.',
      ],
      ['de', 'Imkerin Ruth Sander fängt Schwärme.', 'Ruth Sander fängt Schwärme.', 'Ruth Sandner fängt Schwärme.'],
      [
        'de',
        'Das Blau mischt Irma Tolle selbst.',
        'Irma Tolles Blau ist selbst gemischt.',
        'Irma Toller mischt das Blau.',
      ],
    ],
  ],
  [
    'a bound is no denial, and keeps its side',
    [
      [
        'en',
        'Wash it at no more than 30 degrees.',
        'Thirty degrees are the most it should be washed at.',
        'Wash it at more than 30 degrees.',
      ],
      [
        'de',
        'Die Brücke trägt nicht mehr als 20 Tonnen.',
        'Die Brücke trägt höchstens 20 Tonnen.',
        'Die Brücke trägt mehr als 20 Tonnen.',
      ],
    ],
  ],
  [
    'what is on is not off, and what takes place is not left out',
    [
      ['en', 'Switch off the heating first.', 'The heating must not be on.', 'The heating must be on.'],
      [
        'de',
        'Der Markt findet samstags statt, im August fällt der Markt aus.',
        'Im August gibt es keinen Markt.',
        'Auch im August findet der Markt statt.',
      ],
      [
        'de',
        'Dachse halten keinen Winterschlaf, sie ruhen nur.',
        'Winterschlaf hält der Dachs nicht.',
        'Der Dachs hält Winterschlaf.',
      ],
    ],
  ],
] as const)('%s', (_, rows) => {
  test.each(rows as readonly (readonly [string, string, string, string])[])(
    '%s: %s — %s, not %s',
    (language, source, same, turned) => {
      expect(kinds(source, same, language)).toEqual([]);
      expect(kinds(source, turned, language)).not.toEqual([]);
    },
  );
});
