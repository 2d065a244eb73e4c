import { languageTag } from '../language/tag.ts';

/** Languages by their two letters, as people name them. */
export const LANGUAGES: Readonly<Record<string, string>> = {
  en: 'English',
  de: 'German',
  fr: 'French',
  es: 'Spanish',
  it: 'Italian',
  nl: 'Dutch',
  ar: 'Arabic',
  bg: 'Bulgarian',
  ca: 'Catalan',
  cs: 'Czech',
  cy: 'Welsh',
  da: 'Danish',
  el: 'Greek',
  et: 'Estonian',
  eu: 'Basque',
  fa: 'Persian',
  fi: 'Finnish',
  ga: 'Irish',
  gl: 'Galician',
  he: 'Hebrew',
  hi: 'Hindi',
  hr: 'Croatian',
  hu: 'Hungarian',
  id: 'Indonesian',
  is: 'Icelandic',
  ja: 'Japanese',
  ko: 'Korean',
  lt: 'Lithuanian',
  lv: 'Latvian',
  ms: 'Malay',
  nb: 'Norwegian',
  pl: 'Polish',
  pt: 'Portuguese',
  ro: 'Romanian',
  ru: 'Russian',
  sk: 'Slovak',
  sl: 'Slovenian',
  sr: 'Serbian',
  sv: 'Swedish',
  sw: 'Swahili',
  ta: 'Tamil',
  th: 'Thai',
  tr: 'Turkish',
  uk: 'Ukrainian',
  ur: 'Urdu',
  vi: 'Vietnamese',
  zh: 'Chinese',
};

const named = new Intl.DisplayNames('en', { type: 'language', fallback: 'code' });

/** What a language is called, by its tag (BCP 47); the tag itself where it names none. */
export function languageName(tag: string): string {
  try {
    return LANGUAGES[tag] ?? named.of(tag) ?? tag;
  } catch (error) {
    // What somebody typed may be no tag.
    if (error instanceof RangeError) return tag;
    throw error;
  }
}

/** Languages of a country or script that people name by themselves. */
const REGIONAL =
  'en-GB en-US en-AU es-MX es-419 pt-BR pt-PT fr-CA fr-CH de-AT de-CH nl-BE zh-Hans zh-Hant sr-Latn sr-Cyrl'.split(' ');
const LETTERS = [...'abcdefghijklmnopqrstuvwxyz'];

let called: ReadonlyMap<string, string> | null = null;

/** Tags of all languages the platform can name, by their names in English and in themselves, in small letters. */
function byName(): ReadonlyMap<string, string> {
  if (called) return called;
  const codes = LETTERS.flatMap((a) => LETTERS.map((b) => a + b));
  const out = new Map<string, string>();
  const add = (name: string | undefined, tag: string) => {
    const key = name?.toLowerCase();
    if (key && key !== tag.toLowerCase() && !out.has(key)) out.set(key, tag);
  };
  for (const [tag, name] of Object.entries(LANGUAGES)) add(name, tag);
  for (const tag of [...codes, ...REGIONAL]) {
    const name = named.of(tag);
    if (name === tag || name === undefined) continue;
    add(name, tag);
    add(new Intl.DisplayNames([tag], { type: 'language', fallback: 'none' }).of(tag), tag);
  }
  called = out;
  return out;
}

/**
 * The tag (BCP 47) of a language by its name in English or in itself, or by its tag; null for what is no language.
 * @param text as people say it: 'German', 'polski', 'pt-BR', 'Brazilian Portuguese'
 */
export function languageCalled(text: string): string | null {
  const wanted = text.trim().toLowerCase();
  const known = byName().get(wanted);
  if (known) return known;
  const tag = languageTag(wanted);
  const base = tag?.split('-', 1)[0];
  return tag !== null && base !== undefined && languageName(base) !== base ? tag : null;
}
