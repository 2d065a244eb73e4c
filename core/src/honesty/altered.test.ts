import { describe, expect, it, test } from 'vitest';
import { doubtsOf, readSources } from './honesty.ts';
import { alteredByRule } from './pairs/altered.ts';
import { judged, keptPairs } from './pairs/pairs.ts';

const isDoubted = (said: string, source: string, language = 'en') =>
  doubtsOf(said, readSources([source], language), language).length > 0;

describe('what is altered by rule', () => {
  const { fitted, anew, latest } = keptPairs();
  const altered = alteredByRule([...fitted, ...anew, ...latest]);

  test('is seen but for what stands in the list', async () => {
    const { rows, wrong } = judged(altered);
    const table = rows.map(({ of, altered: all, caught }) => `${of}: ${caught} of ${all} seen`);
    const passed = wrong.map(([language, , kind, , sentence]) => `${language} ${kind} | ${sentence}`);
    await expect([...table.sort(), '', ...passed.sort(), ''].join('\n')).toMatchFileSnapshot('pairs/passed.txt');
  });

  test('never says what it was altered from', () => {
    const said = new Set(
      [...fitted, ...anew, ...latest].flatMap(([, is, , passage, own]) => (is === 'ok' ? [`${own} ${passage}`] : [])),
    );
    const same = altered.filter(
      ([, , kind, passage, sentence]) => kind !== 'name' && said.has(`${sentence} ${passage}`),
    );
    expect(same.length).toBeLessThan(altered.length / 50);
  });

  test('is more than two thousand sentences, of every kind in both languages', () => {
    expect(altered.length).toBeGreaterThan(2_000);
    const kinds = new Set(altered.map(([language, , kind]) => `${language} ${kind}`));
    for (const kind of ['digit', 'number', 'unit', 'date', 'multiple', 'order', 'denied', 'denied no more'])
      for (const language of ['en', 'de']) expect(kinds).toContain(`${language} ${kind}`);
  });
});

/** A source with what says the same of it, and what does not. */
describe.each([
  [
    'a figure denied',
    'en',
    'The bridge is 84 metres long.',
    'The bridge is 84 metres in length.',
    'The bridge is not 84 metres long.',
  ],
  ['a year denied', 'en', 'It opened on 3 May 1987.', 'It was opened in 1987.', 'It was not opened in 1987.'],
  [
    'a figure denied that the source denies',
    'en',
    'The bus does not stop for 12 minutes.',
    'There is no stop for 12 minutes.',
    'It stops for 13 minutes.',
  ],
  [
    'who pays nothing',
    'en',
    'Entry is 4 euros, children under 6 are free.',
    'Children under 6 do not pay.',
    'Children under 6 pay 4 euros.',
  ],
  [
    'a figure denied',
    'de',
    'Der Putz ist 15 Millimeter dick.',
    'Der Putz misst 15 Millimeter.',
    'Der Putz ist nicht 15 Millimeter dick.',
  ],
  [
    'a denial out of nowhere',
    'en',
    'Engineer Yusuf Adeyemi designed the lock gates at Wren Basin.',
    'The lock gates at Wren Basin are the work of Yusuf Adeyemi.',
    'The lock gates at Wren Basin are not the work of Yusuf Adeyemi.',
  ],
  [
    'another season',
    'en',
    'In the first winter 640 people joined.',
    '640 joined in the first winter.',
    '640 joined in the first autumn.',
  ],
  [
    'the season of a month',
    'en',
    'It was opened in July.',
    'Since that summer it is open.',
    'Since that winter it is open.',
  ],
  [
    'when it is shut',
    'de',
    'Geöffnet ist von Mai bis September.',
    'Im Winter ist geschlossen.',
    'Im Winter ist geöffnet.',
  ],
  [
    'a season by its figure',
    'en',
    'It sails four times a day in May, and twice a day in winter.',
    'In winter it sails twice a day.',
    'In spring it sails twice a day.',
  ],
  [
    'the other end',
    'en',
    'The first book, a guide, sold 900 copies.',
    'A guide was the first book.',
    'A guide was the last book.',
  ],
  [
    'the other end',
    'de',
    'Die älteste Stimme ist 83.',
    'Die älteste Stimme ist 83 Jahre alt.',
    'Die jüngste Stimme ist 83 Jahre alt.',
  ],
  [
    'what is done to the last',
    'en',
    'The first ten days make it pleasant, and after four weeks it is sour right through.',
    'After four weeks it is sour to the last.',
    'After six weeks it is sour to the last.',
  ],
  [
    'only from then on',
    'de',
    'Die letzten Gäste gehen um 22 Uhr. Die Bahn fährt ab 19 Uhr.',
    'Erst ab 19 Uhr fährt die Bahn.',
    'Erst ab 20 Uhr fährt die Bahn.',
  ],
  [
    'another time ago',
    'en',
    'It handled 1.8 million, 300,000 more than the year before.',
    'That was 300,000 more than a year earlier.',
    'That was 300,000 more than a minute earlier.',
  ],
  [
    'the wettest of another time',
    'en',
    'The wettest year was 1954.',
    'The wettest year was 1954, it is said.',
    'The wettest day was in 1954, it is said.',
  ],
  [
    'who says it',
    'en',
    'The mill in Oakby is old. “We do not dye anything,” says Flora Munn.',
    '“We do not dye anything,” says Munn.',
    '“We do not dye anything,” says Oakby.',
  ],
  [
    'who she is',
    'en',
    'Smith Aoife Brannigan works in Stellan. “It is quiet,” she says.',
    '“It is quiet,” says Brannigan.',
    '“It is quiet,” says Stellan.',
  ],
  [
    'another surname',
    'en',
    'The school at Inverlay is led by Gareth Nkemelu.',
    'Gareth Nkemelu leads the school.',
    'Gareth Inverlay leads the school.',
  ],
  [
    'another first name',
    'en',
    'Mount Keld was built upon under the engineer Pavel Ostrov.',
    'Pavel Ostrov built there.',
    'Keld Ostrov built there.',
  ],
  [
    'a sister’s surname',
    'en',
    'Mara Ellwood founded it with a loan from her sister Judith.',
    'Judith Ellwood lent the money.',
    'Judith Marah lent the money.',
  ],
  [
    'a title before the surname',
    'en',
    'Dr Amina Farouk led the trial.',
    'The trial was led by Dr Farouk.',
    'The trial was led by Dr Amin Farouk.',
  ],
  [
    'the half of the day',
    'de',
    'Die Sternwarte öffnet um 21 Uhr.',
    'Sie öffnet um neun Uhr abends.',
    'Sie öffnet um neun Uhr morgens.',
  ],
  [
    'fewer for more',
    'en',
    'It was launched 63 times in 2023, eleven more than the year before.',
    'There were eleven launches more than in 2022.',
    'There were eleven launches fewer than in 2022.',
  ],
  ['what rises', 'en', 'Prices rose by a third.', 'By a third prices have risen.', 'By a third prices have fallen.'],
  [
    'the other side of an age',
    'de',
    'Jeder Fünfte ist älter als 65.',
    'Ein Fünftel der Menschen ist über 65.',
    'Ein Fünftel der Menschen ist unter 65.',
  ],
  [
    'with what there is none of',
    'en',
    'Beekeeper Sol Amaro feeds sugar in October. He wears no gloves.',
    'Amaro works without gloves.',
    'Amaro works with gloves.',
  ],
  [
    'what stays open',
    'en',
    'The museum isn’t open on Mondays.',
    'On Mondays the museum stays shut.',
    'On Mondays the museum stays open.',
  ],
])('%s (%s)', (_name, language, source, same, other) => {
  it('is told as it is', () => expect(isDoubted(same, source, language)).toBe(false));
  it('is told from what it is not', () => expect(isDoubted(other, source, language)).toBe(true));
});
