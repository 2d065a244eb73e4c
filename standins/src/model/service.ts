import { type Request, Router } from 'express';
import type { Journal } from '../control/journal.ts';
import type { Answer, Troubles } from '../control/trouble.ts';
import { draw } from '../pictures/draw.ts';
import { fill, type Schema, type Style } from './fill.ts';
import { readRequest } from './request.ts';
import { WORDING_ONE, WORDING_TWO } from './rewrite.ts';

/** A model service: how it writes, what it takes, and its habits on the wire. */
export interface ModelManner {
  style: Style;
  /** Micros for a thousand tokens in and out, and for a picture. */
  price: { in: number; out: number; picture: number };
  /** How a reply is wrapped. */
  wrap: (json: string) => unknown;
  reportsUsage: boolean;
  /** Whether it answers in pieces when asked to. */
  inPieces: boolean;
  palette: number;
}

/** Short statements as headings, lists, joined sentences; replies in pieces. */
export const MODEL_ONE: ModelManner = {
  style: {
    outline: { towards: 'many', headings: 'statements' },
    prose: { paragraph: 95, lists: true, joins: true, wording: WORDING_ONE, turns: 45 },
    points: 4,
  },
  price: { in: 400, out: 1_600, picture: 40_000 },
  wrap: (json) => json,
  reportsUsage: true,
  inPieces: true,
  palette: 0,
};

/** Things as headings, plain paragraphs, replies in a fence behind a polite line, content in parts, no usage reported. */
export const MODEL_TWO: ModelManner = {
  style: {
    outline: { towards: 'few', headings: 'things' },
    prose: { paragraph: 60, lists: false, joins: false, wording: WORDING_TWO, turns: 70 },
    points: 5,
  },
  price: { in: 900, out: 2_700, picture: 25_000 },
  wrap: (json) => [
    { type: 'text', text: 'Here it is, as you asked:\n\n' },
    { type: 'text', text: `\`\`\`json\n${json}\n\`\`\`` },
  ],
  reportsUsage: false,
  inPieces: false,
  palette: 3,
};

export interface ModelCall {
  at: string;
  service: string;
  what: 'text' | 'picture' | 'sound';
  /** The name of the shape asked for; empty for pictures. */
  name: string;
  tokensIn: number;
  tokensOut: number;
  micros: number;
}

interface ChatBody {
  model?: string;
  seed?: number;
  max_tokens?: number;
  stream?: boolean;
  stream_options?: { include_usage?: boolean };
  messages?: { role: string; content: string }[];
  response_format?: { json_schema?: { name?: string; schema?: Schema } };
}

/** Text and pictures by the widely used JSON, at `/v1/chat/completions` and `/v1/images/generations`. */
export function modelService(
  name: string,
  manner: ModelManner,
  key: string,
  troubles: Troubles,
  received: Journal<ModelCall>,
): Router {
  const router = Router();
  const refused = (request: Request): Answer | null =>
    request.header('authorization') === `Bearer ${key}`
      ? null
      : { status: 401, body: { error: { message: 'invalid key' } } };
  router.post(
    '/v1/chat/completions',
    troubles.around('writer', (request) => refused(request) ?? chat(name, manner, request.body as ChatBody, received)),
  );
  router.post(
    '/v1/images/generations',
    troubles.around(
      'illustrator',
      async (request) =>
        refused(request) ??
        picture(name, manner, request.body as { prompt?: string; seed?: number; size?: string }, received),
    ),
  );
  return router;
}

/** Letters of a piece of a reply. */
const PIECE = 120;

function chat(name: string, manner: ModelManner, body: ChatBody, received: Journal<ModelCall>): Answer {
  const messages = body.messages ?? [];
  if (messages.length === 0) return { status: 400, body: { error: { message: 'messages is empty' } } };
  const prompt = messages.map((message) => message.content).join('\n');
  const request = readRequest(messages, `${name}${prompt}${body.seed ?? 0}`);
  const schema = body.response_format?.json_schema?.schema ?? {
    type: 'object',
    properties: { answer: { type: 'string' } },
  };
  let json = JSON.stringify(fill(schema, request, manner.style));
  const tokensIn = Math.ceil(prompt.length / 4);
  let tokensOut = Math.ceil(json.length / 4);
  const most = body.max_tokens ?? 4_000;
  const whole = tokensOut <= most;
  if (!whole) {
    json = json.slice(0, most * 4);
    tokensOut = most;
  }
  received.add({
    at: new Date().toISOString(),
    service: name,
    what: 'text',
    name: body.response_format?.json_schema?.name ?? '',
    tokensIn,
    tokensOut,
    micros: Math.ceil((tokensIn * manner.price.in + tokensOut * manner.price.out) / 1_000),
  });
  const finish = whole ? 'stop' : 'length';
  const usage = { prompt_tokens: tokensIn, completion_tokens: tokensOut, total_tokens: tokensIn + tokensOut };
  const head = { object: 'chat.completion', model: body.model ?? name };
  const content = manner.wrap(json);
  const answer: Answer = {
    status: 200,
    body: {
      ...head,
      choices: [{ index: 0, message: { role: 'assistant', content }, finish_reason: finish }],
      ...(manner.reportsUsage ? { usage } : {}),
    },
  };
  if (!body.stream || !manner.inPieces || typeof content !== 'string') return answer;
  const piece = (delta: object, reason: string | null) =>
    JSON.stringify({ ...head, object: 'chat.completion.chunk', choices: [{ index: 0, delta, finish_reason: reason }] });
  const pieces = [piece({ role: 'assistant', content: '' }, null)];
  for (let at = 0; at < content.length; at += PIECE)
    pieces.push(piece({ content: content.slice(at, at + PIECE) }, null));
  pieces.push(piece({}, finish));
  if (manner.reportsUsage && body.stream_options?.include_usage)
    pieces.push(JSON.stringify({ ...head, object: 'chat.completion.chunk', choices: [], usage }));
  return { ...answer, pieces: [...pieces, '[DONE]'] };
}

async function picture(
  name: string,
  manner: ModelManner,
  body: { prompt?: string; seed?: number; size?: string },
  received: Journal<ModelCall>,
): Promise<Answer> {
  const [width, height] = (body.size ?? '1024x1024').split('x').map(Number);
  const png = await draw(
    body.prompt ?? '',
    `${name}${body.seed ?? 0}`,
    width ?? 1_024,
    height ?? 1_024,
    manner.palette,
  );
  received.add({
    at: new Date().toISOString(),
    service: name,
    what: 'picture',
    name: '',
    tokensIn: 0,
    tokensOut: 0,
    micros: manner.price.picture,
  });
  return { status: 200, body: { created: 0, data: [{ b64_json: png.toString('base64') }] } };
}
