import { contentStems, wordsOfText } from '../sentence/sentence.ts';

/**
 * Words several texts favour: of those that carry a subject the ones that stand in many of the texts and often, in the
 * form they most often have.
 */
export function favouredWords(texts: readonly string[], language: string, most = 12): string[] {
  const inTexts = new Map<string, number>();
  const times = new Map<string, number>();
  const forms = new Map<string, Map<string, number>>();
  const stems = new Map<string, string | null>();
  for (const text of texts) {
    const own = new Map<string, number>();
    for (const word of wordsOfText(text, language)) {
      const form = language.startsWith('de') ? word : word.toLowerCase();
      own.set(form, (own.get(form) ?? 0) + 1);
    }
    const here = new Set<string>();
    for (const [form, n] of own) {
      // A word is cut to its stem once, however often it stands.
      if (!stems.has(form)) stems.set(form, contentStems(form, language)[0] ?? null);
      const one = stems.get(form);
      if (!one) continue;
      here.add(one);
      times.set(one, (times.get(one) ?? 0) + n);
      const of = forms.get(one) ?? new Map<string, number>();
      forms.set(one, of.set(form, (of.get(form) ?? 0) + n));
    }
    for (const one of here) inTexts.set(one, (inTexts.get(one) ?? 0) + 1);
  }
  const least = Math.min(2, texts.length);
  return [...times]
    .filter(([one]) => (inTexts.get(one) ?? 0) >= least && one.length > 2 && !/\d/.test(one))
    .map(([one, n]) => ({ one, weight: n * (inTexts.get(one) ?? 0) }))
    .sort((a, b) => b.weight - a.weight || (a.one < b.one ? -1 : 1))
    .slice(0, most)
    .map(({ one }) => [...(forms.get(one) ?? new Map([[one, 1]]))].sort(([, a], [, b]) => b - a)[0]![0]);
}
