import type { AlsoHere as Other } from '@grivo/contract';
import { type ArticleDocument, type BlockDoubt, directionOf } from '@grivo/core';
import type { Transaction } from 'prosemirror-state';
import { EditorView } from 'prosemirror-view';
import { useEffect, useRef, useState } from 'react';
import { showDoubts } from './doubtMarks.ts';
import { type EditorHands, editorState } from './editor.ts';
import { showPlaces } from './placeMarks.ts';
import { WholeBlocks, WholeBlocksDrawn } from './wholeBlocks.tsx';

const attributesIn = (language: string) => ({
  'aria-label': 'The text of the article',
  'aria-multiline': 'true',
  role: 'textbox',
  lang: language,
  dir: directionOf(language),
  spellcheck: 'true',
});

/**
 * The body of an article to be typed in. The editor owns the text: what it is given first is where it begins, and what
 * changes is told.
 */
export function Editor({
  document,
  doubts,
  others,
  hands,
  onView,
  onUpdate,
}: {
  document: ArticleDocument;
  /** What is ringed in it. */
  doubts: readonly BlockDoubt[];
  /** Who else is in it, and where. */
  others: readonly Other[];
  hands: EditorHands;
  /** Given the editor once it stands, and null when it is gone. */
  onView: (view: EditorView | null) => void;
  /** Told whenever the text or the place in it is another. */
  onUpdate: (view: EditorView, change: Transaction) => void;
}) {
  const place = useRef<HTMLDivElement>(null);
  const begin = useRef({ document, hands });
  const told = useRef({ onView, onUpdate });
  told.current = { onView, onUpdate };
  const current = useRef<EditorView | null>(null);
  const [blocks] = useState(() => new WholeBlocks());
  useEffect(() => {
    const { document: first, hands: does } = begin.current;
    const view = new EditorView(place.current!, {
      state: editorState(first, does),
      nodeViews: { whole: (node, of, at) => blocks.view(node, of, at) },
      attributes: attributesIn(first.language),
      dispatchTransaction(tr) {
        view.updateState(view.state.apply(tr));
        told.current.onUpdate(view, tr);
      },
    });
    current.current = view;
    told.current.onView(view);
    view.focus();
    return () => {
      told.current.onView(null);
      current.current = null;
      view.destroy();
    };
  }, [blocks]);
  useEffect(() => {
    if (current.current) showDoubts(current.current, doubts);
  }, [doubts]);
  useEffect(() => {
    if (current.current) showPlaces(current.current, others);
  }, [others]);
  return (
    <>
      <div ref={place} className="proof-text" />
      <WholeBlocksDrawn blocks={blocks} />
    </>
  );
}
