import { contentStems, stem, wordsOfText } from '../sentence/sentence.ts';

/**
 * Words several texts favour: of those that carry a subject the ones that stand in many of the texts and often, in the
 * form they most often have.
 */
export function favouredWords(texts: readonly string[], language: string, most = 12): string[] {
  const inTexts = new Map<string, number>();
  const times = new Map<string, number>();
  const forms = new Map<string, Map<string, number>>();
  for (const text of texts) {
    const stems = contentStems(text, language);
    for (const one of new Set(stems)) inTexts.set(one, (inTexts.get(one) ?? 0) + 1);
    for (const one of stems) times.set(one, (times.get(one) ?? 0) + 1);
    for (const word of wordsOfText(text, language)) {
      const key = contentStems(word, language)[0] ?? stem(word.toLowerCase(), language);
      const of = forms.get(key) ?? new Map<string, number>();
      const form = language.startsWith('de') ? word : word.toLowerCase();
      forms.set(key, of.set(form, (of.get(form) ?? 0) + 1));
    }
  }
  const least = Math.min(2, texts.length);
  return [...times]
    .filter(([one]) => (inTexts.get(one) ?? 0) >= least && one.length > 2 && !/\d/.test(one))
    .map(([one, n]) => ({ one, weight: n * (inTexts.get(one) ?? 0) }))
    .sort((a, b) => b.weight - a.weight || (a.one < b.one ? -1 : 1))
    .slice(0, most)
    .map(({ one }) => [...(forms.get(one) ?? new Map([[one, 1]]))].sort(([, a], [, b]) => b - a)[0]![0]);
}
