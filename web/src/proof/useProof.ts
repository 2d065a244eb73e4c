import type { ArticleWhole } from '@grivo/contract';
import { type ArticleDocument, blockText, type Clash } from '@grivo/core';
import type { Transaction } from 'prosemirror-state';
import type { EditorView } from 'prosemirror-view';
import { type RefObject, useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { freshKey } from '../api/fresh.ts';
import { queryClient, read } from '../api/queries.ts';
import { bodyOf } from './document.ts';
import { takeLeft } from './kept.ts';
import { Saver, type Saving } from './saver.ts';
import { FROM_OUTSIDE, showBody } from './show.ts';
import { useFollowing } from './useFollowing.ts';

/** Everything about an article that is being edited, on one page. */
export interface Proof {
  /** As it is typed; the text follows the letters when there is time. */
  document: ArticleDocument;
  /** As it is typed, to the last letter. */
  documentNow: () => ArticleDocument;
  view: EditorView | null;
  /** The block that is typed in. */
  at: string | null;
  saving: Saving;
  clashes: readonly Clash[];
  /** Told by the editor. */
  onView: (view: EditorView | null) => void;
  onUpdate: (view: EditorView, change: Transaction) => void;
  put: (details: Partial<Omit<ArticleDocument, 'body'>>) => void;
  settled: () => void;
  /** Brings what is typed to the server. @returns whether it has all of it */
  flush: () => Promise<boolean>;
}

const fetchNow = (id: string) => queryClient.fetchQuery({ ...read.article(id), staleTime: 0 });

/** Edits an article: what is typed reaches the server by itself, and what others change reaches the page. */
export function useProof(article: ArticleWhole): Proof {
  const { revision } = article;
  const [document, setDocument] = useState(article.document);
  const [saving, setSaving] = useState<Saving>({ kind: 'kept' });
  const [clashes, setClashes] = useState<readonly Clash[]>([]);
  const [view, setView] = useState<EditorView | null>(null);
  const [at, setAt] = useState<string | null>(null);
  const [, setPlace] = useState(0);
  const now = useRef(document);
  const shown = useRef<EditorView | null>(null);
  const take = useCallback((next: ArticleDocument) => {
    now.current = next;
    setDocument(next);
  }, []);
  const hands = useMemo<SaverHands>(
    () => ({
      read: () => now.current,
      show: (merged, found) => {
        if (shown.current) showBody(shown.current, merged.body);
        take(merged);
        if (found.length > 0) setClashes(found);
      },
      // Said once: every letter is on its way.
      tell: (next) => setSaving((was) => (was.kind === next.kind && saysOf(was) === saysOf(next) ? was : next)),
    }),
    [take],
  );
  const saver = useRef<Saver | null>(null);
  useSaver(saver, article, hands);
  useEffect(() => void saver.current?.heard(revision), [revision]);
  const onView = useCallback((next: EditorView | null) => {
    shown.current = next;
    setView(next);
  }, []);
  const follows = useFollowing(() => {
    // What the tools offer hangs on the place in the text, not on the block alone.
    if (shown.current) setPlace(shown.current.state.selection.head);
    setDocument(now.current);
  });
  const onUpdate = useCallback(
    (editor: EditorView, change: Transaction) => {
      const { $from } = editor.state.selection;
      setAt(($from.depth > 0 ? $from.node(1) : $from.nodeAfter)?.attrs['id'] ?? null);
      follows();
      if (!change.docChanged || change.getMeta(FROM_OUTSIDE)) return;
      now.current = { ...now.current, body: bodyOf(editor.state.doc) };
      saver.current?.changed();
    },
    [follows],
  );
  const put = useCallback(
    (details: Partial<Omit<ArticleDocument, 'body'>>) => {
      take({ ...now.current, ...details });
      saver.current?.changed();
    },
    [take],
  );
  return {
    document,
    documentNow: useCallback(() => now.current, []),
    view,
    at,
    saving,
    clashes: useMemo(() => clashes.filter((clash) => isOpen(clash, document)), [clashes, document]),
    onView,
    onUpdate,
    put,
    settled: useCallback(() => setClashes([]), []),
    flush: useCallback(async () => (await saver.current?.flush()) ?? true, []),
  };
}

type SaverHands = Pick<ConstructorParameters<typeof Saver>[3], 'read' | 'show' | 'tell'>;

/** What brings an article to the server, for as long as its page is open; what was left behind is taken in. */
function useSaver(saver: RefObject<Saver | null>, article: ArticleWhole, hands: SaverHands): void {
  const { id } = article;
  const first = useRef(article);
  useEffect(() => {
    const made = new Saver(id, first.current, `p${freshKey().slice(0, 8)}`, {
      ...hands,
      fetch: () => fetchNow(id),
      saved: () => void queryClient.invalidateQueries({ queryKey: ['article', id], exact: true }),
    });
    saver.current = made;
    void takeLeft(id, (left) => made.takeIn(left));
    const leave = (event: BeforeUnloadEvent) => made.isDirty && event.preventDefault();
    const gone = () => made.keepNow();
    window.addEventListener('beforeunload', leave);
    window.addEventListener('pagehide', gone);
    return () => {
      window.removeEventListener('beforeunload', leave);
      window.removeEventListener('pagehide', gone);
      void made.flush().finally(() => made.close());
    };
  }, [id, hands, saver]);
}

const saysOf = (saving: Saving) => ('says' in saving ? saving.says : '');

/** Whether both still stand. */
function isOpen({ place, theirs, mine }: Clash, document: ArticleDocument): boolean {
  if ('field' in place) return document[place.field] === mine && theirs !== mine;
  const text = (id: string) => document.body.find((block) => block.id === id);
  const [one, other] = [text(place.theirs), text(place.mine)];
  return one !== undefined && other !== undefined && blockText(one) !== '' && blockText(other) !== '';
}
