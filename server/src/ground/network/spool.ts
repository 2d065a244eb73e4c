import { randomUUID } from 'node:crypto';
import { open, rm, unlink } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type Call, type Network, whyNot } from './network.ts';

const PART = 262_144;

/**
 * Puts a body as it comes into a file without a name, and gives it back in parts: what is long is never whole in memory,
 * and whoever reads it may take longer than the connection lasts. The file is gone once the parts were read or left; they
 * have to be begun.
 */
export async function spooled(body: AsyncIterable<Uint8Array>): Promise<AsyncGenerator<Uint8Array>> {
  const path = join(tmpdir(), `grivo-${randomUUID()}`);
  const file = await open(path, 'wx+', 0o600);
  try {
    await unlink(path);
    for await (const part of body) await file.appendFile(part);
  } catch (error) {
    await file.close();
    throw error;
  }
  return (async function* () {
    try {
      for (let at = 0; ; ) {
        const { bytesRead, buffer } = await file.read(Buffer.allocUnsafe(PART), 0, PART, at);
        if (bytesRead === 0) return;
        at += bytesRead;
        yield buffer.subarray(0, bytesRead);
      }
    } finally {
      await file.close();
    }
  })();
}

/** A file that others read by its path until it is removed. */
export interface Put {
  path: string;
  size: number;
  remove: () => Promise<void>;
}

/** Puts a body as it comes into a file of its own, for a process that reads it by itself. */
export async function putAway(body: AsyncIterable<Uint8Array>): Promise<Put> {
  const path = join(tmpdir(), `grivo-${randomUUID()}`);
  const remove = () => rm(path, { force: true });
  const file = await open(path, 'wx', 0o600);
  let size = 0;
  try {
    for await (const part of body) {
      await file.appendFile(part);
      size += part.length;
    }
  } catch (error) {
    await remove();
    throw error;
  } finally {
    await file.close();
  }
  return { path, size, remove };
}

/** What was made of the body at an address while it came, or why it cannot be had, in words that go on from ‘it cannot be read: ’. */
export async function takenFrom<T>(
  network: Network,
  call: Call & { maxBytes: number },
  take: (body: AsyncIterable<Uint8Array>) => Promise<T>,
): Promise<{ ok: true; value: T; mime: string; address: string } | { ok: false; problem: string }> {
  const outcome = await network.open(call);
  if (outcome.kind !== 'open') return { ok: false, problem: whyNot(outcome) };
  const { reply, end } = outcome;
  try {
    if (reply.status !== 200) return { ok: false, problem: `it answers ${reply.status}` };
    const value = await take(reply.body);
    return { ok: true, value, mime: reply.headers['content-type'] ?? '', address: reply.address };
  } catch (error) {
    if (!(error instanceof Error)) throw error;
    const problem = /^longer than/.test(error.message)
      ? `it is longer than ${call.maxBytes / 1_000_000} MB`
      : `it broke off while it was read: ${error.message}`;
    return { ok: false, problem };
  } finally {
    reply.body.destroy();
    end();
  }
}
