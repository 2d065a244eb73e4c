/** Languages by their two letters, as people name them. */
export const LANGUAGES: Readonly<Record<string, string>> = {
  en: 'English',
  de: 'German',
  fr: 'French',
  es: 'Spanish',
  it: 'Italian',
  nl: 'Dutch',
};

export function languageName(code: string): string {
  return LANGUAGES[code] ?? code;
}
