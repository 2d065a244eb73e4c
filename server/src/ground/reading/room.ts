import { type ChildProcess, fork } from 'node:child_process';
import { join } from 'node:path';

/** What came of reading something: a value, or why there is none, in words that go on from ‘it’. */
export type Read<T> = { ok: true; value: T } | { ok: false; problem: string };

/**
 * What can be read, each from what is handed over to what is handed back. The room knows none of it: whoever reads adds
 * his own here, and the program of the readers does it.
 */
// biome-ignore lint/suspicious/noEmptyInterface: filled from where the readers are
export interface Jobs {}
/** What is handed back part by part. */
// biome-ignore lint/suspicious/noEmptyInterface: filled from where the readers are
export interface JobParts {}

export type JobName = keyof Jobs;
export type PartsName = keyof JobParts;
type InputOf<J> = J extends (input: infer I) => unknown ? I : never;
type ValueOf<J> = J extends (input: never) => infer V ? Awaited<V> : never;

export interface RoomLimits {
  timeLimitMs: number;
  /** How long who reads part by part may stay away between two. */
  awayLimitMs: number;
  /**
   * What each reader may hold, in megabytes: one that reads anything, more of it for tables, and beside it those for what
   * is small.
   */
  memoryMb: { tables: number; any: number; small: readonly number[] };
}

const LIMITS: RoomLimits = {
  timeLimitMs: 20_000,
  awayLimitMs: 60_000,
  memoryMb: { tables: 200, any: 144, small: [96] },
};

/** Letters or bytes up to which something is small: what is large waits for what is large alone. */
const SMALL = 400_000;

/** What takes longer, and holds more, by its nature. */
const TABLES: ReadonlySet<JobName | PartsName> = new Set(['workbook', 'products']);
const TABLES_LIMIT_MS = 60_000;

/** How long a reader may take to begin, on a machine that is busy. */
const STARTS_WITHIN_MS = 60_000;

/** Jobs that may wait for a reader; more are told that there is too much to read. */
const MOST_WAITING = 2_000;

interface Waiting {
  name: JobName | PartsName;
  input: unknown;
  small: boolean;
  /** Takes what comes of it: a part of more, or the end. */
  take: (came: Came) => void;
  /** Who has it, once one has. */
  reader: Reader | null;
  gone: boolean;
}

type Came = { kind: 'part'; part: unknown } | { kind: 'end'; read: Read<unknown> };

/**
 * Where everything that comes from outside is read: in processes of their own, each reading one thing at a time. What takes
 * too long or too much memory ends its process and nothing else, and is unreadable for that reason; whoever asked goes on
 * meanwhile. Threads do not do: one that asks for much memory at once ends the whole program, whatever limit it has.
 */
export class ReadingRoom {
  private readonly limits: RoomLimits;
  private readonly waiting: Waiting[] = [];
  private readonly places: Place[];
  private closed = false;

  constructor(limits: Partial<RoomLimits> = {}) {
    this.limits = { ...LIMITS, ...limits };
    const { tables, any, small } = this.limits.memoryMb;
    this.places = [
      ...small.map((memoryMb): Place => ({ memoryMb: () => memoryMb, takes: (job) => job.small, reader: null })),
      { memoryMb: ({ name }) => (TABLES.has(name) ? tables : any), takes: () => true, reader: null },
    ];
  }

  /** Reads something whole. Never a broken promise, whatever the bytes are. */
  read<N extends JobName>(name: N, input: InputOf<Jobs[N]>): Promise<Read<ValueOf<Jobs[N]>>> {
    return new Promise((give) => {
      this.ask(name, input, (came) => {
        if (came.kind === 'end') give(came.read as Read<ValueOf<Jobs[N]>>);
      });
    });
  }

  /**
   * Reads something part by part: the next is made only when the one before was taken, so that never all of it is in
   * memory. Left in the middle, the reading ends.
   * @returns parts, and at last how it ended
   */
  async *parts<N extends PartsName>(
    name: N,
    input: InputOf<JobParts[N]>,
  ): AsyncGenerator<PartOf<JobParts[N]>, Read<null>> {
    let wake = () => {};
    const came: Came[] = [];
    const job = this.ask(name, input, (one) => {
      came.push(one);
      wake();
    });
    try {
      for (;;) {
        const next = came.shift();
        if (!next) {
          await new Promise<void>((resolve) => {
            wake = resolve;
          });
          continue;
        }
        if (next.kind === 'end') return next.read as Read<null>;
        yield next.part as PartOf<JobParts[N]>;
        job.reader?.more();
      }
    } finally {
      this.leave(job);
    }
  }

  async close(): Promise<void> {
    this.closed = true;
    const given = 'reading was given up';
    for (const { take } of this.waiting.splice(0)) take({ kind: 'end', read: { ok: false, problem: given } });
    await Promise.all(this.places.map(async ({ reader }) => reader?.end(given)));
  }

  private ask(name: JobName | PartsName, input: unknown, take: (came: Came) => void): Waiting {
    const job: Waiting = { name, input, small: isSmall(name, input), take, reader: null, gone: false };
    const refused = this.closed
      ? 'reading was given up'
      : this.waiting.length >= MOST_WAITING
        ? 'there is too much to be read at once; try again in a minute'
        : null;
    if (refused !== null) take({ kind: 'end', read: { ok: false, problem: refused } });
    else {
      this.waiting.push(job);
      this.next();
    }
    return job;
  }

  /** What nobody waits for any more is not read on. */
  private leave(job: Waiting): void {
    if (job.gone) return;
    job.gone = true;
    const at = this.waiting.indexOf(job);
    if (at >= 0) this.waiting.splice(at, 1);
    else if (job.reader?.has(job)) void job.reader.end('nobody waits for it');
  }

  private next(): void {
    if (this.closed) return;
    for (const place of this.places) {
      if (place.reader && !place.reader.idle) continue;
      const at = this.waiting.findIndex(place.takes);
      if (at < 0) continue;
      const job = this.waiting[at]!;
      const memoryMb = place.memoryMb(job);
      if (place.reader && place.reader.memoryMb !== memoryMb) {
        // What a reader may hold is settled when it begins: another begins once this one is gone.
        void place.reader.end('another begins');
        continue;
      }
      this.waiting.splice(at, 1);
      place.reader ??= new Reader(memoryMb, this.limits.awayLimitMs, () => {
        place.reader = null;
        this.next();
      });
      job.reader = place.reader;
      place.reader.begin(job, TABLES.has(job.name) ? TABLES_LIMIT_MS : this.limits.timeLimitMs, () => this.next());
    }
  }
}

/** Where one reader at a time is, and what it is for. */
interface Place {
  memoryMb: (job: Waiting) => number;
  takes: (job: Waiting) => boolean;
  reader: Reader | null;
}

/** What is packed is larger than it looks. */
function isSmall(name: string, input: unknown): boolean {
  const kind = (input as { kind?: unknown } | null)?.kind;
  // What is read from a file says how large that is.
  const size = (input as { size?: unknown } | null)?.size;
  return (
    name !== 'workbook' &&
    kind !== 'docx' &&
    kind !== 'pdf' &&
    (typeof size === 'number' ? size : sizeOf(input)) <= SMALL
  );
}

/** About how many bytes or letters are handed over. */
function sizeOf(input: unknown): number {
  if (typeof input === 'string') return input.length;
  if (input instanceof Uint8Array) return input.byteLength;
  if (Array.isArray(input)) return input.reduce<number>((sum, one) => sum + sizeOf(one), input.length);
  if (typeof input !== 'object' || input === null) return 1;
  return Object.values(input).reduce<number>((sum, one) => sum + sizeOf(one), 0);
}

type PartOf<J> = J extends (input: never) => AsyncGenerator<infer P, unknown> ? P : never;

interface Said {
  ready?: true;
  id: number;
  part?: unknown;
  value?: unknown;
  /** A value as JSON. */
  text?: string;
  problem?: string;
}

/** Signals of a process that asked for more memory than it may have: its own end, or that of the system. */
const OUT_OF_MEMORY: ReadonlySet<string> = new Set(['SIGABRT', 'SIGKILL']);

class Reader {
  private readonly child: ChildProcess;
  private readonly exited: Promise<void>;
  private job: { id: number; of: Waiting; limit: NodeJS.Timeout; timeLimitMs: number; ended: () => void } | null = null;
  private id = 0;
  private over = false;
  /** Whether it has read its programs: only then does time count. */
  private ready = false;

  constructor(
    readonly memoryMb: number,
    private readonly awayLimitMs: number,
    /** Told once nothing of it is left, its memory least of all. */
    private readonly gone: () => void,
  ) {
    this.child = fork(join(import.meta.dirname, '../../../dist/readers/reader.mjs'), [], {
      execArgv: [`--max-old-space-size=${memoryMb}`, '--max-semi-space-size=2', '--stack-size=3900'],
      // It needs none of what this process was told, its secrets least of all.
      env: { TZ: 'UTC', MALLOC_ARENA_MAX: '2' },
      serialization: 'advanced',
      stdio: ['ignore', 'ignore', 'ignore', 'ipc'],
    });
    this.exited = new Promise((resolve) => this.child.once('exit', () => resolve()));
    this.child.on('message', (message) => {
      const said = message as Said;
      if (!said.ready) return this.hear(said);
      this.ready = true;
      if (this.job) this.job.limit = this.late(this.job.timeLimitMs, this.job.limit);
    });
    this.child.on('error', (error) => void this.end(`it cannot be read: ${error.message}`));
    this.child.on('exit', (code, signal) => {
      const memory = (signal !== null && OUT_OF_MEMORY.has(signal)) || code === 134;
      void this.end(
        memory
          ? 'it takes more memory than one may'
          : `whoever read it came to an end (${signal ?? code ?? 'unknown'})`,
      );
    });
    this.hold(false);
  }

  /** Whether the program stays for its sake. */
  private hold(held: boolean): void {
    const how = held ? 'ref' : 'unref';
    this.child[how]();
    this.child.channel?.[how]();
  }

  get idle(): boolean {
    return this.job === null && !this.over;
  }

  has(job: Waiting): boolean {
    return this.job?.of === job;
  }

  begin(of: Waiting, timeLimitMs: number, ended: () => void): void {
    const id = ++this.id;
    this.hold(true);
    // One that never becomes ready is given up as well.
    this.job = { id, of, timeLimitMs, ended, limit: this.late(timeLimitMs + (this.ready ? 0 : STARTS_WITHIN_MS)) };
    try {
      const { input } = of;
      of.input = null;
      this.send({ id, name: of.name, input });
    } catch (error) {
      // What cannot be handed over is a fault of whoever asked; nothing waits for it for ever.
      this.settle({
        ok: false,
        problem: `it cannot be handed over: ${error instanceof Error ? error.message : 'no reason'}`,
      });
    }
  }

  /** What cannot be sent is not waited for: the end of the process says why. */
  private send(asked: object): void {
    if (this.child.connected) this.child.send(asked, () => {});
  }

  /** Asks for the next part; the time whoever takes the parts needs to come back is no time of the reader's. */
  more(): void {
    if (!this.job) return;
    this.job.limit = this.late(this.job.timeLimitMs, this.job.limit);
    this.send({ id: this.job.id, more: true });
  }

  /** Ends the process; what it was reading is unreadable for the reason given. */
  async end(problem: string): Promise<void> {
    const first = !this.over;
    this.over = true;
    if (first) this.settle({ ok: false, problem });
    this.child.kill('SIGKILL');
    if (this.child.pid !== undefined) await this.exited;
    if (first) this.gone();
  }

  private late(ms: number, before?: NodeJS.Timeout): NodeJS.Timeout {
    clearTimeout(before);
    return setTimeout(() => void this.end(`it takes more than ${ms / 1_000} seconds to read`), ms);
  }

  private hear({ id, part, value, text, problem }: Said): void {
    if (this.job?.id !== id) return;
    if (part !== undefined) {
      clearTimeout(this.job.limit);
      this.job.limit = setTimeout(() => void this.end('nobody came for the rest of it'), this.awayLimitMs);
      this.job.of.take({ kind: 'part', part });
    } else if (problem !== undefined) this.settle({ ok: false, problem: problem.slice(0, 300) });
    else this.settle({ ok: true, value: text === undefined ? value : JSON.parse(text) });
  }

  private settle(read: Read<unknown>): void {
    const { job } = this;
    if (!job) return;
    this.job = null;
    clearTimeout(job.limit);
    if (!this.over) this.hold(false);
    job.of.gone = true;
    job.of.take({ kind: 'end', read });
    if (!this.over) job.ended();
  }
}
