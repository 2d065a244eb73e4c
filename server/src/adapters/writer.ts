import { type Failure, textCeiling, textCost, tokensCeiling, visibleText, wordsOf } from '@grivo/core';
import { z } from 'zod';
import { ask, type Called } from '../answers/ask.ts';
import { bookTest } from '../answers/booking.ts';
import type { Secrets } from '../config/secrets.ts';
import type { Ground } from '../ground/ground.ts';
import type { Network } from '../network/network.ts';
import type { ReadingRoom } from '../reading/room.ts';
import type { ServiceRow } from '../services/entity.ts';
import { gathered } from './gathered.ts';
import { otherLengthName } from './modelRefusal.ts';
import { paidCall } from './paidCall.ts';
import { good, jsonOf, type Result, type TestLine } from './port.ts';

/** A reply in pieces is many times as long as its text. */
const MOST_REPLY = 4_000_000;
/** Letters of a text that was asked for: more than a service gives for the most it is allowed. */
const LONGEST_TEXT = 400_000;

/** What the writer is asked: two texts, and the shape the reply must have. */
export interface WritingRequest<T> {
  instructions: string;
  material: string;
  /** Name of the shape, for services that want one. */
  name: string;
  shape: z.ZodType<T>;
  /** What is wrong with a reply that fits the shape, null when nothing is. Such a reply is not kept either. */
  accept?: (value: T) => string | null;
  maxTokensOut: number;
}

const Completion = z.object({
  choices: z
    .array(
      z.object({
        message: z.object({
          content: z.union([z.string(), z.array(z.object({ text: z.string().optional() }))]).nullish(),
          /** Why it will not answer. */
          refusal: z.string().nullish(),
        }),
        finish_reason: z.string().nullish(),
      }),
    )
    .min(1),
  usage: z.object({ prompt_tokens: z.number(), completion_tokens: z.number() }).nullish(),
});

export interface WriterPorts {
  ground: Ground;
  network: Network;
  secrets: Secrets;
  reader: ReadingRoom;
}

/**
 * A writer reached by the widely used chat-completions JSON: POST {address}/chat/completions with `model`, `messages`,
 * `max_tokens` and `response_format` of type `json_schema`; the reply holds `choices[0].message.content` and `usage`, at
 * once or in pieces.
 */
export class Writer {
  /** Services that know the length limit by its other name. */
  private readonly otherLimit = new Set<string>();

  constructor(private readonly ports: WriterPorts) {}

  private limited(service: ServiceRow, body: object): object {
    if (!this.otherLimit.has(service.id) || !('max_tokens' in body)) return body;
    const { max_tokens, ...rest } = body;
    return { ...rest, max_completion_tokens: max_tokens };
  }

  /**
   * Asks for a reply of a given shape. A reply that does not fit is sent back once with what is wrong; a second one that
   * does not fit is a failure. Both are paid for; neither is kept.
   */
  async write<T>(
    service: ServiceRow,
    request: WritingRequest<T>,
    asker: { holder: string; stepRun: string; draw: number; signal: AbortSignal },
  ): Promise<Result<{ value: T; micros: number }>> {
    const messages = [
      { role: 'system', content: request.instructions },
      { role: 'user', content: request.material },
    ];
    const first = await this.once(service, request, messages, asker);
    if (first.ok) return good({ value: first.value, micros: first.micros });
    if (first.failure.code !== 'reply-unusable' || !first.unusable) return first;
    const repair = [
      ...messages,
      { role: 'assistant', content: contentOf(first.unusable)?.slice(0, 20_000) ?? '' },
      {
        role: 'user',
        content: `That reply cannot be used: ${first.failure.problem}. Reply again with JSON of the shape asked for and nothing else.`,
      },
    ];
    const second = await this.once(service, request, repair, asker);
    return second.ok ? good({ value: second.value, micros: second.micros }) : second;
  }

  private async once<T>(
    service: ServiceRow,
    request: WritingRequest<T>,
    messages: { role: string; content: string }[],
    asker: { holder: string; stepRun: string; draw: number; signal: AbortSignal },
  ) {
    const schema = z.toJSONSchema(request.shape, { target: 'draft-7' });
    const body = {
      model: service.model,
      messages,
      max_tokens: request.maxTokensOut,
      // The draw as the service's own seed: 'again' may then differ even at a service that would answer alike.
      seed: asker.draw,
      response_format: { type: 'json_schema', json_schema: { name: request.name, strict: true, schema } },
    };
    const prompt = messages.map((message) => message.content).join('\n') + JSON.stringify(schema);
    const answered = await ask(this.ports.ground, asker.holder, {
      service,
      request: body,
      draw: asker.draw,
      what: 'text',
      ceiling: textCeiling(service.price, prompt, request.maxTokensOut),
      stepRun: asker.stepRun,
      signal: asker.signal,
      call: () => this.call(service, body, prompt, request, asker.signal),
    });
    if (!answered.ok) return answered;
    const read = readReply(answered.body, request);
    if (!read.ok) {
      const failure: Failure = {
        code: 'reply-unusable',
        service: service.id,
        problem: `a kept answer: ${read.problem}`,
      };
      return { ok: false as const, failure };
    }
    return { ok: true as const, value: read.value, micros: answered.micros };
  }

  private async call<T>(
    service: ServiceRow,
    body: object,
    prompt: string,
    request: WritingRequest<T>,
    signal: AbortSignal,
  ): Promise<Called> {
    const post = () =>
      paidCall(this.ports, service, {
        path: 'chat/completions',
        // Piece by piece, so that a long text is not taken for silence; who cannot do that answers at once.
        body: { ...this.limited(service, body), stream: true, stream_options: { include_usage: true } },
        action: 'write',
        inPieces: true,
        maxBytes: MOST_REPLY,
        signal,
      });
    let called = await post();
    if (called.kind === 'failed' && called.said && otherLengthName(called.said) && !this.otherLimit.has(service.id)) {
      this.otherLimit.add(service.id);
      called = await post();
    }
    if (called.kind === 'failed') return called;
    const { reply } = called;
    const came = reply.headers['content-type']?.startsWith('text/event-stream') ? gathered(reply.body) : null;
    const whole = came?.ok ? Buffer.from(JSON.stringify(came.completion)) : reply.body;
    const parsed = jsonOf(whole);
    const completion = parsed.ok ? Completion.safeParse(parsed.value).data : undefined;
    const usage = completion?.usage;
    const refusal = completion?.choices[0]?.message.refusal;
    const tokensIn = usage?.prompt_tokens ?? tokensCeiling(prompt);
    const tokensOut = usage?.completion_tokens ?? Math.min(request.maxTokensOut, tokensCeiling(whole.toString('utf8')));
    const micros = textCost(service.price, { tokensIn, tokensOut });
    if (refusal) {
      const said = visibleText(refusal).replace(/\s+/g, ' ').slice(0, 300);
      return { kind: 'failed', failure: { code: 'declined', service: service.id, said }, charged: 'unknown' };
    }
    const read = came && !came.ok ? came : readReply(whole, request);
    return {
      kind: 'answered',
      body: whole,
      micros,
      tokensIn,
      tokensOut,
      unusable: read.ok ? null : read.problem,
    };
  }

  /** Tries the writer with one short question, for a fraction of a cent. */
  async test(service: ServiceRow): Promise<TestLine[]> {
    const shape = z.object({ answer: z.string() });
    const started = this.ports.ground.now();
    const schema = z.toJSONSchema(shape, { target: 'draft-7' });
    const body = {
      model: service.model,
      max_tokens: 60,
      seed: 0,
      messages: [{ role: 'user', content: 'Answer with the word: ready' }],
      response_format: { type: 'json_schema', json_schema: { name: 'test', strict: true, schema } },
    };
    const called = await this.call(
      service,
      body,
      'test',
      { instructions: '', material: '', name: 'test', shape, maxTokensOut: 60 },
      AbortSignal.timeout(20_000),
    );
    if (called.kind === 'answered') await bookTest(this.ports.ground, { ...called, service: service.id, what: 'text' });
    const ms = this.ports.ground.now() - started;
    const tried = `Asked ${service.model || 'the service'} for one word`;
    if (called.kind === 'answered' && called.unusable === null)
      return [{ tried, came: 'It answers in the form asked for', well: true, change: null, ms }];
    if (called.kind === 'answered')
      return [
        {
          tried,
          came: `It answered, but ${called.unusable}`,
          well: false,
          change: 'Choose a model that can reply with JSON by a schema',
          ms,
        },
      ];
    const change: Partial<Record<typeof called.failure.code, string>> = {
      'key-refused': 'Paste a valid key.',
      'credit-used-up': 'Top the account up there.',
      'service-unreachable': 'Check the address; nothing answers there.',
      'address-refused': 'Correct the address, or allow this origin in GRIVO_ALLOWED_ORIGINS.',
      'service-refuses': 'Change the model by what it says.',
    };
    const { sentence } = wordsOf(called.failure, (id) => (id === service.id ? service.name : id));
    return [{ tried, came: sentence, well: false, change: change[called.failure.code] ?? 'Try again in a while.', ms }];
  }
}

function contentOf(body: Buffer): string | null {
  const parsed = jsonOf(body);
  if (!parsed.ok) return null;
  const completion = Completion.safeParse(parsed.value);
  const content = completion.data?.choices[0]?.message.content;
  if (content === undefined || content === null) return null;
  return withoutThoughts(typeof content === 'string' ? content : content.map((part) => part.text ?? '').join(''));
}

/** What a model thinks aloud before it answers is no answer. */
function withoutThoughts(content: string): string {
  const end = content.lastIndexOf('</think>');
  return end >= 0 && /^\s*<think>/.test(content) ? content.slice(end + '</think>'.length) : content;
}

/** What stands between the first two code fences, else all of it. */
function insideFence(content: string): string {
  const open = content.indexOf('```');
  const close = open < 0 ? -1 : content.indexOf('```', open + 3);
  return close < 0 ? content : content.slice(open + 3, close);
}

/** The value in a reply. JSON may stand in a code fence or behind a polite sentence: both are common and harmless. */
export function readReply<T>(
  body: Buffer,
  { shape, accept }: Pick<WritingRequest<T>, 'shape' | 'accept'>,
): { ok: true; value: T } | { ok: false; problem: string } {
  const content = contentOf(body);
  if (content === null) return { ok: false, problem: 'the reply is no chat completion' };
  if (content.length > LONGEST_TEXT) return { ok: false, problem: 'it is many times as long as was asked for' };
  const fenced = insideFence(content);
  const from = fenced.indexOf('{');
  const to = fenced.lastIndexOf('}');
  if (from < 0 || to < from) return { ok: false, problem: 'it holds no JSON' };
  const parsed = jsonOf(Buffer.from(fenced.slice(from, to + 1)));
  if (!parsed.ok) return { ok: false, problem: 'problem' in parsed ? parsed.problem : 'no JSON' };
  const fit = shape.safeParse(parsed.value);
  if (fit.success) {
    const problem = accept?.(fit.data) ?? null;
    return problem === null ? { ok: true, value: fit.data } : { ok: false, problem };
  }
  const issue = fit.error.issues[0];
  return { ok: false, problem: `${issue?.path.join('.') || 'the reply'}: ${issue?.message ?? 'does not fit'}` };
}
