import { ArticleSaved, type ArticleWhole } from '@grivo/contract';
import { type ArticleDocument, type Clash, mergeArticles } from '@grivo/core';
import { call, inWords, Refused, Unreached } from '../api/call.ts';
import { isKept, keepUnsaved, type Unsaved } from './kept.ts';

/** How what is typed stands. */
export type Saving =
  /** The server has all of it. */
  | { kind: 'kept' }
  /** It is on its way, or will be in a moment. */
  | { kind: 'on its way' }
  /** The server cannot be reached, or a step is at the article: it is tried again. */
  | { kind: 'later'; says: string }
  /** It is not taken as it is; what is typed next is tried. */
  | { kind: 'refused'; says: string };

export interface SaverHands {
  /** What is typed, as it stands now. */
  read: () => ArticleDocument;
  /** Shows what somebody else's changes and these are together. */
  show: (merged: ArticleDocument, clashes: readonly Clash[]) => void;
  tell: (saving: Saving) => void;
  /** The article as the server has it now. */
  fetch: () => Promise<Pick<ArticleWhole, 'revision' | 'document'>>;
  /** Told when the server has another revision of ours. */
  saved: (revision: string) => void;
}

/** What is being edited on this page, by the article. */
const open = new Map<string, Saver>();

/** Brings what is typed of an article to the server now. @returns whether the server has all of it */
export async function flushUnsaved(article: string): Promise<boolean> {
  return (await open.get(article)?.flush()) ?? !isKept(article);
}

const PAUSE_MS = 800;
/** What is typed is kept in the browser at most so often. */
const KEEP_MS = 250;
const AGAIN_MS = 3_000;

/**
 * Brings what is typed to the server: a moment after each pause, again and again while it cannot be reached, and together
 * with what others changed meanwhile. Until the server has it, the browser keeps it.
 */
export class Saver {
  private revision: string;
  private base: ArticleDocument;
  private timer: ReturnType<typeof setTimeout> | null = null;
  private keeping: ReturnType<typeof setTimeout> | null = null;
  private running: Promise<void> | null = null;
  private dirty = false;
  private closed = false;

  constructor(
    private readonly article: string,
    from: Pick<ArticleWhole, 'revision' | 'document'>,
    private readonly sitting: string,
    private readonly hands: SaverHands,
    private readonly send = put,
  ) {
    this.revision = from.revision;
    this.base = from.document;
    open.set(article, this);
  }

  /** Takes in what a page that is gone had typed and not saved, together with what is here. @returns whether it could */
  takeIn({ base, mine }: Unsaved): boolean {
    if (this.closed) return false;
    const { article, clashes } = mergeArticles(base, mine, this.hands.read());
    this.hands.show(article, clashes);
    this.changed();
    this.keepNow();
    return true;
  }

  get isDirty(): boolean {
    return this.dirty;
  }

  /** Something was typed. */
  changed(): void {
    this.dirty = true;
    this.keeping ??= setTimeout(() => this.keepNow(), KEEP_MS);
    this.hands.tell({ kind: 'on its way' });
    this.soon(PAUSE_MS);
  }

  /** Keeps what is typed in the browser, as when the page may be gone in a moment. */
  keepNow(): void {
    if (this.keeping) clearTimeout(this.keeping);
    this.keeping = null;
    if (this.dirty) keepUnsaved(this.article, { revision: this.revision, base: this.base, mine: this.hands.read() });
  }

  /** The server told that the article changed. */
  async heard(revision: string): Promise<void> {
    if (revision === this.revision || this.closed || this.running || this.dirty) return;
    const theirs = await this.hands.fetch();
    // Typed or saved meanwhile: the next saving brings both together.
    if (this.dirty || this.running || theirs.revision === this.revision) return;
    this.adopt(theirs);
    this.hands.show(theirs.document, []);
  }

  /** Brings it to the server now. @returns whether the server has all of it */
  async flush(): Promise<boolean> {
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
    while (this.dirty && !this.closed) {
      this.running ??= this.save().finally(() => {
        this.running = null;
      });
      await this.running;
      if (this.timer) return !this.dirty;
    }
    return !this.dirty;
  }

  close(): void {
    this.keepNow();
    this.closed = true;
    if (open.get(this.article) === this) open.delete(this.article);
    if (this.timer) clearTimeout(this.timer);
  }

  private soon(ms: number): void {
    if (this.timer) clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.flush(), ms);
  }

  private adopt({ revision, document }: Pick<ArticleWhole, 'revision' | 'document'>): void {
    this.revision = revision;
    this.base = document;
  }

  private async save(): Promise<void> {
    const mine = this.hands.read();
    this.dirty = false;
    try {
      const saved = await this.send(this.article, { base: this.revision, document: mine, sitting: this.sitting });
      this.adopt(saved);
      // What was typed while it was on its way goes next.
      if (this.dirty) this.keepNow();
      else {
        if (this.keeping) clearTimeout(this.keeping);
        this.keeping = null;
        keepUnsaved(this.article, null);
        this.hands.tell({ kind: 'kept' });
      }
      this.hands.saved(saved.revision);
    } catch (error) {
      this.dirty = true;
      this.keepNow();
      await this.failed(error, mine);
    }
  }

  private async failed(error: unknown, mine: ArticleDocument): Promise<void> {
    const status = error instanceof Refused ? error.problem.status : null;
    if (status === 412) return this.merge();
    if (error instanceof Unreached || status === 409 || status === null || status >= 500 || status === 429) {
      this.hands.tell({ kind: 'later', says: inWords(error) });
      return this.soon(AGAIN_MS);
    }
    this.hands.tell({ kind: 'refused', says: inWords(error) });
    keepUnsaved(this.article, { revision: this.revision, base: this.base, mine });
    // Nothing to be done until something else is typed.
    this.dirty = false;
  }

  /** Somebody else changed the article: theirs and ours together, and that is saved next. */
  private async merge(): Promise<void> {
    try {
      const theirs = await this.hands.fetch();
      const { article, clashes } = mergeArticles(this.base, this.hands.read(), theirs.document);
      this.adopt(theirs);
      this.hands.show(article, clashes);
    } catch (error) {
      this.hands.tell({ kind: 'later', says: inWords(error) });
      this.soon(AGAIN_MS);
    }
  }
}

function put(
  article: string,
  body: { base: string; document: ArticleDocument; sitting: string },
): Promise<ArticleSaved> {
  return call('PUT', `/articles/${article}/document`, { body, answer: ArticleSaved });
}
