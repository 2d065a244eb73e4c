import busboy from 'busboy';
import { type Request, Router } from 'express';
import type { Journal } from '../ground/journal.ts';
import type { ModelCall } from '../ground/modelWire.ts';
import { invalidKey, modelError } from '../ground/modelWire.ts';
import type { Answer, Troubles } from '../ground/trouble.ts';
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
      if (request.header('authorization') !== `Bearer ${key}`) return invalidKey();
      const form = await formOf(request);
      const samples = form.file && samplesOf(form.file);
      if (!samples) return modelError(400, 'the file is not audio that can be decoded', { param: 'file' });
      if (!FORMS.has(form.format))
        return modelError(400, `there is no response_format ${form.format}`, { param: 'response_format' });
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
      return heard(samples, seconds, form.language, form.format);
    }),
  );
  return router;
}

/** How the text may be asked for; without a word, as JSON with nothing but the text. */
const FORMS: ReadonlySet<string> = new Set(['json', 'text', 'srt', 'vtt', 'verbose_json']);

/** A moment as captions write it. */
function clock(seconds: number, point: string): string {
  const ms = Math.round(seconds * 1_000);
  const two = (n: number) => String(n).padStart(2, '0');
  const [hours, minutes, rest] = [
    Math.floor(ms / 3_600_000),
    Math.floor(ms / 60_000) % 60,
    Math.floor(ms / 1_000) % 60,
  ];
  return `${two(hours)}:${two(minutes)}:${two(rest)}${point}${String(ms % 1_000).padStart(3, '0')}`;
}

function heard(samples: Float32Array, seconds: number, language: string | undefined, form: string): Answer {
  const said = heardIn(samples);
  const text = said.map((one) => one.text).join(' ');
  if (form === 'json') return { status: 200, body: { text } };
  if (form === 'text') return { status: 200, type: 'text/plain', body: `${text}\n` };
  if (form !== 'verbose_json') {
    const point = form === 'srt' ? ',' : '.';
    const cues = said.map(
      ({ start, end, text: words }, i) =>
        `${form === 'srt' ? `${i + 1}\n` : ''}${clock(start, point)} --> ${clock(end, point)}\n${words}\n`,
    );
    return { status: 200, type: 'text/plain', body: `${form === 'vtt' ? 'WEBVTT\n\n' : ''}${cues.join('\n')}` };
  }
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

function formOf(request: Request): Promise<{ file: Buffer | null; language: string | undefined; format: string }> {
  return new Promise((resolve, reject) => {
    const parts: Buffer[] = [];
    let language: string | undefined;
    let format = 'json';
    const form = busboy({ headers: request.headers, limits: { fileSize: 110_000_000, files: 1 } });
    form.on('file', (_name, stream) => stream.on('data', (part: Buffer) => parts.push(part)));
    form.on('field', (name, value) => {
      if (name === 'language' && value !== '') language = value;
      if (name === 'response_format' && value !== '') format = value;
    });
    form.on('close', () => resolve({ file: parts.length === 0 ? null : Buffer.concat(parts), language, format }));
    form.on('error', reject);
    request.pipe(form);
  });
}
