import { z } from 'zod';
import { ask, type Called } from '../answers/ask.ts';
import type { ServiceRow } from '../services/entity.ts';
import type { AboutSound } from '../sound/about.ts';
import { mostSeconds } from '../sound/about.ts';
import { paidCall } from './paidCall.ts';
import { good, jsonOf, type Result, type TestLine } from './port.ts';
import type { WriterPorts } from './writer.ts';

const Segment = z.object({
  start: z.number().min(0),
  end: z.number().min(0),
  text: z.string(),
  /** Mean of the logarithms of how likely each word was held to be. */
  avg_logprob: z.number().max(0).optional(),
});
const Heard = z.object({
  language: z.string().default(''),
  duration: z.number().min(0),
  segments: z.array(Segment).max(50_000),
});

/** What was heard: timed text, and how sure the transcriber was of it, of 100; null where it does not say. */
export interface HeardText {
  language: string;
  seconds: number;
  segments: { start: number; end: number; text: string; sure: number | null }[];
  sure: number | null;
}

/**
 * A transcriber reached by the widely used transcription call: POST {address}/audio/transcriptions as a form with `file`,
 * `model`, `language` where it is known, and `response_format: verbose_json`; the reply holds `language`, `duration` and
 * `segments` with `start`, `end`, `text` and `avg_logprob`.
 */
export class Transcriber {
  constructor(private readonly ports: WriterPorts) {}

  /** @param digest SHA-256 of the recording: the same one is not paid for twice */
  async hear(
    service: ServiceRow,
    recording: { bytes: Buffer; digest: string; about: AboutSound; language: string | null },
    asker: { holder: string; stepRun: string; draw: number; signal: AbortSignal },
  ): Promise<Result<{ heard: HeardText; micros: number }>> {
    const { bytes, digest, about, language } = recording;
    const answered = await ask(this.ports.ground, asker.holder, {
      service,
      request: { hears: digest, language },
      draw: asker.draw,
      what: 'sound',
      ceiling: microsOf(service, mostSeconds(about, bytes.length)),
      stepRun: asker.stepRun,
      signal: asker.signal,
      call: () => this.call(service, { bytes, about, language }, asker.signal),
    });
    if (!answered.ok) return answered;
    const read = readHeard(answered.body);
    if (!read.ok) throw new Error(`what was heard and kept does not fit: ${read.problem}`);
    return good({ heard: read.heard, micros: answered.micros });
  }

  private async call(
    service: ServiceRow,
    { bytes, about, language }: { bytes: Buffer; about: AboutSound; language: string | null },
    signal: AbortSignal,
  ): Promise<Called> {
    const form = new FormData();
    form.set('file', new Blob([Uint8Array.from(bytes)], { type: about.mime }), `recording.${about.form.toLowerCase()}`);
    form.set('model', service.model);
    form.set('response_format', 'verbose_json');
    if (language !== null) form.set('language', language);
    const called = await paidCall(this.ports, service, {
      path: 'audio/transcriptions',
      body: form,
      action: 'hear',
      maxBytes: 30_000_000,
      signal,
    });
    if (called.kind === 'failed') return called;
    const read = readHeard(called.reply.body);
    return {
      kind: 'answered',
      body: called.reply.body,
      micros: read.ok ? microsOf(service, read.heard.seconds) : microsOf(service, mostSeconds(about, bytes.length)),
      tokensIn: 0,
      tokensOut: 0,
      unusable: read.ok ? null : read.problem,
    };
  }

  /** Has a second of silence heard. */
  async test(service: ServiceRow): Promise<TestLine[]> {
    const started = this.ports.ground.now();
    const called = await this.call(
      service,
      { bytes: silence(1), about: { form: 'WAV', mime: 'audio/wav', seconds: 1 }, language: null },
      AbortSignal.timeout(30_000),
    );
    const well = called.kind === 'answered' && called.unusable === null;
    return [
      {
        tried: 'Had a second of silence heard',
        came: well
          ? 'It answers'
          : called.kind === 'answered'
            ? `It answered, but ${called.unusable}`
            : called.failure.code.replace(/-/g, ' '),
        well,
        change: well ? null : 'Check the address, the key and the model',
        ms: this.ports.ground.now() - started,
      },
    ];
  }
}

/** Millionths that so many seconds cost, begun ones whole. */
export function microsOf(service: Pick<ServiceRow, 'price'>, seconds: number): number {
  return Math.ceil((Math.ceil(seconds) * (service.price.microsPerMinute ?? 0)) / 60);
}

/** What a reply says was heard. */
export function readHeard(body: Buffer): { ok: true; heard: HeardText } | { ok: false; problem: string } {
  const parsed = jsonOf(body);
  if (!parsed.ok) return { ok: false, problem: 'problem' in parsed ? parsed.problem : 'no JSON' };
  const read = Heard.safeParse(parsed.value);
  if (!read.success) return { ok: false, problem: 'it holds no timed text' };
  const { language, duration, segments } = read.data;
  const told = segments.filter((one) => one.text.trim() !== '');
  const share = (logarithm: number | undefined) =>
    logarithm === undefined ? null : Math.round(Math.exp(logarithm) * 100);
  const known = told.filter((one) => one.avg_logprob !== undefined);
  const lasting = known.reduce((sum, one) => sum + Math.max(0.1, one.end - one.start), 0);
  const mean = known.reduce((sum, one) => sum + one.avg_logprob! * Math.max(0.1, one.end - one.start), 0) / lasting;
  return {
    ok: true,
    heard: {
      language,
      seconds: duration,
      segments: told.map(({ start, end, text, avg_logprob }) => ({
        start,
        end: Math.max(start, end),
        text: text.trim(),
        sure: share(avg_logprob),
      })),
      sure: known.length === 0 ? null : share(mean),
    },
  };
}

/** A WAV file of nothing, 8,000 samples a second. */
function silence(seconds: number): Buffer {
  const samples = 8_000 * seconds;
  const head = Buffer.alloc(44);
  head.write('RIFF', 0);
  head.writeUInt32LE(36 + samples, 4);
  head.write('WAVEfmt ', 8);
  head.writeUInt32LE(16, 16);
  head.writeUInt16LE(1, 20);
  head.writeUInt16LE(1, 22);
  head.writeUInt32LE(8_000, 24);
  head.writeUInt32LE(8_000, 28);
  head.writeUInt16LE(1, 32);
  head.writeUInt16LE(8, 34);
  head.write('data', 36);
  head.writeUInt32LE(samples, 40);
  return Buffer.concat([head, Buffer.alloc(samples, 128)]);
}
