import { createSession, type Session } from 'better-sse';
import type { NextFunction, Request, Response } from 'express';
import type { Logger } from 'pino';
import { problemOf } from './problem.ts';

/** Tells whoever asked of a part of the answer before the whole is there; of no use to those who did not ask for parts. */
export type Tell = (piece: unknown) => void;

/**
 * Makes an answer go out as server-sent events where whoever asks accepts those: `piece` as parts come, then `answer` with
 * what would have been the body, or `problem`. What fails before the first piece is a plain problem with its status.
 */
export function inPieces(request: Request, response: Response, next: NextFunction): void {
  if (request.accepts(['json', 'text/event-stream']) === 'text/event-stream') {
    const stream = new PieceStream(request, response);
    response.locals['pieces'] = stream;
    response.json = (body: unknown) => {
      stream.end('answer', body);
      return response;
    };
  }
  next();
}

/** How the handler of a request tells of pieces. */
export function tellerOf({ locals }: Response): Tell {
  const stream = locals['pieces'] as PieceStream | undefined;
  return (piece) => stream?.push('piece', piece);
}

/**
 * Ends an answer that had begun with the problem it met.
 * @returns whether it had begun; one that had not is answered as any other
 */
export function endsWithProblem(log: Logger, error: unknown, request: Request, response: Response): boolean {
  const stream = response.locals['pieces'] as PieceStream | undefined;
  if (!stream?.begun) return false;
  const problem = problemOf(error);
  if (problem.status >= 500) log.error({ err: error, path: request.baseUrl + request.path }, 'request failed');
  // Sent it cannot be any more; it tells those who keep answers that this is none.
  response.statusCode = problem.status;
  stream.end('problem', problem);
  return true;
}

class PieceStream {
  private session: Promise<Session> | null = null;

  constructor(
    private readonly request: Request,
    private readonly response: Response,
  ) {}

  get begun(): boolean {
    return this.session !== null;
  }

  push(event: string, data: unknown): void {
    this.session ??= createSession(this.request, this.response, {
      retry: null,
      keepAlive: null,
      trustClientEventId: false,
      headers: { 'cache-control': 'no-store' },
    });
    // Whoever went away misses it; the work goes on, and its answer is kept.
    void this.session.then((session) => session.isConnected && session.push(data, event)).catch(() => undefined);
  }

  end(event: 'answer' | 'problem', data: unknown): void {
    this.push(event, data);
    void this.session?.catch(() => undefined).then(() => this.response.end());
  }
}
