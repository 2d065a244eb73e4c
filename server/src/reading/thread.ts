// Reads one thing after another, apart from everything else: one that runs away takes only this thread with it.
import { setPriority } from 'node:os';
import { parentPort } from 'node:worker_threads';
import { AS_TEXT, jobs, parts } from './jobs.ts';

/** A little: reading is timed by the clock, and must come to its end on a busy machine too. */
const NICE = 2;

// Whoever is answered meanwhile comes first: on Linux this is said of the thread alone; elsewhere it is not said.
if (process.platform === 'linux') setPriority(0, NICE);

const port = parentPort!;
let wanted: (() => void) | null = null;

interface Asked {
  id: number;
  name: string;
  input: never;
  more?: boolean;
}

port.on('message', ({ id, name, input, more }: Asked) => {
  if (more) wanted?.();
  else
    work(id, name, input).catch((error: unknown) => {
      port.postMessage({
        id,
        problem: `it cannot be read (${error instanceof Error ? error.message : String(error)})`,
      });
    });
});

async function work(id: number, name: string, input: never): Promise<void> {
  if (name in jobs) {
    const job = jobs[name as keyof typeof jobs] as (given: never) => unknown;
    const value = await job(input);
    port.postMessage(AS_TEXT.has(name) ? { id, text: JSON.stringify(value) } : { id, value });
    return;
  }
  const given = (parts[name as keyof typeof parts] as (given: never) => AsyncGenerator<unknown, unknown>)(input);
  for (;;) {
    const next = await given.next();
    if (next.done) break;
    const more = new Promise<void>((resolve) => {
      wanted = resolve;
    });
    port.postMessage({ id, part: next.value });
    await more;
  }
  port.postMessage({ id, value: null });
}

port.postMessage({ ready: true });
