import { type Block, blockText, type LaidOutPart, linksOf, type ShownPart } from '@grivo/core';
import { laidOut } from '../articles/laidOut.ts';

/**
 * Texts as readers see them, taken apart alike, so that what was sent can be set beside what is there: each part with its
 * words and where its links lead. A text that cannot be taken apart has one part, all of it.
 */
export function shownParts(texts: readonly string[], reads: 'Markdown' | 'HTML'): ShownPart[][] {
  return texts.map((text) => {
    const found = laidOut(text, reads);
    return found ? found.parts.map(partOf) : [{ text, block: null }];
  });
}

function partOf(part: LaidOutPart): ShownPart {
  if (part.type === 'picture asked') return { text: `${part.alternative}\0${part.address}`, block: null };
  if (part.type === 'video asked') return { text: `\0${part.address}`, block: null };
  return { text: wordsOf(part), block: part };
}

function wordsOf(block: Block): string {
  const links = linksOf(block).map((link) => (link.to === 'address' ? link.address : link.article));
  return links.length === 0 ? blockText(block) : `${blockText(block)}\0${links.join(' ')}`;
}
