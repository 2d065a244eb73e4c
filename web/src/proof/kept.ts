import { ArticleDocumentSchema } from '@grivo/contract';
import type { ArticleDocument } from '@grivo/core';
import { z } from 'zod';
import { freshKey } from '../api/fresh.ts';

/** What somebody typed and the server does not have yet. */
export interface Unsaved {
  /** The revision it was made from, and what that said. */
  revision: string;
  base: ArticleDocument;
  mine: ArticleDocument;
}

const Kept = z.object({ revision: z.string(), base: ArticleDocumentSchema, mine: ArticleDocumentSchema });

/** Each page of the browser keeps its own, so that two on one article never take away what the other keeps. */
const PAGE = freshKey();
const prefix = (article: string) => `grivo proof ${article} `;
const nameOf = (article: string, page: string) => `${prefix(article)}${page}`;
const lockOf = (page: string) => `grivo page ${page}`;

/** Held as long as this page is open, so that others see what it keeps is not left behind. */
const held = navigator.locks?.request(lockOf(PAGE), () => new Promise<never>(() => undefined));
held?.catch(() => undefined);

/** Keeps what was typed in the browser until the server has it, so that nothing is lost with the page. */
export function keepUnsaved(article: string, unsaved: Unsaved | null, page = PAGE): void {
  try {
    if (unsaved === null) localStorage.removeItem(nameOf(article, page));
    else localStorage.setItem(nameOf(article, page), JSON.stringify(unsaved));
  } catch (error) {
    // A full store keeps nothing more; the text on the screen is still there.
    if (!(error instanceof DOMException)) throw error;
  }
}

/** What this page keeps of an article; null when there is none, or it cannot be read any more. */
export function keptUnsaved(article: string, page = PAGE): Unsaved | null {
  const text = localStorage.getItem(nameOf(article, page));
  if (text === null) return null;
  try {
    return Kept.parse(JSON.parse(text));
  } catch {
    return null;
  }
}

/** Pages other than this one that keep something of an article, open or gone. */
function otherPages(article: string): string[] {
  return Array.from({ length: localStorage.length }, (_, i) => localStorage.key(i) ?? '').flatMap((name) =>
    name.startsWith(prefix(article)) && name !== nameOf(article, PAGE) ? [name.slice(prefix(article).length)] : [],
  );
}

/** Whether any page of this browser keeps something of an article. */
export function isKept(article: string): boolean {
  return keptUnsaved(article) !== null || otherPages(article).length > 0;
}

/**
 * Takes over what pages that are gone kept of an article. Pages that are open bring theirs to the server themselves; a
 * browser that cannot tell counts all others as gone, and what two bring is merged.
 * @param take keeps it as this page's own before it is let go of; false where it cannot any more, and then it stays
 */
export async function takeLeft(article: string, take: (left: Unsaved) => boolean): Promise<void> {
  for (const page of otherPages(article)) {
    const takeOver = () => {
      const left = keptUnsaved(article, page);
      if (!left || take(left)) keepUnsaved(article, null, page);
    };
    if (!navigator.locks) takeOver();
    // Shared, so that two looks of this page at once do not take each other for the page that is asked about.
    else
      await navigator.locks.request(lockOf(page), { ifAvailable: true, mode: 'shared' }, (lock) => lock && takeOver());
  }
}
