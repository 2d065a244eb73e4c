import { mapSteps, type ProcedureDocument, type Step } from '@grivo/core';
import { create } from 'zustand';

/** What is being changed on a procedure page and not saved yet, with the way back. */
interface Draft {
  pipeline: string;
  /** The rev the draft began from. */
  rev: number;
  saved: ProcedureDocument;
  now: ProcedureDocument;
  past: ProcedureDocument[];
  future: ProcedureDocument[];
}

interface DraftStore {
  draft: Draft | null;
  /** Begins from what is saved; unsaved changes of the same pipeline stay when only the rev moved on by somebody else. */
  open: (pipeline: string, rev: number, document: ProcedureDocument) => void;
  saved: (rev: number, document: ProcedureDocument) => void;
  change: (step: string, field: string, value: unknown) => void;
  undo: () => void;
  redo: () => void;
  drop: () => void;
}

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

/** The document with one word of one step changed. */
export function withWord(document: ProcedureDocument, step: string, field: string, value: unknown): ProcedureDocument {
  return {
    ...document,
    steps: mapSteps(document.steps, (one) => (one.id === step ? ({ ...one, [field]: value } as Step) : one)),
  };
}

export const useDraft = create<DraftStore>((set) => ({
  draft: null,
  open: (pipeline, rev, document) =>
    set(({ draft }) => {
      if (draft?.pipeline === pipeline && !same(draft.now, draft.saved)) return {};
      if (draft?.pipeline === pipeline && draft.rev === rev) return {};
      return { draft: { pipeline, rev, saved: document, now: document, past: [], future: [] } };
    }),
  saved: (rev, document) =>
    set(({ draft }) => (draft ? { draft: { ...draft, rev, saved: document, now: document } } : {})),
  change: (step, field, value) =>
    set(({ draft }) => {
      if (!draft) return {};
      const now = withWord(draft.now, step, field, value);
      if (same(now, draft.now)) return {};
      return { draft: { ...draft, now, past: [...draft.past.slice(-199), draft.now], future: [] } };
    }),
  undo: () =>
    set(({ draft }) => {
      const back = draft?.past.at(-1);
      return draft && back
        ? { draft: { ...draft, now: back, past: draft.past.slice(0, -1), future: [draft.now, ...draft.future] } }
        : {};
    }),
  redo: () =>
    set(({ draft }) => {
      const [next, ...future] = draft?.future ?? [];
      return draft && next ? { draft: { ...draft, now: next, past: [...draft.past, draft.now], future } } : {};
    }),
  drop: () => set(({ draft }) => (draft ? { draft: { ...draft, now: draft.saved, past: [], future: [] } } : {})),
}));

export function isChanged(draft: Draft | null): boolean {
  return draft !== null && !same(draft.now, draft.saved);
}
