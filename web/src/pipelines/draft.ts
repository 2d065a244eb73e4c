import {
  beginHistory,
  changeHistory,
  type History,
  ProcedureDocument,
  redoHistory,
  undoHistory,
  withWord,
} from '@grivo/core';
import { create } from 'zustand';
import { type PersistStorage, persist } from 'zustand/middleware';

/** What is being changed on a procedure page and not saved yet, with the way back. */
export interface Draft {
  pipeline: string;
  /** The rev the draft began from. */
  rev: number;
  saved: ProcedureDocument;
  history: History<ProcedureDocument>;
}

interface DraftStore {
  draft: Draft | null;
  /** Unsaved drafts of other pipelines. */
  aside: Record<string, Draft>;
  /** Begins from what is saved; unsaved changes of the same pipeline stay, also when somebody else saved meanwhile. */
  open: (pipeline: string, rev: number, document: ProcedureDocument) => void;
  saved: (rev: number, document: ProcedureDocument) => void;
  /** Somebody else's save becomes what the draft is compared with, and nothing of the draft is lost. */
  over: (rev: number, document: ProcedureDocument) => void;
  change: (step: string, field: string, value: unknown) => void;
  /** @returns whether there was something to change */
  edit: (make: (document: ProcedureDocument) => ProcedureDocument | null) => boolean;
  undo: () => void;
  redo: () => void;
  drop: () => void;
}

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

/** Past changes kept over a reload of the page. */
const PAST_KEPT = 40;

const begun = (pipeline: string, rev: number, document: ProcedureDocument): Draft => ({
  pipeline,
  rev,
  saved: document,
  history: beginHistory(document),
});

/** Changes of one word that follow each other so closely are taken back together. */
const TOGETHER_MS = 800;

/** Writing comes a moment after typing: making a text of forty documents at every key took longer than drawing it. */
const WRITE_AFTER_MS = 400;

type Kept = Pick<DraftStore, 'draft' | 'aside'>;

function laterStorage(): PersistStorage<Kept> {
  let waiting: { name: string; value: unknown } | null = null;
  let timer: ReturnType<typeof setTimeout> | undefined;
  const write = () => {
    clearTimeout(timer);
    try {
      if (waiting) {
        const text = JSON.stringify(waiting.value);
        sessionStorage.setItem(waiting.name, text);
        localStorage.setItem(waiting.name, text);
      }
    } catch (error) {
      // No room: the draft stays on the page, only a page read anew would lose it.
      if (!(error instanceof DOMException && error.name === 'QuotaExceededError')) throw error;
    }
    waiting = null;
  };
  if (typeof window !== 'undefined') window.addEventListener('pagehide', write);
  return {
    getItem: (name) => {
      write();
      const text = sessionStorage.getItem(name) ?? localStorage.getItem(name);
      return text === null ? null : JSON.parse(text);
    },
    setItem: (name, value) => {
      waiting = { name, value };
      clearTimeout(timer);
      timer = setTimeout(write, WRITE_AFTER_MS);
    },
    removeItem: (name) => {
      waiting = null;
      sessionStorage.removeItem(name);
      localStorage.removeItem(name);
    },
  };
}

/**
 * Kept by the tab, so that a lost connection or a page read anew loses nothing typed, and two tabs do not meet; the last of
 * any tab is there again after the browser was closed.
 */
export const useDraft = create<DraftStore>()(
  persist(
    (set, get) => {
      const withHistory = (step: (history: History<ProcedureDocument>) => History<ProcedureDocument>) =>
        set(({ draft }) => (draft ? { draft: { ...draft, history: step(draft.history) } } : {}));
      let last = { word: '', at: 0 };
      const edit: DraftStore['edit'] = (make) => {
        last = { word: '', at: 0 };
        const now = get().draft?.history.now;
        const next = now ? make(now) : null;
        if (!next || same(next, now)) return false;
        withHistory((history) => changeHistory(history, next));
        return true;
      };
      return {
        draft: null,
        aside: {},
        open: (pipeline, rev, document) =>
          set(({ draft, aside }) => {
            if (draft?.pipeline === pipeline && (isChanged(draft) || draft.rev === rev)) return {};
            const { [pipeline]: kept, ...rest } = aside;
            const others =
              draft && draft.pipeline !== pipeline && isChanged(draft) ? { ...rest, [draft.pipeline]: draft } : rest;
            return { draft: kept ?? begun(pipeline, rev, document), aside: others };
          }),
        saved: (rev, document) =>
          set(({ draft }) =>
            draft ? { draft: { ...draft, rev, saved: document, history: { ...draft.history, now: document } } } : {},
          ),
        over: (rev, document) => set(({ draft }) => (draft ? { draft: { ...draft, rev, saved: document } } : {})),
        change: (step, field, value) => {
          const word = `${step} ${field}`;
          const now = Date.now();
          const goesOn =
            last.word === word && now - last.at < TOGETHER_MS && (get().draft?.history.past.length ?? 0) > 0;
          if (goesOn)
            withHistory((history) => ({ ...history, now: withWord(history.now, step, field, value), future: [] }));
          else edit((document) => withWord(document, step, field, value));
          last = { word, at: now };
        },
        edit,
        undo: () => {
          last = { word: '', at: 0 };
          withHistory(undoHistory);
        },
        redo: () => {
          last = { word: '', at: 0 };
          withHistory(redoHistory);
        },
        drop: () => set(({ draft }) => (draft ? { draft: begun(draft.pipeline, draft.rev, draft.saved) } : {})),
      };
    },
    {
      name: 'grivo-drafts',
      version: 1,
      storage: laterStorage(),
      partialize: ({ draft, aside }) => ({ draft: draft && isChanged(draft) ? shortened(draft) : null, aside }),
      merge: (kept, store) => ({ ...store, ...readKept(kept) }),
    },
  ),
);

export function isChanged(draft: Draft | null): boolean {
  return draft !== null && !same(draft.history.now, draft.saved);
}

function shortened(draft: Draft): Draft {
  return { ...draft, history: { ...draft.history, past: draft.history.past.slice(-PAST_KEPT), future: [] } };
}

/** What the browser kept is read like anything from outside: a draft of another time may be no procedure any more. */
function readKept(kept: unknown): Pick<DraftStore, 'draft' | 'aside'> {
  const { draft, aside } = (kept ?? {}) as { draft?: Draft | null; aside?: Record<string, Draft> };
  const good = (one: Draft | null | undefined): one is Draft =>
    !!one &&
    typeof one.pipeline === 'string' &&
    typeof one.rev === 'number' &&
    [one.saved, one.history?.now, ...(one.history?.past ?? [])].every(
      (document) => ProcedureDocument.safeParse(document).success,
    );
  return {
    draft: good(draft) ? draft : null,
    aside: Object.fromEntries(Object.entries(aside ?? {}).filter(([, one]) => good(one))),
  };
}
