import { contentStems, type Passage, stemCover } from '@grivo/core';
import type { NumberedPassage } from './prompts.ts';

/** Passages most worth giving the writer for a question: by how many of its words they hold, weighted by how rare these are. */
export function rankPassages(
  passages: readonly NumberedPassage[],
  question: string,
  language: string,
): { passage: NumberedPassage; score: number }[] {
  const stems = new Set(contentStems(question, language));
  const held = passages.map((passage) => new Set(contentStems(passage.passage.text, language)));
  const weight = new Map<string, number>();
  for (const s of stems) weight.set(s, Math.log(1 + passages.length / (1 + held.filter((set) => set.has(s)).length)));
  return passages
    .map((passage, i) => ({
      passage,
      score: [...stems].reduce((sum, s) => sum + (held[i]!.has(s) ? weight.get(s)! : 0), 0),
    }))
    .sort((a, b) => b.score - a.score || a.passage.n - b.passage.n);
}

/** Passages that speak of the subject at all: those of pages whose title or text holds enough of its words. */
export function onSubject(passages: readonly Passage[], subject: string): Passage[] {
  const wanted = contentStems(subject, passages[0]?.language);
  const byPage = new Map<string, Set<string>>();
  for (const { locator, text, language } of passages) {
    const stems = byPage.get(locator.address) ?? new Set(contentStems(locator.title, language));
    for (const s of contentStems(text, language)) stems.add(s);
    byPage.set(locator.address, stems);
  }
  return passages.filter(({ locator }) => stemCover(wanted, byPage.get(locator.address)!) >= 0.3);
}
