import { z } from 'zod';
import { pictureRefused } from '../../formats/pictures/read.ts';
import { ask, type Called } from '../answers/ask.ts';
import { bookTest } from '../answers/booking.ts';
import type { ServiceRow } from '../services/entity.ts';
import { paidCall } from './paidCall.ts';
import { bad, good, jsonOf, type Result, type TestLine } from './port.ts';
import type { WriterPorts } from './writer.ts';

const Pictures = z.object({
  data: z.array(z.object({ b64_json: z.string().min(100), revised_prompt: z.string().nullish().catch(null) })).min(1),
});

/**
 * An illustrator reached by the widely used image-generation JSON: POST {address}/images/generations with `model`,
 * `prompt`, `size`, `n` and `response_format: b64_json`; the reply holds `data[0].b64_json`, and
 * may hold `data[0].revised_prompt`: what was drawn in the end.
 */
export class Illustrator {
  constructor(private readonly ports: WriterPorts) {}

  /**
   * @returns the picture's bytes: PNG, JPEG, WebP or AVIF; any other kind is no usable reply; and what it shows, where the
   * service says so
   */
  async draw(
    service: ServiceRow,
    prompt: string,
    asker: { holder: string; stepRun: string; draw: number; signal: AbortSignal },
  ): Promise<Result<{ bytes: Buffer; shows: string | null; micros: number }>> {
    const body = {
      model: service.model,
      prompt,
      n: 1,
      size: '1536x1024',
      response_format: 'b64_json',
      seed: asker.draw,
    };
    const answered = await ask(this.ports.ground, asker.holder, {
      service,
      request: body,
      draw: asker.draw,
      what: 'picture',
      ceiling: service.price.microsPerPicture,
      stepRun: asker.stepRun,
      signal: asker.signal,
      call: () => this.call(service, body, asker.signal),
    });
    if (!answered.ok) return answered;
    const read = readPicture(answered.body);
    if (!read.ok) return bad({ code: 'reply-unusable', service: service.id, problem: read.problem });
    return good({ bytes: read.bytes, shows: read.shows, micros: answered.micros });
  }

  private async call(service: ServiceRow, body: object, signal: AbortSignal): Promise<Called> {
    const called = await paidCall(this.ports, service, {
      path: 'images/generations',
      body,
      action: 'draw',
      maxBytes: 30_000_000,
      signal,
    });
    if (called.kind === 'failed') return called;
    const { reply } = called;
    const read = readPicture(reply.body);
    return {
      kind: 'answered',
      body: reply.body,
      micros: service.price.microsPerPicture,
      tokensIn: 0,
      tokensOut: 0,
      unusable: read.ok ? null : read.problem,
    };
  }

  async test(service: ServiceRow): Promise<TestLine[]> {
    const started = this.ports.ground.now();
    const called = await this.call(
      service,
      { model: service.model, prompt: 'a plain circle', n: 1, size: '1536x1024', response_format: 'b64_json', seed: 0 },
      AbortSignal.timeout(30_000),
    );
    if (called.kind === 'answered')
      await bookTest(this.ports.ground, { ...called, service: service.id, what: 'picture' });
    const ms = this.ports.ground.now() - started;
    const well = called.kind === 'answered' && called.unusable === null;
    const came = well
      ? 'It draws'
      : called.kind === 'answered'
        ? `It answered, but ${called.unusable}`
        : called.failure.code.replace(/-/g, ' ');
    return [
      {
        tried: 'Asked for a plain circle',
        came,
        well,
        change: well ? null : 'Check the address, the key and the model',
        ms,
      },
    ];
  }
}

function readPicture(body: Buffer): { ok: true; bytes: Buffer; shows: string | null } | { ok: false; problem: string } {
  const parsed = jsonOf(body);
  if (!parsed.ok) return { ok: false, problem: 'problem' in parsed ? parsed.problem : 'no JSON' };
  const pictures = Pictures.safeParse(parsed.value);
  if (!pictures.success) return { ok: false, problem: 'it holds no picture' };
  const [drawn] = pictures.data.data;
  const bytes = Buffer.from(drawn!.b64_json, 'base64');
  const refused = pictureRefused(bytes);
  return refused === null ? { ok: true, bytes, shows: drawn!.revised_prompt ?? null } : { ok: false, problem: refused };
}
