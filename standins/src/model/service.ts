import { createHash } from 'node:crypto';
import { type Request, Router } from 'express';
import type { Journal } from '../ground/journal.ts';
import { invalidKey, type ModelCall, modelError } from '../ground/modelWire.ts';
import type { Answer, Troubles } from '../ground/trouble.ts';
import { draw } from '../pictures/draw.ts';
import { fill, type Schema, type Style } from './fill.ts';
import type { SentenceMemory } from './phrasings.ts';
import { readRequest } from './request.ts';
import { WORDING_ONE, WORDING_TWO } from './rewrite.ts';

/** A model service: how it writes, what it takes, and its habits on the wire. */
export interface ModelManner {
  style: Style;
  /** Micros for a thousand tokens in and out, and for a picture. */
  price: { in: number; out: number; picture: number };
  /** How a reply is wrapped. */
  wrap: (json: string) => string;
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

/** Things as headings, plain paragraphs, replies in a fence behind a polite line, no usage reported. */
export const MODEL_TWO: ModelManner = {
  style: {
    outline: { towards: 'few', headings: 'things' },
    prose: { paragraph: 60, lists: false, joins: false, wording: WORDING_TWO, turns: 70 },
    points: 5,
  },
  price: { in: 900, out: 2_700, picture: 25_000 },
  wrap: (json) => `Here it is, as you asked:\n\n\`\`\`json\n${json}\n\`\`\``,
  reportsUsage: false,
  inPieces: false,
  palette: 3,
};

interface ChatBody {
  model?: string;
  seed?: number;
  n?: number;
  max_tokens?: number;
  /** The newer name of the same. */
  max_completion_tokens?: number;
  stream?: boolean;
  stream_options?: { include_usage?: boolean };
  messages?: { role: string; content: string }[];
  response_format?: { type?: string; json_schema?: { name?: string; schema?: Schema } };
}

interface PictureBody {
  prompt?: string;
  seed?: number;
  size?: string;
  n?: number;
  response_format?: string;
}

/** What services of one house share. */
export interface ModelHouse {
  troubles: Troubles;
  received: Journal<ModelCall>;
  /** Of all its writers: none says what another said. */
  memory: SentenceMemory;
}

/** Text and pictures by the widely used JSON, at `/v1/chat/completions`, `/v1/images/generations` and `/v1/models`. */
export function modelService(name: string, manner: ModelManner, key: string, house: ModelHouse): Router {
  const { troubles, received } = house;
  const router = Router();
  const refused = (request: Request): Answer | null =>
    request.header('authorization') === `Bearer ${key}` ? null : invalidKey();
  const models = [`stand-in-${name}`].map((id) => ({
    id,
    object: 'model',
    created: 1_735_689_600,
    owned_by: 'stand-ins',
  }));
  router.get(
    '/v1/models',
    troubles.around('writer', (request) => refused(request) ?? { status: 200, body: { object: 'list', data: models } }),
  );
  router.post(
    '/v1/chat/completions',
    troubles.around('writer', (request) => refused(request) ?? chat(name, manner, request.body as ChatBody, house)),
  );
  router.post(
    '/v1/images/generations',
    troubles.around(
      'illustrator',
      async (request) => refused(request) ?? picture(name, manner, request.body as PictureBody, received),
    ),
  );
  return router;
}

/** Letters of a piece of a reply. */
const PIECE = 120;

/** Choices asked for at once. */
const MOST_CHOICES = 8;

function unfitChat(body: ChatBody): Answer | null {
  const { messages, n = 1, response_format: format } = body;
  const most = body.max_completion_tokens ?? body.max_tokens ?? 1;
  if (!Array.isArray(messages) || messages.length === 0)
    return modelError(400, 'messages is empty', { param: 'messages' });
  if (!Number.isInteger(n) || n < 1 || n > MOST_CHOICES)
    return modelError(400, `n is a number from 1 to ${MOST_CHOICES}`, { param: 'n' });
  if (!Number.isInteger(most) || most < 1)
    return modelError(400, 'the most tokens are a number from 1', { param: 'max_completion_tokens' });
  if (format?.type !== undefined && !['text', 'json_object', 'json_schema'].includes(format.type))
    return modelError(400, `there is no response_format ${format.type}`, { param: 'response_format' });
  return null;
}

function chat(
  name: string,
  manner: ModelManner,
  body: ChatBody,
  { received, memory }: Pick<ModelHouse, 'received' | 'memory'>,
): Answer {
  const unfit = unfitChat(body);
  if (unfit) return unfit;
  const messages = body.messages!;
  const prompt = messages.map((message) => message.content).join('\n');
  const schema = body.response_format?.json_schema?.schema ?? {
    type: 'object',
    properties: { answer: { type: 'string' } },
  };
  const most = body.max_completion_tokens ?? body.max_tokens ?? 4_000;
  const choices = Array.from({ length: body.n ?? 1 }, (_, i) => {
    const request = readRequest(messages, `${name}${prompt}${(body.seed ?? 0) + i}`, (...of) => memory.say(...of));
    const json = JSON.stringify(fill(schema, request, manner.style));
    const tokens = Math.ceil(json.length / 4);
    return tokens <= most
      ? { content: manner.wrap(json), tokens, finish: 'stop' }
      : { content: manner.wrap(json.slice(0, most * 4)), tokens: most, finish: 'length' };
  });
  const tokensIn = Math.ceil(prompt.length / 4);
  const tokensOut = choices.reduce((sum, { tokens }) => sum + tokens, 0);
  received.add({
    at: new Date().toISOString(),
    service: name,
    what: 'text',
    name: body.response_format?.json_schema?.name ?? '',
    tokensIn,
    tokensOut,
    micros: Math.ceil((tokensIn * manner.price.in + tokensOut * manner.price.out) / 1_000),
  });
  const usage = { prompt_tokens: tokensIn, completion_tokens: tokensOut, total_tokens: tokensIn + tokensOut };
  const head = {
    id: `chatcmpl-${createHash('sha256').update(JSON.stringify(body)).digest('hex').slice(0, 24)}`,
    object: 'chat.completion',
    created: Math.floor(Date.now() / 1_000),
    model: body.model ?? `stand-in-${name}`,
  };
  const answer: Answer = {
    status: 200,
    body: {
      ...head,
      choices: choices.map(({ content, finish }, index) => ({
        index,
        message: { role: 'assistant', content },
        finish_reason: finish,
      })),
      ...(manner.reportsUsage ? { usage } : {}),
    },
  };
  if (!body.stream || !manner.inPieces) return answer;
  const withUsage = manner.reportsUsage && body.stream_options?.include_usage;
  return { ...answer, pieces: piecesOf(choices, head, withUsage ? usage : null) };
}

/** A reply as it goes out piece by piece. */
function piecesOf(
  choices: readonly { content: string; finish: string }[],
  head: object,
  usage: object | null,
): string[] {
  const chunk = (parts: object[]) => ({ ...head, object: 'chat.completion.chunk', choices: parts });
  const pieces = choices.flatMap(({ content, finish }, index) => {
    const piece = (delta: object, reason: string | null) =>
      JSON.stringify(chunk([{ index, delta, finish_reason: reason }]));
    const texts = Array.from({ length: Math.ceil(content.length / PIECE) }, (_, i) =>
      piece({ content: content.slice(i * PIECE, (i + 1) * PIECE) }, null),
    );
    return [piece({ role: 'assistant', content: '' }, null), ...texts, piece({}, finish)];
  });
  return [...pieces, ...(usage ? [JSON.stringify({ ...chunk([]), usage })] : []), '[DONE]'];
}

/** Pictures asked for at once, and the longest side of one. */
const MOST_PICTURES = 4;
const LONGEST_SIDE = 2_048;

async function picture(
  name: string,
  manner: ModelManner,
  body: PictureBody,
  received: Journal<ModelCall>,
): Promise<Answer> {
  const { prompt, n = 1, size = '1024x1024', response_format: format = 'b64_json' } = body;
  const sides = /^(\d{2,4})x(\d{2,4})$/.exec(size)?.slice(1).map(Number);
  if (typeof prompt !== 'string' || prompt === '') return modelError(400, 'prompt is empty', { param: 'prompt' });
  if (!Number.isInteger(n) || n < 1 || n > MOST_PICTURES)
    return modelError(400, `n is a number from 1 to ${MOST_PICTURES}`, { param: 'n' });
  if (!sides || sides.some((side) => side > LONGEST_SIDE))
    return modelError(400, `size is as 1024x1024, up to ${LONGEST_SIDE} a side`, { param: 'size' });
  if (format !== 'b64_json')
    return modelError(400, 'pictures are answered as b64_json alone', { param: 'response_format' });
  const drawn = await Promise.all(
    Array.from({ length: n }, (_, i) =>
      draw(prompt, `${name}${(body.seed ?? 0) + i}`, sides[0]!, sides[1]!, manner.palette),
    ),
  );
  received.add({
    at: new Date().toISOString(),
    service: name,
    what: 'picture',
    name: '',
    tokensIn: 0,
    tokensOut: 0,
    micros: manner.price.picture * n,
  });
  return {
    status: 200,
    body: {
      created: Math.floor(Date.now() / 1_000),
      // What was drawn in the end, as such services say it.
      data: drawn.map(({ png, shows }) => ({ b64_json: png.toString('base64'), revised_prompt: shows })),
    },
  };
}
