import type { CardDocument } from '@grivo/core';
import { create } from 'zustand';

interface Draft {
  card: CardDocument;
  /** What it was before each change, the newest last. */
  was: CardDocument[];
}

const MOST_UNDONE = 100;

/** Cards as they are being changed, until they are kept: they outlast a look elsewhere. */
const useDrafts = create<{
  drafts: Record<string, Draft>;
  put: (key: string, draft: Draft | null) => void;
}>((set) => ({
  drafts: {},
  put: (key, draft) =>
    set(({ drafts }) => {
      const { [key]: _, ...others } = drafts;
      return { drafts: draft === null ? others : { ...others, [key]: draft } };
    }),
}));

/** A card as it is being changed. */
export function useDraft(style: string, kept: CardDocument) {
  const key = `${style} ${kept.name}`;
  const draft = useDrafts(({ drafts }) => drafts[key]);
  const put = useDrafts(({ put }) => put);
  const card = draft?.card ?? kept;
  return {
    card,
    changes: draft?.was.length ?? 0,
    change: (changed: Partial<CardDocument>) =>
      put(key, { card: { ...card, ...changed }, was: [...(draft?.was ?? []), card].slice(-MOST_UNDONE) }),
    /** Takes the last change back. */
    undo: () => {
      const before = draft?.was.at(-1);
      if (before) put(key, draft!.was.length === 1 ? null : { card: before, was: draft!.was.slice(0, -1) });
    },
    /** Once it is kept, or given up. */
    drop: () => put(key, null),
  };
}

export type CardDraft = ReturnType<typeof useDraft>;

/** What on a card is picked: a text, a picture or an area, by its number. */
export type Picked = { what: 'texts' | 'pictures' | 'areas'; n: number } | null;
