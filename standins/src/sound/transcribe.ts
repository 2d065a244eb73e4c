import busboy from 'busboy';
import { type Request, Router } from 'express';
import type { Journal } from '../control/journal.ts';
import type { Answer, Troubles } from '../control/trouble.ts';
import type { ModelCall } from '../model/service.ts';
import { heardIn, samplesOf } from './tones.ts';

const RATE = 8_000;

/** Timed text of a recording by the widely used form, at `/v1/audio/transcriptions`; hears only what the stand-ins speak. */
export function transcription(
  name: string,
  microsPerMinute: number,
  key: string,
  troubles: Troubles,
  received: Journal<ModelCall>,
): Router {
  const router = Router();
  router.post(
    '/v1/audio/transcriptions',
    troubles.around('transcriber', async (request) => {
      if (request.header('authorization') !== `Bearer ${key}`)
        return { status: 401, body: { error: { message: 'invalid key' } } };
      const form = await formOf(request);
      const samples = form.file && samplesOf(form.file);
      if (!samples) return { status: 400, body: { error: { message: 'the file is not audio that can be decoded' } } };
      const seconds = samples.length / RATE;
      received.add({
        at: new Date().toISOString(),
        service: name,
        what: 'sound',
        name: '',
        tokensIn: 0,
        tokensOut: 0,
        micros: Math.ceil((Math.ceil(seconds) * microsPerMinute) / 60),
      });
      return heard(samples, seconds, form.language);
    }),
  );
  return router;
}

function heard(samples: Float32Array, seconds: number, language: string | undefined): Answer {
  const said = heardIn(samples);
  const text = said.map((one) => one.text).join(' ');
  return {
    status: 200,
    body: {
      task: 'transcribe',
      language: language ?? (/\b(?:und|der|die|das|nicht)\b/i.test(text) ? 'german' : 'english'),
      duration: seconds,
      text,
      segments: said.map(({ start, end, text: words, sure }, id) => ({
        id,
        start,
        end,
        text: ` ${words}`,
        avg_logprob: Math.log(Math.max(0.01, Math.min(1, sure))),
      })),
    },
  };
}

function formOf(request: Request): Promise<{ file: Buffer | null; language: string | undefined }> {
  return new Promise((resolve, reject) => {
    const parts: Buffer[] = [];
    let language: string | undefined;
    const form = busboy({ headers: request.headers, limits: { fileSize: 110_000_000, files: 1 } });
    form.on('file', (_name, stream) => stream.on('data', (part: Buffer) => parts.push(part)));
    form.on('field', (name, value) => {
      if (name === 'language' && value !== '') language = value;
    });
    form.on('close', () => resolve({ file: parts.length === 0 ? null : Buffer.concat(parts), language }));
    form.on('error', reject);
    request.pipe(form);
  });
}
