/** What Grivo itself says in an article, beside what a writer wrote. */
export const SAYING_NAMES = ['readOn', 'readNext', 'madeFrom', 'by', 'readWhole'] as const;
export type SayingName = (typeof SAYING_NAMES)[number];
export type Sayings = Readonly<Record<SayingName, string>>;
/** What a house says in the place of what comes with Grivo. */
export type OwnSayings = Partial<Record<SayingName, string>>;

/** In the order of their names. */
const SHIPPED: Readonly<Record<string, readonly [string, string, string, string, string]>> = {
  en: ['Read on', 'Read next', 'Made from', 'by', 'Read it whole:'],
  de: ['Weiterlesen', 'Zum Weiterlesen', 'Nach', 'von', 'Ganz zu lesen:'],
  fr: ['Lire la suite', 'À lire ensuite', 'D’après', 'par', 'À lire en entier :'],
  es: ['Seguir leyendo', 'Para seguir leyendo', 'Basado en', 'de', 'Léelo entero:'],
  it: ['Continua a leggere', 'Da leggere dopo', 'Tratto da', 'di', 'Da leggere per intero:'],
  nl: ['Lees verder', 'Lees hierna', 'Naar', 'van', 'Lees het helemaal:'],
  pt: ['Continuar a ler', 'Para ler a seguir', 'A partir de', 'de', 'Para ler por inteiro:'],
  sv: ['Läs vidare', 'Läs också', 'Efter', 'av', 'Läs hela:'],
  da: ['Læs videre', 'Læs også', 'Efter', 'af', 'Læs det hele:'],
  pl: ['Czytaj dalej', 'Przeczytaj też', 'Na podstawie:', 'autor:', 'Całość do przeczytania:'],
  cs: ['Číst dál', 'Přečtěte si také', 'Podle:', 'autor:', 'Celé ke čtení:'],
  ja: ['続きを読む', 'あわせて読みたい', '出典：', '著者：', '全文はこちら：'],
  ar: ['تابع القراءة', 'اقرأ أيضا', 'المصدر:', 'بقلم', 'اقرأ النص كاملا:'],
};

/** Whether it comes in this language, or stands in English. */
export const saysIn = (language: string): boolean => (language.split('-')[0] ?? '') in SHIPPED;

/** What is said in a language, in the words of the house where it has any; in English where none came with Grivo. */
export function sayingsIn(language: string, own: OwnSayings = {}): Sayings {
  const shipped = SHIPPED[language.split('-')[0] ?? ''] ?? SHIPPED['en']!;
  return Object.fromEntries(SAYING_NAMES.map((name, i) => [name, own[name] ?? shipped[i]!])) as unknown as Sayings;
}
