import { setOf } from './lexicon.ts';
import { PART_DAYS, PARTS, SEASON_OF, SEASONS } from './partsOfYear.ts';
import type { Token } from './token.ts';

/** A date as far as it is said: what is not said is absent. */
export interface Moment {
  year?: number;
  /** From and to, where a span of years is said: a century, the eighties. */
  years?: [number, number];
  /** Months it may lie in, 1 to 12. */
  months?: readonly number[];
  day?: number;
  /** Days it may be, from and to: 'in the middle of June'. */
  days?: [number, number];
  /** 1 Monday to 7 Sunday. */
  weekday?: number;
  /** Minutes of a day; below 720 either half of the day where `half` is not said. */
  clock?: number;
  half?: boolean;
  /** Tokens, from and up to. */
  from: number;
  to: number;
}

const names = (all: string) =>
  new Map(all.split(' ').flatMap((forms, i) => forms.split('/').map((form) => [form, i + 1])));
const MONTHS: Record<string, Map<string, number>> = {
  en: names(
    'january/jan february/feb march/mar april/apr may june/jun july/jul august/aug september/sept/sep october/oct november/nov december/dec',
  ),
  de: names('januar/jänner februar märz april mai juni juli august september oktober november dezember'),
};
const DAYS: Record<string, Map<string, number>> = {
  en: names(
    'monday/mondays tuesday/tuesdays wednesday/wednesdays thursday/thursdays friday/fridays saturday/saturdays sunday/sundays',
  ),
  de: names(
    'montag/montags dienstag/dienstags mittwoch/mittwochs donnerstag/donnerstags freitag/freitags samstag/samstags/sonnabend sonntag/sonntags',
  ),
};
const ORDINALS: Record<string, number> = Object.fromEntries(
  'first second third fourth fifth sixth seventh eighth ninth tenth eleventh twelfth thirteenth fourteenth fifteenth sixteenth seventeenth eighteenth nineteenth twentieth'
    .split(' ')
    .map((word, i) => [word, i + 1]),
);
const GERMAN_ORDINALS: ReadonlyMap<string, number> = new Map(
  'erst zweit dritt viert fünft sechst siebt acht neunt zehnt elft zwölft dreizehnt vierzehnt fünfzehnt sechzehnt siebzehnt achtzehnt neunzehnt zwanzigst'
    .split(' ')
    .flatMap((stem, i) => ['e', 'en', 'er', 'em', 'es'].map((end): [string, number] => [`${stem}${end}`, i + 1])),
);
const HOURS: Record<string, number> = Object.fromEntries(
  [
    'one two three four five six seven eight nine ten eleven twelve',
    'eins zwei drei vier fünf sechs sieben acht neun zehn elf zwölf',
  ].flatMap((all) => all.split(' ').map((word, i) => [word, i + 1])),
);
const BEFORE_MAY = setOf(
  'in of since until till from to between and by early late mid before after during last next this',
);
const HALF_DAYS: Record<string, number> = { am: 0, pm: 720, 'a.m': 0, 'p.m': 720 };

export const ordinalOf = (lower: string, language: string): number | null => {
  if (language !== 'de') return ORDINALS[lower] ?? null;
  return GERMAN_ORDINALS.get(lower) ?? null;
};

/** Decades by their words; of the century everybody means. */
const DECADES: ReadonlyMap<string, number> = new Map(
  [
    ['twenties thirties forties fifties sixties seventies eighties nineties', 1920],
    ['zwanziger dreißiger vierziger fünfziger sechziger siebziger achtziger neunziger', 1920],
  ].flatMap(([words, first]) =>
    String(words)
      .split(' ')
      .map((word, i): [string, number] => [word, Number(first) + 10 * i]),
  ),
);

/** Words a date or a time may begin with. */
const BEGINS: Record<string, ReadonlySet<string>> = Object.fromEntries(
  ['en', 'de'].map((language) => [
    language,
    new Set([
      ...MONTHS[language]!.keys(),
      ...DAYS[language]!.keys(),
      ...(language === 'de' ? GERMAN_ORDINALS.keys() : Object.keys(ORDINALS)),
      ...SEASON_OF.keys(),
      ...[PARTS, HOURS].flatMap((table) => Object.keys(table)),
      ...DECADES.keys(),
      ...'noon midday mittag mittags midnight mitternacht half quarter twenty ten five halb viertel'.split(' '),
    ]),
  ]),
);

/** Dates, days of the week and times of day of a text. */
export function momentsOf(tokens: readonly Token[], language: string): Moment[] {
  const out: Moment[] = [];
  const begins = BEGINS[language] ?? BEGINS['en']!;
  for (let at = 0; at < tokens.length; at++) {
    const { kind, lower } = tokens[at]!;
    if (kind === 'sign' || (kind === 'word' && !begins.has(lower))) continue;
    const found = clockAt(tokens, at, language) ?? dateAt(tokens, at, language) ?? firstDayAt(tokens, at, language);
    if (!found) continue;
    out.push(found);
    at = found.to - 1;
  }
  return out;
}

function yearAt(tokens: readonly Token[], at: number): number | null {
  const text = tokens[at]?.text ?? '';
  const year = /^[12]\d{3}$/.test(text) ? Number(text) : null;
  return year !== null && year <= 2_199 ? year : null;
}

/** Letters of a month's name that is no other word: not 'may', 'march' and what is cut short. */
const LONG_NAME = 6;

function monthAt(tokens: readonly Token[], at: number, language: string): number | null {
  const token = tokens[at];
  const month = token && (MONTHS[language] ?? MONTHS['en']!).get(token.lower);
  // What was heard may be written small: 'every october'.
  if (
    token === undefined ||
    month === undefined ||
    (!token.capital && (language === 'de' || token.text.length < LONG_NAME))
  )
    return null;
  // 'May' and 'March' are words of other meanings too.
  if (!['may', 'march', 'mar', 'jan', 'sep', 'dec'].includes(token.lower)) return month;
  const [before, after] = [tokens[at - 1], tokens[at + 1]];
  return before?.kind === 'number' || after?.kind === 'number' || BEFORE_MAY.has(before?.lower ?? '') ? month : null;
}

/** The day of a month before or behind its name: '3', '3rd', 'the second of'. */
function dayNumber(token: Token | undefined, language: string): number | null {
  if (!token) return null;
  const digits = /^(\d{1,2})\.?$/.exec(token.text)?.[1];
  const day = digits === undefined ? ordinalOf(token.lower, language) : Number(digits);
  return day !== null && day >= 1 && day <= 31 ? day : null;
}

function dateAt(tokens: readonly Token[], at: number, language: string): Moment | null {
  const numeric = /^(\d{1,2})\.(\d{1,2})\.(\d{4})$/.exec(tokens[at]!.text);
  if (numeric)
    return { day: Number(numeric[1]), months: [Number(numeric[2])], year: Number(numeric[3]), from: at, to: at + 1 };
  if (/^\d{4}$/.test(tokens[at]!.text) && tokens[at + 1]?.text === '-' && /^\d\d?$/.test(tokens[at + 2]?.text ?? ''))
    return isoAt(tokens, at);
  const weekday = (DAYS[language] ?? DAYS['en']!).get(tokens[at]!.lower);
  if (weekday !== undefined) return { weekday, from: at, to: at + 1 };
  return (
    monthDateAt(tokens, at, language) ??
    spanAt(tokens, at, language) ??
    decadeAt(tokens, at) ??
    seasonAt(tokens, at, language)
  );
}

function isoAt(tokens: readonly Token[], at: number): Moment | null {
  const [year, month, day] = [at, at + 2, at + 4].map((place) => Number(tokens[place]?.text));
  if (tokens[at + 3]?.text !== '-' || !(month! >= 1 && month! <= 12) || !(day! >= 1 && day! <= 31)) return null;
  return { year: year!, months: [month!], day: day!, from: at, to: at + 5 };
}

/** '3 May 2021', 'the 3rd of May', 'May 3, 2021', '3. Mai 2021', 'May 2021'. */
function monthDateAt(tokens: readonly Token[], at: number, language: string): Moment | null {
  let place = at;
  let day = dayNumber(tokens[place], language);
  if (day !== null) {
    place++;
    if (/^(?:st|nd|rd|th)$/.test(tokens[place]?.lower ?? '')) place++;
    if (tokens[place]?.text === '.' || tokens[place]?.lower === 'of') place++;
    if (tokens[place]?.lower === 'of') place++;
  }
  const month = monthAt(tokens, place, language);
  if (month === null) return null;
  place++;
  if (day === null) {
    day = dayNumber(tokens[place], language);
    // 'May 3' is a day; 'in May 12 people' is none that can be told, and the figure is read as a day.
    if (day !== null && tokens[place]!.kind === 'number') {
      place++;
      if (/^(?:st|nd|rd|th)$/.test(tokens[place]?.lower ?? '')) place++;
    } else day = null;
  }
  if (tokens[place]?.text === ',' && yearAt(tokens, place + 1) !== null) place++;
  const year = yearAt(tokens, place);
  const before = tokens[at - 1]?.lower ?? '';
  const part = before === 'of' || before === 'in' ? tokens[at - 2]?.lower : before;
  const days = day === null ? PART_DAYS[(part ?? '').replace(/-$/, '')] : undefined;
  return {
    months: [month],
    ...(day === null ? {} : { day }),
    ...(days ? { days } : {}),
    ...(year === null ? {} : { year }),
    from: at,
    to: year === null ? place : place + 1,
  };
}

const UP_TO = setOf('to until till bis – - and und');

/** The first of two days of one month: 'from 3 to 17 June', 'vom 3. bis zum 17. Juni'. */
function firstDayAt(tokens: readonly Token[], at: number, language: string): Moment | null {
  const day = tokens[at]!.kind === 'number' ? dayNumber(tokens[at], language) : null;
  if (day === null) return null;
  let place = at + 1;
  if (/^(?:st|nd|rd|th|\.)$/.test(tokens[place]?.lower ?? '')) place++;
  const to = place;
  if (!UP_TO.has(tokens[place]?.lower ?? '')) return null;
  place++;
  if (/^(?:the|zum|den|dem)$/.test(tokens[place]?.lower ?? '')) place++;
  const last = monthDateAt(tokens, place, language);
  if (last?.day === undefined || last.day <= day || tokens[place]!.kind !== 'number') return null;
  const { months, year } = last;
  return { months: months!, day, ...(year === undefined ? {} : { year }), from: at, to };
}

/** 'The early sixties', 'die siebziger Jahre'. */
function decadeAt(tokens: readonly Token[], at: number): Moment | null {
  const first = DECADES.get(tokens[at]!.lower);
  if (first === undefined) return null;
  const next = tokens[at + 1]?.lower ?? '';
  const isYears = /^jahren?$/.test(next);
  // 'Temperatures in the sixties' is no decade, and cannot be told.
  const before = tokens[at - 1]?.lower ?? '';
  if (!isYears && !/^(?:the|early|late|mid|der|die|den|frühen|späten)$/.test(before)) return null;
  return { years: [first, first + 9], from: at, to: isYears ? at + 2 : at + 1 };
}

/** 'the seventeenth century', 'im 17. Jahrhundert'. */
function spanAt(tokens: readonly Token[], at: number, language: string): Moment | null {
  const n =
    ordinalOf(tokens[at]!.lower, language) ?? (/^\d{1,2}$/.test(tokens[at]!.text) ? Number(tokens[at]!.text) : null);
  if (n === null) return null;
  let place = at + 1;
  if (/^(?:st|nd|rd|th|\.)$/.test(tokens[place]?.lower ?? '')) place++;
  if (!/^(?:century|centuries|jahrhunderts?)$/.test(tokens[place]?.lower ?? '')) return null;
  return { years: [(n - 1) * 100, n * 100], from: at, to: place + 1 };
}

/** 'spring 2024', 'in the autumn of 2018', 'since the end of 2019', 'Anfang 2022'; a year by itself. */
function seasonAt(tokens: readonly Token[], at: number, language: string): Moment | null {
  const { lower } = tokens[at]!;
  const year = yearAt(tokens, at);
  const tens = /^(?:s|er|ern)$/.test(tokens[at + 1]?.lower ?? '') && tokens[at + 1]!.start === tokens[at]!.end;
  if (year !== null && tens) return { years: [year, year + 9], from: at, to: at + 2 };
  if (year !== null) return { year, from: at, to: at + 1 };
  const season = SEASON_OF.get(lower);
  const months = season === undefined ? PARTS[lower] : SEASONS[season]!.months;
  if (!months) return null;
  const next = tokens[at + 1]?.lower === 'of' ? at + 2 : at + 1;
  const own = yearAt(tokens, next);
  // A season alone says too little: 'in summer' is every summer.
  return own === null || (lower === 'fall' && language === 'de') ? null : { months, year: own, from: at, to: next + 1 };
}

/** '21:15', '7.30 pm', 'half past seven', 'halb acht', '15 Uhr', 'nine in the morning'. */
function clockAt(tokens: readonly Token[], at: number, language: string): Moment | null {
  const { text, lower } = tokens[at]!;
  const next = tokens[at + 1]?.lower ?? '';
  if (lower === 'noon' || lower === 'midday' || lower === 'mittag' || lower === 'mittags')
    return { clock: 720, half: true, from: at, to: at + 1 };
  if (lower === 'midnight' || lower === 'mitternacht') return { clock: 0, half: true, from: at, to: at + 1 };
  const digits = /^([01]?\d|2[0-4])(?:[:.]([0-5]\d))?$/.exec(text);
  if (digits) {
    const minutes = Number(digits[1]) * 60 + Number(digits[2] ?? 0);
    const half = HALF_DAYS[next] ?? (next === 'a' || next === 'p' ? HALF_DAYS[`${next}.m`] : undefined);
    if (half !== undefined && tokens[at + 1]?.kind === 'word' && !(next === 'a' && tokens[at + 2]?.text !== '.'))
      return { clock: (minutes % 720) + half, half: true, from: at, to: at + 2 };
    if (next === 'uhr') return withHalf(minutes % 1_440, minutes >= 780, tokens, at, at + 2);
    if (text.includes(':') || (digits[2] !== undefined && language !== 'de' && isOfTimes(tokens, at)))
      return { clock: minutes % 1_440, half: minutes >= 780, from: at, to: at + 1 };
  }
  const spoken = spokenClock(tokens, at, language);
  return spoken && language === 'de' ? withHalf(spoken.clock!, undefined, tokens, at, spoken.to) : spoken;
}

/** 'Neun Uhr abends', 'halb acht morgens': the half of the day stands behind the time. */
const HALVES: ReadonlyMap<string, number> = new Map([
  ['morgens', 0],
  ['früh', 0],
  ['vormittags', 0],
  ['nachmittags', 720],
  ['abends', 720],
]);

function withHalf(
  clock: number,
  half: boolean | undefined,
  tokens: readonly Token[],
  from: number,
  to: number,
): Moment {
  const told = HALVES.get(tokens[to]?.lower ?? '');
  return told === undefined || clock >= 780
    ? { clock, ...(half === undefined ? {} : { half }), from, to }
    : { clock: (clock % 720) + told, half: true, from, to: to + 1 };
}

const AT = setOf('at from until till');
const JOINS = setOf(', and or to until');
const POINTED = /^(?:[01]?\d|2[0-4])\.[0-5]\d$/;

/** 'At 7.15, 11.40 and 16.05': one of several times of day, behind a word for when. */
function isOfTimes(tokens: readonly Token[], at: number): boolean {
  const next = tokens[at + 1];
  // 'At 7.15 a kilo'.
  if (next && (next.unit || /^(?:an?|per|%|each)$/.test(next.lower))) return false;
  let first = at;
  while (JOINS.has(tokens[first - 1]?.lower ?? '') && POINTED.test(tokens[first - 2]?.text ?? '')) first -= 2;
  return AT.has(tokens[first - 1]?.lower ?? '');
}

function spokenClock(tokens: readonly Token[], at: number, language: string): Moment | null {
  const { lower } = tokens[at]!;
  const hour = (place: number) => HOURS[tokens[place]?.lower ?? ''] ?? hourDigits(tokens[place]);
  const [one, two] = [tokens[at + 1]?.lower, tokens[at + 2]?.lower];
  if (language === 'de') {
    const half = lower === 'halb' ? hour(at + 1) : undefined;
    if (half) return { clock: (half * 60 - 30 + 720) % 720, from: at, to: at + 2 };
    const near = lower === 'viertel' && (one === 'nach' || one === 'vor') ? hour(at + 2) : undefined;
    if (near) return { clock: (near * 60 + (one === 'nach' ? 15 : -15) + 720) % 720, from: at, to: at + 3 };
    const hours = one === 'uhr' ? hour(at) : undefined;
    if (hours && tokens[at]!.kind === 'word') return { clock: (hours * 60) % 720, from: at, to: at + 2 };
    const full = tokens[at - 1]?.lower === 'um' ? hour(at) : undefined;
    // 'um elf' is a time; 'um 8 Prozent' is a measure.
    return full && tokens[at]!.kind === 'word' && endsThere(tokens[at + 1])
      ? { clock: (full * 60) % 720, from: at, to: at + 1 }
      : null;
  }
  const part = { half: 30, quarter: 15, twenty: 20, ten: 10, five: 5 }[lower];
  if (part && (one === 'past' || one === 'to')) {
    const named = hour(at + 2);
    if (named) return { clock: (named * 60 + (one === 'past' ? part : -part) + 720) % 720, from: at, to: at + 3 };
  }
  const named = hour(at);
  if (!named) return null;
  if (one === 'o’clock' || one === "o'clock") return { clock: (named * 60) % 720, from: at, to: at + 2 };
  const inHalf =
    one === 'in' && two === 'the'
      ? { morning: 0, afternoon: 720, evening: 720 }[tokens[at + 3]?.lower ?? '']
      : undefined;
  if (inHalf !== undefined) return { clock: ((named * 60) % 720) + inHalf, half: true, from: at, to: at + 4 };
  const said = tokens[at - 1]?.lower === 'at' && tokens[at]!.kind === 'word' && endsThere(tokens[at + 1]);
  return said ? { clock: (named * 60) % 720, from: at, to: at + 1 } : null;
}

const GOES_ON = setOf('on in and or until am an und oder bis every morgens früh vormittags nachmittags abends');
const endsThere = (token: Token | undefined) =>
  token === undefined || token.kind === 'sign' || GOES_ON.has(token.lower);

function hourDigits(token: Token | undefined): number | undefined {
  const hour = /^\d{1,2}$/.test(token?.text ?? '') ? Number(token!.text) : 0;
  return hour >= 1 && hour <= 12 ? hour : undefined;
}

/** Whether what is said of one moment may be the other: every part that is said must be so there. */
export function momentFits(said: Moment, held: Moment): boolean {
  if (said.clock !== undefined) {
    if (held.clock === undefined) return false;
    return said.half && held.half ? said.clock === held.clock : said.clock % 720 === held.clock % 720;
  }
  if (held.clock !== undefined) return false;
  if (said.weekday !== undefined) return weekdayFits(said.weekday, held);
  if (said.years) return held.year !== undefined && held.year >= said.years[0] && held.year <= said.years[1];
  if (said.year !== undefined && said.year !== held.year && !inYears(said.year, held)) return false;
  if (said.months && !(held.months && said.months.some((month) => held.months!.includes(month)))) return false;
  if (said.day !== undefined && said.day !== held.day) return false;
  return !(said.days && held.day !== undefined && (held.day < said.days[0] || held.day > said.days[1]));
}

const inYears = (year: number, { years }: Moment) => years !== undefined && year >= years[0] && year <= years[1];

function weekdayFits(weekday: number, { weekday: own, year, months, day }: Moment): boolean {
  if (own !== undefined) return own === weekday;
  if (year === undefined || day === undefined || months?.length !== 1) return false;
  return (new Date(Date.UTC(year, months[0]! - 1, day)).getUTCDay() || 7) === weekday;
}
