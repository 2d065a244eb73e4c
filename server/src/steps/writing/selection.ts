import { contentStems } from '@grivo/core';
import type { NumberedPassage } from './promptParts.ts';

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
