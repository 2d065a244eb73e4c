/** Finding figures (numbers people would check) in texts and telling whether a source holds them. */

const NUMBER = /\d+(?:[.,\u00a0\u202f ]\d{3})*(?:[.,]\d+)?/g;

const WORDS: Record<string, Record<string, number>> = {
  en: {
    one: 1,
    two: 2,
    three: 3,
    four: 4,
    five: 5,
    six: 6,
    seven: 7,
    eight: 8,
    nine: 9,
    ten: 10,
    eleven: 11,
    twelve: 12,
    fifteen: 15,
    twenty: 20,
    thirty: 30,
    forty: 40,
    fifty: 50,
    sixty: 60,
    hundred: 100,
    half: 0.5,
  },
  de: {
    ein: 1,
    eine: 1,
    zwei: 2,
    drei: 3,
    vier: 4,
    fünf: 5,
    sechs: 6,
    sieben: 7,
    acht: 8,
    neun: 9,
    zehn: 10,
    elf: 11,
    zwölf: 12,
    zwanzig: 20,
    dreißig: 30,
    hundert: 100,
    halb: 0.5,
  },
};

/** Figures of a text as plain numbers, in order. '2,5' and '2.5' are the same figure, '1,400' and '1.400' too. */
export function figuresOf(text: string): string[] {
  return [...text.matchAll(NUMBER)].map((match) => normal(match[0]));
}

function normal(raw: string): string {
  const bare = raw.replace(/[\u00a0\u202f ]/g, '');
  const grouped = /^\d{1,3}(?:[.,]\d{3})+$/.test(bare);
  const plain = grouped ? bare.replace(/[.,]/g, '') : bare.replace(/,(?=\d+$)/, '.').replace(/,/g, '');
  return String(Number.parseFloat(plain));
}

/** Figures of the text that no source holds, neither in digits nor spelled out. */
export function figuresNotIn(text: string, sources: readonly string[], language = 'en'): string[] {
  const held = new Set(sources.flatMap(figuresOf));
  const words = WORDS[language] ?? WORDS['en']!;
  for (const source of sources) {
    for (const word of source.toLowerCase().match(/\p{L}+/gu) ?? []) {
      const value = words[word];
      if (value !== undefined) held.add(String(value));
    }
  }
  return [...new Set(figuresOf(text).filter((figure) => !held.has(figure)))];
}
