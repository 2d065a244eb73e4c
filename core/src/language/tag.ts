import { z } from 'zod';

/** A language as BCP 47 writes it: `de`, `pt-BR`, `zh-Hant`. */
export const LanguageTag = z
  .string()
  .max(35)
  .regex(/^[a-z]{2,3}(?:-[A-Za-z0-9]{2,8})*$/, 'a language as en or pt-BR');

/** Scripts that run from right to left (ISO 15924; their bidirectional class in the Unicode Character Database is R or AL). */
const FROM_RIGHT = new Set('Adlm Arab Aran Armi Hebr Mand Mani Mend Nkoo Phnx Rohg Samr Syrc Thaa Yezi'.split(' '));

/**
 * Which way a text in a language runs.
 * @param language a tag of BCP 47; its script is that of the tag, else the likeliest (Unicode CLDR, likely subtags)
 */
export function directionOf(language: string): 'ltr' | 'rtl' {
  const tag = languageTag(language);
  return tag !== null && FROM_RIGHT.has(new Intl.Locale(tag).maximize().script ?? '') ? 'rtl' : 'ltr';
}

/** A language tag (BCP 47) as it is usually written, `pt-BR`; null when it is none. */
export function languageTag(text: string): string | null {
  try {
    return Intl.getCanonicalLocales(text.trim().replaceAll('_', '-'))[0] ?? null;
  } catch {
    return null;
  }
}
