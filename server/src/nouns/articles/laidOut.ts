import { type LaidOut, laidOutMarkdown, laidOutPlain, tooNested } from '@grivo/core';
import { laidOutHtml } from '../../formats/documents/laidOutHtml.ts';

/** A text that is HTML from its first sign to its last. */
const ALL_HTML =
  /^\s*<(?:!doctype|html|head|body|article|section|main|div|p|h[1-6]|ul|ol|table|blockquote|figure)\b[\s\S]*>\s*$/i;

/**
 * A finished text taken apart. HTML that came as Markdown is read as what it is.
 * @returns null when its parts lie too deep in each other
 */
export function laidOut(text: string, reads: 'Markdown' | 'HTML' | 'plain text'): LaidOut | null {
  if (reads === 'plain text') return laidOutPlain(text);
  let n = 0;
  if (reads === 'HTML' || ALL_HTML.test(text)) return laidOutHtml(text, () => `b${++n}`);
  return tooNested(text) ? null : laidOutMarkdown(text, laidOutHtml);
}
