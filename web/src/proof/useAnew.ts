import { AnewPiece, WrittenAnew } from '@grivo/contract';
import { type ArticleDocument, blockText } from '@grivo/core';
import { useMutation } from '@tanstack/react-query';
import type { EditorView } from 'prosemirror-view';
import { useCallback, useEffect, useRef, useState } from 'react';
import { freshKey } from '../api/fresh.ts';
import { callInPieces } from '../api/pieces.ts';
import { idsAt, lettersAt } from './commands.ts';

const SCOPES = [
  { value: 'words', says: 'the words picked', does: 'the rest of the paragraph stays as it is' },
  { value: 'blocks', says: 'what is picked', does: 'the paragraph typed in, or those selected' },
  { value: 'section', says: 'its whole section', does: 'everything under its heading' },
  { value: 'opening', says: 'the opening', does: 'everything above the first heading' },
] as const;
type Scope = (typeof SCOPES)[number]['value'];

/** Some letters of a paragraph as they stand now. */
function textAt({ body }: ArticleDocument, [id]: readonly string[], { from, to }: { from: number; to: number }) {
  const block = body.find((one) => one.id === id);
  return block ? blockText(block).slice(from, to) : '';
}

/** Asking for a part to be written anew, what is written so far, and what came. */
export function useAnew(article: string, documentNow: () => ArticleDocument, view: EditorView) {
  // What was at hand when it was asked for: the place to type may go elsewhere meanwhile.
  const [at] = useState(() => {
    const blocks = idsAt(view.state, 'blocks');
    const [section, opening] = [idsAt(view.state, 'section'), idsAt(view.state, 'opening')];
    const letters = lettersAt(view.state);
    const { from, to } = view.state.selection;
    const picked = letters && view.state.doc.textBetween(from, to);
    return { words: blocks, blocks, section, opening, letters, picked };
  });
  const [scope, put] = useState<Scope>(at.letters ? 'words' : 'blocks');
  const scopes = SCOPES.filter(({ value }) => (value === 'words' ? at.letters : at[value].length > 0));
  const [note, setNote] = useState('');
  const [again, setAgain] = useState(0);
  const letters = scope === 'words' ? at.letters : null;
  // Somebody else may have changed the paragraph: other words would stand there.
  const isGoneNow = () => letters !== null && textAt(documentNow(), at.words, letters) !== at.picked;
  const isGone = isGoneNow();
  const ids = isGone ? [] : at[scope];
  const [soFar, setSoFar] = useState('');
  const line = useRef<AbortController | null>(null);
  const hangUp = useCallback(() => line.current?.abort(), []);
  useEffect(() => hangUp, [hangUp]);
  const asked = useMutation({
    mutationFn: (n: number) => {
      hangUp();
      line.current = new AbortController();
      setSoFar('');
      return callInPieces(`/articles/${article}/anew`, {
        body: { document: documentNow(), blocks: at[scope], letters, note, again: n },
        answer: WrittenAnew,
        piece: AnewPiece,
        onPiece: ({ text }) => setSoFar(text),
        key: freshKey(),
        signal: line.current.signal,
      });
    },
  });
  const setScope = (value: Scope) => {
    hangUp();
    put(value);
    asked.reset();
  };
  const write = (n: number) => {
    // As the text is when it is pressed: what is drawn may be some letters behind.
    if (note.trim() === '' || at[scope].length === 0 || isGoneNow()) return;
    setAgain(n);
    asked.mutate(n);
  };
  return { scope, scopes, setScope, ids, letters, isGone, isGoneNow, note, setNote, asked, soFar, write, again };
}
