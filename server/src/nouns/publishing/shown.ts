import {
  type Block,
  blockText,
  type LaidOutPart,
  linksOf,
  type OutsidePlace,
  outsidePlaces,
  type ShownPart,
  withPlainLinks,
} from '@grivo/core';
import { laidOut } from '../articles/laidOut.ts';

/** A text as it was sent, block by block, and as it stands on a blog. */
export interface SentAndThere {
  sent: { id: string; text: string }[];
  there: string;
  reads: 'Markdown' | 'HTML';
  /** Addresses of our own blogs. */
  own: string[];
}

/** Parts of a text that are looked at; the longest articles have some hundred. */
const MOST_PARTS = 10_000;

/** Sets a text as it stands on a blog beside the one that was sent. Both are taken apart alike. */
export function besideSent({ sent, there, reads, own }: SentAndThere): OutsidePlace[] {
  const ours = shownParts(
    sent.map(({ text }) => text),
    reads,
  ).flatMap((parts, i) => parts.map((part) => ({ ...part, of: sent[i]!.id })));
  const [theirs = []] = shownParts([there], reads);
  if (theirs.length > MOST_PARTS) throw new Error(`more than ${MOST_PARTS.toLocaleString('en-GB')} parts`);
  return outsidePlaces(withoutOwn(ours, own), withoutOwn(theirs, own));
}

/**
 * Parts without where their links to our own blogs lead: an article that was put elsewhere since is linked to where it is
 * now, and nobody changed anything.
 */
function withoutOwn<P extends ShownPart>(parts: readonly P[], own: readonly string[]): P[] {
  return parts.map((part) => {
    const [words = '', links = ''] = part.text.split('\0');
    const others = links
      .split(' ')
      .filter((address) => address !== '' && !own.some((blog) => address.startsWith(blog)));
    return { ...part, text: others.length > 0 ? `${words}\0${others.join(' ')}` : words };
  });
}

/**
 * Texts as readers see them, each part with its words and where its links lead. A text that cannot be taken apart has one
 * part, all of it.
 */
export function shownParts(texts: readonly string[], reads: 'Markdown' | 'HTML'): ShownPart[][] {
  return texts.map((text) => {
    const found = laidOut(text, reads);
    return found ? found.parts.map(plain).map(partOf) : [{ text, block: null }];
  });
}

/** A part whose links lead where readers end: that they are counted on their way is nobody's change. */
function plain(part: LaidOutPart): LaidOutPart {
  return part.type === 'picture asked' || part.type === 'video asked' ? part : withPlainLinks(part);
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
