import type { AboutSound } from '../../formats/media/aboutSound.ts';
import { mostSeconds } from '../../formats/media/aboutSound.ts';
import { ask, type Called } from '../answers/ask.ts';
import { bookTest } from '../answers/booking.ts';
import type { ServiceRow } from '../services/entity.ts';
import type { HeardText } from './heard.ts';
import { paidCall } from './paidCall.ts';
import { bad, good, type Result, type TestLine } from './port.ts';
import type { WriterPorts } from './writer.ts';

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
    const read = await this.read(answered.body);
    if (!read.ok) return bad({ code: 'reply-unusable', service: service.id, problem: read.problem });
    return good({ heard: read.heard, micros: answered.micros });
  }

  /** What a reply says was heard; replies about long recordings are long. */
  private async read(bytes: Buffer): Promise<{ ok: true; heard: HeardText } | { ok: false; problem: string }> {
    const read = await this.ports.reader.read('heard', { bytes });
    return read.ok ? read.value : read;
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
    const read = await this.read(called.reply.body);
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
    if (called.kind === 'answered')
      await bookTest(this.ports.ground, { ...called, service: service.id, what: 'sound' });
    const well = called.kind === 'answered' && called.unusable === null;
    return [
      {
        tried: 'Sent a second of silence to be transcribed',
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
