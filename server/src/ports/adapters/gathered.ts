import { createParser } from 'eventsource-parser';
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
 * A reply that comes piece by piece (server-sent events of the widely used chat completions: `data: {…}` a piece, `data:
 * [DONE]` at the end).
 */
export class Gathering {
  private readonly came: Came = { content: '', refusal: '', finish: null, usage: null, done: false, problem: null };
  private readonly parser = createParser({ onEvent: ({ data }) => take(this.came, data) });
  // A letter may be cut between two pieces.
  private readonly letters = new TextDecoder();

  feed(part: Buffer): void {
    this.parser.feed(this.letters.decode(part, { stream: true }));
  }

  /** What the model has written so far. */
  get content(): string {
    return this.came.content;
  }

  /** The reply that would have come at once. */
  end(): Gathered {
    // The last event may lack its empty line.
    this.parser.feed(`${this.letters.decode()}\n\n`);
    return whole(this.came);
  }
}

/** The whole of a reply that came in pieces. */
export function gathered(body: Buffer): Gathered {
  const gathering = new Gathering();
  gathering.feed(body);
  return gathering.end();
}

function whole(came: Came): Gathered {
  if (came.problem !== null) return { ok: false, problem: came.problem };
  const { content, refusal, finish, usage, done } = came;
  // Some end without the last word, but none that came to its end leaves out how it ended.
  if (!done && finish === null) return { ok: false, problem: 'it ends in the middle' };
  const choice = {
    index: 0,
    message: { role: 'assistant', content, ...(refusal === '' ? {} : { refusal }) },
    finish_reason: finish,
  };
  return { ok: true, completion: { choices: [choice], ...(usage ? { usage } : {}) } };
}

/** What has come so far. */
interface Came {
  content: string;
  refusal: string;
  finish: string | null;
  usage: z.infer<typeof Piece>['usage'];
  done: boolean;
  problem: string | null;
}

function take(came: Came, data: string): void {
  if (came.done || came.problem !== null || data.trim() === '') return;
  if (data.trim() === '[DONE]') {
    came.done = true;
    return;
  }
  const piece = read(data);
  if (!piece) came.problem = 'a piece of it cannot be read';
  else if (piece.error) came.problem = `it broke off: ${piece.error.message || 'no reason given'}`;
  else {
    const [choice] = piece.choices;
    came.content += choice?.delta?.content ?? '';
    came.refusal += choice?.delta?.refusal ?? '';
    came.finish = choice?.finish_reason ?? came.finish;
    came.usage = piece.usage ?? came.usage;
  }
}

function read(data: string): z.infer<typeof Piece> | null {
  try {
    return Piece.safeParse(JSON.parse(data)).data ?? null;
  } catch {
    return null;
  }
}
