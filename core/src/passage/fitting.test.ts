import { expect, test } from 'vitest';
import { fittingOf } from './fitting.ts';

const page = (title: string, text: string, language = 'en') => ({ title, paragraphs: [text], language });
const CABBAGE = [
  page('Shredding cabbage', 'Cut the head into quarters and shred it finely with a knife. It takes ten minutes.'),
  page(
    'Kraut that stays crisp',
    'Salt the shredded cabbage at two per cent. It keeps for six months in a cool cellar.',
  ),
  page('Which crock to buy', 'A crock of ten litres holds eight kilos of shredded cabbage, and costs about 90 €.'),
];

test.each([
  ['shredding cabbage', [true, true, true], []],
  ['how to shred cabbage for kraut', [true, true, true], []],
  ['kraut crock ten litres', [false, false, true], []],
  ['cross-cut paper shredder', [false, false, false], ['cross-cut', 'paper']],
  ['shredding paper at home', [false, false, false], ['paper']],
  ['gifts for a gardener', [false, false, false], ['gifts', 'gardener']],
  ['bicycle bells', [false, false, false], ['bicycle', 'bells']],
])('%s: %j, lacking %j', (subject, fits, lacking) => {
  const found = fittingOf(subject, CABBAGE);
  expect(found.fits).toEqual(fits);
  expect(found.lacking.sort()).toEqual([...lacking].sort());
});

test('what all pages hold tells least: one that holds only that does not fit', () => {
  const { cover } = fittingOf('kraut bicycle', [CABBAGE[1]!, CABBAGE[1]!, CABBAGE[1]!]);
  for (const one of cover) expect(one).toBeCloseTo(1 / 3, 5);
});

test('words that only say what sort of text is wanted do not count, a compound holds its parts', () => {
  expect(fittingOf('shredded cabbage ideas', CABBAGE.slice(0, 2)).fits).toEqual([true, true]);
  const german = [page('Krauthobel', 'Mit dem Krauthobel wird der Weißkohl fein gehobelt.', 'de')];
  expect(fittingOf('Hobel für Weißkohl', german).fits).toEqual([true]);
  expect(fittingOf('Fahrradklingel montieren', german)).toMatchObject({ fits: [false], cover: [0] });
});

test('how a subject asks counts a quarter of a word', () => {
  const kraut = page('Kraut', 'Stored in a cool cellar, kraut lasts for twenty weeks.');
  expect(fittingOf('how long does kraut last', [kraut]).cover).toEqual([1]);
  expect(fittingOf('where to buy kraut', [kraut]).cover[0]).toBeCloseTo(1 / 1.5, 5);
});

test('no pages, no fits', () => {
  expect(fittingOf('bicycle bells', [])).toMatchObject({
    cover: [],
    fits: [],
    answers: [],
    lacking: ['bicycle', 'bells'],
  });
});

test.each([
  ['can you freeze kraut', ['freezing']],
  ['where to buy kraut', []],
  ['why is there kraut', ['mending']],
  ['why is kraut pink', []],
  ['how long does kraut keep', []],
  ['bicycle bells', []],
])('%s: not answered are %j', (subject, unanswered) => {
  const kraut = page('Kraut', 'Stored in a cool cellar, kraut lasts for twenty weeks. A jar costs 6 €.');
  expect(fittingOf(subject, [kraut]).unanswered).toEqual(unanswered);
});

test('what the title of a page asks is what it is about: half of the words are enough there', () => {
  const cleaned = 'It is scrubbed with hot water and soda.';
  const asked = (title: string) => fittingOf('how to clean a fermentation crock', [page(title, cleaned)]).answers;
  expect(asked('Cleaning a crock')).toEqual([true]);
  expect(asked('A crock')).toEqual([false]);
});

test.each([
  ['or blanc pour bagues', 'fr', 'Bagues en or blanc', 'Les bagues en or blanc sont polies deux fois.'],
  ['pan sin gluten no tostado', 'es', 'Pan sin gluten', 'El pan sin gluten no tostado se guarda en tela.'],
  ['Wie lange muss Brot ruhen', 'de-CH', 'Brot', 'Das Brot muss zwei Stunden ruhen.'],
])(
  '%s (%s) is answered: of languages whose ways of asking are not known, by what speaks of it',
  (subject, language, title, text) => {
    expect(fittingOf(subject, [page(title, text, language)]).answers).toEqual([true]);
  },
);
