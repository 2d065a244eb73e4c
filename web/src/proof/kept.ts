import { ArticleDocumentSchema } from '@grivo/contract';
import type { ArticleDocument } from '@grivo/core';
import { z } from 'zod';

/** What somebody typed and the server does not have yet. */
export interface Unsaved {
  /** The revision it was made from, and what that said. */
  revision: string;
  base: ArticleDocument;
  mine: ArticleDocument;
}

const Kept = z.object({ revision: z.string(), base: ArticleDocumentSchema, mine: ArticleDocumentSchema });
const name = (article: string) => `grivo proof ${article}`;

/** Keeps what was typed in the browser until the server has it, so that nothing is lost with the page. */
export function keepUnsaved(article: string, unsaved: Unsaved | null): void {
  try {
    if (unsaved === null) localStorage.removeItem(name(article));
    else localStorage.setItem(name(article), JSON.stringify(unsaved));
  } catch (error) {
    // A full store keeps nothing more; the text on the screen is still there.
    if (!(error instanceof DOMException)) throw error;
  }
}

/** What was kept of an article; null when there is none, or it cannot be read any more. */
export function keptUnsaved(article: string): Unsaved | null {
  const text = localStorage.getItem(name(article));
  if (text === null) return null;
  try {
    return Kept.parse(JSON.parse(text));
  } catch {
    return null;
  }
}
