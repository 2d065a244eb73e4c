import { z } from 'zod';

const Piece = z.object({
  choices: z
    .array(
      z.object({
        delta: z.object({ content: z.string().nullish(), refusal: z.string().nullish() }).optional(),
        finish_reason: z.string().nullish(),
      }),
    )
    .default([]),
  usage: z.object({ prompt_tokens: z.number(), completion_tokens: z.number() }).nullish(),
  error: z.object({ message: z.string().default('') }).optional(),
});

export type Gathered = { ok: true; completion: object } | { ok: false; problem: string };

/**
 * A reply that came piece by piece (server-sent events of the widely used chat completions: `data: {…}` a piece, `data:
 * [DONE]` at the end) as the reply that would have come at once.
 */
export function gathered(body: Buffer): Gathered {
  let content = '';
  let refusal = '';
  let finish: string | null = null;
  let usage: z.infer<typeof Piece>['usage'] = null;
  let done = false;
  // Events end with an empty line; a piece may stand on several lines (HTML Living Standard, 9.2.6).
  for (const event of body.toString('utf8').split(/\r?\n\r?\n/)) {
    const data = event
      .split(/\r?\n/)
      .flatMap((line) => (line.startsWith('data:') ? [line.slice(5).trimStart()] : []))
      .join('\n');
    if (data === '') continue;
    if (data === '[DONE]') {
      done = true;
      break;
    }
    const piece = read(data);
    if (!piece) return { ok: false, problem: 'a piece of it cannot be read' };
    if (piece.error) return { ok: false, problem: `it broke off: ${piece.error.message || 'no reason given'}` };
    content += piece.choices[0]?.delta?.content ?? '';
    refusal += piece.choices[0]?.delta?.refusal ?? '';
    finish = piece.choices[0]?.finish_reason ?? finish;
    usage = piece.usage ?? usage;
  }
  // Some end without the last word, but none that came to its end leaves out how it ended.
  if (!done && finish === null) return { ok: false, problem: 'it ends in the middle' };
  const choice = {
    index: 0,
    message: { role: 'assistant', content, ...(refusal === '' ? {} : { refusal }) },
    finish_reason: finish,
  };
  return { ok: true, completion: { choices: [choice], ...(usage ? { usage } : {}) } };
}

function read(data: string): z.infer<typeof Piece> | null {
  try {
    return Piece.safeParse(JSON.parse(data)).data ?? null;
  } catch {
    return null;
  }
}
