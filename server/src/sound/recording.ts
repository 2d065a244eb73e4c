import { createHash } from 'node:crypto';
import { z } from 'zod';
import { fileAbout, fileBody, fileHead } from '../files/repository.ts';
import { type Network, whyNot } from '../network/network.ts';
import type { Database } from '../store/database.ts';
import { type AboutSound, aboutSound } from './about.ts';

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
  if (!about) return { ok: false, reason: 'it is no recording that is known (WAV, MP3, MP4, Ogg, FLAC, WebM)' };
  return { ...got, about, digest: createHash('sha256').update(got.bytes).digest('hex') };
}

/** What a recording is and how large, from its first bytes alone. */
export async function aboutRecording(
  { network, db }: { network: Network; db: Database },
  recording: RecordingField,
  signal: AbortSignal,
): Promise<{ ok: true; about: AboutSound; bytes: number } | { ok: false; reason: string }> {
  const unknown = { ok: false as const, reason: 'it is no recording that is known (WAV, MP3, MP4, Ogg, FLAC, WebM)' };
  if (recording.file) {
    const file = await fileAbout(db, recording.file);
    if (!file) return { ok: false, reason: 'the file is gone' };
    const about = aboutSound(await fileHead(db, file.digest), file.bytes);
    return about ? { ok: true, about, bytes: file.bytes } : unknown;
  }
  const outcome = await network.call({
    method: 'GET',
    address: recording.address ?? '',
    headers: { range: `bytes=0-${HEAD - 1}` },
    timeLimitMs: 20_000,
    // A server that knows no ranges sends all of it.
    maxBytes: MOST_BYTES,
    signal,
  });
  if (outcome.kind !== 'reply') return { ok: false, reason: whyNot(outcome) };
  const { status, body, headers } = outcome.reply;
  if (status !== 200 && status !== 206) return { ok: false, reason: `it answers ${status}` };
  const whole = Number(/\/(\d+)$/.exec(headers['content-range'] ?? '')?.[1] ?? body.length);
  const about = aboutSound(body.subarray(0, HEAD), whole);
  return about ? { ok: true, about, bytes: whole } : unknown;
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
