import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import { type DocumentKind, recognise, type Said } from './kind.ts';

/** A document's text: paragraphs in order, each with the heading it stands under and, of a PDF, its page. */
export interface DocumentText {
  title: string;
  /** Two letters, where the document says so. */
  language: string | null;
  published: string | null;
  paragraphs: { text: string; heading: string; page?: number }[];
}

export type ReadDocument = { ok: true; text: DocumentText; kind: DocumentKind } | { ok: false; problem: string };

interface Waiting {
  kind: DocumentKind;
  bytes: Uint8Array;
  charset: string;
  give: (read: ReadDocument) => void;
}

const TIME_LIMIT_MS = 20_000;
const MEMORY_MB = 512;
const MOST_PARAGRAPHS = 20_000;

/**
 * Reads documents in threads, each one at a time. A document that takes too long or too much memory ends its thread and
 * nothing else; the next begins in a new one.
 */
export class DocumentReader {
  private readonly waiting: Waiting[] = [];
  private readonly threads: Thread[] = [];
  private closed = false;

  /**
   * @param most threads at once
   * @param timeLimitMs for one document
   */
  constructor(
    private readonly most = 2,
    private readonly timeLimitMs = TIME_LIMIT_MS,
  ) {}

  /** The text of a document, or why there is none: never a broken promise, whatever the bytes are. */
  read(bytes: Uint8Array, said: Said): Promise<ReadDocument> {
    const recognised = recognise(bytes, said);
    if (!recognised.ok) return Promise.resolve(recognised);
    const { kind, charset } = recognised;
    return new Promise((give) => {
      this.waiting.push({ kind, bytes, charset, give });
      this.next();
    });
  }

  async close(): Promise<void> {
    this.closed = true;
    for (const { give } of this.waiting.splice(0)) give({ ok: false, problem: 'reading was given up' });
    await Promise.all(this.threads.splice(0).map((thread) => thread.end('reading was given up')));
  }

  private next(): void {
    if (this.closed || this.waiting.length === 0) return;
    let thread = this.threads.find((one) => one.idle);
    if (!thread && this.threads.length < this.most) {
      thread = new Thread(this.timeLimitMs, (gone) => {
        const at = this.threads.indexOf(gone);
        if (at >= 0) this.threads.splice(at, 1);
        this.next();
      });
      this.threads.push(thread);
    }
    if (!thread) return;
    const one = this.waiting.shift()!;
    thread.read(one).then(
      () => this.next(),
      () => this.next(),
    );
  }
}

class Thread {
  private readonly worker = new Worker(join(import.meta.dirname, 'reading.mjs'), {
    resourceLimits: { maxOldGenerationSizeMb: MEMORY_MB },
  });
  private now: { id: number; kind: DocumentKind; end: (read: ReadDocument) => void } | null = null;
  private id = 0;

  constructor(
    private readonly timeLimitMs: number,
    private readonly gone: (thread: Thread) => void,
  ) {
    this.worker.unref();
    this.worker.on('message', ({ id, read }: { id: number; read: DocumentText | { problem: string } }) => {
      if (this.now?.id === id) this.now.end(checked(read, this.now.kind));
    });
    this.worker.on('error', (error: NodeJS.ErrnoException) => {
      const why = error.code === 'ERR_WORKER_OUT_OF_MEMORY' ? 'it takes more memory than one may' : error.message;
      void this.end(`it cannot be read: ${why}`);
    });
  }

  get idle(): boolean {
    return this.now === null;
  }

  async read({ kind, bytes, charset, give }: Waiting): Promise<void> {
    const id = ++this.id;
    this.worker.ref();
    const read = await new Promise<ReadDocument>((end) => {
      this.now = { id, kind, end };
      const limit = setTimeout(
        () => void this.end(`it takes more than ${this.timeLimitMs / 1_000} seconds to read`),
        this.timeLimitMs,
      );
      this.now.end = (result) => {
        clearTimeout(limit);
        end(result);
      };
      // A copy: what is given away cannot be used again here.
      this.worker.postMessage({ id, kind, bytes: Uint8Array.from(bytes), charset });
    });
    this.now = null;
    this.worker.unref();
    give(read);
  }

  /** Ends the thread; what it was reading is unreadable for the reason given. */
  async end(problem: string): Promise<void> {
    this.gone(this);
    this.now?.end({ ok: false, problem });
    await this.worker.terminate();
  }
}

function checked(read: DocumentText | { problem: string }, kind: DocumentKind): ReadDocument {
  if ('problem' in read) return { ok: false, problem: read.problem.slice(0, 300) };
  if (read.paragraphs.length === 0) return { ok: false, problem: 'there is no text on it' };
  return { ok: true, kind, text: { ...read, paragraphs: read.paragraphs.slice(0, MOST_PARAGRAPHS) } };
}
