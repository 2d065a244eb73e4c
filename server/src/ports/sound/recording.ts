import { createHash } from 'node:crypto';
import { z } from 'zod';
import { type AboutSound, aboutSound } from '../../formats/media/aboutSound.ts';
import { fileAbout, fileBody, fileChunks, fileHead } from '../../ground/files/repository.ts';
import { type Network, whyNot } from '../../ground/network/network.ts';
import type { Database } from '../../ground/store/database.ts';

/** A recording as an item brings it along: a file that was uploaded, or an address. */
export const RecordingField = z.object({
  file: z.string().optional(),
  address: z.string().optional(),
  by: z.string().default(''),
  title: z.string().default(''),
});
export type RecordingField = z.infer<typeof RecordingField>;

export type GotRecording =
  | { ok: true; bytes: Buffer; digest: string; about: AboutSound }
  | { ok: false; reason: string };

const MOST_BYTES = 100_000_000;
/** Bytes that tell what a recording is. */
const HEAD = 65_536;
const TIME_LIMIT_MS = 120_000;
/** A listener takes a recording as it is played. */
const LONGEST_MS = 2 * 3_600_000;

/** The bytes of a recording, with what they are. */
export async function getRecording(
  { network, db }: { network: Network; db: Database },
  recording: RecordingField,
  signal: AbortSignal,
): Promise<GotRecording> {
  const got = recording.file
    ? await stored(db, recording.file)
    : await fetched(network, recording.address ?? '', signal);
  if (!got.ok) return got;
  const about = aboutSound(got.bytes.subarray(0, HEAD), got.bytes.length);
  if (!about)
    return { ok: false, reason: 'it is not a recording of a kind that is read (WAV, MP3, MP4, Ogg, FLAC, WebM)' };
  return { ...got, about, digest: createHash('sha256').update(got.bytes).digest('hex') };
}

/**
 * A recording to be handed on as it comes, never whole in memory; `end` has to be called.
 * @returns its bytes in parts, and how many there are where that is known
 */
export async function openRecording(
  { network, db }: { network: Network; db: Database },
  recording: RecordingField,
  signal: AbortSignal,
): Promise<
  { ok: true; body: AsyncIterable<Buffer>; bytes: number | null; end: () => void } | { ok: false; reason: string }
> {
  if (recording.file) {
    const about = await fileAbout(db, recording.file);
    if (!about) return { ok: false, reason: 'the file is gone' };
    return { ok: true, body: fileChunks(db, about.digest), bytes: about.bytes, end: () => undefined };
  }
  const opened = await network.open({
    method: 'GET',
    address: recording.address ?? '',
    timeLimitMs: LONGEST_MS,
    quietLimitMs: LONGEST_MS,
    maxBytes: MOST_BYTES,
    signal,
  });
  if (opened.kind !== 'open') return { ok: false, reason: whyNot(opened) };
  const { reply, end } = opened;
  if (reply.status !== 200) {
    reply.body.destroy();
    end();
    return { ok: false, reason: `it answers ${reply.status}` };
  }
  const bytes = Number(reply.headers['content-length'] ?? Number.NaN);
  return { ok: true, body: reply.body, bytes: Number.isSafeInteger(bytes) ? bytes : null, end };
}

/** What a recording is and how large, from its first bytes alone. */
export async function aboutRecording(
  { network, db }: { network: Network; db: Database },
  recording: RecordingField,
  signal: AbortSignal,
): Promise<{ ok: true; about: AboutSound; bytes: number } | { ok: false; reason: string }> {
  const unknown = {
    ok: false as const,
    reason: 'it is not a recording of a kind that is read (WAV, MP3, MP4, Ogg, FLAC, WebM)',
  };
  if (recording.file) {
    const file = await fileAbout(db, recording.file);
    if (!file) return { ok: false, reason: 'the file is gone' };
    const about = aboutSound(await fileHead(db, file.digest), file.bytes);
    return about ? { ok: true, about, bytes: file.bytes } : unknown;
  }
  const opened = await network.open({
    method: 'GET',
    address: recording.address ?? '',
    headers: { range: `bytes=0-${HEAD - 1}` },
    timeLimitMs: 20_000,
    maxBytes: MOST_BYTES,
    signal,
  });
  if (opened.kind !== 'open') return { ok: false, reason: whyNot(opened) };
  const { status, headers, body } = opened.reply;
  try {
    if (status !== 200 && status !== 206) return { ok: false, reason: `it answers ${status}` };
    const parts: Buffer[] = [];
    let size = 0;
    // A server that knows no ranges begins to send all of it.
    for await (const part of body) {
      parts.push(part);
      size += part.length;
      if (size >= HEAD) break;
    }
    const said = /\/(\d{1,15})$/.exec(headers['content-range'] ?? '')?.[1] ?? headers['content-length'] ?? size;
    const whole = Math.max(size, Number(said) || 0);
    if (whole > MOST_BYTES) return { ok: false, reason: `it is longer than ${MOST_BYTES / 1_000_000} MB` };
    const about = aboutSound(Buffer.concat(parts).subarray(0, HEAD), whole);
    return about ? { ok: true, about, bytes: whole } : unknown;
  } catch (error) {
    return { ok: false, reason: `it broke off (${error instanceof Error ? error.message : 'no reason given'})` };
  } finally {
    body.destroy();
    opened.end();
  }
}

async function stored(
  db: Database,
  file: string,
): Promise<{ ok: true; bytes: Buffer } | { ok: false; reason: string }> {
  const about = await fileAbout(db, file);
  return about ? { ok: true, bytes: await fileBody(db, file) } : { ok: false, reason: 'the file is gone' };
}

async function fetched(
  network: Network,
  address: string,
  signal: AbortSignal,
): Promise<{ ok: true; bytes: Buffer } | { ok: false; reason: string }> {
  const outcome = await network.call({
    method: 'GET',
    address,
    timeLimitMs: TIME_LIMIT_MS,
    maxBytes: MOST_BYTES,
    signal,
  });
  if (outcome.kind !== 'reply') return { ok: false, reason: whyNot(outcome) };
  if (outcome.reply.status !== 200) return { ok: false, reason: `it answers ${outcome.reply.status}` };
  return { ok: true, bytes: outcome.reply.body };
}
