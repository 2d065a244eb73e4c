import { describe, expect, it, test } from 'vitest';
import { doubtsOf, readSources } from './honesty.ts';
import { judged, keptPairs } from './pairs/pairs.ts';

const doubts = (text: string, passage: string, language = 'en') =>
  doubtsOf(text, readSources([passage], language), language).map(({ kind, words }) => `${kind}: ${words}`);

describe('what is the same in other words', () => {
  it.each([
    ['Two hundred and fifty grams will do.', 'Take 250 g.'],
    ['It weighs a quarter of a kilo.', 'It weighs 0.25 kilos.'],
    ['It takes three quarters of an hour.', 'It takes 45 minutes.'],
    ['Nearly half of them came back.', 'Of them 48 per cent came back.'],
    ['The pan should be about 390 °F.', 'Heat the pan to 200 °C.'],
    ['One in four failed.', '25 % failed.'],
    ['It was sold for £3.2m.', 'It fetched 3.2 million pounds.'],
    ['On Friday it opens at half past seven.', 'It opens at 7.30 pm, on Fridays too.'],
    ['In the 1920s it was a mill.', 'In 1924 it was a mill.'],
    ['The lamp reaches half as far.', 'The tower reaches twice as far as the lamp.'],
    ['Between 18 and 22 degrees it is ready in seven days.', 'At 18 to 22 °C it is ready after 7 days.'],
  ])('%s', (text, passage) => expect(doubts(text, passage)).toEqual([]));

  it.each([
    ['Fünfundzwanzig Gramm reichen.', 'Man nimmt 25 g.'],
    ['Um halb acht beginnt es.', 'Beginn ist um 19.30 Uhr.'],
    ['Am 3. Mai wurde es eröffnet.', 'Eröffnet wurde es am 3. Mai 1987.'],
    ['Jeder fünfte kam zurück.', '20 Prozent kamen zurück.'],
    ['Gut tausend Leute waren da.', '1.012 Leute waren da.'],
    ['Es dauert anderthalb Stunden.', 'Es dauert 90 Minuten.'],
  ])('%s', (text, passage) => expect(doubts(text, passage, 'de')).toEqual([]));
});

describe('what is not', () => {
  it.each([
    ['Take 205 g of salt.', 'Take 250 g of salt.', 'figure: 205 g'],
    ['It costs 60 dollars a week.', 'It costs $60 a month.', 'figure: 60 dollars a week.'],
    ['It was built on 4 May 1931.', 'It was built on 14 May 1931.', 'date: 4 May 1931'],
    ['Ada Lund led it.', 'Ada Lind led it.', 'name: Lund'],
    ['It was led by Eva Karlsson Brandt.', 'It was led by Ada Lind.', 'name: Eva Karlsson Brandt'],
    ['“It never broke,” she said.', '“It hardly broke,” she said.', 'quotation: It never broke,'],
    ['Wash the pan.', 'Do not wash the pan.', 'opposite: Wash the pan.'],
    ['Beans need 5 % of salt.', 'Cabbage needs 5 % of salt, beans 2.', 'subject: Beans need 5 % of salt.'],
    [
      'The lamp weighs 8 kilos.',
      'The bell weighs twice as much as the lamp, 8 kilos.',
      'subject: The lamp weighs 8 kilos.',
    ],
  ])('%s', (text, passage, doubt) => expect(doubts(text, passage)).toEqual([doubt]));
});

describe('what is said of something else', () => {
  it.each([
    ['a rival with another figure', 'Route B takes 35 minutes.', 'Route A takes 35 minutes and Route B takes 50.'],
    ['the one it is compared with', 'Ash costs 1,900 euros.', 'Oak costs 1,900 euros, a third more than ash.'],
    ['the other side', 'Going down takes four hours.', 'The path takes 4 hours up and 2 and a half down.'],
    ['other stuff', 'It holds 18 grams of sugar.', 'It holds 18 grams of salt, and no sugar.'],
    [
      'somebody else',
      'Anton Vick found the letters in 2017.',
      'Anton Vick wrote letters. His niece Thea Vick-Rowe found them in 2017.',
    ],
    ['another time', 'In May prices rose by 3.4 %.', 'Prices rose by 3.1 % in May, after 3.4 % in April.'],
    ['who does it', 'Her brother mended the roof.', 'Maria mended the roof while her brother painted the door.'],
    [
      'the place of one word',
      'The lid of the bottle stays loose for a day.',
      'The lid of the jar stays loose for a day.',
    ],
    ['who is better', 'Steel conducts heat better than copper.', 'Copper conducts heat better than steel.'],
    [
      'who is twice as heavy',
      'The lamp weighs twice as much as the bell.',
      'The bell weighs twice as much as the lamp.',
    ],
  ])('%s', (_name, text, passage) => expect(doubts(text, passage)).not.toEqual([]));

  it('but for who stands behind what was looked into', () => {
    const said = 'The trust looked at 840 hives.';
    expect(doubts(said, 'In a survey of 840 hives the trust found mites in a third.')).toEqual([]);
    expect(doubts(said, 'A survey of 840 hives was paid for by the trust.')).toEqual([`subject: ${said}`]);
  });

  it.each([
    ['said another way round', 'For Route B you need 50 minutes.', 'Route A takes 35 minutes and Route B takes 50.'],
    ['without its noun', 'The old one had 11.', 'It has 18 classrooms; the old one had 11.'],
    ['of both at once', 'Lentils have 9 grams and chickpeas 8.', 'Lentils contain 9 grams of protein, chickpeas 8.'],
    ['compared backwards', 'Steel conducts heat worse than copper.', 'Copper conducts heat better than steel.'],
    ['by its topic', 'Otters eat a kilo a day.', 'Otters are back. They eat 1 kilo of fish a day.'],
    ['as a difference', 'It has six more than in 2018.', 'It had 13 looms in 2018 and has 19 today.'],
    [
      'within a matter of time',
      'Anything above 24 degrees makes dough sour in a matter of days.',
      'A room above 24 degrees sours dough in days and softens it just as fast.',
    ],
    [
      'with another verb behind it',
      'Tea from bark is taken by some and does little.',
      'Tea from bark is taken by some and helps little. Its leaves like shade more than sun.',
    ],
    [
      'and no more than that',
      'All you need is a torch with two batteries.',
      'You need a torch that has two batteries, and nothing more than that.',
    ],
  ])('but not what is %s', (_name, text, passage) => expect(doubts(text, passage)).toEqual([]));
});

describe('who, where, when and how much', () => {
  it.each([
    ['Vera Holt bought the mill from Amos Pike.', 'Amos Pike bought the mill in 1902 from Vera Holt.'],
    ['She first danced the part in Malmö.', 'She first danced the part in Bergen. Later she taught in Malmö.'],
    ['The mill was sold in 1906.', 'The weir was built in 1910, four years before the mill was sold.'],
    ['The bus goes at ten past six.', 'The bus goes at 8.05, 12.30 and 17.10.'],
    ['Some 431,000 people came.', 'It had 413,000 visitors.'],
    ['Each hen laid about 32 eggs.', 'In a month the 14 hens laid 310 eggs.'],
    ['The bell can be heard at noon.', 'The bell is silent at noon.'],
    ['She advises planting roses near the wall.', 'She advises against roses near the wall.'],
    ['Per is three times as tall as Ole.', 'Three of them row: Per, who is tall, and the twins Ole and Nils.'],
  ])('is told from what is otherwise: %s', (text, passage) => expect(doubts(text, passage)).not.toEqual([]));

  it.each([
    ['Amos Pike bought the mill from Vera Holt.', 'Amos Pike bought the mill in 1902 from Vera Holt.'],
    ['She first danced the part in Bergen.', 'She first danced the part in Bergen. Later she taught in Malmö.'],
    ['The mill was sold in 1914.', 'The weir was built in 1910, four years before the mill was sold.'],
    ['The bus goes at ten past five.', 'The bus goes at 8.05, 12.30 and 17.10.'],
    ['Some 410,000 people came.', 'It had 413,000 visitors.'],
    ['Each hen laid about 22 eggs.', 'In a month the 14 hens laid 310 eggs.'],
    ['It lasted for eight years from 1931 on.', 'From 1931 to 1939 it was a school.'],
    ['Nineteen of the pupils are boys.', 'Of the 40 pupils 21 are girls.'],
    ['The frame is 4 by 6 centimetres.', 'The frame measures 40 by 60 millimetres.'],
    ['About 1,400 of the ewes lambed.', 'They keep 4,200 ewes. A third of them lambed.'],
  ])('is what it is in other words: %s', (text, passage) => expect(doubts(text, passage)).toEqual([]));

  it.each([
    ['Dort kochte Ida Brandt für sie.', 'Dort kochte Rosa Keller für sie.', ['name: Ida Brandt']],
    [
      'Ratten fressen mehr Eier als Mäuse.',
      'Ratten fressen mehr Mäuse als Eier.',
      ['subject: Ratten fressen mehr Eier als Mäuse.'],
    ],
    ['Der Tank fasst drei Kubikmeter.', 'Der Tank fasst 3.000 Liter.', []],
  ])('in German too: %s', (text, passage, found) => expect(doubts(text, passage, 'de')).toEqual(found));
});

describe('what is denied', () => {
  it.each([
    [
      'Man braucht eine Waage mit einzelnen Gramm.',
      'Man braucht eine Waage, die einzelne Gramm zeigt, und sonst nichts.',
      [],
    ],
    ['Die Lampe braucht kein Öl.', 'Die Lampe braucht Öl und sonst nichts.', ['opposite: Die Lampe braucht kein Öl.']],
  ])('is not what is all there is to say: %s', (text, passage, found) =>
    expect(doubts(text, passage, 'de')).toEqual(found),
  );

  it('is what nothing else would be said of', () => {
    expect(doubts('The lamp needs no oil.', 'The lamp needs oil and nothing else.')).toEqual([
      'opposite: The lamp needs no oil.',
    ]);
  });
});

describe('what is turned round', () => {
  it.each([
    ['You may smoke on the terrace.', 'You may not smoke on the terrace.'],
    ['Dogs and cats may enter the reserve.', 'Neither dogs nor cats may enter the reserve.'],
    ['The coating contains solvents.', 'The coating contains no solvents.'],
    ['Water the leaves, not the roots.', 'Water the roots, not the leaves.'],
    ['The price has doubled within a year.', 'The price has halved within a year.'],
    ['The court accepted the appeal.', 'The court rejected the appeal.'],
  ])('%s', (text, passage) => expect(doubts(text, passage).map((doubt) => doubt.split(':')[0])).toContain('opposite'));

  it.each([
    ['Smoking on the terrace is forbidden.', 'You may not smoke on the terrace.'],
    ['It is a solvent-free coating.', 'The coating contains no solvents.'],
    ['It is an unfiltered beer.', 'The beer is not filtered.'],
    ['More than 8,000 euros the county does not pay.', 'The county pays at most 8,000 euros.'],
    ['The year before there were four fewer.', 'There were 23, four more than the year before.'],
    ['Nobody came to harm.', 'No one was hurt.'],
    [
      'I would not, and it may go well three times.',
      'May I halve it? I would not, and it may go well three times, not four. It may go well.',
    ],
    [
      'I would not; with one per cent it may go well three times.',
      'May I? I would not. With one per cent it may go well three times.',
    ],
    ['It may go well three times.', 'Do not hurry. It may go well three times. Never more.'],
  ])('but not ‘%s’', (text, passage) => expect(doubts(text, passage)).toEqual([]));
});

test('what no source says of anything is named by its words; a text without sources has every figure against it', () => {
  const sources = readSources(['The kiln holds 40 mugs.', 'A mug costs 12 euros.']);
  expect(doubtsOf('The kiln holds 40 mugs; one costs 15 euros.', sources)).toEqual([
    { kind: 'figure', words: '15 euros' },
  ]);
  expect(doubtsOf('It holds 40 mugs.', [])).toEqual([{ kind: 'figure', words: '40' }]);
});

test('nearly all that was altered is seen, and hardly anything else, in every kind and in both languages', () => {
  const { recall, falseMarks, rows } = judged(keptPairs().fitted);
  expect(recall).toBeGreaterThan(0.95);
  expect(falseMarks).toBeLessThan(0.025);
  for (const { of, altered, caught } of rows) expect([of, caught / altered > 0.8]).toEqual([of, true]);
});

test('pairs are of both sorts, in every kind and both languages, and none is there twice', () => {
  const { fitted, kept, anew, latest } = keptPairs();
  const all = [...fitted, ...kept, ...anew, ...latest];
  expect(all.length).toBeGreaterThan(3_000);
  expect(new Set(all.map(([, , , passage, sentence]) => `${passage}\n${sentence}`)).size).toBeGreaterThan(
    all.length * 0.99,
  );
  for (const language of ['en', 'de'])
    for (const kind of ['digit', 'unit', 'name', 'date', 'negation', 'multiple', 'subject', 'quotation'])
      for (const is of ['ok', 'altered'])
        expect(all.filter((pair) => pair[0] === language && pair[1] === is && pair[2] === kind).length).toBeGreaterThan(
          20,
        );
});

test('every pair is judged as it was: what is judged otherwise is looked at, and the list of what is wrong made anew', async () => {
  const { fitted, anew, latest } = keptPairs();
  const { wrong } = judged([...fitted, ...anew, ...latest]);
  const lines = wrong.map(
    ([language, is, kind, , sentence]) => `${is === 'ok' ? 'marked' : 'missed'} ${language} ${kind} | ${sentence}`,
  );
  await expect(`${lines.sort().join('\n')}\n`).toMatchFileSnapshot('./pairs/wrong.txt');
});

test('pairs that ask for more reckoning are judged nearly as well', () => {
  const { recall, falseMarks } = judged(keptPairs().anew);
  expect(recall).toBeGreaterThan(0.9);
  expect(falseMarks).toBeLessThan(0.06);
});

test('pairs that tell more often one thing of another are marked as rarely where they are true', () => {
  const { recall, falseMarks } = judged(keptPairs().latest);
  expect(recall).toBeGreaterThan(0.84);
  expect(falseMarks).toBeLessThan(0.03);
});

test('what was not fitted to is judged nearly as well', () => {
  const { recall, falseMarks } = judged(keptPairs().kept);
  expect(recall).toBeGreaterThan(0.9);
  expect(falseMarks).toBeLessThan(0.05);
});

describe('text that was made to harm', () => {
  it.each([
    ['figures', '1,1'.repeat(30_000)],
    ['measures', Array.from({ length: 1_500 }, (_, i) => `${(i * 7_919) % 100_003} kg`).join(' ')],
    ['numbers', Array.from({ length: 3_000 }, (_, i) => String((i * 7_919) % 100_003)).join(', ')],
    ['quotation marks', '“'.repeat(60_000)],
    ['commas', 'a, '.repeat(30_000)],
    ['hyphens', 'a-'.repeat(40_000)],
    ['number words', 'hundert'.repeat(10_000)],
    ['one word', 'x'.repeat(90_000)],
    ['markup', '<'.repeat(90_000)],
    ['capitals', 'Ab Cd '.repeat(15_000)],
  ])('%s are read, however many', (_name, text) => {
    for (const language of ['en', 'de']) expect(doubtsOf(text, readSources([text], language), language)).toBeDefined();
  });
});
