// Reads one thing after another, in a process of its own: one that runs away, or asks for more memory than there is, takes
// only this process with it.
import { setPriority } from 'node:os';
import { AS_TEXT, jobs, parts } from './jobs.ts';

/** A little: reading is timed by the clock, and must come to its end on a busy machine too. */
const NICE = 2;

// Whoever is answered meanwhile comes first.
setPriority(NICE);
// Whoever asked is gone: nobody waits for anything any more.
process.on('disconnect', () => process.exit());

const say = (said: object) => void process.send!(said);
let wanted: (() => void) | null = null;

interface Asked {
  id: number;
  name: string;
  input: never;
  more?: boolean;
}

process.on('message', (asked) => {
  const { id, name, input: sent, more } = asked as Asked;
  const input = plain(sent) as never;
  if (more) wanted?.();
  else
    work(id, name, input).catch((error: unknown) => {
      say({
        id,
        problem: `it cannot be read (${error instanceof Error ? error.message : String(error)})`,
      });
    });
});

/** Bytes as readers know them: what was sent as a buffer of this platform is a plain array of bytes again. */
function plain(sent: unknown): unknown {
  if (sent instanceof Uint8Array) return new Uint8Array(sent.buffer, sent.byteOffset, sent.byteLength);
  if (typeof sent !== 'object' || sent === null || Array.isArray(sent)) return sent;
  return Object.fromEntries(
    Object.entries(sent).map(([name, value]) => [name, value instanceof Uint8Array ? plain(value) : value]),
  );
}

async function work(id: number, name: string, input: never): Promise<void> {
  if (name in jobs) {
    const job = jobs[name as keyof typeof jobs] as (given: never) => unknown;
    const value = await job(input);
    say(AS_TEXT.has(name) ? { id, text: JSON.stringify(value) } : { id, value });
    return;
  }
  const given = (parts[name as keyof typeof parts] as (given: never) => AsyncGenerator<unknown, unknown>)(input);
  for (;;) {
    const next = await given.next();
    if (next.done) break;
    const more = new Promise<void>((resolve) => {
      wanted = resolve;
    });
    say({ id, part: next.value });
    await more;
  }
  say({ id, value: null });
}

say({ ready: true });
