import { Problem } from '@grivo/contract';
import { EventSourceParserStream } from 'eventsource-parser/stream';
import type { z } from 'zod';
import { type CallOptions, Refused, send, Unreached } from './call.ts';

export interface PieceOptions<T, P> extends CallOptions<T> {
  answer: z.ZodType<T>;
  /** What of the answer comes before it is whole. */
  piece: z.ZodType<P>;
  onPiece: (piece: P) => void;
}

/** Posts to the API and hears the answer while it is made. */
export async function callInPieces<T, P>(
  path: string,
  { answer, piece, onPiece, ...options }: PieceOptions<T, P>,
): Promise<T> {
  const response = await send('POST', path, { ...options, accept: 'text/event-stream' });
  const events = response.body!.pipeThrough(new TextDecoderStream()).pipeThrough(new EventSourceParserStream());
  const reader = events.getReader();
  for (;;) {
    const { value, done } = await reader.read().catch((error: unknown) => {
      if (error instanceof DOMException && error.name === 'AbortError') throw error;
      throw new Unreached('The line broke off.');
    });
    if (done) throw new Unreached('The line broke off.');
    const data: unknown = JSON.parse(value.data);
    if (value.event === 'answer') return answer.parse(data);
    if (value.event === 'problem') throw new Refused(Problem.parse(data));
    if (value.event === 'piece') onPiece(piece.parse(data));
  }
}
