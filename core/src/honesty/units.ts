/** What is measured; money by its currency. Figures of different dimensions never say the same. */
export type Dimension =
  | 'count'
  | 'share'
  | 'times'
  | 'mass'
  | 'volume'
  | 'length'
  | 'area'
  | 'time'
  | 'clock'
  | 'heat'
  | 'speed'
  | 'energy'
  | 'power'
  | 'pressure'
  | 'data'
  | 'age'
  | `money ${string}`;

export interface Unit {
  dimension: Dimension;
  /** How many of the dimension's base unit one is. */
  size: number;
  /** Degrees Fahrenheit, which begin elsewhere. */
  fahrenheit?: boolean;
}

const unit = (dimension: Dimension, size: number): Unit => ({ dimension, size });
const all = (words: string, dimension: Dimension, size: number): [string, Unit][] =>
  words.split(' ').map((word) => [word, unit(dimension, size)]);

/** Units by the words for them, English and German, in lower case. Sizes by the International System and the units of trade. */
const UNITS: ReadonlyMap<string, Unit[]> = merged([
  ...all('g gram grams gramme grammes gramm', 'mass', 1),
  ...all('mg milligram milligrams milligramm', 'mass', 0.001),
  ...all('kg kilo kilos kilogram kilograms kilogramm', 'mass', 1_000),
  ...all('t tonne tonnes ton tons tonnen', 'mass', 1e6),
  ...all('oz ounce ounces unze unzen', 'mass', 28.35),
  ...all('lb lbs pound pounds', 'mass', 453.6),
  ...all('pfund', 'mass', 500),
  ...all('zentner', 'mass', 50_000),
  ...all('ml millilitre millilitres milliliter milliliters', 'volume', 1),
  ...all('cl centilitre centilitres zentiliter', 'volume', 10),
  ...all('l litre litres liter liters litern', 'volume', 1_000),
  ...all('kubikmeter kubikmetern', 'volume', 1_000_000),
  ...all('hl hectolitre hectolitres hektoliter', 'volume', 100_000),
  ...all('teaspoon teaspoons tsp teelöffel tl', 'volume', 5),
  ...all('tablespoon tablespoons tbsp esslöffel el', 'volume', 15),
  ...all('cup cups', 'volume', 240),
  ...all('pint pints', 'volume', 568),
  ...all('gallon gallons gallonen', 'volume', 4_546),
  ...all('mm millimetre millimetres millimeter millimeters millimetern', 'length', 0.001),
  ...all('µm micron microns micrometre micrometres mikrometer', 'length', 1e-6),
  ...all('dm decimetre decimetres dezimeter dezimetern', 'length', 0.1),
  ...all('cm centimetre centimetres centimeter centimeters zentimeter zentimetern', 'length', 0.01),
  ...all('m metre metres meter meters metern', 'length', 1),
  ...all('höhenmeter höhenmetern', 'length', 1),
  ...all('km kilometre kilometres kilometer kilometers kilometern', 'length', 1_000),
  ...all('inch inches zoll', 'length', 0.0254),
  ...all('foot feet ft fuß', 'length', 0.3048),
  ...all('yard yards', 'length', 0.9144),
  ...all('mile miles meile meilen', 'length', 1_609),
  ...all('seemeile seemeilen', 'length', 1_852),
  ...all('m² qm quadratmeter quadratmetern', 'area', 1),
  ...all('hectare hectares ha hektar', 'area', 10_000),
  ...all('ar', 'area', 100),
  ...all('acre acres morgen', 'area', 4_047),
  ...all('second seconds sekunde sekunden', 'time', 1),
  ...all('minute minutes min mins minuten', 'time', 60),
  ...all('hour hours hr hrs h stunde stunden std', 'time', 3_600),
  ...all('day days tag tage tagen tages', 'time', 86_400),
  ...all('week weeks woche wochen', 'time', 604_800),
  ...all('fortnight fortnights', 'time', 1_209_600),
  ...all('month months monat monate monaten monats', 'time', 2_592_000),
  ...all('year years jahr jahre jahren jahres', 'time', 31_536_000),
  ...all('century centuries jahrhundert jahrhunderte jahrhunderten', 'time', 3_153_600_000),
  ...all('millennium millennia jahrtausend jahrtausende jahrtausenden', 'time', 31_536_000_000),
  ...all('decade decades jahrzehnt jahrzehnte jahrzehnten', 'time', 315_360_000),
  ...all('°c celsius °', 'heat', 1),
  ...all('km/h', 'speed', 1),
  ...all('mph', 'speed', 1.609),
  ...all('kwh kilowattstunde kilowattstunden', 'energy', 1),
  ...all('mwh megawattstunde megawattstunden', 'energy', 1_000),
  ...all('wh wattstunde wattstunden', 'energy', 0.001),
  ...all('kcal calories kalorien kilokalorien', 'energy', 0.001163),
  ...all('w watt watts', 'power', 1),
  ...all('kw kilowatt kilowatts', 'power', 1_000),
  ...all('mw megawatt megawatts', 'power', 1e6),
  ...all('bar', 'pressure', 1),
  ...all('psi', 'pressure', 0.06895),
  ...all('pascal', 'pressure', 0.00001),
  ...all('byte bytes', 'data', 1),
  ...all('kb kilobyte kilobytes', 'data', 1e3),
  ...all('mb megabyte megabytes', 'data', 1e6),
  ...all('gb gigabyte gigabytes', 'data', 1e9),
  ...all('tb terabyte terabytes', 'data', 1e12),
  ...all('€ eur euro euros', 'money EUR', 1),
  ...all('cent cents ct', 'money EUR', 0.01),
  ...all('cent cents', 'money USD', 0.01),
  ...all('$ usd dollar dollars', 'money USD', 1),
  ...all('£ gbp pound pounds', 'money GBP', 1),
  ...all('pence', 'money GBP', 0.01),
  ...all('chf franc francs franken', 'money CHF', 1),
  ...all('crown crowns krone kronen', 'money SEK', 1),
  ...all('yen', 'money JPY', 1),
  ...all('% ‰', 'share', 0.01),
  ...all('percent prozent prozentpunkte prozentpunkten', 'share', 0.01),
  ['fahrenheit', { dimension: 'heat', size: 1, fahrenheit: true }],
  ['°f', { dimension: 'heat', size: 1, fahrenheit: true }],
]);

function merged(pairs: readonly [string, Unit][]): ReadonlyMap<string, Unit[]> {
  const out = new Map<string, Unit[]>();
  for (const [word, one] of pairs) out.set(word, [...(out.get(word) ?? []), one]);
  return out;
}

/** Units of several words, longest first: what begins with these is read as one. */
const LONG: [string[], Unit[]][] = [
  [['kilometres', 'an', 'hour'], [unit('speed', 1)]],
  [['kilometers', 'an', 'hour'], [unit('speed', 1)]],
  [['kilometres', 'per', 'hour'], [unit('speed', 1)]],
  [['kilometers', 'per', 'hour'], [unit('speed', 1)]],
  [['miles', 'an', 'hour'], [unit('speed', 1.609)]],
  [['miles', 'per', 'hour'], [unit('speed', 1.609)]],
  [['metres', 'per', 'second'], [unit('speed', 3.6)]],
  [['kilometer', 'in', 'der', 'stunde'], [unit('speed', 1)]],
  [['kilometer', 'pro', 'stunde'], [unit('speed', 1)]],
  [['meter', 'in', 'der', 'sekunde'], [unit('speed', 3.6)]],
  [['meter', 'pro', 'sekunde'], [unit('speed', 3.6)]],
  [['km', '/', 'h'], [unit('speed', 1)]],
  [['m', '/', 's'], [unit('speed', 3.6)]],
  [['degrees', 'celsius'], [unit('heat', 1)]],
  [['degrees', 'c'], [unit('heat', 1)]],
  [['grad', 'celsius'], [unit('heat', 1)]],
  [['grad', 'fahrenheit'], [{ dimension: 'heat', size: 1, fahrenheit: true }]],
  [['degrees', 'fahrenheit'], [{ dimension: 'heat', size: 1, fahrenheit: true }]],
  [['grad'], [unit('heat', 1)]],
  [['degrees'], [unit('heat', 1)]],
  [['per', 'cent'], [unit('share', 0.01)]],
  [['nautical', 'miles'], [unit('length', 1_852)]],
  [['nautical', 'mile'], [unit('length', 1_852)]],
  [['square', 'metres'], [unit('area', 1)]],
  [['square', 'metre'], [unit('area', 1)]],
  [['square', 'meters'], [unit('area', 1)]],
  [['square', 'kilometres'], [unit('area', 1e6)]],
  [['square', 'feet'], [unit('area', 0.0929)]],
  [['cubic', 'metres'], [unit('volume', 1e6)]],
  [['cubic', 'metre'], [unit('volume', 1e6)]],
  [['megawatt-hours'], [unit('energy', 1_000)]],
  [['kilowatt-hours'], [unit('energy', 1)]],
];

const LONG_BY_FIRST = new Map<string, [string[], Unit[]][]>();
for (const one of LONG) LONG_BY_FIRST.set(one[0][0]!, [...(LONG_BY_FIRST.get(one[0][0]!) ?? []), one]);

export const isUnit = (word: string): boolean =>
  UNITS.has(word) || LONG_BY_FIRST.get(word)?.some(([words]) => words.length === 1) === true;

/** The unit that stands at a place: what it may be, and how many tokens it takes. */
export function unitAt(lowers: readonly string[], at: number): { units: Unit[]; took: number } | null {
  for (const [words, units] of LONG_BY_FIRST.get(lowers[at] ?? '') ?? [])
    if (words.every((word, i) => lowers[at + i] === word)) return { units, took: words.length };
  const word = (lowers[at] ?? '').replace(/\s/g, '');
  // '25-Meter-Becken', 'a 55-litre tank'.
  const one = UNITS.get(word) ?? (word.includes('-') ? UNITS.get(word.slice(0, word.indexOf('-'))) : undefined);
  return one ? { units: one, took: 1 } : null;
}
