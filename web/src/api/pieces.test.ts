import { afterEach, expect, test, vi } from 'vitest';
import { z } from 'zod';
import { Refused, Unreached } from './call.ts';
import { callInPieces } from './pieces.ts';

const text = z.object({ text: z.string() });

/** Answers with these chunks of an event stream, and hears them. */
async function hear(...chunks: string[]) {
  const bytes = new TextEncoder().encode(chunks.join(''));
  const parts = chunks.length > 1 ? [bytes.slice(0, 30), bytes.slice(30, 61), bytes.slice(61)] : [bytes];
  const body = new ReadableStream({
    start: (stream) => {
      for (const part of parts) stream.enqueue(part);
      stream.close();
    },
  });
  vi.stubGlobal('fetch', async (_: string, { headers }: RequestInit) => {
    expect(headers).toMatchObject({ accept: 'text/event-stream' });
    return new Response(body);
  });
  const pieces: string[] = [];
  const onPiece = (piece: { text: string }) => pieces.push(piece.text);
  const answer = await callInPieces('/x', { answer: text, piece: text, onPiece }).catch((error: unknown) => error);
  return { answer, pieces };
}
afterEach(() => vi.unstubAllGlobals());

const event = (name: string, data: unknown) => `event: ${name}\ndata: ${JSON.stringify(data)}\n\n`;

test('pieces are told as they come, cut anywhere, and the answer is what is given back', async () => {
  const all = [
    event('piece', { text: 'Sälz' }),
    event('piece', { text: 'Sälz und' }),
    event('answer', { text: 'whole' }),
  ];
  expect(await hear(...all)).toEqual({ pieces: ['Sälz', 'Sälz und'], answer: { text: 'whole' } });
});

test('what ends in a problem or in nothing is no answer', async () => {
  const problem = { type: 'about:blank', title: 'Not written', status: 502, detail: 'No.', mend: 'Wait.' };
  const refused = await hear(event('piece', { text: 'S' }), event('problem', problem));
  expect(refused.answer).toBeInstanceOf(Refused);
  expect((refused.answer as Refused).problem.detail).toBe('No.');
  expect((await hear(event('piece', { text: 'Salt' }))).answer).toBeInstanceOf(Unreached);
});
