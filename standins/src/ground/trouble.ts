import type { NextFunction, Request, Response } from 'express';

/** Ways a service can misbehave. `cut after` and `hang after` have acted; the others have not. */
export type Trouble =
  | { how: 'delay'; ms: number }
  | { how: 'busy'; retryAfterSeconds: number }
  | { how: 'broken' }
  | { how: 'hang' }
  | { how: 'hang after' }
  | { how: 'cut before' }
  | { how: 'cut after' }
  /** Acts, and breaks off in the middle of an answer that goes out in pieces. */
  | { how: 'cut within' }
  /** Takes so long between the pieces of an answer. */
  | { how: 'slowly'; ms: number }
  /** Acts, then answers that what came of it is to be read elsewhere. */
  | { how: 'sent elsewhere' }
  | { how: 'malformed' }
  /** Words where figures were asked for. */
  | { how: 'no figure' }
  | { how: 'credit used up' }
  | { how: 'key refused' }
  /** Says no to what was asked, and will say so again. */
  | { how: 'refuse' }
  | { how: 'page without text' };

export type ServiceName =
  | 'writer'
  | 'illustrator'
  | 'look-up'
  | 'blog'
  | 'web'
  | 'inbox'
  | 'videos'
  | 'sheets'
  | 'keywords'
  | 'feeds'
  | 'transcriber'
  | 'libraries';

interface Order {
  at: ServiceName;
  trouble: Trouble;
  /** How many more calls it applies to. */
  times: number;
  /** Only calls whose method and path, as ‘POST /sheets/stock’, end with this. */
  path?: string;
  /** Only calls that hold this text. */
  holding?: string;
}

/** Called around every call, by name: `writer.received`, `writer.acted`, `blog.received`, … Lets a harness act at named points. */
export type Watch = (point: string, detail: { path: string }) => void | Promise<void>;

/** What each service was ordered to do wrong, and how its handlers obey. */
export class Troubles {
  private orders: Order[] = [];
  watch: Watch = () => undefined;
  /** How many calls met trouble. */
  met = 0;

  order(order: Order): void {
    this.orders.push(order);
  }

  clear(): void {
    this.orders = [];
  }

  private next(at: ServiceName, { method, path, body }: Pick<Request, 'method' | 'path' | 'body'>): Trouble | null {
    const order = this.orders.find(
      (o) =>
        o.at === at &&
        o.times > 0 &&
        (o.path === undefined || `${method} ${path}`.endsWith(o.path)) &&
        (o.holding === undefined || JSON.stringify(body ?? '').includes(o.holding)),
    );
    if (!order) return null;
    order.times--;
    this.met++;
    return order.trouble;
  }

  /**
   * Wraps the handler of one kind of call. The handler acts and returns how to answer; the answer is held back, mangled or
   * cut as ordered.
   */
  around(at: ServiceName, act: (request: Request) => Promise<Answer> | Answer) {
    return (request: Request, response: Response, next: NextFunction): void => {
      this.obey(at, request, response, act).catch(next);
    };
  }

  private async obey(
    at: ServiceName,
    request: Request,
    response: Response,
    act: (request: Request) => Promise<Answer> | Answer,
  ): Promise<void> {
    const trouble = this.next(at, request);
    await this.watch(`${at}.received`, { path: request.path });
    if (trouble?.how === 'delay') await new Promise((resolve) => setTimeout(resolve, trouble.ms));
    if (trouble?.how === 'hang') return;
    if (trouble?.how === 'cut before') return void request.socket.destroy();
    const refusal = trouble ? refusalFor(trouble) : null;
    if (refusal) return send(response, refusal);
    const answer = await act(request);
    await this.watch(`${at}.acted`, { path: request.path });
    if (trouble?.how === 'hang after') return;
    if (trouble?.how === 'cut after') return void request.socket.destroy();
    if (trouble?.how === 'sent elsewhere') return void response.redirect(302, request.path);
    if (trouble?.how === 'malformed')
      return send(response, { status: 200, body: '{"choices": [{"message": {"content": "Here is what you asked f' });
    if (trouble?.how === 'no figure')
      return send(response, {
        ...answer,
        type: 'application/json',
        body: JSON.stringify(answer.body).replace(/(\\*")(score|answer)\1:\s*-?[\d.]+/g, '$1$2$1:$1rather good$1'),
      });
    if (trouble?.how === 'page without text')
      return send(response, {
        status: 200,
        type: 'text/html',
        body: '<!doctype html><title>Nothing</title><nav>Menu</nav>',
      });
    if (answer.pieces) {
      const pause = trouble?.how === 'slowly' ? trouble.ms : 0;
      return sendPieces(response, answer.pieces, pause, trouble?.how === 'cut within');
    }
    send(response, answer);
  }
}

export interface Answer {
  status: number;
  headers?: Record<string, string>;
  type?: string;
  body: string | Buffer | object;
  /** Sent one after the other as server-sent events, in the place of the body. */
  pieces?: string[];
}

function refusalFor(trouble: Trouble): Answer | null {
  switch (trouble.how) {
    case 'busy':
      return {
        status: 429,
        headers: { 'retry-after': String(trouble.retryAfterSeconds) },
        body: {
          error: { message: 'too many requests', type: 'rate_limit_error', param: null, code: 'rate_limit_exceeded' },
        },
      };
    case 'broken':
      return {
        status: 500,
        body: { error: { message: 'internal error', type: 'server_error', param: null, code: null } },
      };
    case 'credit used up':
      return {
        status: 402,
        body: {
          error: {
            message: 'insufficient credit',
            type: 'insufficient_quota',
            param: null,
            code: 'insufficient_quota',
          },
        },
      };
    case 'refuse':
      return {
        status: 422,
        body: { error: { message: 'this cannot be done', type: 'invalid_request_error', param: null, code: null } },
      };
    case 'key refused':
      return {
        status: 401,
        body: {
          error: { message: 'invalid key', type: 'invalid_request_error', param: null, code: 'invalid_api_key' },
        },
      };
    default:
      return null;
  }
}

async function sendPieces(response: Response, pieces: readonly string[], pause: number, cut: boolean): Promise<void> {
  response.status(200).type('text/event-stream');
  for (const [n, piece] of pieces.entries()) {
    if (response.destroyed) return;
    if (cut && n >= pieces.length / 2) return void response.destroy();
    response.write(`data: ${piece}\n\n`);
    await new Promise((resolve) => (pause > 0 ? setTimeout(resolve, pause) : setImmediate(resolve)));
  }
  response.end();
}

export function send(response: Response, answer: Answer): void {
  if (response.destroyed) return;
  response.status(answer.status);
  for (const [name, value] of Object.entries(answer.headers ?? {})) response.setHeader(name, value);
  if (answer.type) response.type(answer.type);
  if (typeof answer.body === 'string' || Buffer.isBuffer(answer.body)) response.send(answer.body);
  else response.json(answer.body);
}
