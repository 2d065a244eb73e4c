import { type Block, contentStems, inlineText } from '@grivo/core';

/**
 * The paragraph that shares most words with what is to stand after it.
 * @param least words it must share
 * @param isTaken places, by the paragraph's number, where nothing more may stand
 * @returns the place after it; null where none shares as many
 */
export function placeSharing(
  body: readonly Block[],
  about: string,
  language: string,
  { least, isTaken = () => false }: { least: number; isTaken?: (at: number) => boolean },
): number | null {
  const wanted = new Set(contentStems(about, language));
  let best: { at: number; shared: number } | null = null;
  for (const [n, block] of body.entries()) {
    if (block.type !== 'paragraph' || isTaken(n)) continue;
    const stems = contentStems(inlineText(block.content), language).filter((stem) => wanted.has(stem));
    const shared = new Set(stems).size;
    if (shared >= least && (best === null || shared > best.shared)) best = { at: n + 1, shared };
  }
  return best?.at ?? null;
}
