import type { Block } from '@grivo/core';
import type { EditorView } from 'prosemirror-view';
import { documentOf } from './document.ts';

/** Named in a change that nobody typed here. */
export const FROM_OUTSIDE = 'from outside';

/** Shows another body; what is the same at its beginning and end stays untouched, with the place of whoever types. */
export function showBody(view: EditorView, body: readonly Block[]): void {
  const { state } = view;
  const next = documentOf(body);
  const from = state.doc.content.findDiffStart(next.content);
  if (from === null) return;
  const end = state.doc.content.findDiffEnd(next.content)!;
  // Where the same stands on both sides of a change the two may overlap.
  const overlap = Math.max(0, from - Math.min(end.a, end.b));
  const tr = state.tr.replace(from, end.a + overlap, next.slice(from, end.b + overlap));
  view.dispatch(tr.setMeta(FROM_OUTSIDE, true).setMeta('addToHistory', false));
}
