/** Numbers and days as a language writes them, for texts with fields. */

const known = new Map<string, Intl.NumberFormat | Intl.DateTimeFormat>();

function kept<F extends Intl.NumberFormat | Intl.DateTimeFormat>(key: string, make: () => F): F {
  const before = known.get(key);
  if (before) return before as F;
  const now = make();
  known.set(key, now);
  return now;
}

/** A language the platform can write in; English where it is none. */
function written(language: unknown): string {
  try {
    return Intl.getCanonicalLocales(String(language))[0] ?? 'en';
  } catch {
    return 'en';
  }
}

/** 12345.5 as '12,345.5' or '12.345,5'; what is no number stays as it is. */
export function asNumber(value: unknown, language: unknown): string {
  const text = String(value ?? '').trim();
  const number = Number(text);
  if (text === '' || !Number.isFinite(number)) return text;
  const locale = written(language);
  return kept(`n ${locale}`, () => new Intl.NumberFormat(locale, { maximumFractionDigits: 6 })).format(number);
}

/** 2026-11-30 as '30 November 2026' or '30. November 2026'; what is no day stays as it is. A day is that of its text. */
export function asDay(value: unknown, language: unknown): string {
  const text = value instanceof Date ? value.toISOString() : String(value ?? '').trim();
  const day = /^(\d{4})-(\d{2})-(\d{2})(?:$|T)/.exec(text);
  const at = day ? Date.UTC(Number(day[1]), Number(day[2]) - 1, Number(day[3])) : Number.NaN;
  if (Number.isNaN(at) || new Date(at).getUTCDate() !== Number(day![3])) return text;
  // English days are written as here; elsewhere as the language has them.
  const locale = written(language) === 'en' ? 'en-GB' : written(language);
  return kept(`d ${locale}`, () => new Intl.DateTimeFormat(locale, { dateStyle: 'long', timeZone: 'UTC' })).format(at);
}
