import { contentStems } from '@grivo/core';
import type { Database } from '../../ground/store/database.ts';
import { ownPictures } from './repository.ts';

export interface Chosen {
  file: string;
  words: string;
  credit: string;
  width: number;
  height: number;
}

/**
 * The picture of ours that fits a text best by its words: those that few pictures have count most (inverse document
 * frequency, Spärck Jones 1972); of two that fit alike the one used less.
 * @returns null where none has a word of it
 */
export async function chooseOwn(
  db: Database,
  about: string,
  language: string,
  /** Files that may not be chosen. */
  never: ReadonlySet<string> = new Set(),
): Promise<Chosen | null> {
  const all = (await ownPictures(db)).map((one) => ({ one, stems: new Set(contentStems(one.words, language)) }));
  const often = new Map<string, number>();
  for (const { stems } of all) for (const stem of stems) often.set(stem, (often.get(stem) ?? 0) + 1);
  const said = new Set(contentStems(about, language));
  let best: { one: (typeof all)[number]['one']; score: number } | null = null;
  for (const { one, stems } of all) {
    let score = 0;
    for (const stem of stems) if (said.has(stem)) score += Math.log(1 + all.length / often.get(stem)!);
    if (score === 0 || never.has(one.file)) continue;
    const better =
      best === null || score > best.score + 1e-9 || (Math.abs(score - best.score) < 1e-9 && one.uses < best.one.uses);
    if (better) best = { one, score };
  }
  return best?.one ?? null;
}
