import { expect, test } from 'vitest';
import { lines, textsIn } from '../testing/corpus.ts';
import { seriesIn, seriesInRows } from './series.ts';

const TOLD = [
  'In 2019 there were 40 jars, in 2020 there were 55, in 2021 there were 61 and in 2022 there were 90.',
  'Oak costs 1,900 euros, ash 1,400 euros, elm 990 euros and pine 450 euros.',
  'At 10 degrees it takes 6 weeks, at 15 degrees 4 weeks, at 20 degrees 3 weeks and at 25 degrees 10 days.',
  'Week 1 brought €12, week 2 €15, week 3 €9.',
  'Sales rose from 12 per cent in May to 15 per cent in June and 21 per cent in July.',
  'Of the singers 40 % are women, 35 % men and 25 % children.',
  'It has 3 rooms. It costs 4 pounds.',
  'In 2019 there were 40 jars and in 2020 a dog.',
];
const GERMAN = [
  '2019 waren es 40 Gläser, 2020 waren es 55, 2021 waren es 61 und 2022 waren es 90.',
  'Eiche kostet 1.900 Euro, Esche 1.400 Euro, Ulme 990 Euro.',
  'Bei 10 Grad dauert es 6 Wochen, bei 15 Grad 4 Wochen, bei 20 Grad 3 Wochen.',
  'Im Mai waren es 12 Prozent, im Juni 15 Prozent, im Juli 21 Prozent.',
];

test('series of figures in texts and rows', async () => {
  const all = [
    ...TOLD.map((text) => `${text} → ${JSON.stringify(seriesIn(text, 'en'))}`),
    ...GERMAN.map((text) => `${text} → ${JSON.stringify(seriesIn(text, 'de'))}`),
    ...textsIn('en', 60).flatMap((text) => seriesIn(text, 'en').map((one) => JSON.stringify(one))),
    ...textsIn('de', 60).flatMap((text) => seriesIn(text, 'de').map((one) => JSON.stringify(one))),
    JSON.stringify(
      seriesInRows([
        'Jar: litres 1, price € 12.50',
        'Crock: litres 5, price € 48.00',
        'Barrel: litres 20, price € 96.00',
      ]),
    ),
    JSON.stringify(seriesInRows(['a', 'b'])),
  ];
  await expect(lines(all)).toMatchFileSnapshot('listed/series.txt');
});
