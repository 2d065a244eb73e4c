import { type Failure, textCeiling, textCost, tokensCeiling, visibleText, wordsOf } from '@grivo/core';
import { z } from 'zod';
import type { Secrets } from '../../ground/config/secrets.ts';
import type { Ground } from '../../ground/ground.ts';
import type { Call, Network, Reply } from '../../ground/network/network.ts';
import type { ReadingRoom } from '../../ground/reading/room.ts';
import { ask, type Called } from '../answers/ask.ts';
import { bookTest } from '../answers/booking.ts';
import type { ServiceRow } from '../services/entity.ts';
import { Gathering, gathered } from './gathered.ts';
import { paidCall } from './paidCall.ts';
import { good, jsonOf, type Result, type TestLine } from './port.ts';
import { WriterForms } from './writerForms.ts';
import { Completion, contentOf, type ReadReply, readReply, type Wanted } from './writerReply.ts';

/** A reply in pieces is many times as long as its text. */
const MOST_REPLY = 4_000_000;
/** How much more room a reply gets that was cut short, and the most there is. */
const MORE_ROOM = 3;
const MOST_ROOM = 16_000;
/** How often what is written so far is told, and up to which length: nobody watches a longer text being written. */
const FOLLOWED_MS = 50;
const LONGEST_FOLLOWED = 60_000;

/** What the writer is asked: two texts, and the shape the reply must have. */
export interface WritingRequest<T> extends Wanted<T> {
  instructions: string;
  material: string;
  /** Name of the shape, for services that want one. */
  name: string;
  maxTokensOut: number;
}

export interface WriterPorts {
  ground: Ground;
  network: Network;
  secrets: Secrets;
  reader: ReadingRoom;
}

interface Asker {
  holder: string;
  stepRun: string;
  draw: number;
  signal: AbortSignal;
  /** Told of what the service has written so far, where it answers in pieces: JSON that has not come to its end. */
  heard?: (soFar: string) => void;
}

/** One question as it is put. */
interface Posed<T> extends Pick<Asker, 'signal' | 'heard'> {
  prompt: string;
  request: WritingRequest<T>;
  /** Whether it is not asked again. */
  last: boolean;
}

const isInPieces = ({ headers }: Pick<Reply, 'headers'>) =>
  headers['content-type']?.startsWith('text/event-stream') ?? false;

/** Hands on what is written so far, no more often than eyes can follow, for each time the question is put anew. */
function listening(heard: (soFar: string) => void): () => Call['onPart'] & object {
  return () => {
    const gathering = new Gathering();
    let told = 0;
    return (part, reply) => {
      if (reply.status !== 200 || !isInPieces(reply)) return;
      gathering.feed(part);
      const { content } = gathering;
      if (content === '' || content.length > LONGEST_FOLLOWED || performance.now() - told < FOLLOWED_MS) return;
      told = performance.now();
      try {
        heard(content);
      } catch {
        // Who listens may fail; the reply is paid for and goes on.
      }
    };
  };
}

/**
 * A writer reached by the widely used chat-completions JSON: POST {address}/chat/completions with `model`, `messages`,
 * `max_tokens` and `response_format` of type `json_schema`; the reply holds `choices[0].message.content` and `usage`, at
 * once or in pieces. A service that knows no schemas is told the shape in words, and one that does not know a part of the
 * request is asked without it.
 */
export class Writer {
  private readonly forms = new WriterForms();

  constructor(private readonly ports: WriterPorts) {}

  /**
   * Asks for a reply of a given shape. One that was cut short is asked for again with more room; one that does not fit is
   * sent back once with all that is wrong, and of the second what can be used is taken. All are paid for; only what is
   * used is kept.
   */
  async write<T>(
    service: ServiceRow,
    request: WritingRequest<T>,
    asker: Asker,
  ): Promise<Result<{ value: T; micros: number }>> {
    const messages = [
      { role: 'system', content: request.instructions },
      { role: 'user', content: request.material },
    ];
    let asked = request;
    let first = await this.once(service, asked, messages, asker, false);
    if (unusable(first, request)?.cut) {
      asked = { ...request, maxTokensOut: Math.min(request.maxTokensOut * MORE_ROOM, MOST_ROOM) };
      first = await this.once(service, asked, messages, asker, false);
    }
    if (first.ok) return good({ value: first.value, micros: first.micros });
    const wrong = unusable(first, request);
    if (!wrong) return first;
    if (wrong.declined) return { ok: false, failure: { code: 'declined', service: service.id, said: wrong.declined } };
    const repair = [
      ...messages,
      { role: 'assistant', content: contentOf(first.unusable!)?.slice(0, 20_000) ?? '' },
      {
        role: 'user',
        content: `That reply cannot be used: ${wrong.problem}. Reply again with JSON of the shape asked for and nothing else.`,
      },
    ];
    const second = await this.once(service, asked, repair, asker, true);
    return second.ok ? good({ value: second.value, micros: second.micros }) : second;
  }

  private async once<T>(
    service: ServiceRow,
    request: WritingRequest<T>,
    messages: { role: string; content: string }[],
    asker: Asker,
    last: boolean,
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
      call: () => this.call(service, body, { prompt, request, last, ...asker }),
    });
    if (!answered.ok) return answered;
    const read = readReply(answered.body, request, last);
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
    body: Parameters<WriterForms['shaped']>[1],
    { prompt, request, last, signal, heard }: Posed<T>,
  ): Promise<Called> {
    const onPart = heard && listening(heard);
    const post = () =>
      paidCall(this.ports, service, {
        path: 'chat/completions',
        body: this.forms.shaped(service.id, body),
        action: 'write',
        inPieces: true,
        maxBytes: MOST_REPLY,
        ...(onPart ? { onPart: onPart() } : {}),
        signal,
      });
    let called = await post();
    while (called.kind === 'failed' && this.forms.learn(service.id, called.failure, called.said)) called = await post();
    if (called.kind === 'failed') return called;
    const { reply } = called;
    const came = isInPieces(reply) ? gathered(reply.body) : null;
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
    const read = came && !came.ok ? came : readReply(whole, request, last);
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
    const called = await this.call(service, body, {
      prompt: 'test',
      request: { instructions: '', material: '', name: 'test', shape, maxTokensOut: 60 },
      last: true,
      signal: AbortSignal.timeout(20_000),
    });
    if (called.kind === 'answered') await bookTest(this.ports.ground, { ...called, service: service.id, what: 'text' });
    const ms = this.ports.ground.now() - started;
    const tried = `Asked ${service.model || 'the service'} for one word`;
    if (called.kind === 'answered' && called.unusable === null)
      return [{ tried, came: CAME[this.forms.form(service.id)], well: true, change: null, ms }];
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

const CAME = {
  schema: 'It answers in the form asked for',
  object: 'It answers in the form asked for; it knows no schemas, so it is told the form in words',
  words: 'It answers in the form asked for; it is told the form in words alone',
};

/** What is wrong with a reply that came and cannot be used; null where none came. */
function unusable<T>(answered: Once, wanted: WritingRequest<T>): Extract<ReadReply<T>, { ok: false }> | null {
  if (answered.ok || answered.failure.code !== 'reply-unusable' || !answered.unusable) return null;
  const read = readReply(answered.unusable, wanted);
  return read.ok ? { ok: false, problem: answered.failure.problem } : { ...read, problem: answered.failure.problem };
}

type Once = { ok: true } | { ok: false; failure: Failure; unusable?: Buffer };
