import { createHash } from 'node:crypto';
import {
  type Cleaned,
  type Failure,
  languageOf,
  readCaptions,
  type SpokenPassages,
  spokenOf,
  spokenPassages,
} from '@grivo/core';
import { fileAbout, fileBody } from '../../ground/files/repository.ts';
import type { Ground } from '../../ground/ground.ts';
import { whyNot } from '../../ground/network/network.ts';
import type { Reach } from '../../ground/reading/reach.ts';
import type { ReadingRoom } from '../../ground/reading/room.ts';
import { guessEncoding } from '../tables/decode.ts';
import type { CaptionTrack, VideoPage } from './page.ts';

export interface Transcript {
  video: VideoPage;
  track: CaptionTrack;
  language: string;
  cleaned: Cleaned;
  digest: string;
  /** Its passages, of the part that was asked for. */
  passages: SpokenPassages;
}

/** A part of a video, in seconds. */
export interface Part {
  from: number;
  to: number;
}

export type ReadTranscript = { ok: true; transcript: Transcript } | { ok: false; failure: Failure };

const TIME_LIMIT_MS = 20_000;

/**
 * The video of a page and what is said in it, by its captions: those in the language asked for, else, when none is asked
 * for, the first. Captions made by hand come before those of a machine.
 */
export async function readTranscript(
  { network, reader }: Reach,
  address: string,
  language: string | null,
  signal: AbortSignal,
  part?: Part,
): Promise<ReadTranscript> {
  const get = (from: string) =>
    network.call({ method: 'GET', address: from, timeLimitMs: TIME_LIMIT_MS, maxBytes: 5_000_000, signal });
  const unreadable = (at: string, reason: string): ReadTranscript => ({
    ok: false,
    failure: { code: 'page-unreadable', address: at.slice(0, 300), reason },
  });
  const outcome = await get(address);
  if (outcome.kind !== 'reply') return unreadable(address, whyNot(outcome));
  if (outcome.reply.status !== 200) return unreadable(address, `it answers ${outcome.reply.status}`);
  const page = await reader.read('video', {
    bytes: outcome.reply.body,
    mime: outcome.reply.headers['content-type'] ?? '',
    address: outcome.reply.address,
  });
  if (!page.ok) return unreadable(address, page.problem);
  const video = page.value;
  if (!video) return unreadable(address, 'there is no video on that page');
  const tracks = [...video.tracks].sort((a, b) => Number(byMachine(a)) - Number(byMachine(b)));
  const track =
    tracks.find((one) => one.language === language) ??
    (language === null || tracks.every((one) => one.language === '') ? tracks[0] : undefined);
  if (!track)
    return {
      ok: false,
      failure: { code: 'no-captions', address, language: language ?? '', there: tracks.map((one) => one.language) },
    };
  const captions = await get(track.address);
  if (captions.kind !== 'reply')
    return unreadable(track.address, captions.kind === 'refused' ? captions.reason : captions.detail);
  if (captions.reply.status !== 200) return unreadable(track.address, `its captions answer ${captions.reply.status}`);
  return inRoom(reader, { bytes: captions.reply.body, charset: 'utf-8', video, track, ...(part ? { part } : {}) });
}

/** What is said by a captions file that was uploaded; there is no page behind it. */
export async function readUploaded(
  { ground: { db }, reader }: Pick<Reach, 'reader'> & { ground: Pick<Ground, 'db'> },
  file: string,
  title: string,
  part?: Part,
): Promise<ReadTranscript> {
  const about = await fileAbout(db, file);
  const body = about && about.bytes <= MOST_CAPTIONS ? await fileBody(db, file) : null;
  const track: CaptionTrack = { address: title, language: '', label: 'uploaded' };
  if (!body)
    return {
      ok: false,
      failure: {
        code: 'page-unreadable',
        address: title,
        reason: about ? `captions may be ${MOST_CAPTIONS / 1_000_000} MB` : 'the file is gone',
      },
    };
  return inRoom(reader, {
    bytes: body,
    charset: guessEncoding(body.subarray(0, 65_536)),
    video: {
      address: '',
      title,
      description: '',
      channel: '',
      published: null,
      seconds: 0,
      thumbnail: null,
      player: null,
      film: null,
      language: null,
      chapters: [],
      tracks: [track],
    },
    track,
    ...(part ? { part } : {}),
  });
}

async function inRoom(reader: ReadingRoom, captions: Captions): Promise<ReadTranscript> {
  const read = await reader.read('captions', captions);
  if (read.ok) return read.value;
  const { address } = captions.track;
  return { ok: false, failure: { code: 'page-unreadable', address: address.slice(0, 300), reason: read.problem } };
}

const MOST_CAPTIONS = 5_000_000;
/** Captions by whose words their language is told. */
const CUES_FOR_LANGUAGE = 2_000;

export interface Captions {
  bytes: Uint8Array;
  charset: string;
  video: VideoPage;
  track: CaptionTrack;
  part?: Part;
}

/** What is said by a captions file, as far as a part of it is asked for in passages. */
export function transcriptOf({ bytes, charset, video, track, part }: Captions): ReadTranscript {
  const text = new TextDecoder(charset).decode(bytes);
  const read = readCaptions(text);
  if (!read.ok)
    return {
      ok: false,
      failure: {
        code: 'page-unreadable',
        address: track.address.slice(0, 300),
        reason: `its captions cannot be read: ${read.problem}`,
      },
    };
  const rough = read.cues
    .slice(0, CUES_FOR_LANGUAGE)
    .map((cue) => cue.lines.join(' '))
    .join(' ');
  const language = languageOf(rough) ?? (track.language || video.language || 'en');
  const transcript = {
    video,
    track,
    language,
    cleaned: spokenOf(read.cues, language),
    digest: createHash('sha256')
      .update(JSON.stringify([video.address, video.title, text]))
      .digest('hex'),
  };
  return { ok: true, transcript: { ...transcript, passages: passagesOfTranscript(transcript, part) } };
}

export function byMachine(track: CaptionTrack): boolean {
  return /\b(?:auto|machine|generated|automatisch)/i.test(track.label);
}

/** The passages of a transcript between two times. */
function passagesOfTranscript(
  { video, language, cleaned, digest }: Omit<Transcript, 'passages'>,
  range?: Part,
): SpokenPassages {
  const whole = range ? createHash('sha256').update(`${digest}:${range.from}:${range.to}`).digest('hex') : digest;
  return spokenPassages(
    cleaned.spoken,
    { address: video.address, title: video.title, language, digest: whole },
    video.chapters,
    range,
  );
}
